import { gather, InputError } from '../errors'
import { DAY, HOUR } from '../time'
import type { PlanSolver } from './programme'

/** A line of the harvest calendar, with what a kilogram of it asks of each machine. */
export interface YearLine {
  id: string
  title: string
  /** Kilograms that come in, each of twelve months. */
  kg: readonly number[]
  handsMinutesKg: number
  /** Grams for the shelf from a kilogram. */
  productGKg: number
  /** Machines that it may go into, with the place-nights and the power that a kilogram takes there: a tray for a night is one. */
  ways: readonly { machineId: string; placeNightsKg: number; kWhKg: number }[]
}

export interface YearProblem {
  /** Nights of each of twelve months, in their order. */
  nights: readonly number[]
  machines: readonly { id: string; name: string; places: number }[]
  /** Minutes of hands that each day has. */
  handsMinutesADay: number
  lines: readonly YearLine[]
}

export interface YearMonth {
  kg: number
  /** What neither machines nor hands can take, kg. */
  lostKg: number
  /** Of the nights of each machine, the share that is filled. */
  machines: { id: string; share: number }[]
  handsMinutes: number
  handsShare: number
  /** What a kilogram more would be saved by: the machine or the hands that are worth most. */
  narrow?: { kind: 'machine'; id: string } | { kind: 'hands' } | { kind: 'no-way' }
}

/** Place-nights of a load: a tray for each night that is begun. */
export const placeNights = (places: number, hours: number) => places * Math.max(1, Math.ceil(hours / 24))

/**
 * A wish counted back from its day: the basket that gives what is missing, the loads that it takes in a machine, one after the other, and the
 * last moment to begin.
 * @param load what one load of the machine gives: its basket, kg, its places and product, and the hours that nine in ten of them take
 */
export function countBack(
  missingG: number,
  by: number,
  load: { kg: number; productG: number; places: number; hours: number; restDays: number },
  machinePlaces: number,
): { needsKg: number; loads: number; loadBy: number } {
  const needsKg = (missingG * load.kg) / load.productG
  const loads = Math.ceil((needsKg / load.kg) * (load.places / machinePlaces))
  return { needsKg, loads, loadBy: by - load.restDays * DAY - loads * load.hours * HOUR }
}

/** A share of its nights that a machine is really filled: turning round, cleaning, what does not fit together (common practice). */
export const FILLED = 0.8

/**
 * The year by months: what comes in against machine nights and hours of hands, as a linear programme that loses the fewest kilograms and
 * then takes the least power.
 * @throws InputError where a figure is not one
 */
export function yearOf(problem: YearProblem, solver: PlanSolver): YearMonth[] {
  checkYear(problem)
  return problem.nights.map((nights, month): YearMonth => {
    const kg = problem.lines.reduce((sum, line) => sum + (line.kg[month] ?? 0), 0)
    const handsOf = problem.handsMinutesADay * nights
    if (kg === 0) return { kg, lostKg: 0, machines: problem.machines.map(({ id }) => ({ id, share: 0 })), handsMinutes: 0, handsShare: 0 }
    const { taken, lost } = solveMonth(problem, month, solver)
    const lostKg = lost.reduce((sum, value) => sum + value, 0)
    const machines = problem.machines.map(({ id, places }) => {
      const used = taken.filter(item => item.machineId === id).reduce((sum, item) => sum + item.kg * item.placeNightsKg, 0)
      return { id, share: used / (places * nights) }
    })
    const handsMinutes = taken.reduce((sum, item) => sum + item.kg * problem.lines[item.line]!.handsMinutesKg, 0)
    const handsShare = handsOf > 0 ? handsMinutes / handsOf : handsMinutes > 0 ? Infinity : 0
    return { kg, lostKg, machines, handsMinutes, handsShare, narrow: narrowOf(problem, month, lost, { machines, handsShare }, solver) }
  })
}

interface Taken {
  line: number
  machineId: string
  placeNightsKg: number
  kg: number
}

