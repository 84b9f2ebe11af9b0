import { wrap, type Remote } from 'comlink'
import { uuidv7 } from 'uuidv7'
import { checkEntry, foldBatch } from '#core/batch'
import { InputError } from '#core/errors'
import { targetIn } from '#core/foods'
import { startOfDay } from '#core/planning'
import type { Act, Guess, Reading } from '#core/practice'
import { isOfRun, ofKind, targetOf, type BatchState, type Entry, type EntryBody } from '#core/log'
import { HOUR } from '#core/time'
import { temperaturesIn } from '#core/units'
import { WAYS } from '#core/ways'
import type { BatchAnswer, LessonAnswer, MachineAnswer } from '#shared/contracts'
import type { Ending, PaperView, PracticeDesk, Step } from '~/workers/practice.worker'
import type { WriteOptions } from './useBatch'

export const practiceWorker = (): { desk: Remote<PracticeDesk>; end: () => void } => {
  const worker = new Worker(new URL('../workers/practice.worker.ts', import.meta.url), { type: 'module' })
  return { desk: wrap<PracticeDesk>(worker), end: () => worker.terminate() }
}

const BATCH = 'paper'
const MACHINE = '0190f000-0000-7000-8000-00000000aaaa'
const SECOND = '0190f000-0000-7000-8000-00000000bbbb'

/**
 * A lesson that is played: a log of its own that lives in this page, entries made and checked by the same rules as real ones, and a
 * kitchen in a worker that says what is weighed, felt and seen. Nothing of it goes to the server.
 */
