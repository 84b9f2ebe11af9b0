export * from './answers'
export { newBatch, newEntry, newRunEntry, type NewBatch, type NewEntry, type NewRunEntry } from './entries'
export { compareQuery, findQuery, forecastQuestion, householdSettings, hygrometerSettings, listQuery, machineSettings, upkeepDone, type HouseholdSettings, type HygrometerSettings, type MachineSettings, type UpkeepDone } from './settings'
export * from './readings'
