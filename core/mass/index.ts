export { dryBasis, wetBasis, solidsOf, targetWeight } from './moisture'
export { balancePrep, SWELLS_AT_MOST, tracePrep, type PrepBalance, type PrepLedger, type PrepStep, type TracedStep } from './ledger'
export { overallYields, type Yields } from './yields'
export { dryingGain, type DryingGain } from './dryingGain'
