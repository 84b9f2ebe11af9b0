import { sdOf } from '#core/stats'
import { wrap, type Remote } from 'comlink'
import { changeBetween, usualKnobs, type TryChange, type TryKnobs, type TryLoad, type TryMachine, type TryResult } from '#core/tries'
import type { Air } from '#core/air'
import type { Assessment } from '#core/batch'
import type { BatchState } from '#core/log'
import { HOUR } from '#core/time'
import { usualHoursFactor } from '#core/water'
import { WAYS } from '#core/ways'
import { startOfDay, type Forecast } from '#core/planning'
import { effectsOfChoices, type Food, type MethodCard, type Purpose } from '#core/foods'
import type { BatchAnswer, FoodHoursAnswer, HouseholdSettings, MachineAnswer } from '#shared/contracts'
import type { TriesDesk } from '~/workers/tries.worker'

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

/** Without the page's wrappers, which cannot be handed to a worker. */
const plain = <Value>(value: Value): Value => JSON.parse(JSON.stringify(value)) as Value

/** Tries of a load, up to four: each with its knobs, what comes of it, and what the last turn changed. */
export function useTries(load: Ref<TryLoad | undefined>, start: Ref<{ machineId: string; cardKey: string; room?: Air } | undefined>) {
  const worker = new Worker(new URL('../workers/tries.worker.ts', import.meta.url), { type: 'module' })
  const desk: Remote<TriesDesk> = wrap<TriesDesk>(worker)
  onScopeDispose(() => worker.terminate())
  const tries = shallowRef<{ id: number; knobs: TryKnobs; result?: TryResult }[]>([])
  const at = ref(0)
  const current = computed(() => tries.value[at.value])
  const change = shallowRef<TryChange>()
  const problem = ref('')
  let made = 0
  /** What the knob that is being turned is compared with: how it was before anybody touched it. */
  let before: TryResult | undefined
  let turning: string | undefined
  let working = false
  let again = false
  const ask = (knobs: TryKnobs) => desk.try(plain(load.value!), plain(knobs))
  /** What is turned next is compared with how it stands; while that is still being worked out, it is asked for by itself. */
  function compareWithNow() {
    before = current.value?.result
    if (working && load.value && current.value)
      void ask(current.value.knobs).then(
        result => (before = result),
        () => undefined,
      )
  }

  /** Works out the try in view. While a slider is drawn only what it came to last is asked for. */
  async function work() {
    if (working) return void (again = true)
    working = true
    do {
      again = false
      const one = current.value
      if (!load.value || !one) break
      try {
        const result = await ask(one.knobs)
        problem.value = ''
        tries.value = tries.value.map(item => (item.id === one.id ? { ...item, result } : item))
        if (load.value && current.value?.id === one.id) change.value = before && changeBetween(before, result, load.value.machines)
      } catch (error) {
        // The field stands beside each sentence for programs; people see which knob it is.
        if (!again) problem.value = (error as Error).message.replace(/(^|; )[\w.]+: /g, '$1')
      }
    } while (again)
    working = false
  }
  /** Turns one knob of the try in view. */
  function turn<Name extends keyof TryKnobs>(name: Name, value: TryKnobs[Name]) {
    const now = current.value
    if (!now) return
    if (turning !== name) {
      turning = name
      compareWithNow()
    }
    tries.value = tries.value.map((item, i) => (i === at.value ? { ...item, knobs: { ...item.knobs, [name]: value } } : item))
    void work()
  }
  /** Another machine has a heat of its own: what the one was set to the other may not have. */
  function turnMachine(machineId: string) {
    const now = current.value
    if (!now || !load.value) return
    const { setC } = usualKnobs(load.value, machineId, now.knobs.cardKey)
    compareWithNow()
    turning = 'machineId'
    tries.value = tries.value.map((item, i) => (i === at.value ? { ...item, knobs: { ...item.knobs, machineId, setC } } : item))
    void work()
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
    void work()
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
      void work()
    },
    { immediate: true },
  )
  return { tries, at, current, change, problem, turn, turnMachine, turnCut, show, another, drop }
}

