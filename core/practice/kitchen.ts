import { dryBasis, wetBasis } from '../mass'
import { pacePerHour } from '../kinetics'
import { saturationKPa, USUAL_ROOM, type Air } from '../air'
import { cardOf, targetIn, wayOf, type FeelForm, type Food, type MethodCard } from '../foods'
import type { ClumpRisk } from '../grinding'
import { leakOf, permeanceOf, type PackageKey } from '../keeping'
import { dutyAt } from '../machines'
import { dangerHotC, dangerRate, SAFE_ACTIVITY } from '../safety'
import type { JarSight, LookSight } from '../log'
import { DONE_AT, NotNow, WHERE, type Act, type Frame, type Reading, type Stage, type Tally } from './acts'
import { activityAt, isothermOf } from '../sorption'
import { FaceBalance, rackSettings, RestingJar } from '../simulation'
import { randomSource } from '../stats'
import { WAYS } from '../ways'
import { drawTruth, type Truth } from './draw'
import { feelOfPiece, feelTogether } from './hands'
import { IceOnTrays, PiecesOnTrays } from './onTrays'
import { milled } from './mill'
import { afterMonths, MONTH_DAYS } from './months'
import { mouldAnHour } from './mould'
import type { Deed, Lesson } from './lesson'

const { exp, max, min, round } = Math

/** The door stands open while somebody weighs, half a minute a tray, and for a minute to feel; pieces cool in five (common practice). */
const WEIGH_H = 0.5 / 60
const COOL_H = 5 / 60
const FEEL_H = 1 / 60
/** Hours of one move of the world: the air of the room and the mould are looked at so often. */
const CHUNK_H = 0.5
/** What begins dry was dried before, for so long at most. */
const MOST_BEFORE_H = 200
const BEFORE_STEP_H = 0.25
const FRAME_H = 0.5
/** A tenth above what is wanted is dry. */
const DRY_ENOUGH = 1.1
/** The wettest piece of a load that is dry throughout. */
const WETTEST_ACTIVITY = 0.6
/** Beads show from here, and pieces cling. */
const BEADS = 0.72
const CLINGS = 0.58
/** A small closed jar with a few pieces comes near its balance in so many hours. */
const JAR_AIR_H = 1.6
/** A lid that nobody measured: a film of 3 g/m²/day over a wide mouth. */
const UNKNOWN_LEAK = permeanceOf(3, 0.004)
/** Days until thick and thin have evened out in a closed jar. */
const SWEATS_DAYS = 7
/** A low oven, and minutes in which a thin layer loses two thirds of what it can (common practice: 5 to 20 min help). */
const OVEN_C = 65
const THIN_LAYER_MIN = 60
/** Cup: so far from what was lost is thin or thick. */
const CUP_OFF = 0.12

/**
 * A kitchen on paper: one lesson, one seed, and whatever the player does. It holds the truth; `reading`s are all that a player may know.
 * The same acts on the same seed give the same evening, so a run is kept as its acts alone.
 */
export class Kitchen {
  readonly truth: Truth
  readonly card: MethodCard
  /** Wet-basis water that is wanted. */
  readonly target: number
  stage: Stage
  /** Hours since it began. */
  hours = 0
  setC: number | null
  readonly frames: Frame[] = []
  /** Where the acts stand over the hours, with what they told. */
  readonly acts: { hours: number; act: Act; reading: Reading }[] = []
  readonly tally: Tally
  /** First hour at which all of it was dry, if it was; and at which its mean was. */
  readyAt?: number
  meanDryAt?: number
  /** Net weight of each tray as loaded, g. */
  loadedTraysG: number[] = []
  /** Share of the way to visible mould, of the piece that is furthest. */
  mould = 0
  /** Powder: water wet basis, grams, and whether it has caked. */
  powder?: { moisture: number; weightG: number; stuckG: number; clumps: ClumpRisk }
  jarSight?: JarSight
  cup?: { grams: number; neededG: number }
  second = false
  rained = false
  /** The machine's own opinion. */
  saidDone = false
  /** What lies on the trays, or lay on them: there from the beginning, or once the cut is chosen. */
  private laid?: PiecesOnTrays | IceOnTrays
  private jar?: RestingJar
  private cutKey?: string
  private readonly mouldBy = new Map<object, number>()
  private readonly source
  private startC = 0
  private wokenAt = -Infinity
  private cooledSince = 0
  private leftMachineC = 20

