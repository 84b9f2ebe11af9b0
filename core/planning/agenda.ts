import { WAYS, type WayAsk } from '../ways'
import {
  afterRun,
  cycleMate,
  ROUND_H,
  dangerZoneOf,
  holdLimit,
  hotSpellOf,
  isDamp,
  restNeeded,
  waitingAs,
  worstLook,
  type Assessment,
  type CycleMate,
  betweenGrindings,
  toPackG,
} from '../batch'
import { HOLD_WORDS, type BatchState } from '../log'
import { outdoorTodos } from './outdoors'
import { nextWaking, sleepAround, startOfDay, type Household } from './day'
import type { Todo } from './todo'
import { DAY, HOUR, MINUTE } from '../time'
import { flipHour } from '../water'

type FindSwaps = () => readonly { from: number; to: number }[]

/** First look at two thirds of the usual time (common practice). */
const FIRST_LOOK = 2 / 3

/**
 * What a batch needs next. It follows from the log alone, so it can be kept beside it and only ages.
 * @param planned what the plan has for it, while it waits for a machine
 * @param cycle the other batches in the chamber of its freeze dryer, and its own number among them
 * @param swaps gives the trays of its machine that should change places halfway, slower place first; asked only when it matters
 */
export function agendaOf(
  state: BatchState,
  assessed: Assessment | undefined,
  household: Household,
  swaps: FindSwaps = () => [],
  planned?: Planned,
  cycle: Cycle = { number: 0, mates: [] },
): Todo[] {
  const danger = dangerTodo(state)
  if (danger?.kind === 'discard') return [danger]
  return [
    ...(danger ? [danger] : []),
    ...coldTodo(state),
    ...(planned ? plannedTodos(state, planned, danger !== undefined) : stageTodos(state, assessed, household, swaps, cycle)),
  ]
}

/** What the plan that people work by has for a basket: when it is prepared, and into what it goes. */
export interface Planned {
  prepareAt: number
  startAt: number
  machineName: string
  cut: string
  places: number
}

/** By the plan: cut until then, loaded at its time; what waits longer than it keeps where it stands goes into the cold first. */
function plannedTodos(state: BatchState, { prepareAt, startAt, machineName, cut, places }: Planned, clockRuns: boolean): Todo[] {
  const food = state.food.name.toLowerCase()
  const where = `${places} ${places === 1 ? 'place' : 'places'} of the ${machineName}`
  const isCut = state.stage === 'prep'
  const waitsFrom = isCut ? state.prep.at(-1)!.at : state.intake.at
  const keeps = waitsFrom + holdLimit('counter', waitingAs(state), state.food)
  const waitsLong = !state.hold && !clockRuns && (isCut ? startAt : prepareAt) > keeps
  return [
    ...(state.hold ? [heldTodo(state)] : []),
    // What the plan has wait does so in the cold.
    ...(waitsLong
      ? [
          {
            kind: 'danger' as const,
            from: waitsFrom,
            to: keeps,
            title: `Into the refrigerator with the ${food}`,
            why: 'By the plan it is loaded later: until then it keeps in the cold. Log where it is.',
          },
        ]
      : []),
    isCut
      ? {
          kind: 'load',
          from: startAt,
          title: `Load the ${food}`,
          why: `By the plan: ${where}.`,
        }
      : { kind: 'prepare', from: prepareAt, title: `Cut and load the ${food}`, why: `By the plan: ${cut}, ${where}.` },
  ]
}

/** Who shares a freeze dryer's chamber. */
interface Cycle {
  number: number
  mates: readonly CycleMate[]
}

