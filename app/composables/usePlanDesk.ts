import { breachesOf, runAt, worthOfRuns, type PlannedRun, type PlanPin } from '#core/plan'

/** What was changed by hand on the board. */
interface Board {
  pins: PlanPin[]
  /** All runs as they stand, after one was moved; what the planner found where it is not given. */
  hand?: PlannedRun[]
  /** What stood there when the rest was planned around a pin: it is disturbed as little as may be. */
  before?: PlanPin[]
}

const DESK: InjectionKey<ReturnType<typeof makePlanDesk>> = Symbol('the plan')
const toPin = ({ basketId, machineId, cardKey, startAt }: PlannedRun): PlanPin => ({ basketId, machineId, cardKey, startAt })

/** The plan that is worked on, for all pages of the place: what there is to do, what was found, and what was changed by hand. */
function makePlanDesk() {
  const { answer, problem: lost, ready, load } = useServer('plan')
  // What was put by hand is still there after a reload, on this device.
  const board = useLocalStorage<Board>('dulse.plan.board', { pins: [] })
  const history = useManualRefHistory(board, { clone: true, capacity: 60 })
  const known = (id: string) => answer.value?.problem.baskets.some(basket => basket.id === id) === true
  const problem = computed(
    () =>
      answer.value && {
        ...answer.value.problem,
        pins: board.value.pins.filter(pin => known(pin.basketId)),
        before: (board.value.before ?? answer.value.problem.before ?? []).filter(pin => known(pin.basketId)),
      },
  )
  const { found, refused, looking, stop } = usePlan(() => problem.value)
  const runs = computed(() => (board.value.hand ?? found.value?.plan.runs ?? []).filter(run => known(run.basketId)))
  const byHand = computed(() => board.value.hand !== undefined)
  const breaches = computed(() => (problem.value ? breachesOf(problem.value, runs.value) : []))
  const worth = computed(() => (problem.value ? worthOfRuns(problem.value, runs.value) : undefined))
  const isPinned = (id: string) => board.value.pins.some(pin => pin.basketId === id)
  const change = (next: Board) => {
    board.value = next
    history.commit()
  }

  /** A run somewhere else, as it would be; undefined where it cannot go there. */
  const moved = (run: PlannedRun, to: { machineId: string; startAt: number }) =>
    problem.value && runAt(problem.value, run.basketId, { ...to, cardKey: run.cardKey })
  /** What would break if it stood there, the others where they are. */
  const breachesIf = (run: PlannedRun) =>
    problem.value
      ? breachesOf(problem.value, [...runs.value.filter(other => other.basketId !== run.basketId), run]).filter(
          breach => breach.basketId === run.basketId,
        )
      : []

  /** Puts it there, and leaves the others where they are. */
  function put(run: PlannedRun) {
    change({
      ...board.value,
      pins: [...board.value.pins.filter(pin => pin.basketId !== run.basketId), toPin(run)],
      hand: [...runs.value.filter(other => other.basketId !== run.basketId), { ...run, pinned: true as const }].sort(
        (a, b) => a.startAt - b.startAt,
      ),
    })
  }
  function togglePin(run: PlannedRun) {
    const pins = board.value.pins.filter(pin => pin.basketId !== run.basketId)
    change({ ...board.value, pins: isPinned(run.basketId) ? pins : [...pins, toPin(run)] })
  }
  /** What is pinned stays; the rest finds its places anew, as near to where it was as may be. */
  function planAround() {
    change({ pins: board.value.pins, before: runs.value.map(toPin) })
  }
  /** Nothing by hand any more. */
  function planAnew() {
    change({ pins: [] })
  }

  /** Works by it: Refused where it cannot be. */
  async function take() {
    const plan = { format: 'dulse-plan' as const, form: 2 as const, runs: runs.value, lost: found.value?.plan.lost ?? [] }
    await call('takePlan', { body: { plan } })
    await load()
  }
  async function drop() {
    await call('dropPlan')
    await load()
  }

  return reactive({
    answer,
    lost,
    ready,
    load,
    problem,
    found,
    refused,
    looking,
    stop,
    runs,
    byHand,
    breaches,
    worth,
    isPinned,
    moved,
    breachesIf,
    put,
    togglePin,
    planAround,
    planAnew,
    take,
    drop,
    undo: () => history.undo(),
    redo: () => history.redo(),
    canUndo: history.canUndo,
    canRedo: history.canRedo,
    pins: computed(() => board.value.pins.length),
  })
}

/** Makes the desk, for the pages within. */
export function providePlanDesk() {
  const desk = makePlanDesk()
  provide(DESK, desk)
  return desk
}

/** The desk of the place. */
export function usePlanDesk() {
  const desk = inject(DESK)
  if (!desk) throw new Error('The plan is used outside of its place.')
  return desk
}