  constructor(
    readonly lesson: Lesson,
    readonly food: Food,
    seed: number,
    private readonly record = false,
  ) {
    this.truth = drawTruth(lesson, food, seed)
    this.source = randomSource(this.truth.seed)
    this.card = cardOf(food, lesson.card)
    this.target = targetIn(food, lesson.purpose, lesson.machine.way)
    this.setC = null
    this.tally = {
      solidsG: 1000 * lesson.load.kg * (1 - this.truth.water),
      looks: 0,
      woken: 0,
      kWh: 0,
      overH: 0,
      dangerH: 0,
      doorMin: 0,
      hotH: 0,
    }
    this.stage = 'cut'
    if (!lesson.cuts || !lesson.deeds.includes('cut')) this.begin(lesson.cuts?.[0]?.key)
  }

  // What can be asked of it by anybody.

  get machine() {
    return this.second ? this.lesson.second! : this.lesson.machine
  }
  /** Hour of the day, 0–24. */
  get clock(): number {
    return (this.lesson.start + this.hours) % 24
  }
  get asleep(): boolean {
    return isAsleep(this.lesson, this.clock)
  }
  /** Air of the room at this hour. */
  get room(): Air {
    if (!this.asleep) return this.lesson.room
    return { ...this.lesson.night, humidity: this.truth.nightHumidity / 100 }
  }
  /** Hours that the card says, in this machine. */
  get usualHours(): { low: number; high: number } {
    return wayOf(this.card, this.lesson.machine.way).usualHours.value
  }
  get form(): FeelForm {
    return WAYS[this.lesson.machine.way].underVacuum ? 'foam' : this.card.feelForm
  }
  get vacuum(): boolean {
    return WAYS[this.lesson.machine.way].underVacuum
  }
  /** Net weight as loaded, g. */
  get loadedG(): number {
    return 1000 * this.lesson.load.kg
  }
  get trayCount(): number {
    return this.lesson.load.trays
  }
  /** Trays that are still in the machine, from 1. */
  get present(): number[] {
    return (this.laid?.present ?? []).map(tray => tray + 1)
  }

  // What nobody sees.

  private get load(): PiecesOnTrays | IceOnTrays {
    if (!this.laid) throw new NotNow(WHERE.cut)
    return this.laid
  }
  /** Water of all of it, wet basis. */
  get moisture(): number {
    return this.powder?.moisture ?? this.laid?.moisture ?? this.truth.water
  }
  get weightG(): number {
    return this.powder?.weightG ?? this.laid?.weightG ?? this.loadedG
  }
  /** All of it is dry, and so is every piece. */
  get allDry(): boolean {
    const { moisture, thawed, wettestActivity } = this.load
    return moisture <= this.target * DRY_ENOUGH && thawed && wettestActivity <= WETTEST_ACTIVITY
  }

  /** Whether a deed can be done now, and if not why. */
  cannot(deed: Deed): string | undefined {
    const { lesson, stage } = this
    if (!lesson.deeds.includes(deed) && deed !== 'wait' && deed !== 'stop') return 'This lesson does without it.'
    if (stage === 'ended') return 'It is over.'
    if (stage === 'cut' && deed !== 'cut') return 'Choose the cut first.'
    const stages = DONE_AT[deed]
    if (stages && !stages.includes(stage)) return WHERE[stage]
    if (deed === 'move' && this.second) return 'It stands in the second machine already.'
    return undefined
  }

