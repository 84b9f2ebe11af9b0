import { targetIn } from '../foods'
import type { BatchState, EntryOf } from '../log'
import { activityOfTarget, isothermOf, moistureFromJarAir } from '../sorption'

/** Room of a jar whose temperature was not noted. */
const USUAL_ROOM_C = 20

/** What a hygrometer in a closed jar says of this batch: corrected humidity, the moisture it means, and where the target lies. */
export function readJarAir(
  state: BatchState,
  { shown, celsius = USUAL_ROOM_C, calibration }: Pick<EntryOf<'jarAir'>['body'], 'shown' | 'celsius' | 'calibration'>,
) {
  const isotherm = isothermOf(state.food)
  const humidity = Math.min(0.98, Math.max(0.01, calibration.offset + calibration.gain * shown))
  return {
    humidity,
    sd: calibration.sd,
    moisture: moistureFromJarAir(isotherm, { mean: humidity, sd: calibration.sd }, celsius),
    sealBelow: activityOfTarget(isotherm, targetIn(state.food, state.purpose, state.run?.way.way), celsius),
  }
}
