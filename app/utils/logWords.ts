import { FEEL_QUESTIONS } from '#core/dryness'
import { listItem, MACHINE_KINDS } from '#core/machines'
import { packageOf } from '#core/keeping'
import type { EntryBody } from '#core/batch'

interface Writers {
  weight: (grams: number) => string
  temperature: (celsius: number) => string
  length: (mm: number) => string
}

const EFFECTS = { none: '', waste: ' off', water: ' of water gone', added: ' added' } as const
const SAW = { dry: 'no moisture', moisture: 'beads of moisture', clumps: 'sticking or clumps', mould: 'mould' } as const
const SMELLS = { strong: 'strong', weaker: 'weaker', crushed: 'only when crushed', none: 'no smell' } as const

/** An entry as a line of the log, in the household's units. */
export function logWords(body: EntryBody, { weight, temperature, length }: Writers): string {
  switch (body.kind) {
    case 'intake': return `came in, ${weight(body.weightG)}, ${body.source}`
    case 'prep': {
      const cut = [body.cutName, body.thicknessMm === undefined ? undefined : length(body.thicknessMm)].filter(Boolean)
      const amount = body.weightG === undefined ? '' : `, ${weight(body.weightG)}${EFFECTS[body.effect]}`
      const added = body.added ? `, ${weight(Object.values(body.added).reduce((sum, part) => sum + (part ?? 0), 0))} added` : ''
      return `${body.step}${amount}${added}${body.step === 'cut' && cut.length > 0 ? `: ${cut[0]}` : ''}${body.note ? `. ${body.note}` : ''}`
    }
    case 'load': return `loaded ${weight(body.totalG)} on ${body.positions.length === 1 ? 'tray' : 'trays'} ${positions(body.positions)}`
    case 'heat': return body.setC === null ? 'heat off' : `heat on, ${temperature(body.setC)}`
    case 'air': {
      const room = body.roomC === undefined ? undefined : `room ${temperature(body.roomC)}, ${Math.round(body.roomHumidity! * 100)} % humidity`
      return [room, body.chamberC === undefined ? undefined : `${temperature(body.chamberC)} measured in the machine`].filter(Boolean).join('; ')
    }
    case 'move': return body.trays.map(({ from, to, turned, flipped }) => [from === to ? `tray ${from}` : `tray ${from} to ${to}`, turned && 'turned end for end', flipped && 'food turned over'].filter(Boolean).join(', ')).join('; ')
    case 'tick': return `${body.list === 'start' ? 'before the start' : 'at the end'}: ${tickWords(body.list, body.item)}`
    case 'jarAir': return `jar air at ${Math.round(body.shown * 100)} % after ${body.closedHours} h`
    case 'weigh': return body.totalG === undefined ? (body.trays ?? []).map(tray => `tray ${tray.position} weighed ${weight(tray.weightG)}`).join(', ') : `weighed ${weight(body.totalG)}`
    case 'feel': {
      const words = FEEL_QUESTIONS[body.check.form].flatMap(question => question.answers.find(answer => answer.key === body.check.answers[question.key])?.words ?? [])
      return `felt: ${words.join(', ')}${body.check.cooled ? '' : ' (warm)'}`
    }
    case 'unload': return `${body.positions ? `${body.positions.length === 1 ? 'tray' : 'trays'} ${positions(body.positions)} ` : ''}taken out${body.weightG === undefined ? '' : `, ${weight(body.weightG)}`}`
    case 'rest': return `rest began${body.container ? `, ${body.container}` : ''}`
    case 'look': return `looked: ${SAW[body.saw]}${body.note ? `. ${body.note}` : ''}`
    case 'restEnd': return `rest ended${body.weightG === undefined ? '' : `, ${weight(body.weightG)}`}`
    case 'grind': return `ground ${weight(body.dryInG)} to ${weight(body.powderOutG)}`
    case 'pack': return `packed ${weight(body.netG)}, ${(packageOf(body.packageKey)?.name ?? body.packageKey).toLowerCase()}, ${body.place}`
    case 'finish': return `finished${body.reason ? `: ${body.reason}` : ''}`
    case 'note': return body.text
    case 'take': return `took ${weight(body.weightG)}${body.use ? ` for ${body.use.toLowerCase()}` : ''}`
    case 'smell': return `smell: ${SMELLS[body.smell]}`
    case 'void': return `voided an entry${body.reason ? `: ${body.reason}` : ''}`
  }
}

/** A line of a list, whatever the kind of machine it is of. */
function tickWords(list: 'start' | 'end', key: string): string {
  const words = MACHINE_KINDS.flatMap(kind => listItem(kind, list, key) ?? [])[0]?.words ?? key
  return words.charAt(0).toLowerCase() + words.slice(1)
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
