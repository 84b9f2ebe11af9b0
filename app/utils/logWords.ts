import { PURPOSE_WORDS } from './words'
import { heatState, STANDARD_WAY } from '#core/ways'
import { uncapital } from '#core/text'
import { FEEL_QUESTIONS } from '#core/dryness'
import { listItem, WAY_KEYS, type WayKey } from '#core/ways'
import { packageOf } from '#core/keeping'
import type { PrepStepName } from '#core/foods'
import { FATE_WORDS, HOLD_WORDS, type BodyOf, type EntryBody, type PictureSubject } from '#core/log'

interface Writers {
  weight: (grams: number) => string
  temperature: (celsius: number) => string
  length: (mm: number) => string
  volume: (ml: number) => string
  /** A text of the reference with its figures in the household's units. */
  sentence: (text: string) => string
  /** The way that the batch is dried now: it has words of its own for on and off. */
  way?: WayKey
  clock?: (minuteOfDay: number) => string
  dayTime?: (at: number) => string
  /** The jar whose log it stands in: what goes into another leaves this one. */
  jarId?: string
  /** Words of a caution by its key. */
  caution?: (rule: string) => string | undefined
  /** A question with the school that was chosen. */
  school?: (question: string, key: string) => string | undefined
}

export const PREP_WORDS: Record<PrepStepName, string> = {
  wash: 'Wash',
  soak: 'Soak',
  dip: 'Dip',
  trim: 'Trim',
  peel: 'Peel',
  seed: 'Seed',
  cut: 'Cut',
  blanch: 'Blanch',
  roast: 'Roast',
  boil: 'Boil',
  cook: 'Cook',
  char: 'Char and sweat',
  puree: 'Purée',
  thicken: 'Thicken',
  drain: 'Drain',
  season: 'Season',
  marinate: 'Marinate',
  toast: 'Toast',
  spread: 'Spread',
  freeze: 'Pre-freeze',
  hold: 'Let it stand',
}
export const POWDER_DRY_WORDS = {
  'oven-off': 'in an oven heated and switched off',
  'low-oven': 'in a low oven',
  dryer: 'in the dryer',
} as const

const EFFECTS = { none: '', waste: ' off', water: ' of water gone', added: ' added' } as const
export const SAW_WORDS = {
  dry: 'no moisture',
  hung: 'packed only, it fell when knocked',
  clumps: 'sticking or clumps',
  moisture: 'beads of moisture',
  mould: 'mould',
} as const
export const JAR_SAW_WORDS = {
  loose: 'loose',
  packed: 'packed: a spoon breaks it',
  clumps: 'hard clumps',
  moisture: 'beads of moisture',
  mould: 'mould',
  insects: 'insects',
} as const
export const SHOWS_WORDS: Record<PictureSubject, string> = {
  food: 'the food as it came',
  pieces: 'the pieces',
  powder: 'the powder',
  jar: 'the jar',
  other: 'something else',
}
const SPLIT_WORDS = { trimmings: 'what came off', pieces: 'pieces', flakes: 'flakes', powder: 'powder' } as const
export const AGAIN_WORDS = { yes: 'worth repeating', changed: 'again, but changed', no: 'not again' } as const
const SMELLS = {
  strong: 'strong',
  weaker: 'weaker',
  crushed: 'only when crushed',
  none: 'no smell',
  rancid: 'rancid',
  musty: 'musty',
} as const

