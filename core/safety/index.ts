export { cautionsAt, cautionsOf, type ToldCautions } from './cautions'
export { mixedLoadWarnings, type LoadMate } from './mixedLoads'
export { SAFE_CORE_F, SAFETY_RULES, safetyRule, type SafetyRule, type Severity } from './rules'
export { isCookedThrough, mouldStop, safeCoreC, stopsAtLoading, stopsAtPacking, type Stop } from './stops'
