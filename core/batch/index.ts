export { afterRun, type AfterRun } from './afterRun'
export { allergensOf, isSulphited } from './allergens'
export { constantTrays, ROUND_H, type TrayRound } from './constantTrays'
export { cycleMate, iceOf, withMates, type CycleMate } from './cycle'
export { coolInside, dangerZoneOf, type CoolInside, type DangerZone } from './dangerZone'
export { doubtOfWeight } from './doubt'
export {
  assess,
  assessRack,
  assessRacks,
  assessTrays,
  type AssessedTray,
  type Assessment,
  type FinishWindow,
  type StandingTray,
} from './assess'
export { betweenGrindings, formMade, formPacked, grindsAgain, packableForms, toGrindG, toPackG, type GroundForm } from './dryFood'
export { heatHours } from './heatHours'
export { hotSpellOf, type HotSpell } from './hotSpell'
export { lessonsOf, type Lesson } from './lessons'
export { followTrays, placesAfter } from './places'
export {
  damperOf,
  partOf,
  remainderAt,
  togetherOf,
  type CupShare,
  type DoubtfulWeight,
  type PartAsked,
  type PartOfBatch,
  type Remainder,
} from './parts'
export { outlineOf, type RunOutline } from './outline'
export { isRaw, keepsOf, productOf, saltShareOf, sieveReached } from './product'
export { isDamp, restDays, restNeeded, worstLook } from './rest'
export { checkEntry, checkWeighIns, type RuleContext } from './rules'
export { foldBatch } from './state'
export { holdLimit, spentAt, waitingAs } from './hold'
export { taughtBy, USUAL_RECOVERY, type Taught } from './taught'
export { balanceOnTrays, stepsAhead, trimmedBasket } from './prepLedger'
export { unusualOf, type Unusual } from './unusual'
