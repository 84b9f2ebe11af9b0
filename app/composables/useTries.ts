import { balanceOnTrays } from '#core/batch'
import { InputError } from '#core/errors'
import { wayOf, type Food, type MethodCard, type Purpose } from '#core/foods'
import { hoursOf } from '#core/hours'
import {
  changeBetween,
  tryLoad,
  usualKnobs,
  type TryChange,
  type TryKnobs,
  type TryLoad,
  type TryMachine,
  type TryResult,
} from '#core/tries'
import type { Air } from '#core/air'
import type { BatchState, Entry, EntryBody, UsualHours } from '#core/log'
import { heatOfRun } from '#core/water'
import { WAYS, type WayKey } from '#core/ways'
import { machinesByUse, type Forecast, type Household } from '#core/planning'
import type { BatchAnswer, FoodHoursAnswer, MachineAnswer } from '#shared/contracts'

/** As many beside each other as can be compared by eye. */
export const MOST_TRIES = 4

/** Tries that were taken over, by the batch that they are to be loaded as: the load form begins with them. In this browser alone. */
export const useTakenTries = () => {
  const taken = useLocalStorage<Record<string, TryKnobs>>('dulse.tries', {})
  const MOST = 30
  return {
    of: (batchId: string): TryKnobs | undefined => taken.value[batchId],
    take: (batchId: string, knobs: TryKnobs) => {
      const others = Object.entries(taken.value).filter(([other]) => other !== batchId)
      taken.value = Object.fromEntries([...others.slice(1 - MOST), [batchId, knobs]])
    },
  }
}

/** A machine of the household as a try takes it. */
export function tryMachineOf(machine: MachineAnswer, more: Pick<TryMachine, 'free' | 'usualHours'> = {}): TryMachine {
  const paces = (machine.evenness ?? []).map(place => place.pace)
  return {
    id: machine.id,
    name: machine.name,
    kind: machine.kind,
    trays: machine.trays,
    trayAreaM2: machine.trayAreaM2,
    watts: machine.watts,
    lowC: machine.lowC,
    highC: machine.highC,
    ...(paces.length > 1 && { slowest: Math.min(1, ...paces) }),
    ...more,
  }
}

/** Tries of a load, up to four: each with its knobs, what comes of it, and what the last turn changed. */
export function useTries(load: Ref<TryLoad | undefined>, start: Ref<{ machineId: string; cardKey: string; room?: Air } | undefined>) {
  const tries = shallowRef<{ id: number; knobs: TryKnobs; result?: TryResult }[]>([])
  const at = ref(0)
  const current = computed(() => tries.value[at.value])
  const change = shallowRef<TryChange>()
  const problem = ref('')
  let made = 0
  /** What the knob that is being turned is compared with: how it was before anybody touched it. */
  let before: TryResult | undefined
  let turning: string | undefined
  /** What is turned next is compared with how it stands. */
  const compareWithNow = () => (before = current.value?.result)

  /** Works out the try in view. */
  function work() {
    const one = current.value
    if (!load.value || !one) return
    try {
      const result = tryLoad(load.value, one.knobs)
      problem.value = ''
      tries.value = tries.value.map(item => (item.id === one.id ? { ...item, result } : item))
      change.value = before && changeBetween(before, result, load.value.machines)
    } catch (error) {
      if (!(error instanceof InputError)) throw error
      // The field stands beside each sentence for programs; people see which knob it is.
      problem.value = error.message.replace(/(^|; )[\w.]+: /g, '$1')
    }
  }
  /** Turns one knob of the try in view. */
  function turn<Name extends keyof TryKnobs>(name: Name, value: TryKnobs[Name]) {
    const now = current.value
    if (!now) return
    if (turning !== name) {
      turning = name
      compareWithNow()
    }
    const knobs = { ...now.knobs, [name]: value }
    // One layer stays one layer: of thicker pieces more lies on a tray.
    if (name === 'thicknessMm') knobs.loadKgM2 *= knobs.thicknessMm / now.knobs.thicknessMm
    tries.value = tries.value.map((item, i) => (i === at.value ? { ...item, knobs } : item))
    work()
  }
  /** Another machine has a heat of its own: what the one was set to the other may not have. */
  function turnMachine(machineId: string) {
    const now = current.value
    if (!now || !load.value) return
    const { setC } = usualKnobs(load.value, machineId, now.knobs.cardKey)
    compareWithNow()
    turning = 'machineId'
    tries.value = tries.value.map((item, i) => (i === at.value ? { ...item, knobs: { ...item.knobs, machineId, setC } } : item))
    work()
  }
  /** Another cut begins as its card has it. */
  function turnCut(cardKey: string) {
    const now = current.value
    if (!now || !load.value) return
    const { thicknessMm, loadKgM2 } = usualKnobs({ ...load.value, thicknessMm: undefined }, now.knobs.machineId, cardKey)
    compareWithNow()
    turning = 'cardKey'
    tries.value = tries.value.map((item, i) =>
      i === at.value ? { ...item, knobs: { ...item.knobs, cardKey, thicknessMm, loadKgM2 } } : item,
    )
    work()
  }
  function show(index: number) {
    at.value = index
    turning = undefined
    before = index > 0 ? tries.value[0]?.result : undefined
    change.value = before && current.value?.result ? changeBetween(before, current.value.result, load.value?.machines ?? []) : undefined
  }
  function another() {
    if (!current.value || tries.value.length >= MOST_TRIES) return
    tries.value = [...tries.value, { ...current.value, id: ++made }]
    show(tries.value.length - 1)
  }
  function drop(index: number) {
    tries.value = tries.value.filter((_, i) => i !== index)
    show(Math.max(0, Math.min(at.value, tries.value.length - 1)))
  }
  watch(
    [load, start],
    ([now, from], [was]) => {
      if (!now || !from) return void (tries.value = [])
      // Another food or machine begins anew; more of the same keeps what was turned.
      if (tries.value.length === 0 || was?.food.key !== now.food.key) {
        tries.value = [{ id: ++made, knobs: usualKnobs(now, from.machineId, from.cardKey, from.room) }]
        at.value = 0
        before = undefined
        turning = undefined
      }
      work()
    },
    { immediate: true },
  )
  return { tries, at, current, change, problem, turn, turnMachine, turnCut, show, another, drop }
}

