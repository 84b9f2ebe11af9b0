import { HOUR } from '../time'
import type { Candidate } from './candidates'
import { haveOneHeat } from './fit'
import type { Heat, PlanProblem } from './types'
import { lostCost, serves, SHORT_COST } from './worth'

/** A candidate with what it costs by itself. */
export type Priced = Candidate & { cost: number }

/** The part of a solver that is used: a model in the CPLEX LP format in, its columns out. */
export interface PlanSolver {
  solve: (
    model: string,
    options?: { time_limit?: number; mip_rel_gap?: number; output_flag?: boolean },
  ) => { Status: string; ObjectiveValue: number; Columns: Record<string, object> }
}

interface Row {
  terms: string[]
  most: number
}

/** A plan as an integer programme: one column a candidate, one a basket that is lost. */
class Programme {
  private readonly costs: string[] = []
  private readonly rows: Row[] = []
  private readonly binaries: string[] = []
  private readonly bounds: string[] = []

  constructor(private readonly whole: boolean) {}

  column(name: string, cost: number): void {
    this.costs.push(`${number(cost)} ${name}`)
    if (this.whole) this.binaries.push(name)
    else this.bounds.push(`0 <= ${name} <= 1`)
  }
  amount(name: string, cost: number): void {
    this.costs.push(`${number(cost)} ${name}`)
  }
  atMost(terms: string[], most: number): void {
    if (terms.length > 0) this.rows.push({ terms, most })
  }
  text(): string {
    const rows = this.rows.map(({ terms, most }, i) => `r${i}: ${wrap(terms.join(' + ').replaceAll('+ -', '- '))} <= ${number(most)}`)
    const parts = ['Minimize', `obj: ${wrap(this.costs.join(' + '))}`, 'Subject To', ...rows]
    if (this.bounds.length > 0) parts.push('Bounds', ...this.bounds)
    if (this.binaries.length > 0) parts.push('Binary', wrap(this.binaries.join(' ')))
    return [...parts, 'End', ''].join('\n')
  }
}
const number = (value: number) => (Math.round(value * 1e6) / 1e6).toString()
/** Lines of the format are short. */
const wrap = (text: string) => text.replaceAll(/(.{1,200}) /g, '$1\n ')

/** Costs in thousands, so that the solver sees numbers of like size. */
const SCALE = 1e-3

/**
 * The model of these candidates, exact: each basket at most once, places and one heat at every start, smells apart, hands of the day, and
 * what is missing of wishes.
 * @param pools candidates that are free to be chosen, by basket; a basket without any is lost
 * @param fixed runs that stay
 */
export function exactModel(problem: PlanProblem, pools: ReadonlyMap<number, readonly Priced[]>, fixed: readonly Candidate[]): string {
  const programme = new Programme(true)
  const columns = [...pools].flatMap(([basket, list]) => list.map((candidate, k) => ({ candidate, name: `x${basket}_${k}` })))
  for (const { candidate, name } of columns) programme.column(name, SCALE * candidate.cost)
  eachBasketOnce(programme, problem, pools, columns)
  const stands = columns.flatMap(({ candidate, name }) => candidate.stands.map(stand => ({ ...stand, candidate, name })))
  const fixedStands = fixed.flatMap(candidate => candidate.stands.map(stand => ({ ...stand, candidate })))
  for (const machine of problem.machines) {
    const own = stands.filter(stand => stand.machineId === machine.id)
    const others = [...machine.busy, ...fixedStands.filter(stand => stand.machineId === machine.id)]
    const instants = new Set([...own, ...others].map(stand => stand.from))
    for (const at of instants) {
      const then = own.filter(stand => stand.from <= at && stand.to > at)
      const there = others.filter(stand => stand.from <= at && stand.to > at).reduce((sum, stand) => sum + stand.places, 0)
      if (then.reduce((sum, stand) => sum + stand.places, there) > machine.places)
        programme.atMost(
          then.map(stand => `${stand.places} ${stand.name}`),
          machine.places - there,
        )
      for (const clash of clashesOf(problem, machine.tasteless, then)) programme.atMost(clash, 1)
    }
  }
  handsOfDays(programme, problem, columns, fixed)
  wishesOf(programme, problem, columns, fixed)
  return programme.text()
}

