import { hygrometerSettings } from '#shared/contracts'
import { saveHygrometer } from '#server/services/hygrometers'

export default route(async (event, context) => saveHygrometer(context, await readInput(event, hygrometerSettings)))
