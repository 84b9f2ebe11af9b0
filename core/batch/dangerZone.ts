import { USUAL_ROOM, wetBulbC } from '../air'
import type { BatchState, RunState } from '../log'
import { dryBasis } from '../mass'
import { COLD_ENOUGH_C, COOKING_STEPS, DANGER_LIMIT_H, dangerHotC, dangerRate, SAFE_ACTIVITY } from '../safety'
import { activityAt, isothermOf } from '../sorption'
import { HOUR, MINUTE } from '../time'
import { waterOf } from '../water'
import { WAYS } from '../ways'

/** How long perishable food stood where things grow, and when that is too long. */
export interface DangerZone {
  /** Hours between 4 and 60 °C, by what was logged; those above 32 °C count twice. */
  hours: number
  /** Of these, hours outside of machines of which nobody wrote where it stood: in the cold they would not count. */
  unsaidH: number
  /** So many are the most. */
  limitH: number
  /** It stands so now; `until`: the instant at which it is too long, if nothing is done. */
  counting: boolean
  until?: number
  over: boolean
  /** Heat from which it stands still, °C. */
  hotC: number
  /** The heat that it stands in, where that is a machine's and too low. */
  setC?: number
}

const COLD: readonly string[] = ['refrigerator', 'freezer']
const ROOM_C = 20
/** In the pot, °C: any heat in which nothing grows. */
const COOKING_C = 100
/** Steps that heat it through. */
const HEATED: readonly string[] = ['cook', 'boil', 'roast', 'thicken']

/**
 * Since when a batch is perishable: as it came, or since it was first cooked or puréed; undefined where it is not. What is cooked again
 * does not begin anew: heat kills what grew, and not the toxins that it left (B. cereus, S. aureus; FDA Bad Bug Book, from memory).
 */
function perishableSince({ food, prep, intake, beganDry }: BatchState): number | undefined {
  const { prepared } = intake.body
  // Out of jars it was dry. What was taken out of a machine is perishable as long as its water says so.
  if (beganDry && !prepared) return undefined
  const cooked = prep.find(entry => COOKING_STEPS.includes(entry.body.step))
  if (dangerHotC(food, cooked !== undefined) === undefined) return undefined
  // Dry beans and rice are perishable from the pot on; meat was so before.
  const isDry = intake.body.weighed === 'uncooked' && food.uncooked !== undefined && food.uncooked.value.mean < DRY_GOODS
  const since = food.traits.includes('perishable') && !isDry ? intake.at : cooked?.at
  return beganDry && since !== undefined ? prepared!.at : since
}
/** Water below which a food that is yet to be cooked keeps on the shelf. */
const DRY_GOODS = 0.2

interface Span {
  from: number
  to: number
  celsius: number
  /** Nobody wrote where it stood. */
  unsaid?: boolean
}

/**
 * The danger clock of a batch that is perishable: what is cooked, dairy, egg, meat, fish, pulses, rice, and low-acid purée.
 * It runs at the counter, in heat that is too low and in none, stands still in the cold and above 60 °C, and ends once the food is dry
 * enough that nothing grows.
 */
export function dangerZoneOf(state: BatchState, now: number): DangerZone | undefined {
  const since = perishableSince(state)
  if (since === undefined) return undefined
  const runs = [...state.earlierRuns, ...(state.run ? [state.run] : [])]
  const safeAt = dryEnoughAt(state, now)
  const hotC = dangerHotC(state.food, true)!
  const spans = [...outside(state, runs, since, now), ...runs.flatMap(run => inMachine(run, since, now))]
    .map(span => ({ ...span, to: Math.min(span.to, safeAt) }))
    .filter(span => span.to > span.from && dangerRate(span.celsius, hotC) > 0)
  const rate = (span: Span) => dangerRate(span.celsius, hotC)
  const hoursOf = (list: readonly Span[]) => list.reduce((sum, span) => sum + (rate(span) * (span.to - span.from)) / HOUR, 0)
  const hours = hoursOf(spans) + (state.beganDry ? (state.intake.body.prepared?.spentH ?? 0) : 0)
  const unsaidH = hoursOf(spans.filter(span => span.unsaid))
  const open = now < safeAt ? spans.find(span => span.to >= now) : undefined
  const over = hours - unsaidH >= DANGER_LIMIT_H
  return {
    hours,
    unsaidH,
    limitH: DANGER_LIMIT_H,
    counting: open !== undefined,
    until: open && hours < DANGER_LIMIT_H ? now + ((DANGER_LIMIT_H - hours) / rate(open)) * HOUR : undefined,
    over,
    hotC,
    setC: open && state.run?.setC !== null ? state.run?.setC : undefined,
  }
}

/** Spans outside of machines, but for those in the cold. */
function outside(state: BatchState, runs: readonly RunState[], since: number, now: number): Span[] {
  const gaps = [since, ...runs.map(run => run.unloadedAt ?? Infinity)].map((from, i) => ({
    from: Math.max(from, since),
    to: Math.min(runs[i]?.loadedAt ?? now, now),
  }))
  const said = whereabouts(state)
  return gaps.flatMap((gap, i) => {
    // Where it stood before a machine says nothing of where it stands after.
    const words = said.filter(word => word.at < gap.to && word.at >= (runs[i - 1]?.unloadedAt ?? -Infinity))
    const marks = [gap.from, ...words.map(word => word.at).filter(at => at > gap.from), gap.to]
    // It went in frozen solid: until then it was in a freezer, whether somebody wrote so or not.
    const wasFrozen = runs[i] !== undefined && runs[i].positions.every(position => runs[i]!.frozen.includes(position))
    return marks.slice(0, -1).map((from, k): Span => {
      const word = words.findLast(item => item.at <= from)
      const isLast = k === marks.length - 2
      const celsius = word?.celsius ?? (wasFrozen && isLast ? COLD_ENOUGH_C : undefined)
      return { from, to: marks[k + 1]!, celsius: celsius ?? ROOM_C, unsaid: celsius === undefined }
    })
  })
}

