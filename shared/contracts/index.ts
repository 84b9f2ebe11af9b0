export * from './answers'
export { newBatch, newEntry, newRunEntry, type NewBatch, type NewEntry, type NewRunEntry } from './entries'
export { findQuery, forecastQuestion, householdSettings, hygrometerSettings, listQuery, machineSettings, type HouseholdSettings, type HygrometerSettings, type MachineSettings } from './settings'
