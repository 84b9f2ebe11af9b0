export { allergensOf, isSulphited } from './allergens'
export { constantTrays, type TrayRound } from './constantTrays'
export { doubtOfWeight } from './doubt'
export {
  assess,
  assessRack,
  assessTrays,
  dryingRunOf,
  estimateOfRun,
  readJarAir,
  type AssessedTray,
  type Assessment,
  type FinishWindow,
  type StandingTray,
} from './assess'
export { heatHours } from './heatHours'
export { hotSpellOf, type HotSpell } from './hotSpell'
export { lessonsOf, type Lesson } from './lessons'
export { followTrays, placesAfter } from './places'
export { outlineOf, type RunOutline } from './outline'
export { productMoisture, saltShareOf, sieveReached, type ProductMoisture } from './product'
export { isDamp, restDays, worstLook } from './rest'
export { checkEntry, checkWeighIns, type RuleContext } from './rules'
export { foldBatch } from './state'
export { holdLimit } from './hold'
export { usualHoursFactor } from './usualHours'
export { unusualOf, type Unusual } from './unusual'