/** A batch that stands in a machine, as a try takes it: its log, turned at from an instant on. */
export function tryOfRun(
  food: Food,
  state: BatchState,
  entries: readonly Entry[],
  machine: MachineAnswer,
  startAt: number,
  household: Household,
): TryLoad | undefined {
  const { run } = state
  if (!run || WAYS[run.way.way].underVacuum || WAYS[run.way.way].unheated) return undefined
  return {
    food,
    log: entries,
    preparedG: run.loadedG,
    machines: [tryMachineOf(machine)],
    startAt,
    household,
    running: { setC: run.setC, onC: heatOfRun(run), room: run.room },
  }
}

/** A batch that is to be loaded, as a try takes it: what is ready for the trays, in the machines that may take it. */
export function tryBeforeLoad(
  state: BatchState,
  entries: readonly Entry[],
  page: BatchAnswer,
  startAt: number,
  household: Household,
): TryLoad | undefined {
  const machines = machinesByUse(page.machines.filter(canTry), state.card.ways).map(machine => {
    const taken = page.taken[machine.id]?.positions.length ?? 0
    const learned = page.learned[machine.id]
    return tryMachineOf(machine, {
      free: machine.trays - taken,
      ...(learned && { usualHours: hoursOfCards(state, machine.kind, learned) }),
    })
  })
  const preparedG = balanceOnTrays(state).weightG.p50
  return machines.length === 0 || !(preparedG > 0)
    ? undefined
    : { food: page.food, log: entries, preparedG, machines, startAt, household, thicknessMm: state.thicknessMm }
}

/** What is learned is told for this batch as it is cut: what that makes of its card's hours it makes of every card's. */
function hoursOfCards(state: BatchState, way: WayKey, learned: UsualHours): Record<string, UsualHours> {
  const usual = hoursOf({ ...state, way })
  return Object.fromEntries(
    state.food.cards.map(card => {
      const { low, high } = wayOf(card, way).usualHours.value
      return [card.key, { low: (low * learned.low) / usual.low, high: (high * learned.high) / usual.high, runs: learned.runs }]
    }),
  )
}

/** Machines whose heat is set: under a vacuum and under the sky there is nothing to turn at. */
export const canTry = ({ kind }: MachineAnswer) => !WAYS[kind].underVacuum && !WAYS[kind].unheated

/** A basket that is typed in, as a try takes it: what its forecast says will be ready for the trays. */
export function basketToTry(
  {
    food,
    card,
    purpose,
    weightG,
    weighed,
    forecast,
    machines,
    machineId,
    hours,
    now,
  }: {
    food?: Food
    card?: MethodCard
    purpose: Purpose
    weightG?: number
    weighed?: 'uncooked' | 'cooked'
    forecast?: Forecast
    machines: readonly MachineAnswer[]
    machineId: string
    hours?: FoodHoursAnswer
    now: number
  },
  household: Household,
): TryLoad | undefined {
  const fit = machines.filter(canTry)
  if (!food || !card || !forecast || weightG === undefined || fit.length === 0) return undefined
  const body: EntryBody = { kind: 'intake', foodKey: food.key, cardKey: card.key, purpose, source: 'typed in', weightG, weighed }
  return {
    food,
    log: [{ id: 'typed', seq: 1, at: now, recordedAt: now, body }],
    preparedG: forecast.preparedG.p50,
    machines: fit.map(machine => {
      // Of every cut, since another may be chosen.
      const own = hours?.machines.find(({ machineId }) => machineId === machine.id)?.cards
      return tryMachineOf(machine, {
        // The forecast knows of the machine that is chosen how many of its places are free.
        ...(machine.id === machineId && { free: forecast.free }),
        ...(own && { usualHours: own }),
      })
    }),
    startAt: now,
    household,
  }
}
