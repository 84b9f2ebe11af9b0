export * from './answers'
export { newBatch, newEntry, newHeat, type NewBatch, type NewEntry, type NewHeat } from './entries'
export { findQuery, forecastQuestion, householdSettings, listQuery, machineSettings, type HouseholdSettings, type MachineSettings } from './settings'
