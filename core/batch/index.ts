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
export { inForce, ofKind, withStanding, type LoggedEntry } from './effective'
export { hotSpellOf, type HotSpell } from './hotSpell'
export { lessonsOf, type Lesson } from './lessons'
export { followTrays, placesAfter, type TrayPlaces } from './places'
export { outlineOf, type RunOutline } from './outline'
export { checkEnvelope } from './envelope'
export { productMoisture, saltShareOf, sieveReached, type ProductMoisture } from './product'
export { isDamp, restDays, worstLook, type RestingJar, type RestState } from './rest'
export { checkEntry, checkWeighIns, type RuleContext } from './rules'
export { foldBatch, type BatchState, type JarState, type RunState } from './state'
export { HOLD_PLACES, holdLimit, holdOf, type Hold, type HoldPlace } from './hold'
export type { Blend, BlendDraw, JarBody, JarDraw, Review } from './jarBodies'
export {
  JAR_KINDS,
  LOOK_SIGHTS,
  RUN_KINDS,
  STAGES,
  type AddedParts,
  type Entry,
  type EntryBody,
  type EntryKind,
  type EntryOf,
  type GrindLosses,
  type GrindPass,
  type GrindRound,
  type LookSight,
  type RestJar,
  type Stage,
  type TrayMove,
  type TrayWeight,
  type UsualHours,
} from './types'
export { usualHoursFactor } from './usualHours'
export type { Weighing } from './weighings'