  /**
   * Does something, and tells what came to be known by it.
   * @throws NotNow in words, and nothing is done
   */
  do(act: Act): Reading {
    const no = this.cannot(act.do)
    if (no) throw new NotNow(no)
    const hours = this.hours
    // Who gets up at night is woken once for as long as they are up.
    const wakes = act.do !== 'wait' && act.do !== 'cut' && act.do !== 'stop' && this.asleep && hours - this.wokenAt > 1
    const reading = this.carryOut(act)
    if (wakes) {
      this.tally.woken++
      this.wokenAt = hours
    }
    this.acts.push({ hours, act, reading })
    return reading
  }

  private carryOut(act: Act): Reading {
    switch (act.do) {
      case 'cut':
        if (!this.lesson.cuts?.some(cut => cut.key === act.key)) throw new NotNow('There is no such cut here.')
        this.begin(act.key)
        return { of: 'done' }
      case 'wait':
        if (!(act.hours > 0 && act.hours <= 24 * 60)) throw new NotNow('Time goes on only, and by sixty days at most.')
        this.pass(act.hours)
        return { of: 'done' }
      case 'weigh':
        return this.weigh(act.tray)
      case 'feel':
        return this.feel(act.trays, act.thick, act.cooled)
      case 'jarAir':
        if (!(act.hours > 0 && act.hours <= 72)) throw new NotNow('Close the jar for some hours, three days at most.')
        return this.jarAir(act.hours)
      case 'heat':
        return this.heat(act.setC)
      case 'swap':
        if (!this.isTray(act.one) || !this.isTray(act.other)) throw new NotNow(`There are trays 1 to ${this.trayCount}.`)
        return this.shift(WEIGH_H, pieces => pieces.swap(act.one - 1, act.other - 1))
      case 'turn':
        return this.shift(WEIGH_H * this.trayCount, pieces => pieces.turn())
      case 'move':
        return this.move()
      case 'takeOut':
        return this.takeOut(act.trays)
      case 'rest':
        return this.intoJar()
      case 'look':
        this.tally.looks++
        return { of: 'look', saw: this.sight() }
      case 'back':
        return this.goBack(act.setC)
      case 'grind':
        if (!(act.burstS >= 1 && act.burstS <= 300)) throw new NotNow('A run takes 1 to 300 seconds.')
        return this.grind(act.burstS)
      case 'ovenDry':
        if (!(act.minutes > 0 && act.minutes <= 600)) throw new NotNow('Minutes from 1 to 600.')
        return this.ovenDry(act.minutes)
      case 'pack':
        return this.pack(act.lid, act.gel)
      case 'waterBack':
        if (!(act.grams > 0 && act.grams <= 1e5)) throw new NotNow('Give the water in grams, above zero.')
        return this.waterBack(act.grams)
      case 'stop':
        this.end()
        return { of: 'done' }
    }
  }

  private isTray(tray: number): boolean {
    return Number.isInteger(tray) && tray >= 1 && tray <= this.trayCount
  }

