export { problemsOfIssues } from './issues'
export * from './answers'
export { alarmChoice, alarmTrial, type AlarmChoice, type AlarmsAnswer, type AlarmTold } from './alarms'
export {
  newBatch,
  newEntry,
  newRunEntry,
  newJarEntry,
  newTogether,
  type NewTogether,
  type NewJarEntry,
  type NewBatch,
  type NewEntry,
  type NewRunEntry,
} from './entries'
export {
  boughtInQuestion,
  foodWish,
  insightQuery,
  labelQuery,
  learnedQuery,
  numberQuery,
  sheetQuery,
  trialQuery,
  todoCleared,
  toolSettings,
  type FoodWish,
  type TodoCleared,
  type ToolSettings,
  compareQuery,
  findQuery,
  forecastQuestion,
  householdChange,
  householdSettings,
  hygrometerSettings,
  listQuery,
  machineSettings,
  upkeepDone,
  type HouseholdChange,
  type HouseholdSettings,
  type HygrometerSettings,
  type MachineSettings,
  type UpkeepDone,
} from './settings'
export * from './foods'
export * from './readings'
export * from './recipes'
export * from './data'
export * from './home'
export * from './plan'
export * from './practice'
export { EXPORT_TABLES } from '../choices'
