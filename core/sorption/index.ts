export { activityAt, activityCurve, moistureAt, type Isotherm } from './gab'
export { ISOTHERMS, isothermOf, SORPTION_GROUPS, type GroupIsotherm, type SorptionGroup } from './groups'
export { activityOfTarget, equilibriumIn, equilibriumUnknown, lowestMoisture, moistureFromJarAir, roomBalance } from './balance'
export { calibrateHygrometer, SALTS, type HygrometerCalibration, type Salt, type SaltReading } from './hygrometer'
