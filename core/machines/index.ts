export { evennessOf, swapsWorthMaking, type PlaceEvenness, type PlacePace } from './evenness'
export { tareOf } from './tare'
export { thermostatOffset, type HeatSeen } from './thermostat'
export { upkeepOf, type UpkeepState } from './upkeep'