/** A batch that stands in a machine, as a try takes it: from what is believed of it at an instant. */
export function tryOfRun(
  state: BatchState,
  assessment: Assessment,
  machine: MachineAnswer,
  at: number,
  sleep: { from: number; to: number },
  startHour: number,
): TryLoad | undefined {
  const { run } = state
  if (!run || WAYS[run.way.way].underVacuum || WAYS[run.way.way].unheated) return undefined
  const { moistureNow, hoursToTarget, solidsG, waterLeftG } = assessment.estimate
  // With the heat on by the clock; without it by what is left of the heat that it had.
  const spent = run.clock.equivalentHoursAt(at)
  const { finish } = assessment
  const left = (end: number, hours: number) => Math.max(0, run.setC === null ? hours - spent : (end - at) / HOUR)
  const weightG = solidsG.p50 + waterLeftG.p50
  return {
    food: state.food,
    purpose: state.purpose,
    preparedG: run.loadedG,
    solids: { mean: Math.min(0.9, Math.max(0.03, solidsG.p50 / run.loadedG)), sd: 0.02 },
    machines: [tryMachineOf(machine)],
    startHour,
    sleep,
    running: {
      moistureNow,
      hoursToTarget: {
        p10: left(finish.from, hoursToTarget.p10),
        p50: left(finish.middle, hoursToTarget.p50),
        p90: left(finish.to, hoursToTarget.p90),
      },
      setC: run.setC ?? state.card.temperatureC,
      weightG,
    },
  }
}

/** A batch that is to be loaded, as a try takes it: what is ready for the trays, in the machines that may take it. */
export function tryBeforeLoad(
  state: BatchState,
  page: BatchAnswer,
  startHour: number,
  sleep: { from: number; to: number },
): TryLoad | undefined {
  const machines = page.machines.filter(canTry).map(machine => {
    const taken = page.taken[machine.id]?.positions.length ?? 0
    // What is learned is told for the cut and purpose of this batch; a try reckons with those itself.
    const hours = page.learned[machine.id]
    const factor = usualHoursFactor(state, machine.kind) / effectsOfChoices(state.food, state.choices).hours
    return tryMachineOf(machine, {
      free: machine.trays - taken,
      ...(hours && { usualHours: { [state.card.key]: { low: hours.low / factor, high: hours.high / factor } } }),
    })
  })
  const { moisture, weightG } = state.balance
  return machines.length === 0 || !(weightG.p50 > 0)
    ? undefined
    : {
        food: state.food,
        purpose: state.purpose,
        preparedG: weightG.p50,
        solids: { mean: 1 - moisture.p50, sd: Math.max(0.004, sdOf(moisture)) },
        machines,
        startHour,
        sleep,
        thicknessMm: state.thicknessMm,
      }
}

/** Machines whose heat is set: under a vacuum and under the sky there is nothing to turn at. */
export const canTry = ({ kind }: MachineAnswer) => !WAYS[kind].underVacuum && !WAYS[kind].unheated

/** Hour of the day on the household's clock. */
export function hourOfDay(at: number, timeZone: string): number {
  return (at - startOfDay(at, timeZone)) / HOUR
}

/** A basket that is typed in, as a try takes it: what its forecast says will be ready for the trays. */
export function basketToTry(
  {
    food,
    card,
    purpose,
    forecast,
    machines,
    machineId,
    hours,
    now,
  }: {
    food?: Food
    card?: MethodCard
    purpose: Purpose
    forecast?: Forecast
    machines: readonly MachineAnswer[]
    machineId: string
    hours?: FoodHoursAnswer
    now: number
  },
  { timeZone, sleepFrom, sleepTo }: Pick<HouseholdSettings, 'timeZone' | 'sleepFrom' | 'sleepTo'>,
): TryLoad | undefined {
  const fit = machines.filter(canTry)
  if (!food || !card || !forecast || fit.length === 0) return undefined
  const water = (card.moisture ?? food.rawMoisture).value
  return {
    food,
    purpose,
    preparedG: forecast.preparedG.p50,
    solids: { mean: 1 - water.mean, sd: water.sd },
    machines: fit.map(machine => {
      // Of every cut, since another may be chosen.
      const own = hours?.machines.find(({ machineId }) => machineId === machine.id)?.cards
      return tryMachineOf(machine, {
        // The forecast knows of the machine that is chosen how many of its places are free.
        ...(machine.id === machineId && { free: forecast.free }),
        ...(own && { usualHours: own }),
      })
    }),
    startHour: hourOfDay(now, timeZone),
    sleep: { from: sleepFrom / 60, to: sleepTo / 60 },
  }
}
