export { planBookPage, savePlanBook, saveWeather } from './book'
export { dropPlan, takePlan } from './kept'
export { planProblem } from './problem'
export { planYear } from './year'
