import { normalCdf, type Interval } from '../stats'
import { factor, solve, type Factor } from './cholesky'

/** A finished run as it teaches hours: what it took over what its card says at its heat and thickness. */
export interface FinishedRun {
  /** Hours to target over the middle of the card's usual hours. */
  pace: number
  /** Doubt of that, standard deviation of its logarithm. */
  doubt?: number
  machine: string
  food: string
  family: string
  card: string
  cutBy?: string
}

/** What a load is, before it is dried. */
export type LoadAsked = Omit<FinishedRun, 'pace' | 'doubt'>

/** Anything that makes hours differ from the card's, alike for all loads that share it. */
export type EffectKind = 'machine' | 'family' | 'food' | 'card' | 'person'

export interface Effect {
  kind: EffectKind
  /** Factor on the hours, with its doubt. */
  hours: Interval
  runs: number
}

export interface HoursLearned {
  /** Factor on the card's middle hours for the next such load, p10 to p90. */
  next: (ask: LoadAsked) => Interval
  /** One effect by itself: "this machine needs a third longer than the cards". */
  effectOf: (kind: EffectKind, key: string) => Effect | undefined
  runs: number
}

/**
 * How far loads differ from their cards by each thing, standard deviation of the logarithm where a household is like others
 * (common practice); scaled by what the runs show.
 */
const SPREAD: Record<EffectKind, number> = { machine: 0.09, family: 0.05, food: 0.09, card: 0.04, person: 0.11 }
const KINDS = Object.keys(SPREAD) as EffectKind[]
/** Machines, and all else, that differ so many times as much, and what is believed of that: either may be far off by itself. */
const SCALES: readonly [scale: number, belief: number][] = [
  [0.6, 0.3],
  [1, 0.42],
  [1.8, 0.18],
  [3.2, 0.1],
]
/** Wide enough that no effect is taken for a mistake. */
const WIDE: typeof SCALES = [[2, 1]]
/** What is left between two like loads: the basket, the weather, the knife. */
const SCATTERS: readonly [sd: number, belief: number][] = [
  [0.08, 0.08],
  [0.12, 0.3],
  [0.17, 0.3],
  [0.25, 0.2],
  [0.4, 0.12],
]
/** A machine's older runs say less of today: one with eight after it counts half, one with sixty next to nothing, and no more are read. */
const HALF_AFTER = 8
const RUNS_READ = 60
/** A run further off than so many standard deviations is doubted more the further it is. */
const DOUBTED = 2.2

interface Cell {
  belief: number
  scatter: number
  spreads: Record<EffectKind, number>
  factor: Factor
  mean: Float64Array
}

/**
 * What the household's finished runs teach of hours: on the logarithm over the card, the effects of machine, food, family, cut and
 * person add up. How much such things differ here, and how far like loads scatter, is learned too: every pairing of both is
 * reckoned with, by its evidence. A run that is far off all others counts less, older ones of a machine less than new ones.
 * @param finished newest first
 */
