export { dryBasis, wetBasis, solidsOf, targetWeight } from './moisture'
export { balancePrep, SWELLS_AT_MOST, type PrepBalance, type PrepLedger, type PrepStep } from './ledger'
export { overallYields, type Yields } from './yields'
export { dryingGain, type DryingGain } from './dryingGain'
