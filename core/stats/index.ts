export { type Interval, intervalOf, intervalFromNormal, intervalFromLogNormal, mapInterval, Z_90 } from './interval'
export { normalDraws, randomSource, type RandomSource } from './random'
export { choleskyFactor, invertSymmetric, solveSymmetric } from './linear'
export { normalCdf } from './normal'