/** An entry as a line of the log, in the household's units. */
export function logWords(body: EntryBody, writers: Writers): string {
  const { weight, temperature, length, way, clock, dayTime, caution, school, jarId, volume, sentence } = writers
  switch (body.kind) {
    case 'intake':
      return body.fromJars && jarId !== undefined
        ? `${weight(body.fromJars.find(source => source.jarId === jarId)?.weightG ?? 0)} taken to begin a batch again`
        : `came in, ${body.weightSdG === undefined ? '' : 'about '}${weight(body.weightG)}${body.weighed ? ` ${body.weighed}` : ''}${body.mix ? ` of ${1 + body.mix.length} kinds` : ''}, ${body.source}`
    case 'prep': {
      const cut = [body.cutName, body.thicknessMm === undefined ? undefined : length(body.thicknessMm)].filter(Boolean)
      const whence = body.beforeG === undefined ? '' : ` (${weight(body.beforeG)} before, ${weight(body.afterG!)} after)`
      const amount = body.weightG === undefined ? '' : `, ${weight(body.weightG)}${EFFECTS[body.effect]}${whence}`
      const added = body.added ? `, ${weight(Object.values(body.added).reduce((sum, part) => sum + (part ?? 0), 0))} added` : ''
      const core = body.coreC === undefined ? '' : `, ${temperature(body.coreC)} inside`
      return `${PREP_WORDS[body.step].toLowerCase()}${core}${amount}${added}${body.step === 'cut' && cut.length > 0 ? `: ${sentence(String(cut[0]))}` : ''}${body.note ? `. ${body.note}` : ''}`
    }
    case 'load':
      return `loaded ${body.weightSdG === undefined ? '' : 'about '}${weight(body.totalG)}${body.weightSdG === undefined ? '' : ', not weighed,'} on ${body.positions.length === 1 ? 'tray' : 'trays'} ${positions(body.positions)}${body.whole ? ', all there was' : ''}`
    case 'heat':
      return heatState(way ?? STANDARD_WAY, body.setC, temperature)
    case 'cycleHours': {
      const hours = `${Math.abs(body.hours)}\u00A0h ${body.hours > 0 ? 'added to' : 'taken off'} the cycle`
      return body.why ? `${hours}: ${body.why}` : hours
    }
    case 'cycleShows':
      return body.leftH === 0 ? 'the machine shows that it is through' : `the machine shows ${body.leftH}\u00A0h left`
    case 'air': {
      const room =
        body.roomC === undefined ? undefined : `room ${temperature(body.roomC)}, ${Math.round(body.roomHumidity! * 100)} % humidity`
      return [room, body.chamberC === undefined ? undefined : `${temperature(body.chamberC)} measured in the machine`]
        .filter(Boolean)
        .join('; ')
    }
    case 'move':
      return body.trays
        .map(({ from, to, turned, flipped }) =>
          [from === to ? `tray ${from}` : `tray ${from} to ${to}`, turned && 'turned end for end', flipped && 'food turned over']
            .filter(Boolean)
            .join(', '),
        )
        .join('; ')
    case 'outlook':
      return `${clock ? `comes in at ${clock(body.duskMinute)}` : 'comes in at dusk'}${body.rainAt && dayTime ? `; rain expected ${dayTime(body.rainAt)}` : ''}`
    case 'split':
      return `${body.weightSdG === undefined ? '' : 'about '}${weight(body.weightG)}${body.form && body.form !== 'prepared' ? ` of ${SPLIT_WORDS[body.form]}` : ''} ${body.fate ? FATE_WORDS[body.fate] : 'became a batch of its own'}${body.what ? `: ${body.what}` : ''}`
    case 'hold':
      return body.place === null ? 'taken up again' : `kept ${HOLD_WORDS[body.place]}`
    case 'caution':
      return `read and accepted: ${caution?.(body.rule) ?? body.rule}`
    case 'powderDry':
      return `powder dried ${POWDER_DRY_WORDS[body.how]}, ${body.minutes} min${body.afterG === undefined ? '' : `, ${weight(body.afterG)} after`}`
    case 'tick':
      return `${body.list === 'start' ? 'before the start' : 'at the end'}: ${tickWords(body.list, body.item)}`
    case 'jarAir':
      return `jar air at ${Math.round(body.shown * 100)} % after ${body.closedHours} h`
    case 'weigh':
      return body.totalG === undefined
        ? (body.trays ?? []).map(tray => `tray ${tray.position} weighed ${weight(tray.weightG)}`).join(', ')
        : `weighed ${weight(body.totalG)}`
    case 'feel': {
      const words = FEEL_QUESTIONS[body.check.form].flatMap(
        question => question.answers.find(answer => answer.key === body.check.answers[question.key])?.words ?? [],
      )
      return `felt: ${words.join(', ')}${body.check.cooled ? '' : ' (warm)'}`
    }
    case 'unload':
      return `${body.positions ? `${body.positions.length === 1 ? 'tray' : 'trays'} ${positions(body.positions)} ` : ''}taken out${body.weightG === undefined ? '' : `, ${weight(body.weightG)}`}`
    case 'rest':
      return `rest began${body.jars ? ` in ${body.jars.map(jar => jar.name).join(', ')}` : body.container ? `, ${body.container}` : ''}`
    case 'restOut':
      return `jar ${body.jar} thrown away, ${weight(body.weightG)}: ${body.cause}`
    case 'look':
      return `${body.jar === undefined ? 'looked' : `jar ${body.jar} looked at`}: ${SAW_WORDS[body.saw]}${body.note ? `. ${body.note}` : ''}`
    case 'restEnd':
      return `rest ended${body.weightG === undefined ? '' : `, ${weight(body.weightG)}`}`
    case 'grind':
      return body.seed && body.seed.jarId === jarId
        ? `${weight(body.seed.weightG)} seeded a grinding`
        : `ground ${weight(body.dryInG)} to ${weight(body.powderOutG)}${body.makes ? ` of ${body.makes}` : ''}${body.rounds && body.rounds.length > 1 ? ` in ${body.rounds.length} rounds` : ''}${body.seed ? `, seeded with ${weight(body.seed.weightG)}` : ''}${body.passes?.length ? `, sifted ${body.passes.length}×` : ''}${body.cleaned ? `, the mill ${body.cleaned} before` : ''}${body.note ? `. ${body.note}` : ''}`
    case 'pack':
      return `${body.topUp ? 'topped up with' : 'packed'} ${weight(body.netG)}${body.form ? ` of ${PURPOSE_WORDS[body.form]}` : ''}, ${(packageOf(body.packageKey)?.name ?? body.packageKey).toLowerCase()}, ${body.place}`
    case 'finish':
      return `finished${body.reason ? `: ${body.reason}` : ''}`
    case 'note':
      return body.text
    case 'take':
      return `took ${weight(body.weightG)}${body.use ? ` for ${body.use.toLowerCase()}` : ''}`
    case 'moveJar':
      return `moved to ${body.place}`
    case 'discard':
      return `discarded: ${body.cause}`
    case 'lookJar':
      return `looked: ${JAR_SAW_WORDS[body.saw]}${body.note ? `. ${body.note}` : ''}`
    case 'measure':
      return `${volume(body.ml)} weighs ${weight(body.weightG)}`
    case 'fill': {
      const mine = body.jarId === jarId ? undefined : body.from.find(source => source.jarId === jarId)
      const toasted = body.from.some(source => source.toastedG !== undefined) ? ', toasted' : ''
      return mine
        ? `${weight(mine.weightG)} went into ${body.blend ? `“${body.blend.name}”` : 'a new jar'}, ${body.place}`
        : `${body.blend ? 'blended' : 'filled'} from ${body.from.length === 1 ? 'a jar' : `${body.from.length} jars`}, ${weight(body.from.reduce((sum, source) => sum + source.weightG, 0))}${toasted}${body.blend?.sifted ? `, sifted at ${body.blend.sifted.openingUm} µm` : ''}`
    }
    case 'stock':
      return `came in, ${weight(body.netG)}${body.source ? `, ${body.source}` : ''}, ${body.place}`
    case 'pour':
      return body.from.jarId === jarId
        ? `${weight(body.from.weightG)} poured onto another jar`
        : `${weight(body.from.weightG)} poured in from another jar`
    case 'choose':
      return `by choice: ${school?.(body.question, body.school) ?? `${body.question}, ${body.school}`}`
    case 'heatThrough':
      return `heated through at ${temperature(body.airC)}, ${body.minutes} min${body.afterG === undefined ? '' : `, ${weight(body.afterG)} after`}`
    case 'contains':
      return containsWords(body)
    case 'leaveOut':
      return `not to teach: ${body.reason}`
    case 'unsettled':
      return `could not be taken: ${saidWords(body.said, writers)}`
    case 'settle':
      return 'both stand'
    case 'review':
      return `next time: ${AGAIN_WORDS[body.again]}${body.text ? `. ${body.text}` : ''}`
    case 'picture':
      return `picture: ${SHOWS_WORDS[body.shows]}${body.text ? `. ${body.text}` : ''}`
    case 'smell':
      return `smell: ${SMELLS[body.smell]}`
    case 'void':
      return `voided an entry${body.reason ? `: ${body.reason}` : ''}`
  }
}