function stageTodos(state: BatchState, assessed: Assessment | undefined, household: Household, swaps: FindSwaps, cycle: Cycle): Todo[] {
  if (state.hold) return [heldTodo(state)]
  switch (state.stage) {
    case 'intake':
      return [intakeTodo(state)]
    case 'prep':
      return [
        {
          kind: 'load',
          from: state.prep.at(-1)!.at,
          to: state.prep.at(-1)!.at + holdLimit('counter', 'cut', state.food),
          title: `Load the ${state.food.name.toLowerCase()}`,
          why: 'Cut food goes on the heat, or cold, within two hours.',
        },
      ]
    case 'drying':
      return assessed ? runTodos(state, assessed, household, swaps, cycle) : []
    case 'resting':
      return [restTodo(state, assessed, household)]
    case 'grinding':
      return [grindingTodo(state)]
    default:
      return []
  }
}

/** What is perishable stands where things grow: until when it may, or that it stood too long; by what was logged last. */
function dangerTodo(state: BatchState): Todo | undefined {
  const { run, stage, holds, prep, intake } = state
  if (stage === 'shelf') return undefined
  const heat = run?.clock.spells.at(-1)
  const marks = [
    intake.at,
    prep.at(-1)?.at,
    holds.at(-1)?.at,
    run?.loadedAt,
    heat?.from,
    heat?.to,
    run?.weighings.at(-1)?.at,
    run?.unloadedAt,
  ]
  const at = Math.max(...marks.filter(mark => mark !== undefined))
  // A moment on: what was set or logged then has begun.
  const zone = dangerZoneOf(state, at + MINUTE)
  const name = state.food.name.toLowerCase()
  if (zone?.over)
    return {
      kind: 'discard',
      from: at,
      title: `Discard the ${name}`,
      why: 'Over two hours where things grow while it was moist: published guidance (USDA) is to throw it away.',
    }
  if (!zone?.until) return undefined
  return {
    kind: 'danger',
    from: at,
    to: zone.until,
    title: zone.setC === undefined ? `Hot or cold with the ${name}` : `More heat for the ${name}`,
    why:
      zone.setC === undefined
        ? 'Perishable: two hours in all at room warmth. Log where it is kept, or get it on the heat.'
        : 'Perishable and moist: in this heat things grow. Turn it up, or take it into the cold.',
  }
}

/** So far below what is set a probe tells of a plug, a door or a fuse, not of a dial or a wet load, °C. */
const FALLEN_C = 12
/** So near it a machine has come to its heat, °C; by then it has in any case. */
const REACHED_C = 6
const REACHED_BY = 3 * HOUR

/** A probe shows far less than is set, and had shown it: the heat is gone, and moist food does not wait. */
function coldTodo({ stage, run, food }: BatchState): Todo[] {
  if (stage !== 'drying' || !run || run.setC === null || !WAYS[run.way.way].drawsPower || WAYS[run.way.way].underVacuum) return []
  const setC = run.setC
  const shown = run.probed.filter(({ at }) => at >= run.setAt)
  const last = shown.at(-1)
  if (!last || last.chamberC > setC - FALLEN_C) return []
  if (!shown.some(({ chamberC }) => chamberC >= setC - REACHED_C) && last.at < run.setAt + REACHED_BY) return []
  return [
    {
      kind: 'danger',
      from: last.at,
      to: last.at + 30 * MINUTE,
      title: `Is the ${food.name.toLowerCase()} still hot?`,
      why: 'The probe shows far less than is set: look at plug, door and fuse. Moist food does not wait; if the heat is off, log that.',
    },
  ]
}

/** Work stands still: what is kept has a limit. */
function heldTodo(state: BatchState): Todo {
  const { place, since, until } = state.hold!
  return {
    kind: 'held',
    from: since,
    to: until,
    title: `Go on with the ${state.food.name.toLowerCase()}`,
    why: `It waits ${HOLD_WORDS[place]}, no longer than this.`,
  }
}

