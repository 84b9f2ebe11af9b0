import { chooseAlarms, tryAlarm } from '#server/services/alarms'
import { listTools } from '#server/db/tools'
import { householdOf } from '#server/services/context'
import { deviceList, readingSeries, saveDevice } from '#server/services/devices'
import { forecast, forecastAlternatives, forecastBoughtIn } from '#server/services/forecast'
import { hygrometerList, saveHygrometer } from '#server/services/hygrometers'
import { machineList, machinePage, noteUpkeep } from '#server/services/machines'
import { changeHousehold, saveMachine } from '#server/services/settings'
import { NotAllowed } from '#server/services/refusals'
import { dropPlan, planBookPage, planProblem, planYear, savePlanBook, saveWeather, takePlan } from '#server/services/plan'
import { breachesOf, checkProblem } from '#core/plan'
import { saveTool } from '#server/services/tools'
import { readReadings } from '../utils/readReadings'
import type { Handlers } from '../utils/route'

/** The household's own things and settings, its devices, and forecasts from them. */
export const workshop = {
  household: ({ context }) => householdOf(context),
  saveHousehold: ({ context, body }) => changeHousehold(context, body),
  machines: ({ context }) => machineList(context),
  saveMachine: ({ context, body }) => saveMachine(context, body),
  machine: ({ context, params }) => machinePage(context, params.machineId),
  upkeep: ({ context, params, body }) => noteUpkeep(context, params.machineId, body),
  tools: ({ context }) => listTools(context.db),
  saveTool: ({ context, body }) => saveTool(context, body),
  hygrometers: ({ context }) => hygrometerList(context),
  saveHygrometer: ({ context, body }) => saveHygrometer(context, body),

  devices: ({ context }) => deviceList(context),
  saveDevice: ({ context, body }) => saveDevice(context, body),
  readings: ({ context, query }) => readingSeries(context, query),
  takeReadings: async ({ event }) => {
    const post = await readReadings(event)
    const { who } = event.context
    // A key is one device's: it cannot speak for another.
    if (who.kind === 'token' && who.deviceId !== post.device)
      throw new NotAllowed('This key is another device’s: make one for this device.')
    return useReadingIntake().take(post)
  },

  plan: ({ context }) => planProblem(context),
  planYear: ({ context }) => planYear(context),
  planCheck: ({ body: { problem, plan } }) => {
    checkProblem(problem)
    return { breaches: breachesOf(problem, plan.runs) }
  },
  takePlan: ({ context, body }) => takePlan(context, body.plan),
  dropPlan: ({ context }) => dropPlan(context),
  planBook: ({ context }) => planBookPage(context),
  savePlanBook: ({ context, body }) => savePlanBook(context, body),
  weather: ({ context, body }) => saveWeather(context, body),
  forecast: ({ context, query }) => forecast(context, query),
  forecastWays: ({ context, query }) => forecastAlternatives(context, query),
  forecastBoughtIn: ({ context, query }) => forecastBoughtIn(context, query),
  alarms: () => useAlarmBook().answer,
  saveAlarms: ({ body }) => chooseAlarms(useAlarmBook(), body),
  tryAlarm: ({ body }) => tryAlarm(useAlarmBook(), body.way, addressForOthers()),
} satisfies Partial<Handlers>