/** Of what stands together at an instant, what must not: by pairs of baskets and heats. */
function clashesOf(
  problem: PlanProblem,
  tasteless: boolean,
  then: readonly { candidate: Candidate; name: string; heat: Candidate['option']['heat'] }[],
): string[][] {
  const groups = new Map<string, typeof then>()
  for (const stand of then) {
    const key = `${stand.candidate.basket}/${stand.heat.lowC}/${stand.heat.highC}`
    groups.set(key, [...(groups.get(key) ?? []), stand])
  }
  const list = [...groups.values()]
  const found: string[][] = []
  for (const [i, one] of list.entries())
    for (const other of list.slice(i + 1)) {
      const [a, b] = [one[0]!, other[0]!]
      if (a.candidate.basket === b.candidate.basket) continue
      const smellsOf = ({ candidate }: typeof a) => problem.baskets[candidate.basket]!.smell
      if (haveOneHeat([a.heat, b.heat]) && (tasteless || smellsOf(a) === smellsOf(b))) continue
      found.push([...one, ...other].map(stand => stand.name))
    }
  return found
}

function eachBasketOnce(
  programme: Programme,
  problem: PlanProblem,
  pools: ReadonlyMap<number, readonly unknown[]>,
  columns: readonly { candidate: Candidate; name: string }[],
): void {
  for (const basket of pools.keys()) {
    // One of them or lost: at least one is at most, with the signs turned.
    const lost = `lost${basket}`
    programme.column(lost, SCALE * lostCost(problem.baskets[basket]!.weightG))
    const names = [lost, ...columns.filter(column => column.candidate.basket === basket).map(column => column.name)]
    programme.atMost(names, 1)
    programme.atMost(
      names.map(name => `-1 ${name}`),
      -1,
    )
  }
}

function handsOfDays(
  programme: Programme,
  problem: PlanProblem,
  columns: readonly { candidate: Candidate; name: string }[],
  fixed: readonly Candidate[],
): void {
  for (const day of new Set(columns.map(column => column.candidate.day))) {
    const spent = fixed.filter(candidate => candidate.day === day).reduce((sum, { option }) => sum + option.handsMinutes, 0)
    programme.atMost(
      columns.filter(({ candidate }) => candidate.day === day).map(({ candidate, name }) => `${candidate.option.handsMinutes} ${name}`),
      Math.max(0, problem.handsMinutesADay - spent),
    )
  }
}

/** What is missing of wishes: of those of one food, each by its date and all before it together. */
function wishesOf(
  programme: Programme,
  problem: PlanProblem,
  columns: readonly { candidate: Candidate; name: string }[],
  fixed: readonly Candidate[],
): void {
  const kinds = new Set(problem.wishes.map(wish => `${wish.foodKey}/${wish.purpose}`))
  for (const kind of kinds) {
    const wishes = problem.wishes.filter(wish => `${wish.foodKey}/${wish.purpose}` === kind).sort((a, b) => a.by - b.by)
    for (const [i, wish] of wishes.entries()) {
      const name = `s${problem.wishes.indexOf(wish)}`
      programme.amount(name, SCALE * SHORT_COST)
      const wanted = wishes.slice(0, i + 1).reduce((sum, item) => sum + item.grams, 0)
      const given = fixed.filter(candidate => serves(problem, wish, candidate)).reduce((sum, { option }) => sum + option.productG, 0)
      const short = wishes.slice(0, i + 1).map(item => `-1 s${problem.wishes.indexOf(item)}`)
      const giving = columns
        .filter(({ candidate }) => serves(problem, wish, candidate))
        .map(column => `-${number(column.candidate.option.productG)} ${column.name}`)
      programme.atMost([...short, ...giving], given - wanted)
    }
  }
}

/** Instants at which the bound looks at the machines. */
const LOOKS = 2 * HOUR

/**
 * A linear programme whose least cost no plan undercuts: runs may be cut in parts and machines are looked at every two hours only. Candidates
 * that are the same to it are one, at the cheapest of their costs. What whole runs cannot do is told to it at each look: of those that
 * take more than half of a machine one at most, of those over a third two; and what goes with nothing else has the machine for itself.
 */