  private begin(cutKey?: string): void {
    const { lesson, food, truth } = this
    const cut = lesson.cuts?.find(item => item.key === cutKey)
    this.cutKey = cutKey
    const { way } = lesson.machine
    const share = Array.from({ length: lesson.load.trays }, () => exp(0.05 * this.source.normal()))
    const whole = share.reduce((sum, value) => sum + value, 0)
    const trayWeightsG = share.map(value => (this.loadedG * value) / whole)
    this.loadedTraysG = trayWeightsG.map(round)
    const { temperatureC, usualHours } = wayOf(this.card, way)
    this.laid = this.vacuum
      ? new IceOnTrays(food, {
          traysG: trayWeightsG,
          water: truth.water,
          areaM2: lesson.machine.areaM2,
          hours: truth.hours,
          saysDone: truth.saysDone,
          paces: lesson.machine.places,
        })
      : new PiecesOnTrays(
          food,
          rackSettings({
            food,
            cardKey: lesson.card,
            way,
            purpose: lesson.purpose,
            trayWeightsG,
            placePaces: lesson.machine.places,
            solids: 1 - truth.water,
            hours: Math.sqrt(usualHours.value.low * usualHours.value.high) * truth.hours,
            thickness: truth.thickness * (cut?.thickness ?? 1),
            hardening: truth.hardening,
            thicknessSpread: truth.spread,
            seed: truth.seed,
          }),
        )
    this.setC = lesson.heatC ?? temperatureC
    this.startC = max(this.setC, temperatureC)
    this.stage = 'machine'
    if (lesson.from !== 'load') this.dryBefore()
    this.note()
  }

  /** The lesson begins with dry food: it was dried before, to so much over what is wanted. */
  private dryBefore(): void {
    const wanted = this.target * this.truth.dryness
    for (let hours = 0; hours < MOST_BEFORE_H && this.load.moisture > wanted; hours += BEFORE_STEP_H)
      this.load.advance(BEFORE_STEP_H, { setC: this.setC, room: USUAL_ROOM })
    this.load.takeOut(this.load.present)
    this.setC = null
    this.stage = 'out'
    this.leftMachineC = this.truth.warm || this.lesson.room.celsius
    this.cooledSince = this.hours
    if (this.lesson.from === 'powder') this.toPowder('none', 0)
  }

  // Time.

  private pass(hours: number): void {
    for (let left = hours; left > 1e-9;) {
      // Up to the next half hour of the clock, so that the edges of a night are met.
      const toNext = CHUNK_H - (this.clock % CHUNK_H)
      const step = min(toNext > 1e-6 ? toNext : CHUNK_H, left)
      this.chunk(step)
      left -= step
    }
  }

  private chunk(step: number): void {
    const room = this.room
    const { tally, stage } = this
    if (stage === 'machine') {
      if (!this.rained && this.hours >= this.truth.rain && !this.second && this.lesson.second) {
        // Rain puts the fire out.
        this.rained = true
        this.setC = null
      }
      this.load.advance(step, { setC: this.setC, room })
      this.saidDone ||= this.load instanceof IceOnTrays && this.load.saysDone
      if (this.setC !== null) {
        tally.kWh += (this.machine.watts / 1000) * dutyAt({ underVacuum: this.vacuum, drawsPower: true }, this.setC, room.celsius) * step
        tally.hotH += (step * max(0, this.setC - this.startC - 1)) / 10
        if (this.allDry) {
          this.readyAt ??= this.hours
          tally.overH += step
        }
      }
    } else if (stage === 'jar') this.jar!.advance(step, { pantry: room, gPerDayKPa: leakOf('screw-jar')! })
    this.grow(step, room)
    if (this.stage === 'machine' && this.moisture <= this.target) this.meanDryAt ??= this.hours
    this.hours += step
    if (this.record && (this.frames.length === 0 || this.hours - this.frames.at(-1)!.hours >= this.frameH - 1e-9)) this.note()
  }

  /** Days in a jar are looked at more seldom than hours on a rack. */
  private get frameH(): number {
    return this.stage === 'jar' ? 4 : FRAME_H
  }