/** What a batch in a machine asks for, by the way it is dried. */
function runTodos(state: BatchState, assessed: Assessment, household: Household, swaps: FindSwaps, cycle: Cycle): Todo[] {
  const run = state.run!
  const food = state.food.name.toLowerCase()
  const { asks, nightsCount, underVacuum } = WAYS[run.way.way]
  // What is dry comes out, by whatever way and whether its heat is on: nothing else is asked of it.
  if (assessed.verdict.level === 'rest' && !underVacuum) {
    const from = Math.max(run.weighings.at(-1)?.at ?? run.loadedAt, state.feel?.at ?? 0)
    return [{ kind: 'takeOut', from, title: `Take the ${food} out`, why: assessed.verdict.reason }]
  }
  const todosOf: Record<WayAsk, () => Todo[]> = {
    weather: () => outdoorTodos(food, run, household, run.loadedAt),
    // Indoors for the night nothing dries that only dries by day.
    drying: () => (!nightsCount && run.setC === null ? [] : [...dryingTodos(state, assessed, household), ...flipTodo(state, household)]),
    turning: () => turnTodo(state),
    smoke: () => smokeTodos(state),
    rounds: () => freezeTodos(state, assessed, household, cycle),
    lowering: () => lowerTodo(state, assessed),
    swapping: () => rotateTodo(state, assessed, household, swaps),
  }
  return asks.flatMap(ask => todosOf[ask]())
}

/** A look every hour: an oven has no fan for it, and the rim is done before the middle. */
function turnTodo(state: BatchState): Todo[] {
  const run = state.run!
  if (run.setC === null) return []
  const last = Math.max(run.loadedAt, run.places.movedAt ?? 0, run.weighings.at(-1)?.at ?? 0)
  return [
    {
      kind: 'turn',
      from: last + HOUR,
      title: `Look at the ${state.food.name.toLowerCase()} and turn it`,
      why: 'In an oven the first look is after an hour, then hourly: edges scorch while the middle is wet.',
    },
  ]
}

/** A sheet is turned over once its top holds: its underside dries last. */
function flipTodo(state: BatchState, household: Household): Todo[] {
  const run = state.run!
  const hour = flipHour(state, run)
  const from = hour === undefined ? Infinity : run.clock.instantAt(hour)
  if (run.setC === null || run.places.flippedAt !== undefined || !Number.isFinite(from)) return []
  return [
    {
      kind: 'flip',
      from: nextWaking(from, household),
      title: `Turn the ${state.food.name.toLowerCase()} sheets over`,
      why: 'By then the top holds: peel them off, lay them down the other way up without paper, and turn the trays round.',
    },
  ]
}

/** Smoke takes part of the water only; what follows is a machine. */
function smokeTodos(state: BatchState): Todo[] {
  const run = state.run!
  const { low, high } = run.way.usualHours.value
  const name = state.food.name.toLowerCase()
  const last = Math.max(run.loadedAt, run.places.movedAt ?? 0)
  return [
    { kind: 'turn', from: last + HOUR, title: `Turn the ${name} in the smoke`, why: 'So that nothing crisps on the fire’s side.' },
    {
      kind: 'endSmoke',
      from: run.loadedAt + low * HOUR,
      to: run.loadedAt + high * HOUR,
      title: `End the smoke of the ${name}`,
      why: 'Smoke takes part of the water only. Weigh it, take it out, and dry it on in a machine today; rain ends it early.',
    },
  ]
}

/**
 * The machine's word is an opinion: trays are weighed, two hours more, weighed again, until none loses weight. A chamber is opened for all
 * that stands in it at once: one of its batches asks, for all, and nothing is taken out before the last is done.
 */