export function usePaperRun(answer: LessonAnswer, seed: number) {
  const { lesson, food } = answer
  const practice = usePracticeStore()
  const { settings } = storeToRefs(useHouseholdStore())
  const { desk, end } = practiceWorker()
  onScopeDispose(end)

  // The story stands on today's date, so that clock and nights read as they do elsewhere.
  const begunAt = startOfDay(Date.now(), settings.value.timeZone) + lesson.start * HOUR
  const view = shallowRef<PaperView>()
  const entries = ref<Entry[]>([])
  const steps: Step[] = []
  const now = computed(() => begunAt + (view.value?.hours ?? 0) * HOUR)
  const busy = ref(false)
  /** Something was looked at, and nobody said yet what he believes. */
  const asking = ref(false)
  /** Dulse may speak: it was asked before, or nobody wants to guess. */
  const spoken = ref(false)
  const ending = shallowRef<Ending>()
  const machines = computed(() => [machineOf(answer, MACHINE, false), ...(lesson.second ? [machineOf(answer, SECOND, true)] : [])])
  const state = computed<BatchState | undefined>(() => foldBatch(entries.value, () => food))
  const page = computed((): BatchAnswer => ({
    batchId: BATCH,
    number: 0,
    food,
    schools: [],
    accepted: [],
    others: {},
    mates: [],
    family: [],
    entries: entries.value,
    machines: machines.value,
    jars: [],
    reviews: [],
    shelf: [],
    tools: [],
    learned: {},
    taken: {},
    stages: [],
  }))
  let runId = uuidv7()

  const entryOf = (body: EntryBody, at: number): Entry => ({ id: uuidv7(), at, recordedAt: at, seq: entries.value.length + 1, body })
  /** The log before the story: what came in, and what lies on the trays. */
  function firstEntries() {
    const loadedTraysG = view.value!.trayWeightsG
    const totalG = loadedTraysG.reduce((sum, grams) => sum + grams, 0)
    const before = lesson.from === 'load' ? 0 : 10 * HOUR
    const at = begunAt - before
    const setC = lesson.heatC ?? view.value!.setC ?? food.cards[0]!.temperatureC
    entries.value = []
    const add = (body: EntryBody, when: number) => entries.value.push(entryOf(body, when))
    add(
      {
        kind: 'intake',
        foodKey: lesson.food,
        source: 'On paper',
        weightG: totalG,
        purpose: lesson.purpose,
        cardKey: lesson.card,
      } as EntryBody,
      at - HOUR,
    )
    add(loadOf(MACHINE, loadedTraysG), at)
    add({ kind: 'heat', runId, setC }, at)
    if (lesson.from === 'load') return
    // It was dried, and ground, before: whoever did it weighed it.
    const dryG = view.value!.beganG!
    add({ kind: 'unload', weightG: dryG }, begunAt - HOUR)
    if (lesson.from === 'powder') add({ kind: 'grind', dryInG: dryG, powderOutG: dryG }, begunAt - HOUR / 2)
  }
  const loadOf = (machineId: string, traysG: readonly number[]): EntryBody => ({
    kind: 'load',
    runId,
    machineId,
    positions: traysG.map((_, i) => i + 1),
    trays: traysG.map((weightG, i) => ({ position: i + 1, weightG })),
    totalG: traysG.reduce((sum, grams) => sum + grams, 0),
    way: machines.value.find(item => item.id === machineId)!.kind,
    ...(WAYS[lesson.machine.way].underVacuum && { frozen: traysG.map((_, i) => i + 1) }),
  })

  /** What was begun before is done again, as far as this kitchen still knows such deeds: a lesson may have been changed since. */
  async function begin() {
    const kept = practice.open[lesson.key]
    if (kept?.seed === seed && kept.steps.length > 0) {
      try {
        return await goOn(plain(kept))
      } catch {
        practice.close(lesson.key)
      }
    }
    view.value = await desk.begin(lesson, food, seed, [])
    if (view.value.stage !== 'cut') firstEntries()
  }
  async function goOn({ steps: done, log, begunAt: then }: { steps: Step[]; log: unknown[]; begunAt: number }) {
    const found = await desk.begin(lesson, food, seed, done)
    const shift = begunAt - then
    const moved = (log as Entry[]).map(entry => ({ ...entry, at: entry.at + shift, recordedAt: entry.recordedAt + shift }))
    if (found.stage === 'ended') ending.value = await desk.ending()
    view.value = found
    entries.value = moved
    steps.push(...done)
    runId = ofKind(moved, 'load').at(-1)?.body.runId ?? runId
  }
  const keep = () => practice.keepOpen({ key: lesson.key, seed, begunAt, steps: plain(steps), log: plain(entries.value) })

  /** @throws Error in the kitchen's words */
  async function act(one: Act): Promise<Reading> {
    busy.value = true
    try {
      const done = await desk.act(plain(one))
      steps.push(one)
      view.value = done.view
      if (one.do === 'cut') firstEntries()
      keep()
      return done.reading
    } finally {
      busy.value = false
    }
  }

  /** What an entry means for the kitchen; what was measured has been done already. */
  async function carryOut(body: EntryBody) {
    switch (body.kind) {
      case 'heat':
        return view.value!.stage === 'machine' && act({ do: 'heat', setC: body.setC })
      case 'unload':
        return act({ do: 'takeOut', ...(body.positions && { trays: body.positions }) })
      case 'rest':
        return act({ do: 'rest' })
      case 'move': {
        const flipped = body.trays.some(tray => tray.flipped)
        if (flipped) return act({ do: 'turn' })
        const swaps = body.trays.filter(tray => tray.from < tray.to)
        for (const { from, to } of swaps) await act({ do: 'swap', one: from, other: to })
        return undefined
      }
      case 'grind':
        // What the mill on paper made is there already.
        return view.value!.stage !== 'powder' && act({ do: 'grind', burstS: 8 })
      case 'powderDry':
        return act({ do: 'ovenDry', minutes: body.minutes })
      case 'pack':
        return act({ do: 'pack', lid: body.packageKey, gel: (body.gelG ?? 0) > 0 })
      default:
        return undefined
    }
  }

  /** Writes entries into the paper log: checked by the same rules, and done in the kitchen. @throws Refused */
  async function write(bodies: readonly EntryBody[], { replaces }: WriteOptions = {}) {
    for (const body of bodies) {
      if (body.kind === 'caution') continue
      checkMend(body, replaces)
      const at = now.value
      const entry = { ...entryOf(body, at), replaces }
      try {
        const name = machines.value[0]!.name
        if (!isOfRun(body.kind))
          checkEntry(entries.value, entry, {
            now: at,
            find: () => food,
            machine: { kind: machines.value[0]!.kind, name, trays: 20, taken: [] } as never,
          })
        if (replaces === undefined && body.kind !== 'load') await carryOut(body)
      } catch (error) {
        throw refusal(error)
      }
      entries.value = [...entries.value, entry]
      if (LOOKS.includes(body.kind) && replaces === undefined) {
        asking.value = true
        spoken.value = false
      }
    }
    keep()
  }

  /** What was written can be put right; what was done in the kitchen was done. */
  function checkMend(body: EntryBody, replaces?: string) {
    const mended = entries.value.find(entry => entry.id === targetOf({ body, replaces }))
    if (mended && !LOOKS.includes(mended.body.kind) && mended.body.kind !== 'note')
      throw refusal(new Error('What was done was done: on paper only what was seen and written can be put right.'))
  }

  /** What weighs so much now lies in a machine, by a loading of its own: each tray in proportion to what it was loaded with. */
  function loadAgain(machineId: string, totalG: number, setC: number | null) {
    runId = uuidv7()
    const traysG = view.value!.trayWeightsG
    const whole = traysG.reduce((sum, grams) => sum + grams, 0)
    const scaled = traysG.map(grams => Math.max(1, Math.round((grams / whole) * totalG)))
    entries.value = [...entries.value, entryOf(loadOf(machineId, scaled), now.value), entryOf({ kind: 'heat', runId, setC }, now.value)]
    keep()
  }

  /** Back into the machine after a rest. */
  async function goBack(setC: number) {
    const reading = await act({ do: 'back', setC })
    const known = state.value?.dryG ?? state.value?.run?.weighings.at(-1)?.weightG
    loadAgain(view.value!.second ? SECOND : MACHINE, known ?? targetWeightOf(answer, view.value!.trayWeightsG), setC)
    return reading
  }

  /** Into the second machine: out of the one, over the scale, into the other, as the log has it. */
  async function moveOn() {
    const reading = await act({ do: 'move' })
    if (reading.of !== 'weight') return
    entries.value = [...entries.value, entryOf({ kind: 'unload', weightG: reading.grams }, now.value)]
    loadAgain(SECOND, reading.grams, view.value!.setC)
  }

  async function say(guess: Guess, dulse?: Guess) {
    await desk.say(plain(guess), dulse)
    steps.push({ do: 'say', guess, dulse })
    asking.value = false
    spoken.value = true
    keep()
  }
  async function stop() {
    await act({ do: 'stop' })
    ending.value = await desk.ending()
  }

  providePaper({
    now,
    weigh: async place => {
      const tray = place === 0 ? undefined : trayAt(place)
      const reading = await act({ do: 'weigh', tray })
      return reading.of === 'weight' ? reading.grams : NaN
    },
    feel: async (trays, thick, cooled) =>
      (await act({ do: 'feel', trays: trays.map(trayAt), thick, cooled })) as Extract<Reading, { of: 'feel' }>,
    jarAir: async hours => (await act({ do: 'jarAir', hours })) as Extract<Reading, { of: 'jarAir' }>,
    look: async () => {
      const reading = await act({ do: 'look' })
      return reading.of === 'look' ? reading.saw : 'dry'
    },
    powderG: computed(() => view.value?.powderG),
    grind: async burstS => (await act({ do: 'grind', burstS })) as Extract<Reading, { of: 'ground' }>,
  })
  /** The kitchen knows trays as they were loaded, the log by where they stand. */
  const trayAt = (place: number) => state.value?.run?.places.trayAt(place, Infinity) ?? place

  return {
    answer,
    desk,
    view,
    entries,
    state,
    page,
    now,
    busy,
    asking,
    spoken,
    ending,
    begunAt,
    begin,
    act,
    write,
    goBack,
    moveOn,
    say,
    stop,
  }
}

