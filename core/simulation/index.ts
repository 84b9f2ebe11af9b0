export { dryTray, waterActivityOf, type SlabSettings, type TraySimulation } from './slab'
export { simulateRun, type RunSettings, type SimulatedRun } from './run'