function freezeTodos(state: BatchState, assessed: Assessment, household: Household, { number, mates }: Cycle): Todo[] {
  const { finish, verdict } = assessed
  const run = state.run!
  const name = state.food.name.toLowerCase()
  const all = mates.length > 0 ? 'freeze dryer' : name
  const leads = mates.every(mate => mate.number > number)
  if (run.setC === null)
    return leads
      ? [{ kind: 'heat', from: run.loadedAt, title: `Start the cycle of the ${all}`, why: 'What stands in the chamber thaws.' }]
      : []
  const own = cycleMate(state, assessed, number)!
  const weighed = Math.min(own.weighings, ...mates.map(mate => mate.weighings))
  if ((own.settled || verdict.level === 'rest') && mates.every(mate => mate.settled))
    return [
      {
        kind: 'takeOut',
        from: run.weighings.at(-1)?.at ?? run.loadedAt,
        title: `Take the ${name} out and pack it at once`,
        why: 'No tray loses weight any more. Freeze-dried food takes water from the room within minutes.',
      },
    ]
  if (!leads) return []
  const last = Math.max(...[own, ...mates].map(mate => mate.weighedAt ?? -Infinity))
  const from =
    weighed > 0 ? last + ROUND_H * HOUR : nextWaking(Number.isFinite(finish.middle) ? finish.middle : run.loadedAt + 24 * HOUR, household)
  return [
    {
      kind: 'round',
      from,
      title: `Weigh every tray of the ${all}`,
      why:
        weighed > 0
          ? 'Two hours more have passed: a tray that lost nothing is done.'
          : `By then the cycle ${run.cycle.endsAt === undefined ? 'should be' : 'is'} through. Weigh in grams, give two hours more, weigh again.`,
    },
  ]
}

function intakeTodo(state: BatchState): Todo {
  const { food, intake } = state
  const days = food.freshDays.value
  return {
    kind: 'prepare',
    from: intake.at,
    to: intake.at + days * DAY,
    title: `Cut and load the ${food.name.toLowerCase()}`,
    why: `Fresh ${food.name.toLowerCase()} waits about ${days} days in the cold.`,
  }
}

function dryingTodos(state: BatchState, { finish, estimate }: Assessment, household: Household): Todo[] {
  const run = state.run!
  const last = run.weighings.at(-1)
  const lastHeat = run.clock.spells.at(-1)
  if (run.setC === null) {
    const since = lastHeat?.to ?? run.loadedAt
    return [
      {
        kind: 'heat',
        from: since,
        title: lastHeat ? `${state.food.name}: the heat is off` : 'Switch the heat on',
        why: lastHeat
          ? 'Food in a switched-off machine takes water back from the room.'
          : 'Moist food must not stand warm beyond two hours.',
      },
    ]
  }
  const since = Math.max(last?.at ?? run.loadedAt, state.feel?.at ?? 0)
  const look = nextLook(state, finish, estimate.hoursToTarget.p50, household)
  const todos = look ? [look] : []
  if (Number.isFinite(finish.middle) && finish.to > since) {
    const night = sleepAround(finish.middle, household)
    const asleep = finish.middle >= night.from
    todos.push({
      kind: 'dry',
      from: finish.from,
      to: Number.isFinite(finish.to) ? finish.to : undefined,
      title: `${state.food.name} will be dry`,
      why: asleep
        ? 'It ends in the night: left on the heat it keeps, switched off it takes water back.'
        : 'Eight in ten that it falls in this window.',
    })
  }
  return todos
}

/** A hot start must end, whoever sleeps: so it is not put off to the morning. */
function lowerTodo(state: BatchState, assessed: Assessment): Todo[] {
  const hot = hotSpellOf(state, assessed)
  return hot
    ? [
        {
          kind: 'lower',
          from: hot.lowerBy,
          title: `Lower the heat of the ${state.food.name.toLowerCase()}`,
          why: 'Longer this hot, its outside hardens over a wet core: it feels dry and softens in the jar.',
        },
      ]
    : []
}

/** With so much of the water gone a swap evens nothing out any more. */
const LATE_FOR_A_SWAP = 0.85

/** Halfway is when a swap evens out most: each tray then has half of its run in either place. */
function rotateTodo(state: BatchState, { estimate, verdict, waterGone }: Assessment, household: Household, swaps: FindSwaps): Todo[] {
  const run = state.run!
  const halfway = run.clock.instantAt(estimate.hoursToTarget.p50 / 2)
  if (
    run.setC === null ||
    run.places.movedAt !== undefined ||
    verdict.level === 'rest' ||
    waterGone.p50 > LATE_FOR_A_SWAP ||
    !Number.isFinite(halfway)
  )
    return []
  const own = swaps().filter(({ from }) => run.present.some(tray => run.places.placeAt(tray, Infinity) === from))
  if (own.length === 0) return []
  const pairs = own.map(({ from, to }) => `${from} with ${to}`).join(', ')
  return [
    {
      kind: 'rotate',
      from: nextWaking(halfway, household),
      title: `Swap ${own.length > 1 ? 'trays' : 'tray'} ${pairs}`,
      why: 'These places dry unevenly in this machine; swapped halfway, the trays end together.',
    },
  ]
}

