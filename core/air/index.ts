export { GAS_J_MOL_K, ZERO_C } from './constants'
export { checkAir, heatedHumidity, humidityRatio, saturationKPa, wetBulbC, type Air } from './humidity'
export { USUAL_ROOM } from './usual'
