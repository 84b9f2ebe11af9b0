import { trimmedBasket, USUAL_RECOVERY } from '../batch'
import { InputError } from '../errors'
import { asCut, targetIn, wayOf, type Food, type MethodCard, type Purpose } from '../foods'
import { WAYS, type WayKey } from '../ways'
import { DUTY, dutyAt } from '../machines'
import { USUAL_ROOM } from '../air'
import { jarTakesG, looseGMl } from '../keeping'
import { targetWeight } from '../mass'
import { intervalOf, randomSource, sdLogOf, type Interval } from '../stats'
import { reachIn } from '../water'
import { nearestHeat } from './loading'
import { hoursOf, middleOf } from '../hours'
import { afterSun, sunAhead } from '../sun'
import type { Household } from './day'
import { Nights, scheduleLoads } from './schedule'
import { loadsFor, traysFor, trayTakesG } from './trayLoad'
import { HOUR } from '../time'

/** A factor on the reference's figure, from so many own lots. */
interface OwnFactor {
  factor: Interval
  lots: number
}

/** What the household's own finished batches say of such a basket, each against the reference: see `learnBasket`. */
export interface OwnBasket {
  /** Prepared over raw. */
  prep?: OwnFactor
  /** Dry at the target over raw. */
  dry?: OwnFactor
  /** Powder over dry. */
  recovery?: OwnFactor
  /** Grams a millilitre of its powder. */
  density?: OwnFactor
}

export interface ForecastInput {
  food: Food
  card: MethodCard
  purpose: Purpose
  /** Weight of the basket, g. */
  weightG: number
  /** Doubt of the weight, where it was counted or filled into pots, g. */
  weightSdG?: number
  /** What was on the scale, of a food that is cooked before it is dried. */
  weighed?: 'uncooked' | 'cooked'
  /** It is ready for the trays, a part of another basket: its solids as a share of that weight. */
  prepared?: { mean: number; sd: number }
  /** `lowC`, `highC`: what its dial goes to; the card's heat where they are not given. */
  machine: {
    trays: number
    trayAreaM2: number
    watts: number
    kind?: WayKey
    lowC?: number
    highC?: number
    /** Places that carry nothing now; all of them where it is not given. */
    free?: number
    /** When what stands on the others is out, an instant; unknown where it is not given. */
    freeAt?: number
  }
  own?: OwnBasket
  /** Hours of such a load in this machine, 10th and 90th percentile, and from how many own runs: see `learnedHours`; else the card's. */
  usualHours?: { low: number; high: number; runs: number }
  /** Volume of the jars at hand, mL. */
  jarMl: number
  /** Start of the first load, an instant. */
  startAt: number
  /** When people sleep, and where the sun stands. */
  household: Household
  /** The sky as it was foretold, by local midnight; of other days nobody knows. */
  skyOf?: (day: number) => { sun: number; rain: number } | undefined
  seed?: number
}

export interface Forecast {
  preparedG: Interval
  trays: Interval
  loads: Interval
  /** Chance that the air it is dried in, of a room that nobody measured, lets it become that dry. */
  reaches: number
  /** Hours of heat for one load, where it becomes that dry. */
  hoursPerLoad: Interval
  /** End of the last load if started at `startAt` and reloaded as soon as it is cleared and somebody is up. */
  endsAt: Interval
  dryG: Interval
  /** Grams of powder or flakes; the dry weight for pieces. */
  productG: Interval
  /** That as it lies in a cup, by the density of its form. */
  productMl: Interval
  jars: Interval
  energyKWh: Interval
  /** Own batches of this food that took part in its weights, and own runs that took part in its hours. */
  ownBatches: number
  ownRuns: number
  /** Places free now, of how many; and when the others are, an instant, where that is known. */
  free: number
  places: number
  freeAt?: number
}

const DRAWS = 600
/** A tenth of a normal distribution lies beyond so many standard deviations. */
const Z90 = 1.2816
/** Share of a clear sky's sun that the worst day has. */
const LEAST_SUN = 0.02

/** What is worked out once, and read as often as anybody asks. */
class Listed<Item> implements Iterable<Item> {
  private readonly known: Item[] = []

  constructor(private readonly rest: Iterator<Item>) {}

