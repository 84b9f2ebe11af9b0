export { checkAir, dewPointC, heatedHumidity, humidityRatio, saturationKPa, type Air } from './humidity'
export { USUAL_ROOM } from './usual'
