import { readReadings } from '../../utils/readReadings'

export default route(async event => useReadingIntake().take(await readReadings(event)))
