export { type Interval, intervalOf, intervalFromNormal, intervalFromLogNormal, mapInterval, Z_90 } from './interval'
export { normalDraws, randomSource, type RandomSource } from './random'
export { normalCdf } from './normal'
export { interpolate } from './interpolate'
