export { cautionsAt, cautionsOf, toldAtUse, type ToldAtUse, type ToldCautions } from './cautions'
export { COLD_ENOUGH_C, COOKING_STEPS, DANGER_LIMIT_H, WARM_C, dangerHotC, dangerRate, SAFE_ACTIVITY } from './danger'
export { mixedLoadWarnings, type LoadMate } from './mixedLoads'
export { HEATED_AFTER, SAFE_CORE_F, SAFETY_RULES, safetyRule, type SafetyRule, type Severity } from './rules'
export {
  isCookedThrough,
  isHeatedAfter,
  mouldStop,
  warmStop,
  safeCoreC,
  stopsAtLoading,
  stopsAtPacking,
  stopsUnheated,
  type Stop,
} from './stops'