interface Word {
  at: number
  celsius?: number
}

/**
 * Where it stood by what was logged, oldest first: its warmth, °C; undefined from a step on that took it out of the cold again. While it
 * is cooked it is hot, where it was written how long.
 */
function whereabouts({ holds, prep }: BatchState): Word[] {
  const held = holds.map(({ at, body: { place, roomC } }) => ({
    at,
    celsius: place && COLD.includes(place) ? COLD_ENOUGH_C : (roomC ?? ROOM_C),
  }))
  const words: Word[] = [...held]
  const saidAt = (at: number) =>
    words
      .filter(word => word.at < at)
      .sort((a, b) => a.at - b.at)
      .at(-1)
  for (const { at, body } of prep) {
    const before = saidAt(at)
    const isHot = body.coreC !== undefined || HEATED.includes(body.step)
    const begunAt = at - (body.minutes ?? 0) * MINUTE
    if (isHot && begunAt < at) words.push({ at: Math.max(begunAt, before?.at ?? begunAt), celsius: COOKING_C })
    if (body.step === 'freeze') words.push({ at, celsius: COLD_ENOUGH_C })
    // It was worked on: out of the cold. What is marinated stays there.
    else if (body.step !== 'marinate' && before?.celsius !== undefined && before.celsius <= COLD_ENOUGH_C) words.push({ at })
    else if (isHot && begunAt < at) words.push({ at, celsius: before?.celsius })
  }
  return words.sort((a, b) => a.at - b.at)
}

/** Spans in a machine: by the heat that was set or measured, and by the room where there is none. Frozen under vacuum nothing grows. */
function inMachine(run: RunState, since: number, now: number): Span[] {
  if (WAYS[run.way.way].underVacuum) return []
  const end = Math.min(run.unloadedAt ?? now, now)
  const room = run.room?.celsius ?? ROOM_C
  const begin = Math.max(run.loadedAt, since)
  const lit = run.clock.spells.map(({ from, to = end, setC }): Span => ({
    from: Math.max(from, begin),
    to: Math.min(to, end),
    celsius: setC,
  }))
  const marks = [begin, ...lit.flatMap(({ from, to }) => [from, to]), end]
  const off = marks.flatMap((from, i): Span[] => (i % 2 === 0 && marks[i + 1]! > from ? [{ from, to: marks[i + 1]!, celsius: room }] : []))
  return [...lit, ...off]
}

const STEPS = 7

/** When its water fell so low that nothing grows; Infinity where it has not. */
function dryEnoughAt(state: BatchState, now: number): number {
  const { run, beganDry } = state
  const isotherm = isothermOf(state.food)
  const isSafe = (at: number, sure: 'p50' | 'p90') =>
    activityAt(isotherm, dryBasis(Math.min(0.99, waterOf(state, at).moisture[sure])), ROOM_C) <= SAFE_ACTIVITY
  if (!run) return beganDry && isSafe(now, 'p90') ? -Infinity : Infinity
  const end = Math.min(run.unloadedAt ?? now, now)
  if (!isSafe(end, 'p90')) return Infinity
  let [wet, dry] = [run.loadedAt, end]
  for (let i = 0; i < STEPS; i++) {
    const middle = 0.5 * (wet + dry)
    if (isSafe(middle, 'p50')) dry = middle
    else wet = middle
  }
  return dry
}

/** How long the food itself stays cool in a machine that is hot. */
export interface CoolInside {
  /** Hours in which it was moist and below the heat that it needs, though its air was above, by estimate. */
  hours: number
  /** About what warmth it has while its surface is wet, °C. */
  wetC: number
  /** It is over this many: thinner, or loaded hot (FDA Food Code 3-501.19, time without control of temperature, from memory). */
  limitH: number
}
const UNCONTROLLED_H = 4
const LOOKS = 24

/**
 * Moist food is cooler than its air: at the wet bulb while its surface is wet, and as hot as the air only once it is dry. In between it
 * is taken to rise as its water falls. What guidance asks of a dryer is said of its air; this says what is so of the food.
 * @returns undefined where no clock runs, or nothing lies in warm air
 */
export function coolInside(state: BatchState, now: number): CoolInside | undefined {
  const { run } = state
  const since = perishableSince(state)
  if (since === undefined || !run || WAYS[run.way.way].underVacuum) return undefined
  const end = Math.min(run.unloadedAt ?? now, now, dryEnoughAt(state, now))
  const hotC = dangerHotC(state.food, true)!
  const room = run.room ?? USUAL_ROOM
  const first = dryBasis(Math.min(0.99, waterOf(state, run.loadedAt).moisture.p50))
  let hours = 0
  let wetC = hotC
  const step = (end - run.loadedAt) / LOOKS
  if (!(step > 0)) return undefined
  for (let i = 0; i < LOOKS; i++) {
    const at = run.loadedAt + (i + 0.5) * step
    const airC = run.clock.spells.find(({ from, to = end }) => at >= from && at < to)?.setC
    if (airC === undefined || airC < hotC) continue
    const bulbC = wetBulbC(room, airC)
    wetC = Math.min(wetC, bulbC)
    const wet = Math.min(1, dryBasis(Math.min(0.99, waterOf(state, at).moisture.p50)) / first)
    if (airC - (airC - bulbC) * wet < hotC) hours += step / HOUR
  }
  return { hours, wetC, limitH: UNCONTROLLED_H }
}
