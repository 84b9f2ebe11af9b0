import { newJarEntry } from '#shared/contracts'
import { logOnJar } from '#server/services/writeLog'

export default route(async (event, context) => logOnJar(context, idParam(event, 'jarId'), await readInput(event, newJarEntry)))