/** When to weigh or feel next: two thirds of the usual time, then half the rest, at last hourly. */
function nextLook(
  state: BatchState,
  finish: { from: number; middle: number },
  middleHours: number,
  household: Household,
): Todo | undefined {
  const run = state.run!
  const last = run.weighings.at(-1)
  const food = state.food.name.toLowerCase()
  if (!last) {
    const first = Math.min(run.clock.instantAt(FIRST_LOOK * middleHours), finish.middle)
    const from = Number.isFinite(first) ? nextWaking(first, household) : run.loadedAt + 6 * HOUR
    return {
      kind: 'weigh',
      from,
      title: `Weigh the ${food}`,
      why: 'At two thirds of the usual time the first weight narrows the finish most.',
    }
  }
  const felt = state.feel && state.feel.at > last.at ? state.feel.at : undefined
  const since = Math.max(last.at, felt ?? 0)
  const near = finish.from - since < 1.5 * HOUR
  if (near) {
    const from = nextWaking(Math.max(since + HOUR, finish.from), household)
    return {
      kind: 'test',
      from,
      title: `Test the ${food} for dryness`,
      why: 'It may be dry by then: cool a few thick pieces, feel them, and weigh.',
    }
  }
  const half = since + 0.6 * (finish.middle - since)
  const from = nextWaking(Number.isFinite(half) ? Math.max(since + HOUR, half) : since + 3 * HOUR, household)
  return {
    kind: 'weigh',
    from,
    title: `Weigh the ${food}`,
    why: 'With more than half of the rest gone, a weight narrows the finish again.',
  }
}

function restTodo(state: BatchState, assessed: Assessment | undefined, household: Household): Todo {
  const { rest, food } = state
  const name = food.name.toLowerCase()
  const startedAt = rest?.startedAt
  if (startedAt === undefined) {
    const { is } = afterRun(state, assessed)
    const from = state.run!.unloadedAt!
    const soon = { from, to: from + 3 * HOUR }
    if (is === 'part')
      return { kind: 'load', ...soon, title: `Load the ${name} into a dryer`, why: 'Smoke took part of the water only: it is moist still.' }
    if (is === 'vacuum')
      return { kind: 'rest', ...soon, title: `Pack or grind the ${name} at once`, why: 'It takes water from the room within minutes.' }
    // Which heat and how long its page says, in the household's units.
    if (is === 'wet') return { kind: 'redry', ...soon, title: `Dry the ${name} on`, why: 'It came out wet: closed in a jar it spoils.' }
    if (is === 'doubtful')
      return {
        kind: 'test',
        ...soon,
        title: `Test the ${name} before it is closed in`,
        why: 'It is more likely wet than dry: weigh it, feel a few thick pieces cold, or finish it in a machine.',
      }
    return {
      kind: 'rest',
      ...soon,
      title: `Close the ${name} in a jar`,
      why: 'Dry food takes water from the room within hours. Rest it, or grind it while it is crisp.',
    }
  }
  const lastLook = rest!.looks.at(-1)
  if (assessed?.verdict.discard)
    return { kind: 'discard', from: lastLook!.at, title: `Discard the ${name}`, why: 'Mould was seen: the whole jar goes.' }
  if (isDamp(worstLook(rest!))) {
    return {
      kind: 'redry',
      from: lastLook!.at,
      title: `Dry the ${name} again`,
      why: 'The jar showed moisture: back to the machine the same day.',
    }
  }
  if (assessed?.verdict.level === 'keep-drying')
    return {
      kind: 'redry',
      from: Math.max(startedAt, lastLook?.at ?? 0),
      title: `Dry the ${name} again`,
      why: assessed.verdict.reason,
    }
  const needed = restNeeded(state)
  const done = startedAt + needed * DAY
  const next = Math.max(lastLook?.at ?? startedAt, startedAt) + DAY
  const unseen = rest!.jars.some(jar => !jar.out && jar.looks.length === 0)
  if (next >= done - DAY / 4 && !unseen) {
    return {
      kind: 'grind',
      from: nextWaking(done, household),
      title: state.purpose === 'pieces' ? `Pack the ${name}` : `Grind the ${name}`,
      why: `${needed} days in the jar without moisture are enough.`,
    }
  }
  const day = Math.round((next - startedAt) / DAY)
  return {
    kind: 'look',
    from: nextWaking(next, household),
    title: `Shake the ${name}, look for beads`,
    why:
      unseen && day > 1
        ? `Day ${day} in the jar, and nobody has looked: time alone does not make it dry.`
        : `Day ${day} of ${needed} in the jar.`,
  }
}