export function learnHours(finished: readonly FinishedRun[]): HoursLearned {
  const ranks = new Map<string, number>()
  const ages: number[] = []
  const runs = finished.filter(({ machine }) => {
    const rank = ranks.get(machine) ?? 0
    ranks.set(machine, rank + 1)
    if (rank < RUNS_READ) ages.push(1 + (rank / HALF_AFTER) ** 3)
    return rank < RUNS_READ
  })
  const levels = new Map<string, number>()
  const counts = new Map<string, number>()
  const kinds: EffectKind[] = []
  const keyOf = (kind: EffectKind, of: LoadAsked): string | undefined => {
    const value = kind === 'person' ? of.cutBy : kind === 'card' ? `${of.food}/${of.card}` : of[kind]
    return value === undefined ? undefined : `${kind} ${value}`
  }
  const rows = runs.map(run =>
    KINDS.flatMap(kind => {
      const key = keyOf(kind, run)
      if (key === undefined) return []
      if (!levels.has(key)) {
        levels.set(key, levels.size)
        kinds.push(kind)
      }
      counts.set(key, (counts.get(key) ?? 0) + 1)
      return [levels.get(key)!]
    }),
  )
  const logs = runs.map(run => Math.log(run.pace))
  const doubts = runs.map(run => (run.doubt ?? 0) ** 2)
  const size = levels.size

  /** What the runs weigh at one scatter: it is the same for all scales. */
  const gather = (scatter: number, trust: readonly number[]) => {
    const gram = new Float64Array(size * size)
    const right = new Float64Array(size)
    let evidence = 0
    rows.forEach((row, r) => {
      const weight = trust[r]! / (scatter * scatter * ages[r]! + doubts[r]!)
      evidence += 0.5 * Math.log(weight) - 0.5 * weight * logs[r]! ** 2
      for (const i of row) {
        right[i]! += weight * logs[r]!
        for (const j of row) gram[i * size + j]! += weight
      }
    })
    return { gram, right, evidence }
  }
  /** One pairing: the effects as a normal distribution, and the logarithm of its evidence. */
  const fit = ({ gram, right, evidence }: ReturnType<typeof gather>, scatter: number, machines: number, others: number) => {
    const spreads = Object.fromEntries(
      KINDS.map(kind => [kind, (kind === 'machine' ? machines : others) * SPREAD[kind]]),
    ) as Cell['spreads']
    const precision = gram.slice()
    let log = evidence
    for (let i = 0; i < size; i++) {
      const own = 1 / spreads[kinds[i]!] ** 2
      precision[i * size + i]! += own
      log += 0.5 * Math.log(own)
    }
    const factored = factor(precision, size)
    const mean = solve(factored, right)
    for (let i = 0; i < size; i++) log += 0.5 * right[i]! * mean[i]!
    return { cell: { belief: 0, scatter, spreads, factor: factored, mean }, log: log - factored.halfLogDeterminant }
  }

  const weigh = (trust: readonly number[], scales: typeof SCALES): Cell[] => {
    const fitted = SCATTERS.flatMap(([scatter, ofScatter]) => {
      const gathered = gather(scatter, trust)
      return scales.flatMap(([machines, ofMachines]) =>
        scales.map(([others, ofOthers]) => {
          const { cell, log } = fit(gathered, scatter, machines, others)
          return { cell, log: log + Math.log(ofScatter * ofMachines * ofOthers) }
        }),
      )
    })
    const most = Math.max(...fitted.map(item => item.log))
    const cells = fitted.map(({ cell, log }) => ({ ...cell, belief: Math.exp(log - most) }))
    const total = cells.reduce((sum, cell) => sum + cell.belief, 0)
    return cells.map(cell => ({ ...cell, belief: cell.belief / total })).filter(cell => cell.belief > 1e-3)
  }
  // First which runs are far off all others, in a household where all may differ; then all pairings without those.
  let trust = runs.map(() => 1)
  for (let turn = 0; turn < (runs.length > 2 ? 2 : 0); turn++) {
    const cells = weigh(trust, WIDE)
    trust = rows.map((row, r) => {
      const off = cells.reduce((sum, cell) => {
        const expected = row.reduce((all, i) => all + cell.mean[i]!, 0)
        return sum + (cell.belief * Math.abs(logs[r]! - expected)) / Math.sqrt(cell.scatter ** 2 + doubts[r]!)
      }, 0)
      return off > DOUBTED ? (DOUBTED / off) ** 2 : 1
    })
  }
  const cells = weigh(trust, SCALES)

  /** Mean and variance of a sum of effects in one pairing; what was never seen is its prior. */
  const sumOf = (cell: Cell, of: readonly { kind: EffectKind; level?: number }[]): { mean: number; variance: number } => {
    const ask = new Float64Array(size)
    let mean = 0
    let variance = 0
    for (const { kind, level } of of)
      if (level === undefined) variance += cell.spreads[kind] ** 2
      else {
        ask[level] = 1
        mean += cell.mean[level]!
      }
    const answer = solve(cell.factor, ask)
    for (const { level } of of) if (level !== undefined) variance += answer[level]!
    return { mean, variance }
  }
  // Pages ask for the same loads again and again until another run has come.
  const told = new Map<string, Interval>()
  const once = (key: string, work: () => Interval): Interval => {
    const known = told.get(key) ?? work()
    told.set(key, known)
    return known
  }
  const nextOf = (ask: LoadAsked): Interval => {
    const of = KINDS.flatMap(kind => {
      const key = keyOf(kind, ask)
      return key === undefined ? [] : [{ kind, level: levels.get(key) }]
    })
    return mixed(
      cells.map(cell => {
        const { mean, variance } = sumOf(cell, of)
        return { belief: cell.belief, mean, sd: Math.sqrt(variance + cell.scatter ** 2) }
      }),
    )
  }
  const alone = (kind: EffectKind, level: number): Interval =>
    mixed(
      cells.map(cell => {
        const { mean, variance } = sumOf(cell, [{ kind, level }])
        return { belief: cell.belief, mean, sd: Math.sqrt(variance) }
      }),
    )
  return {
    runs: runs.length,
    next: ask => once(KINDS.map(kind => keyOf(kind, ask)).join('|'), () => nextOf(ask)),
    effectOf: (kind, key) => {
      const level = levels.get(`${kind} ${key}`)
      if (level === undefined) return undefined
      return { kind, hours: once(`${kind} ${key}`, () => alone(kind, level)), runs: counts.get(`${kind} ${key}`)! }
    },
  }
}

/** Percentiles of a mixture of normal distributions of the logarithm, as factors. */
function mixed(parts: readonly { belief: number; mean: number; sd: number }[]): Interval {
  const below = (log: number) => parts.reduce((sum, { belief, mean, sd }) => sum + belief * normalCdf((log - mean) / sd), 0)
  const at = (share: number) => {
    let low = Math.min(...parts.map(({ mean, sd }) => mean - 4 * sd))
    let high = Math.max(...parts.map(({ mean, sd }) => mean + 4 * sd))
    for (let i = 0; i < 50; i++) {
      const middle = 0.5 * (low + high)
      if (below(middle) < share) low = middle
      else high = middle
    }
    return Math.exp(0.5 * (low + high))
  }
  return { p10: at(0.1), p50: at(0.5), p90: at(0.9) }
}
