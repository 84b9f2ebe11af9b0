export { checkAir, dewPointC, heatedHumidity, humidityRatio, saturationKPa, wetBulbC, type Air } from './humidity'
export { USUAL_ROOM } from './usual'