/** Without the page's wrappers, which cannot be handed to a worker. */
const plain = <Value>(value: Value): Value => JSON.parse(JSON.stringify(value)) as Value
const LOOKS: readonly string[] = ['weigh', 'feel', 'jarAir', 'look']

function refusal(error: unknown): unknown {
  if (error instanceof InputError)
    return new Refused({ statusCode: 422, message: error.message, problems: [...error.problems] } as ConstructorParameters<
      typeof Refused
    >[0])
  if (error instanceof Refused) return error
  const message = temperaturesIn(error instanceof Error ? error.message : String(error), useHouseholdStore().settings.temperatureUnit)
  return new Refused({ statusCode: 422, message, problems: [{ field: 'kind', code: 'on-paper', message }] } as ConstructorParameters<
    typeof Refused
  >[0])
}

const targetWeightOf = ({ lesson, food }: LessonAnswer, traysG: readonly number[]) =>
  (traysG.reduce((sum, grams) => sum + grams, 0) * (1 - food.rawMoisture.value.mean)) /
  (1 - targetIn(food, lesson.purpose, lesson.machine.way))

function machineOf({ lesson }: LessonAnswer, id: string, second: boolean): MachineAnswer {
  const from = second ? lesson.second! : lesson.machine
  return {
    id,
    name: from.name,
    kind: from.way,
    trays: Math.max(lesson.load.trays, 1),
    trayAreaM2: from.areaM2,
    watts: from.watts,
    trayTareG: 0,
    trayTares: {},
    lowC: from.lowC,
    highC: from.highC,
    version: 1,
  }
}
