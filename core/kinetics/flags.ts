import { MODEL } from './model'
import type { Posterior } from './posterior'
import type { DryingRun, WeighInFlag } from './types'

/** Chance of a mistake from which a weighing is questioned. */
const WILD = 0.9

/** Questions weighings that do not fit. They stay in the log, and are believed as little as they fit. */
export function flagWeighIns(run: DryingRun, { predictedG, wild }: Pick<Posterior, 'predictedG' | 'wild'>): WeighInFlag[] {
  if (wild.length !== run.weighIns.length) return []
  const flags: WeighInFlag[] = []
  const noise = (g: number, extraSdG = 0) => Math.hypot((run.scale?.resolutionG ?? 1) / 2, MODEL.handling * g, extraSdG)
  const leastSolids = run.startWeightG * Math.max(0.2 * run.solids.mean, run.solids.mean - 5 * run.solids.sd)
  const offCurve = run.weighIns.map(({ weightG }, index) => {
    const off = weightG - predictedG[index]!
    return wild[index]! > WILD && Math.abs(off) > 4 * noise(weightG)
  })
  run.weighIns.forEach(({ weightG, extraSdG, afterOff }, index) => {
    const before = index === 0 ? run.startWeightG : run.weighIns[index - 1]!.weightG
    const off = weightG - predictedG[index]!
    if (weightG > run.startWeightG + 4 * noise(run.startWeightG, extraSdG)) {
      flags.push({
        index,
        kind: 'above-start',
        template: 'This is {moreG} more than was loaded. Was the tray on the scale, or food added?',
        quantities: { moreG: weightG - run.startWeightG },
      })
    } else if (weightG < leastSolids) {
      flags.push({
        index,
        kind: 'below-solids',
        template: 'This is less than the solids in the load. Was a tray left out, or is the loaded weight wrong?',
        quantities: {},
      })
    }
    // After a weight that was itself far too low, the next one only seems to rise.
    else if (!afterOff && weightG > before + 3 * noise(before, extraSdG) && !(index > 0 && offCurve[index - 1])) {
      flags.push({
        index,
        kind: 'rising',
        template:
          'The weight rose by {moreG} while the heat was on. Food in a dryer only loses: one of the two weighings is off, or a tray was added.',
        quantities: { moreG: weightG - before },
      })
    } else if (offCurve[index]) {
      flags.push({
        index,
        kind: 'off-curve',
        template: `This weigh-in is {offG} ${off > 0 ? 'above' : 'below'} the curve: a mistake, or ${off > 0 ? 'food added' : 'a tray taken out'}?`,
        quantities: { offG: Math.abs(off) },
      })
    }
  })
  return flags
}