  /** Mould, and what grows in perishable food. */
  private grow(step: number, room: Air): void {
    if (!(this.load instanceof PiecesOnTrays) || this.powder) return
    const { rack } = this.load
    const heated = this.stage === 'machine' && this.setC !== null
    const celsius = heated ? this.setC! : room.celsius
    const hollow = this.lesson.cuts?.find(cut => cut.key === this.cutKey)?.hollow ?? false
    const curve = rack.curveAt(25)
    let wettest = 0
    for (const { pieces } of rack.trays)
      for (const { piece } of pieces) {
        const activity = curve(hollow ? piece.coreX : max(piece.faceX, piece.x.at(-1)!))
        // A wet piece in warm air is cooler than it.
        const own = activity > 0.9 && heated ? min(celsius, 0.6 * celsius + 8) : celsius
        const grown = (this.mouldBy.get(piece) ?? 0) + step * mouldAnHour(activity, own)
        this.mouldBy.set(piece, grown)
        this.mould = max(this.mould, grown)
        wettest = max(wettest, activity)
      }
    // Wet food that stands warm without heat: outdoors where the fire went out, or food of animals anywhere.
    const hotC = dangerHotC(this.food, this.rained)
    if (hotC !== undefined && (this.stage === 'machine' || this.stage === 'out') && wettest > SAFE_ACTIVITY)
      this.tally.dangerH += step * dangerRate(celsius, hotC)
  }

  private note(): void {
    if (!this.record) return
    this.frames.push({
      hours: this.hours,
      pieces: this.load.profiles(),
      moisture: this.moisture,
      setC: this.stage === 'machine' ? this.setC : null,
    })
  }

  /** The door stands open so long: it is as if the heat were off. */
  private open(hours: number): void {
    const { setC } = this
    const { rained } = this
    this.setC = this.vacuum ? setC : null
    this.pass(hours)
    // Rain that came meanwhile has put the fire out.
    this.setC = this.rained && !rained ? null : setC
    this.tally.doorMin += 60 * hours
  }

  // Looking.

  private weigh(tray?: number): Reading {
    if (tray !== undefined && !this.present.includes(tray)) throw new NotNow(`Tray ${tray} is not in the machine.`)
    this.tally.looks++
    this.open(WEIGH_H * (tray === undefined ? this.present.length : 1))
    const { weightsG } = this.load
    const grams = (tray === undefined ? this.present : [tray]).reduce((sum, i) => sum + weightsG[i - 1]!, 0)
    return { of: 'weight', grams: max(1, round(grams + 0.5 * this.source.normal())), ...(tray !== undefined && { tray }) }
  }

  private feel(trays: readonly number[], thick: boolean, cooled: boolean): Reading {
    const of = trays.filter(tray => this.present.includes(tray))
    if (of.length === 0) throw new NotNow('Take a piece from a tray that is in the machine.')
    this.tally.looks++
    this.open(FEEL_H)
    if (cooled) this.pass(COOL_H)
    const celsius = cooled ? this.room.celsius : (this.setC ?? this.room.celsius)
    const pieces = of.map(tray => {
      // A thick one is looked for and found, if not the very thickest; without looking it is one like most.
      const size = thick ? (this.source.uniform() < 0.25 ? 3 : 2) : this.source.uniform() < 0.4 ? 0 : 1
      return { tray, thick, answers: feelOfPiece(this.food, this.form, { ...this.load.piece(tray - 1, size), celsius }) }
    })
    return {
      of: 'feel',
      pieces,
      check: feelTogether(
        this.form,
        pieces.map(piece => piece.answers),
        cooled,
        of.length,
      ),
    }
  }

  private jarAir(hours: number): Reading {
    this.tally.looks++
    // A few thick pieces from all trays, closed in with a hygrometer; the rest goes on meanwhile.
    const x = this.jar ? this.jar.meanX : this.load.thickX
    const activity = activityAt(isothermOf(this.food), x, 20)
    this.pass(hours)
    const room = this.lesson.room.humidity
    const there = activity + (room - activity) * exp(-hours / JAR_AIR_H)
    const shown = there + this.truth.hygrometer / 100 + 0.01 * this.source.normal()
    return { of: 'jarAir', shown: min(0.99, max(0.01, round(100 * shown) / 100)), closedHours: hours, celsius: round(this.room.celsius) }
  }

