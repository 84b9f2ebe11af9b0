export { anyBody, bodyIn, ENTRY_KINDS, isOfJar, isOfRun, kindOf, type AnyKind, type BodyIn } from './bodies'
export { conflictsOf, meanwhile, type LogConflict } from './conflicts'
export { checkEnvelope, checkInstant } from './envelope'
export type { BatchScene, EntryKindOf, JarScene, LoadMachine, LogScope } from './define'
export { emptyDraft, type BatchDraft, type Contains, type RunDraft } from './draft'
export { STAGES, type BodyOf, type Entry, type EntryBody, type EntryKind, type EntryOf, type Stage, type Writer } from './entry'
export * as fields from './fields'
export type { JarDraw, TrayWeight } from './fields'
export { inForce, ofKind, targetField, targetOf, withStanding, type LoggedEntry } from './inForce'
export {
  moistureOf,
  NOTHING,
  SCALE_G,
  type Bowl,
  type Drawn,
  type FindLot,
  type Jar,
  type JarDesk,
  type JarItem,
  type JarPart,
  type JarUse,
  type Lot,
  type Mixed,
} from './jar'
export { KINDS } from './kinds'
export { toastingFault, type Blend, type BlendDraw } from './kinds/fill'
export type { GrindLosses, GrindPass, GrindRound } from './kinds/grind'
export { HOLD_PLACES, HOLD_WORDS, type HoldPlace } from './kinds/hold'
export type { UsualHours } from './kinds/load'
export { LOOK_SIGHTS, type LookSight } from './kinds/look'
export { type JarSight } from './kinds/lookJar'
export type { TrayMove } from './kinds/move'
export { pictureName, PICTURE_SUBJECTS, type Picture, type PictureSubject } from './kinds/picture'
export type { RestJar } from './kinds/rest'
export type { Review } from './kinds/review'
export { type Smell } from './kinds/smell'
export { givenBy } from './kinds/intake'
export { dryFormOf, FATES, FATE_WORDS, isOfTheFood, partedG, type Fate, type SplitForm } from './kinds/split'
export { stockedJar } from './kinds/stock'
export type { BatchState, CycleTold, DryForms, Hold, JarState, RestingJar, RestState, RunState, TrayPlaces, Weighing } from './state'
export { loadedOn, mostOf, piecesTakenG, SCALE_SHARE } from './weights'
