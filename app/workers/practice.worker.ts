import { expose } from 'comlink'
import type { Food } from '#core/foods'
import type { JarSight } from '#core/log'
import {
  bestHere,
  drill,
  judge,
  Kitchen,
  play,
  searchBest,
  type Act,
  type Best,
  type Deed,
  type Drill,
  type DrillKind,
  type Frame,
  type Guess,
  type Lesson,
  type Outcome,
  type Reading,
  type Stage,
  type Truths,
} from '#core/practice'

/** What a run is kept as: what was done, and what was said, in order. */
export type Step = Act | { do: 'say'; guess: Guess; dulse?: Guess }

/** What can be known of a kitchen on paper by whoever stands in it. */
export interface PaperView {
  stage: Stage
  hours: number
  clock: number
  asleep: boolean
  setC: number | null
  roomC: number
  humidity: number
  present: number[]
  trayWeightsG: number[]
  rained: boolean
  second: boolean
  /** The machine’s display says that it is done. */
  saidDone: boolean
  machine: { name: string; lowC: number; highC: number }
  /** Why a deed cannot be done; the others can. */
  cannot: Partial<Record<Deed, string>>
  /** Weight of powder, once there is some. */
  powderG?: number
  /** What came dry into the lesson weighs, as whoever dried it wrote down. */
  beganG?: number
  /** The jar, opened after its months; the cup, tasted. */
  opened?: { saw: JarSight; months: number }
  cup?: 'thin' | 'right' | 'thick'
}

/** What was said, with what it was. */
export interface SaidThen {
  hours: number
  guess: Guess
  dulse?: Guess
  truths: Truths
}
/** What nobody sees in a kitchen, and what it came to. */
export interface Ending {
  frames: Frame[]
  acts: { hours: number; act: Act; reading: Reading }[]
  outcome: Outcome
  said: SaidThen[]
  target: number
  readyAt?: number
  jarHumidity?: number
  truth: { water: number; hours: number; hygrometer: number }
}

let kitchen: Kitchen | undefined
let beganG = 0
let said: Omit<SaidThen, 'truths'>[] = []
let waters: { water: number; dry: boolean }[] = []

function viewOf(now: Kitchen): PaperView {
  const deeds = now.lesson.deeds
  const cup = now.acts.findLast(({ reading }) => reading.of === 'cup')?.reading
  return {
    stage: now.stage,
    hours: now.hours,
    clock: now.clock,
    asleep: now.asleep,
    setC: now.setC,
    roomC: now.room.celsius,
    humidity: now.room.humidity,
    present: now.stage === 'machine' ? now.present : [],
    trayWeightsG: now.loadedTraysG,
    rained: now.rained,
    second: now.second,
    saidDone: now.saidDone,
    machine: { name: now.machine.name, lowC: now.machine.lowC, highC: now.machine.highC },
    cannot: Object.fromEntries(deeds.flatMap(deed => (now.cannot(deed) ? [[deed, now.cannot(deed)!]] : []))),
    ...(now.powder && { powderG: Math.round(now.powder.weightG) }),
    ...(now.lesson.from !== 'load' && { beganG }),
    ...(now.jarSight && { opened: { saw: now.jarSight, months: now.lesson.months } }),
    ...(cup?.of === 'cup' && { cup: cup.words }),
  }
}

function endingOf(now: Kitchen, sayings: Omit<SaidThen, 'truths'>[], then: { water: number; dry: boolean }[]): Ending {
  return {
    frames: now.frames,
    acts: now.acts,
    outcome: judge(now),
    said: sayings.map((saying, i) => ({
      ...saying,
      truths: { ...then[i]!, ...(now.meanDryAt !== undefined && { dryIn: Math.max(0, now.meanDryAt - saying.hours) }) },
    })),
    target: now.target,
    readyAt: now.readyAt,
    jarHumidity: now.jarHumidity,
    truth: { water: now.truth.water, hours: now.truth.hours, hygrometer: now.truth.hygrometer },
  }
}

function say(guess: Guess, dulse?: Guess): void {
  said.push({ hours: kitchen!.hours, guess, dulse })
  waters.push({ water: kitchen!.moisture, dry: kitchen!.moisture <= kitchen!.target })
}

/** Kitchens on paper, away from the thread that draws. One kitchen a worker. */
const desk = {
  /** Opens a kitchen, and does again what was done in it before. */
  begin(lesson: Lesson, food: Food, seed: number, steps: readonly Step[]): PaperView {
    kitchen = new Kitchen(lesson, food, seed, true)
    beganG = Math.round(kitchen.weightG)
    said = []
    waters = []
    for (const step of steps) {
      if (step.do === 'say') say(step.guess, step.dulse)
      else kitchen.do(step)
    }
    return viewOf(kitchen)
  },
  act(act: Act): { reading: Reading; view: PaperView } {
    const reading = kitchen!.do(act)
    return { reading, view: viewOf(kitchen!) }
  },
  say,
  ending: (): Ending => endingOf(kitchen!, said, waters),
  /** The same kitchen, played as the lesson teaches or warns of. */
  played: (lesson: Lesson, food: Food, seed: number, who: 'taught' | 'habit'): Ending =>
    endingOf(play(lesson, food, seed, lesson[who], true), [], []),
  /** The best that could be done with what one could know: tells each better rule, and what it makes of this kitchen. */
  best(lesson: Lesson, food: Food, seed: number, tell: (best: Best, here: Outcome, over: boolean) => unknown): void {
    let last: Best | undefined
    let here: Outcome | undefined
    for (const best of searchBest(lesson, food)) {
      if (best.rule !== last?.rule || !here) here = bestHere(lesson, food, seed, best)
      last = best
      void tell(best, here, false)
    }
    if (last && here) void tell(last, here, true)
  },
  drill: (kind: DrillKind, foods: readonly Food[], seed: number): Drill => drill(kind, foods, seed),
}

export type PracticeDesk = typeof desk

expose(desk)