  *[Symbol.iterator](): Iterator<Item> {
    for (let i = 0; ; i++) {
      if (i === this.known.length) {
        const next = this.rest.next()
        if (next.done) return
        this.known.push(next.value)
      }
      yield this.known[i]!
    }
  }
}

/** The reference's ratios of a food and cut: prepared over raw, dry over wet, powder over dry. */
export function referenceYields(food: Food, card: MethodCard, purpose: Purpose): { prep: number; drying: number; grinding: number } {
  const trimmed = trimmedBasket(food, card, 1000)
  return {
    prep: trimmed.prepYield.p50,
    drying: targetWeight(trimmed.solids.mean, asCut(food, card).target[purpose]),
    grinding: purpose === 'pieces' ? 1 : USUAL_RECOVERY.median,
  }
}

/**
 * What a basket will take and give before a knife is lifted, each figure a range: from the food's
 * reference, and from own finished batches shrunk toward it.
 * @throws InputError for a weight that is not above 0.
 */
export function forecastBasket(input: ForecastInput): Forecast {
  if (!(input.weightG > 0))
    throw new InputError([{ field: 'weightG', code: 'weight-not-above-zero', message: 'must be a weight above 0 g' }])
  const { food, card, machine } = input
  const source = randomSource(input.seed ?? 1)
  const target = targetIn(asCut(food, card), input.purpose, machine.kind)
  // What own baskets taught of trimming is behind it already.
  const { prep: ownPrep, dry: ownDry, ...other } = input.own ?? {}
  const own: OwnBasket = input.prepared ? other : { ...other, prep: ownPrep, dry: ownDry }
  const trimmed = input.prepared
    ? { prepYield: { p10: 1, p50: 1, p90: 1 }, solids: input.prepared }
    : trimmedBasket(food, card, input.weightG, input.weighed)
  const ratioOf = (interval: Interval) => ({ median: interval.p50, sdLog: sdLogOf(interval) })
  const times = (median: number, { factor }: OwnFactor) => ({ ...ratioOf(factor), median: median * factor.p50 })
  const prep = own.prep ? times(trimmed.prepYield.p50, own.prep) : ratioOf(trimmed.prepYield)
  // Dry beans and rice come out of the pot heavier than they went in.
  const most = Math.max(1, trimmed.prepYield.p90)
  const dryShare = targetWeight(trimmed.solids.mean, target)
  const ofPrepared = { median: dryShare, sdLog: trimmed.solids.sd / trimmed.solids.mean }
  const ofRaw = own.dry && times(trimmed.prepYield.p50 * dryShare, own.dry)
  const ownDensity = own.density && times(food.powderDensity.value.mean, own.density)
  const recovery = own.recovery ? times(USUAL_RECOVERY.median, own.recovery) : USUAL_RECOVERY
  const { way, temperatureC } = wayOf(card, machine.kind)
  const { lowC = -Infinity, highC = Infinity } = machine
  const setC = nearestHeat(temperatureC, { lowC, highC })
  const duty = dutyAt(WAYS[way], setC, USUAL_ROOM.celsius)
  const usual = hoursOf({ food, card, way, purpose: input.purpose, learned: input.usualHours, setC })
  const load = { median: middleOf(usual), sdLog: sdLogOf({ p10: usual.low, p90: usual.high }) }
  const tray = trayTakesG(card, machine.trayAreaM2, machine.kind)
  // What flows takes longer the deeper it is poured.
  const poured = card.liquid && WAYS[way].underVacuum
  const pouredHours = (kgM2: number) =>
    middleOf(hoursOf({ food, card, way, purpose: input.purpose, learned: input.usualHours, loadKgM2: kgM2 }))
  const free = Math.min(machine.trays, machine.free ?? machine.trays)
  const { clearH, attended, outdoors } = WAYS[way]
  const occupied = { places: machine.trays, free, freeAt: Math.max(input.startAt, machine.freeAt ?? input.startAt), clearH, attended }
  const nights = new Nights(input.startAt, input.household)
  const sun = outdoors ? new Listed(sunAhead(input.startAt, input.household, input.skyOf)) : undefined
  const outOf = (needH: number) => {
    if (!sun) return (at: number) => at + needH * HOUR
    const z = source.normal()
    const shareOf = ({ p10, p50, p90 }: Interval) => Math.min(1, Math.max(LEAST_SUN, p50 + (z * (z < 0 ? p50 - p10 : p90 - p50)) / Z90))
    return (at: number) => afterSun(sun, at, needH, shareOf) ?? Infinity
  }

  const after = card.afterShare?.value ?? { mean: 0, sd: 0 }

  const columns = Array.from({ length: 10 }, () => new Float64Array(DRAWS))
  const [prepared, trays, loads, hours, ends, dry, product, volume, jars, energy] = columns as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ]
  const vary = ({ median, sdLog }: { median: number; sdLog: number }) => median * Math.exp(sdLog * source.normal())
  for (let i = 0; i < DRAWS; i++) {
    const rawG = input.weightSdG ? Math.max(0.2 * input.weightG, input.weightG + input.weightSdG * source.normal()) : input.weightG
    prepared[i] = rawG * Math.min(most, vary(prep))
    const perTray = Math.max(0.05 * tray.mean, tray.mean + tray.sd * source.normal())
    trays[i] = traysFor(prepared[i]!, perTray, poured)
    loads[i] = loadsFor(trays[i]!, machine.trays, free)
    const place = Math.min(trays[i]!, machine.trays)
    const loadG = prepared[i]! / Math.ceil(trays[i]! / machine.trays)
    hours[i] = vary(poured ? { ...load, median: pouredHours(loadG / 1000 / (place * machine.trayAreaM2)) } : load)
    const outAt = outOf(hours[i]!)
    ends[i] = Math.max(...scheduleLoads(trays[i]!, input.startAt, occupied, outAt, nights).map(({ endsAt }) => endsAt))
    dry[i] = Math.min(prepared[i]!, ofRaw ? rawG * vary(ofRaw) : prepared[i]! * vary(ofPrepared))
    const left = dry[i]! * (1 - Math.min(0.95, Math.max(0, after.mean + after.sd * source.normal())))
    product[i] = input.purpose === 'pieces' ? left : left * Math.min(1, vary(recovery))
    const density = Math.max(
      0.1,
      ownDensity ? vary(ownDensity) : food.powderDensity.value.mean + food.powderDensity.value.sd * source.normal(),
    )
    volume[i] = product[i]! / looseGMl(density, input.purpose, WAYS[way].underVacuum)
    jars[i] = Math.max(1, Math.ceil(product[i]! / jarTakesG(density, input.purpose, input.jarMl, WAYS[way].underVacuum)))
    // What finds a place beside others goes along with what runs: power is that of the loads that it would be by itself.
    const runs = Math.ceil(trays[i]! / machine.trays)
    energy[i] = ((runs * hours[i]! * machine.watts) / 1000) * Math.min(1, Math.max(0, duty * (1 + (DUTY.sd / DUTY.mean) * source.normal())))
  }
  const whole = (draws: Float64Array) => {
    const { p10, p50, p90 } = intervalOf(draws)
    return { p10: Math.round(p10), p50: Math.round(p50), p90: Math.round(p90) }
  }
  const preparedG = intervalOf(prepared)
  // The middle as the load form counts them.
  const counted = traysFor(preparedG.p50, tray.mean, poured)
  const about = (draws: Float64Array, p50: number) => {
    const { p10, p90 } = whole(draws)
    return { p10: Math.min(p10, p50), p50, p90: Math.max(p90, p50) }
  }
  return {
    preparedG,
    trays: about(trays, counted),
    loads: about(loads, loadsFor(counted, machine.trays, free)),
    hoursPerLoad: intervalOf(hours),
    endsAt: intervalOf(ends),
    dryG: intervalOf(dry),
    productG: intervalOf(product),
    productMl: intervalOf(volume),
    jars: whole(jars),
    energyKWh: intervalOf(energy),
    reaches: reachIn(food, way, target, setC).chance,
    ownBatches: Math.max(own.prep?.lots ?? 0, own.dry?.lots ?? 0),
    ownRuns: input.usualHours?.runs ?? 0,
    free,
    places: machine.trays,
    freeAt: free < machine.trays ? machine.freeAt : undefined,
  }
}

/** How far the trimming of a food differs from lot to lot by the reference, standard deviation of the logarithm of what is left. */
export function trimSpread({ trimShare: { value } }: Food): number {
  return value.sd / (1 - value.mean)
}