  private sight(): LookSight {
    if (this.mould >= 1) return 'mould'
    const { humidity, hours } = this.jar!
    if (humidity > BEADS && hours > 6) return 'moisture'
    if (humidity > CLINGS && hours > 6) return 'clumps'
    return this.source.uniform() < 0.06 ? 'hung' : 'dry'
  }

  // Doing.

  private heat(setC: number | null): Reading {
    const { lowC, highC, name } = this.machine
    if (setC !== null && !(setC >= lowC && setC <= highC)) throw new NotNow(`${name} goes from ${lowC} to ${highC} °C.`)
    if (setC !== null && this.rained && !this.second) throw new NotNow('It rains: the fire cannot be kept.')
    this.setC = setC
    return { of: 'done' }
  }

  /** Trays are moved or turned where a door can be opened for it. */
  private shift(hours: number, work: (pieces: PiecesOnTrays) => void): Reading {
    const { load } = this
    if (!(load instanceof PiecesOnTrays)) throw new NotNow('Under a vacuum trays stay as they lie.')
    this.open(hours)
    work(load)
    return { of: 'done' }
  }

  /** Trays go over the scale as they are carried from one machine to the other. */
  private move(): Reading {
    this.open(WEIGH_H * this.trayCount)
    this.second = true
    const { second } = this.lesson
    this.setC = min(second!.highC, max(second!.lowC, wayOf(this.card, second!.way).temperatureC))
    return { of: 'weight', grams: max(1, round(this.weightG)) }
  }

  private takeOut(trays?: readonly number[]): Reading {
    const out = trays ?? this.present
    if (out.length === 0 || out.some(tray => !this.present.includes(tray))) throw new NotNow('Choose trays that are in the machine.')
    this.leftMachineC = this.setC ?? this.room.celsius
    this.load.takeOut(out.map(tray => tray - 1))
    if (this.present.length === 0) {
      this.stage = 'out'
      this.setC = null
      this.cooledSince = this.hours
      this.note()
    }
    return { of: 'done' }
  }

  private intoJar(): Reading {
    if (!(this.load instanceof PiecesOnTrays)) throw new NotNow('What comes from a vacuum is packed at once.')
    const { celsius } = this.lesson.room
    const { rack, settings } = this.load
    // The jar stands in the room: its air takes up by so much less than the machine's does.
    const cooler = saturationKPa(celsius) / new FaceBalance(this.lesson.room, celsius, settings.referenceC).unitKPa
    const warmth = pacePerHour(celsius, settings.referenceC)
    this.jar = new RestingJar(rack.trays, settings.evaporationRate * cooler, rack.curveAt(celsius), warmth)
    this.stage = 'jar'
    return { of: 'done' }
  }

  private goBack(setC: number): Reading {
    this.heat(setC)
    this.load.putBack()
    this.stage = 'machine'
    this.jar = undefined
    return { of: 'done' }
  }

  /** Warmth of what stands on the table: it cools by half in twenty minutes (common practice). */
  private get warmthNow(): number {
    const { celsius } = this.room
    return celsius + (this.leftMachineC - celsius) * exp((-Math.LN2 * (this.hours - this.cooledSince)) / (1 / 3))
  }

  private grind(burstS: number): Reading {
    const startC = this.stage === 'jar' ? this.room.celsius : this.warmthNow
    const { clumps, celsius, lostShare, hours } = milled(this.food, { moisture: this.moisture, grams: this.weightG, startC }, burstS)
    this.pass(hours)
    this.toPowder(clumps, lostShare)
    return { of: 'ground', powderG: round(this.powder!.weightG), stuckG: round(this.powder!.stuckG), clumps, celsius: round(celsius) }
  }

  private toPowder(clumps: ClumpRisk, lostShare: number): void {
    const before = this.weightG
    this.powder = { moisture: this.moisture, weightG: before * (1 - lostShare), stuckG: before * lostShare, clumps }
    this.jar = undefined
    this.stage = 'powder'
  }