function solveMonth(problem: YearProblem, month: number, solver: PlanSolver): { taken: Taken[]; lost: number[] } {
  const nights = problem.nights[month]!
  const ways = problem.lines.flatMap((line, i) => line.ways.map((way, k) => ({ ...way, line: i, name: `x${i}_${k}` })))
  const rows = [
    ...problem.lines.map((line, i) => {
      const terms = [`l${i}`, ...ways.filter(way => way.line === i).map(way => way.name)]
      return `${terms.join(' + ')} = ${line.kg[month] ?? 0}`
    }),
    ...problem.machines.flatMap(({ id, places }) => {
      const terms = ways.filter(way => way.machineId === id).map(way => `${way.placeNightsKg} ${way.name}`)
      return terms.length > 0 ? [`${terms.join(' + ')} <= ${FILLED * places * nights}`] : []
    }),
    ...(ways.length > 0
      ? [`${ways.map(way => `${problem.lines[way.line]!.handsMinutesKg} ${way.name}`).join(' + ')} <= ${problem.handsMinutesADay * nights}`]
      : []),
  ]
  const costs = [...problem.lines.map((_, i) => `1000 l${i}`), ...ways.map(way => `${way.kWhKg + 0.01 * way.placeNightsKg} ${way.name}`)]
  const model = ['Minimize', `obj: ${costs.join(' + ')}`, 'Subject To', ...rows.map((row, i) => `r${i}: ${row}`), 'End', ''].join('\n')
  const answer = solver.solve(model.replaceAll(/(.{1,200}) /g, '$1\n '), { output_flag: false })
  if (answer.Status !== 'Optimal') throw new Error(`The year's programme ended as “${answer.Status}”.`)
  const value = (name: string) => {
    const column = answer.Columns[name]
    return column && 'Primal' in column && typeof column.Primal === 'number' ? Math.max(0, column.Primal) : 0
  }
  return {
    taken: ways.map(({ line, machineId, placeNightsKg, name }) => ({ line, machineId, placeNightsKg, kg: value(name) })),
    lost: problem.lines.map((_, i) => value(`l${i}`)),
  }
}

/** What a month that loses food would be helped by most: twice of each thing is tried, and the most saved says it. */
function narrowOf(
  problem: YearProblem,
  month: number,
  lost: readonly number[],
  { machines, handsShare }: Pick<YearMonth, 'machines' | 'handsShare'>,
  solver: PlanSolver,
): YearMonth['narrow'] {
  const lostKg = lost.reduce((sum, value) => sum + value, 0)
  if (lostKg <= 1e-6) return undefined
  const trials = [
    ...machines
      .filter(({ share }) => share > 0)
      .map(({ id }) => ({
        narrow: { kind: 'machine', id } as const,
        problem: { ...problem, machines: problem.machines.map(item => (item.id === id ? { ...item, places: 2 * item.places } : item)) },
      })),
    ...(handsShare > 0 || problem.handsMinutesADay === 0
      ? [{ narrow: { kind: 'hands' } as const, problem: { ...problem, handsMinutesADay: 2 * problem.handsMinutesADay + 60 } }]
      : []),
  ].map(({ narrow, problem: other }) => ({
    narrow,
    saved: lostKg - solveMonth(other, month, solver).lost.reduce((sum, value) => sum + value, 0),
  }))
  const best = trials.sort((a, b) => b.saved - a.saved)[0]
  return best && best.saved > 1e-6 ? best.narrow : { kind: 'no-way' }
}

function checkYear({ nights, machines, lines, handsMinutesADay }: YearProblem): void {
  const { problems, say } = gather()
  if (nights.length !== 12) say('nights', 'not-a-year', 'Give the nights of twelve months.')
  if (!(handsMinutesADay >= 0)) say('handsMinutesADay', 'below-zero', 'Give the minutes that the people have for it on a day, 0 or more.')
  machines.forEach(({ places }, i) => {
    if (!(places >= 1)) say(`machines.${i}.places`, 'no-places', 'A machine needs at least one place.')
  })
  lines.forEach(({ kg, ways }, i) => {
    if (kg.some(value => !(value >= 0))) say(`lines.${i}.kg`, 'below-zero', 'Kilograms are 0 or more.')
    if (ways.some(way => !(way.placeNightsKg > 0))) say(`lines.${i}.ways`, 'not-above-zero', 'A kilogram takes some of a night.')
  })
  if (problems.length > 0) throw new InputError(problems)
}
