export { cutFactor, hoursOf, middleOf, type CutFor, type HoursAsked, type HoursRange } from './hours'
export { heatLaw, insidePace, layerKgM2, loadLaw } from './laws'
export { hoursOfRun } from './run'
export { layerUnderVacuum } from './vacuum'
