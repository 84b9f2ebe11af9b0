import type { Kitchen } from './kitchen'

const { max, min } = Math

/** What a run came to, in what it cost. */
export interface Outcome {
  /** Grams of what would have been, and of them what is lost: mouldy, caked, stuck, or too wet to keep. */
  wholeG: number
  spoiledG: number
  /** Why it is lost, for words. */
  lost: ('mould' | 'damp' | 'caked' | 'stuck' | 'zone' | 'cup')[]
  overH: number
  looks: number
  woken: number
  kWh: number
  dangerH: number
  /** Hours from the first to the last deed that people cared about. */
  hours: number
  /** Water at the end, wet basis. */
  moisture: number
  /** All of it in points: 100 is the whole load lost. */
  cost: number
}

/**
 * What each costs in hundredths of the load: set so that a spoiled load outweighs any care, a waking an hour too many, and a kilowatt-hour
 * two looks. They are a judgement and stand in the method's page.
 */
const PRICES = { overH: 0.8, look: 0.35, woken: 5, kWh: 0.3, hotH: 0.3, dangerH: 9, zoneH: 2, zoneMost: 60 } as const
/** Up to here above the target nothing is lost; at twice that all that softness can cost. */
const DAMP = { from: 1.2, all: 2.4, share: 0.6 }

/** What a finished run came to. */
export function judge(kitchen: Kitchen): Outcome {
  const { tally, lesson, target, moisture } = kitchen
  const wholeG = tally.solidsG / (1 - target)
  const lost: Outcome['lost'] = []
  let spoiled = 0
  if (kitchen.mould >= 1) {
    spoiled = 1
    lost.push('mould')
  }
  const over = moisture / target
  // A jar that let damp in has had its say by its cakes.
  if (over > DAMP.from && lesson.to !== 'jar') {
    spoiled = max(spoiled, DAMP.share * min(1, (over - DAMP.from) / (DAMP.all - DAMP.from)))
    lost.push('damp')
  }
  if (kitchen.jarSight === 'clumps' || kitchen.powder?.clumps === 'cakes') {
    spoiled = max(spoiled, 0.7)
    lost.push('caked')
  } else if (kitchen.jarSight === 'packed') spoiled = max(spoiled, 0.08)
  const stuck = kitchen.powder ? kitchen.powder.stuckG / wholeG : 0
  if (stuck > 0.08) lost.push('stuck')
  spoiled = min(1, spoiled + stuck)
  if (kitchen.cup) {
    const off = Math.abs(kitchen.cup.grams / max(1, kitchen.cup.neededG) - 1)
    const share = min(0.5, max(0, off - 0.05))
    if (share > 0.05) lost.push('cup')
    spoiled = min(1, spoiled + share)
  }
  if (tally.dangerH > PRICES.zoneH) lost.push('zone')
  const cost =
    100 * spoiled +
    PRICES.overH * tally.overH +
    PRICES.look * tally.looks +
    PRICES.woken * tally.woken +
    PRICES.kWh * tally.kWh +
    PRICES.hotH * tally.hotH +
    min(PRICES.zoneMost, PRICES.dangerH * max(0, tally.dangerH - PRICES.zoneH))
  return {
    wholeG,
    spoiledG: spoiled * wholeG,
    lost,
    overH: tally.overH,
    looks: tally.looks,
    woken: tally.woken,
    kWh: tally.kWh,
    dangerH: tally.dangerH,
    hours: kitchen.hours,
    moisture,
    cost,
  }
}
