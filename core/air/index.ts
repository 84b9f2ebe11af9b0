export { checkAir, dewPointC, heatedHumidity, humidityRatio, saturationKPa, type Air } from './humidity'
