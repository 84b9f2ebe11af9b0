import * as z from 'zod'
import { PURPOSES } from '../foods'
import { PACKAGES } from '../keeping'
import { WAY_KEYS, WAYS } from '../ways'

/** What a player may do, in the order of the work. `stop` ends the lesson. */
const DEEDS = [
  'cut',
  'wait',
  'weigh',
  'feel',
  'jarAir',
  'heat',
  'swap',
  'turn',
  'move',
  'takeOut',
  'rest',
  'look',
  'back',
  'grind',
  'ovenDry',
  'pack',
  'waterBack',
  'stop',
] as const
export type Deed = (typeof DEEDS)[number]

const between = (low: number, high: number, what: string) =>
  z
    .number({ error: `${what}: give a number.` })
    .min(low, `${what}: at least ${low}.`)
    .max(high, `${what}: at most ${high}.`)
const words = (most: number, what: string) =>
  z
    .string({ error: `${what}: give words.` })
    .trim()
    .min(1, `${what} is empty.`)
    .max(most, `${what}: at most ${most} letters.`)
const clock = z
  .string({ error: 'Give a time of day in quotes, such as "19:30".' })
  .regex(/^([01]?\d|2[0-3]):[0-5]\d$/, 'A time of day is written like "19:30".')
  .transform(text => {
    const [hours, minutes] = text.split(':').map(Number) as [number, number]
    return hours + minutes / 60
  })
/** "0.8 to 1.2", or one figure for all: drawn evenly between the two. */
const spanOf = (low: number, high: number, what: string) =>
  z
    .union([z.number(), z.string()], { error: `${what}: a figure, or two with “to” between, such as 0.8 to 1.2.` })
    .transform((value, context): { low: number; high: number } => {
      const parts = typeof value === 'number' ? [value, value] : value.split(/\s+to\s+/).map(Number)
      const [from, to = from] = parts
      if (from === undefined || to === undefined || parts.length > 2 || !Number.isFinite(from) || !Number.isFinite(to)) {
        context.addIssue({ code: 'custom', message: `${what}: a figure, or two with “to” between, such as 0.8 to 1.2.` })
        return z.NEVER
      }
      if (from > to) context.addIssue({ code: 'custom', message: `${what}: the lower figure comes first.` })
      if (from < low || to > high) context.addIssue({ code: 'custom', message: `${what}: from ${low} to ${high}.` })
      return { low: from, high: to }
    })

const air = z.strictObject({
  celsius: between(-10, 50, 'Air, °C'),
  humidity: between(5, 98, 'Humidity, %').transform(percent => percent / 100),
})
const machine = z.strictObject({
  name: words(40, 'The machine’s name'),
  way: z.enum(WAY_KEYS, { error: `The way of drying is one of ${WAY_KEYS.join(', ')}.` }),
  areaM2: between(0.01, 2, 'Area of a tray, m²').default(0.1),
  watts: between(0, 5000, 'Power, W').default(600),
  lowC: between(0, 100, 'Lowest heat, °C').default(35),
  highC: between(20, 120, 'Highest heat, °C').default(75),
  /** How each place dries against the middle, in order. */
  places: z
    .array(between(0.2, 3, 'Pace of a place'))
    .min(1)
    .max(20)
    .optional(),
})

/** A player's rules, in so few figures that a search can try them: what it looks at, what it trusts, and what it does at night. */
const rule = z
  .strictObject({
    words: words(200, 'What the player does'),
    /** Which cut it begins with. */
    cut: z.string().max(20),
    /** What says that it is dry. */
    trusts: z.enum(['clock', 'weight', 'feel', 'constant', 'jarAir', 'machine'], {
      error: 'A player trusts one of clock, weight, feel, constant, jarAir, machine.',
    }),
    /** First look, as a share of the usual hours; then every so many hours. */
    firstLook: between(0.1, 8, 'First look'),
    every: between(0.5, 24, 'Hours between looks'),
    /** Water that the scale must say, over what is wanted. */
    margin: between(0.3, 3, 'Margin'),
    cooled: z.boolean(),
    thick: z.boolean(),
    places: z.union([z.literal(1), z.literal(3)], { error: 'Pieces are taken from 1 place or from 3.' }),
    /** Hours that it goes on once it seems dry. */
    extraH: between(0, 24, 'Hours more'),
    bedtime: z.enum(['leave', 'off', 'warm', 'out'], { error: 'At bedtime it is left on (leave), off, held warm, or taken out.' }),
    /** Degrees above the heat that the lesson begins with, all the time. */
    hotterC: between(-20, 40, 'Degrees hotter'),
    /** Hours of a hot start, 12 K above. */
    hotH: between(0, 6, 'Hours of the hot start'),
    /** Share of the usual hours at which places are changed, sheets turned, or the second machine takes over; 0 for never. */
    swapAt: between(0, 2, 'Change of places'),
    turnAt: between(0, 2, 'Turning'),
    moveH: between(0, 24, 'Hours until it moves on'),
    restDays: between(0, 30, 'Days of rest'),
    onBeads: z.enum(['back', 'shake'], { error: 'On beads it goes back, or is shaken.' }),
    /** Minutes that it cools before the mill, and seconds of a run. */
    coolMin: between(0, 240, 'Minutes of cooling'),
    burstS: between(2, 120, 'Seconds of a run'),
    lid: z.enum(PACKAGES.map(item => item.key) as [string, ...string[]], {
      error: `A package is one of ${PACKAGES.map(item => item.key).join(', ')}.`,
    }),
    gel: z.boolean(),
    /** Grams of water to what was lost. */
    waterShare: between(0.1, 5, 'Water back'),
  })
  .partial()