  /** A thin layer in a low oven: it loses water toward the balance with that air within minutes. */
  private ovenDry(minutes: number): Reading {
    const { powder } = this
    const solids = powder!.weightG * (1 - powder!.moisture)
    const x = powder!.moisture / (1 - powder!.moisture)
    const least = min(x, 0.02)
    const now = least + (x - least) * exp(-minutes / THIN_LAYER_MIN)
    this.powder = { ...powder!, moisture: wetBasis(now), weightG: solids * (1 + now) }
    this.tally.kWh += (1.2 * minutes) / 60
    this.leftMachineC = OVEN_C
    this.cooledSince = this.hours + minutes / 60
    this.pass(minutes / 60)
    return { of: 'done' }
  }

  /** Closed and left for the months of the lesson, then opened. */
  private pack(lid: PackageKey, gel: boolean): Reading {
    const { lesson } = this
    const pantry = lesson.pantry ?? lesson.room
    const leak = leakOf(lid) ?? UNKNOWN_LEAK
    const { powder } = this
    let x = dryBasis(this.moisture)
    // A wet piece among dry ones sweats before all is even: what mould finds in the first days.
    if (!powder && !this.vacuum) {
      if (!this.jar) this.intoJar()
      for (let i = 0; i < 2 * SWEATS_DAYS; i++) {
        this.jar!.advance(12, { pantry, gPerDayKPa: leak })
        this.grow(12, pantry)
      }
      x = this.jar!.meanX
    }
    const solidsG = powder ? powder.weightG * (1 - powder.moisture) : this.tally.solidsG
    const opened = afterMonths({
      food: this.food,
      powder: powder !== undefined,
      solidsG,
      x,
      gPerDayKPa: leak,
      gel,
      pantry,
      months: lesson.months,
      mould: this.mould,
      caked: powder?.clumps === 'cakes',
    })
    this.mould = opened.mould
    this.jarSight = opened.sight
    if (powder) this.powder = { ...powder, moisture: wetBasis(opened.x), weightG: solidsG * (1 + opened.x) }
    this.hours += lesson.months * MONTH_DAYS * 24
    this.stage = 'packed'
    return { of: 'jar', saw: opened.sight, months: lesson.months }
  }

  private waterBack(grams: number): Reading {
    const neededG = max(0, this.loadedG - this.weightG - (this.powder?.stuckG ?? 0))
    this.cup = { grams, neededG }
    const off = grams / max(1, neededG) - 1
    return { of: 'cup', words: off > CUP_OFF ? 'thin' : off < -CUP_OFF ? 'thick' : 'right' }
  }

  /** What is left to happen when the player has done: food that stands in a machine is taken out; jars that were not packed are closed. */
  private end(): void {
    if (this.stage === 'machine') this.takeOut()
    const { to } = this.lesson
    if (to === 'dry' && this.stage === 'out' && !this.vacuum) {
      this.intoJar()
      this.keepClosed(21)
    } else if (this.stage === 'jar') this.keepClosed(14)
    else if ((to === 'jar' || to === 'powder') && this.stage === 'powder') this.pack('screw-jar', false)
    this.stage = 'ended'
  }

  private keepClosed(days: number): void {
    const air = { pantry: this.lesson.pantry ?? this.lesson.room, gPerDayKPa: leakOf('screw-jar')! }
    for (let i = 0; i < 2 * days; i++) {
      this.jar!.advance(12, air)
      this.grow(12, air.pantry)
      this.hours += 12
      if (this.record) this.note()
    }
  }

  /** Humidity that the closed jar comes to. */
  get jarHumidity(): number | undefined {
    return this.jar?.humidity
  }
}

/** Whether people sleep at an hour of the day. */
export function isAsleep({ sleep }: Pick<Lesson, 'sleep'>, clock: number): boolean {
  const { from, to } = sleep
  return from < to ? clock >= from && clock < to : clock >= from || clock < to
}