export function boundModel(problem: PlanProblem, candidates: readonly (readonly Priced[])[], pinned: readonly Candidate[]): string {
  const programme = new Programme(false)
  const seen = new Map<string, { candidate: Priced; name: string; looks: Look[] }>()
  const pools = new Map<number, Priced[]>()
  for (const [basket, list] of candidates.entries()) {
    if (pinned.some(candidate => candidate.basket === basket)) continue
    pools.set(basket, [])
    for (const candidate of list) {
      const looks = candidate.stands.flatMap(({ machineId, places, heat, from, to }) => {
        const first = Math.ceil(from / LOOKS)
        const count = Math.max(0, Math.ceil(to / LOOKS) - first)
        return Array.from({ length: count }, (_, i) => ({ machineId, look: first + i, places, heat }))
      })
      const span = candidate.stands.map(({ machineId, from, to }) => `${machineId}:${Math.ceil(from / LOOKS)}-${Math.ceil(to / LOOKS)}`)
      const served = problem.wishes.map(wish => (serves(problem, wish, candidate) ? 1 : 0)).join('')
      const key = [basket, candidate.option.cardKey, candidate.day, served, ...span].join('|')
      const known = seen.get(key)
      if (!known) seen.set(key, { candidate, name: `x${seen.size}`, looks })
      else if (candidate.cost < known.candidate.cost) known.candidate = candidate
    }
  }
  const columns = [...seen.values()]
  for (const { candidate, name } of columns) programme.column(name, SCALE * candidate.cost)
  eachBasketOnce(programme, problem, pools, columns)
  const at = new Map<string, Map<number, There[]>>(problem.machines.map(machine => [machine.id, new Map()]))
  for (const { name, looks, candidate } of columns)
    for (const { machineId, look, places, heat } of looks) {
      const list = at.get(machineId)!
      const there = list.get(look)
      const one = { name, places, heat, basket: candidate.basket }
      if (there) there.push(one)
      else list.set(look, [one])
    }
  for (const machine of problem.machines) {
    const others = [...machine.busy, ...pinned.flatMap(candidate => candidate.stands.filter(stand => stand.machineId === machine.id))]
    for (const [look, list] of at.get(machine.id)!) {
      const standing = others.filter(stand => stand.from <= look * LOOKS && stand.to > look * LOOKS)
      const free = Math.max(0, machine.places - standing.reduce((sum, stand) => sum + stand.places, 0))
      programme.atMost(
        list.map(({ places, name }) => `${places} ${name}`),
        free,
      )
      for (const parts of [2, 3]) {
        const large = list.filter(one => one.places > free / parts)
        if (large.length > parts - 1)
          programme.atMost(
            large.map(one => one.name),
            parts - 1,
          )
      }
      aloneRows(programme, problem, machine.tasteless, list, free)
    }
  }
  handsOfDays(programme, problem, columns, pinned)
  wishesOf(programme, problem, columns, pinned)
  return programme.text()
}

interface Look {
  machineId: string
  look: number
  places: number
  heat: Heat
}
interface There {
  name: string
  places: number
  heat: Heat
  basket: number
}

/** Those of one heat and smell, which all together do not fill the machine, against all that may not stand beside them. */
function aloneRows(programme: Programme, problem: PlanProblem, tasteless: boolean, list: readonly There[], free: number): void {
  const kinds = new Map<string, There[]>()
  for (const one of list) {
    const key = `${one.heat.lowC}/${one.heat.highC}/${!tasteless && problem.baskets[one.basket]!.smell}`
    const kind = kinds.get(key)
    if (kind) kind.push(one)
    else kinds.set(key, [one])
  }
  const goes = (a: There, b: There) =>
    haveOneHeat([a.heat, b.heat]) && (tasteless || problem.baskets[a.basket]!.smell === problem.baskets[b.basket]!.smell)
  for (const own of kinds.values()) {
    const most = new Map<number, number>()
    for (const one of own) most.set(one.basket, Math.max(most.get(one.basket) ?? 0, one.places))
    const together = [...most.values()].reduce((sum, places) => sum + places, 0)
    if (together >= free || free <= 0) continue
    const against = [...kinds.values()].filter(other => !goes(own[0]!, other[0]!)).flat()
    if (against.length === 0) continue
    programme.atMost(
      [
        ...own.map(one => `${number(one.places / together)} ${one.name}`),
        ...against.map(one => `${number(one.places / free)} ${one.name}`),
      ],
      1,
    )
  }
}

/** What a solver's answer says: the candidates that it took, and what the whole costs. */
export function chosenBy(
  answer: ReturnType<PlanSolver['solve']>,
  pools: ReadonlyMap<number, readonly Priced[]>,
): { chosen: Map<number, Priced>; cost: number } | undefined {
  if (answer.Status !== 'Optimal' && answer.Status !== 'Time limit reached') return undefined
  const chosen = new Map<number, Priced>()
  for (const [basket, list] of pools) {
    const k = list.findIndex((_, i) => primalOf(answer.Columns[`x${basket}_${i}`]) > 0.5)
    if (k >= 0) chosen.set(basket, list[k]!)
  }
  return { chosen, cost: answer.ObjectiveValue / SCALE }
}
const primalOf = (column: object | undefined) => (column && 'Primal' in column && typeof column.Primal === 'number' ? column.Primal : 0)

/** The least that any plan costs, by the solver's answer to the bound's model. */
export const boundBy = (answer: ReturnType<PlanSolver['solve']>) =>
  answer.Status === 'Optimal' ? answer.ObjectiveValue / SCALE : undefined
