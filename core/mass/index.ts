export { dryBasis, wetBasis, solidsOf, targetWeight } from './moisture'
export { balancePrep, type PrepBalance, type PrepLedger, type PrepStep } from './ledger'
export { shrunkRatio, type RatioEstimate, type RatioReference } from './yields'
export { overallYields, type Yields } from './yields'