function containsWords({ allergens, all }: BodyOf<'contains'>): string {
  if (allergens.length === 0) return all ? 'no allergens beside its food’s own' : 'nothing said of allergens'
  return `contains ${allergens.join(', ')}${all ? ', and nothing else' : ''}`
}

/** What was to be logged; an older or newer Dulse may have said it in a way that this one does not know. */
export function saidWords(said: BodyOf<'unsettled'>['said'], writers: Writers): string {
  const { kind } = said
  try {
    const words = logWords(said as EntryBody, writers)
    return kind === 'take' || kind === 'pour' ? `${words} from the jar` : words
  } catch {
    return kind
  }
}

/** A line of a list, whatever the kind of machine it is of. */
function tickWords(list: 'start' | 'end', key: string): string {
  const words = WAY_KEYS.flatMap(kind => listItem(kind, list, key) ?? [])[0]?.words ?? key
  return uncapital(words)
}

/** "1–3, 5". */
export function positions(list: readonly number[]): string {
  const sorted = [...list].sort((a, b) => a - b)
  const parts: string[] = []
  for (let i = 0; i < sorted.length; i++) {
    const from = sorted[i]!
    while (sorted[i + 1] === sorted[i]! + 1) i++
    parts.push(from === sorted[i] ? String(from) : `${from}–${sorted[i]}`)
  }
  return parts.join(', ')
}
