export { dryBasis, wetBasis, solidsOf, targetWeight } from './moisture'
export { balancePrep, type PrepBalance, type PrepLedger, type PrepStep } from './ledger'
export { overallYields, type Yields } from './yields'
export { dryingGain, type DryingGain } from './dryingGain'