export const lessonSchema = z
  .strictObject({
    key: z
      .string({ error: 'Give the lesson a key.' })
      .regex(/^[a-z][a-z0-9-]{1,39}$/, 'A key is small letters, digits and hyphens, such as night-off.'),
    title: words(80, 'The title'),
    teaches: words(400, 'What it teaches'),
    source: words(200, 'Its source'),
    story: words(900, 'The story'),
    /** What nobody sees in a kitchen: said at the end. */
    ending: words(600, 'The ending'),
    food: words(60, 'The food'),
    card: words(60, 'The card'),
    purpose: z.enum(PURPOSES, { error: `It is dried for one of ${PURPOSES.join(', ')}.` }),
    machine,
    /** A second machine that takes over. */
    second: machine.optional(),
    load: z.strictObject({
      kg: between(0.05, 40, 'The load, kg'),
      trays: z.number({ error: 'Give the number of trays.' }).int('Whole trays.').min(1, 'At least one tray.').max(12, 'At most 12 trays.'),
    }),
    /** Heat that it begins with, °C; the card's where missing. */
    heatC: between(0, 120, 'Heat, °C').optional(),
    room: air,
    night: air,
    pantry: air.optional(),
    start: clock,
    sleep: z.strictObject({ from: clock, to: clock }),
    /** Where it begins, and what its end is judged by. */
    from: z.enum(['load', 'dry', 'powder'], { error: 'It begins with the load, dry, or as powder.' }).default('load'),
    to: z.enum(['dry', 'powder', 'jar', 'cup'], { error: 'It ends dry, as powder, in a jar, or in a cup.' }).default('dry'),
    months: between(0.25, 24, 'Months until the jar is opened').default(2),
    /** Things from which it is cut. */
    cuts: z
      .array(
        z.strictObject({
          key: z.string().regex(/^[a-z]{2,20}$/, 'A cut’s key is small letters.'),
          words: words(80, 'The cut'),
          /** Thickness, and hours of one's own making, over the card's. */
          thickness: between(0.2, 6, 'Thickness').default(1),
          /** Its inside stands open to the air within: it may mould from there. */
          hollow: z.boolean().default(false),
        }),
      )
      .max(4)
      .optional(),
    deeds: z.array(z.enum(DEEDS, { error: `A deed is one of ${DEEDS.join(', ')}.` })).min(1, 'Name what the player may do.'),
    /** What differs from one playing to the next. */
    varies: z
      .strictObject({
        hours: spanOf(0.3, 8, 'Hours over the card’s'),
        water: spanOf(-0.08, 0.08, 'Water over the food’s'),
        thickness: spanOf(0.3, 3, 'Thickness over the card’s'),
        spread: spanOf(0, 0.6, 'Spread of thickness'),
        hardening: spanOf(0, 2, 'Hardening'),
        hygrometer: spanOf(-15, 15, 'The hygrometer’s error'),
        nightHumidity: spanOf(10, 98, 'Humidity at night'),
        rain: spanOf(0, 48, 'Hours until the rain'),
        /** Water of what begins dry, over what is wanted. */
        dryness: spanOf(0.3, 4, 'Water at the beginning'),
        /** Hours after which the machine says that it is done, over what it takes. */
        saysDone: spanOf(0.3, 2, 'When the machine says done'),
        /** Warmth of what comes from the heat, °C. */
        warm: spanOf(0, 80, 'Warmth'),
      })
      .partial(),
    /** A player who does as the lesson teaches, and one who does not. */
    taught: rule,
    habit: rule,
  })
  .superRefine((lesson, context) => {
    const say = (path: (string | number)[], message: string) => context.addIssue({ code: 'custom', path, message })
    for (const name of ['machine', 'second'] as const)
      if (lesson[name] && WAYS[lesson[name].way].unheated)
        say([name, 'way'], 'Lessons are of machines whose heat is set, and of a freeze dryer: sun and room air have none yet.')
    if (lesson.second && (WAYS[lesson.second.way].underVacuum || WAYS[lesson.machine.way].underVacuum))
      say(['second', 'way'], 'Nothing moves into a freeze dryer, or out of it into another machine.')
    if (
      WAYS[lesson.machine.way].underVacuum &&
      lesson.deeds.some(deed => ['rest', 'look', 'back', 'turn', 'swap', 'jarAir'].includes(deed))
    )
      say(['deeds'], 'What comes from a freeze dryer is packed at once: no rest, look, back, turn, swap or jarAir.')
    if (lesson.machine.lowC >= lesson.machine.highC) say(['machine', 'lowC'], 'The lowest heat is below the highest.')
    if (lesson.heatC !== undefined && (lesson.heatC > lesson.machine.highC || lesson.heatC < lesson.machine.lowC))
      say(['heatC'], `${lesson.machine.name} goes from ${lesson.machine.lowC} to ${lesson.machine.highC} °C.`)
    if (lesson.machine.places && lesson.machine.places.length < lesson.load.trays)
      say(['machine', 'places'], 'Give a pace for each tray of the load, or leave them out.')
    if (lesson.deeds.includes('move') && !lesson.second) say(['second'], 'To move it, a second machine is needed.')
    if (lesson.deeds.includes('cut') && !lesson.cuts) say(['cuts'], 'To choose a cut, name the cuts.')
    if (lesson.to === 'jar' && !lesson.pantry) say(['pantry'], 'A jar needs the air of its pantry.')
    if (!lesson.deeds.includes('stop')) say(['deeds'], 'The player must be able to stop: add stop.')
  })

/** A lesson as its file has it, checked; figures in their units, times in hours of the day. */
export type Lesson = z.output<typeof lessonSchema>
export type PlayRule = NonNullable<Lesson['taught']>
export type VaryKey = keyof Lesson['varies']
