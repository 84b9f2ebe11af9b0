export * from './answers'
export { newBatch, newEntry, newRunEntry, type NewBatch, type NewEntry, type NewRunEntry } from './entries'
export { findQuery, forecastQuestion, householdSettings, listQuery, machineSettings, type HouseholdSettings, type MachineSettings } from './settings'