function grindingTodo(state: BatchState): Todo {
  const name = state.food.name.toLowerCase()
  const between = betweenGrindings(state)
  if (between) {
    const since = state.run?.powderDries.at(-1)?.at ?? state.grinds.at(-1)?.at ?? state.run?.unloadedAt ?? state.intake.at
    return {
      kind: 'grind',
      from: since,
      // Coarse powder takes water from the room sooner than pieces do.
      to: since + 2 * HOUR,
      title: between === 'dry' ? `Dry the coarse ${name} powder` : `Grind the ${name} again`,
      why:
        between === 'dry'
          ? 'An hour thin on a sheet, and then it is ground fine.'
          : 'It was dried between: the second round makes it fine.',
    }
  }
  const toPack = toPackG(state)
  // Pieces that wait for the mill come before powder that is all in its jars.
  if (toPack !== undefined && (toPack >= 1 || !state.left.pieces)) {
    const since = state.jars.at(-1)?.packedAt ?? state.grinds.at(-1)?.at ?? state.rest?.endedAt ?? state.run?.unloadedAt ?? state.intake.at
    return {
      kind: 'pack',
      from: since,
      to: since + 4 * HOUR,
      title: `Pack the ${name}`,
      why: 'Open powder takes water from the room and sets.',
    }
  }
  const since = state.rest?.endedAt ?? state.run?.unloadedAt ?? state.intake.at
  return {
    kind: 'grind',
    from: since,
    to: since + 2 * DAY,
    title: `Grind the ${name}`,
    why: state.beganDry ? 'It stands open since it left its jar.' : 'It has rested and stayed dry.',
  }
}

/** The hour that stands before a thing: its end, once it has begun. */
export const dueAt = ({ from, to }: Pick<Todo, 'from' | 'to'>, now: number) => (from <= now && to !== undefined && to > now ? to : from)

export type TodoGroup = 'late' | 'today' | 'sleep' | 'later'

/**
 * Where a thing stands in the day: past its time, before the next bedtime, in the coming night, or after it.
 */
export function groupOf(todo: Pick<Todo, 'from' | 'to' | 'kind'>, now: number, household: Household): TodoGroup {
  const night = sleepAround(now, household)
  if (todo.kind === 'dry') {
    const middle = todo.to === undefined ? todo.from : (todo.from + todo.to) / 2
    return middle <= Math.max(now, night.from) ? 'today' : middle <= night.to ? 'sleep' : 'later'
  }
  const deadline = todo.to ?? todo.from + 0.25 * HOUR
  if (deadline < now) return 'late'
  const at = Math.max(todo.from, now)
  if (todo.to !== undefined && todo.to - now > 2 * DAY) return 'later'
  if (at < night.from || now >= night.from) return at < night.to || at < startOfDay(now, household.timeZone, 1) ? 'today' : 'later'
  return at < night.to ? 'sleep' : 'later'
}
