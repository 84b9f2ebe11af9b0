export { agendaOf, groupOf, type Todo, type TodoGroup, type TodoKind } from './agenda'
export { forecastBasket, type Forecast, type ForecastInput, type OwnHistory } from './forecast'
export { trayTakesG } from './trayLoad'
export { nextWaking, sleepAround, startOfDay, type Household } from './day'
