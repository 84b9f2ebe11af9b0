import { FATE_WORDS, type EntryOf } from '#core/log'
import type { FlowArrow, OpenLot } from '#core/flow'
import { PREP_WORDS } from './logWords'
import { PURPOSE_WORDS } from './words'

/** "Trim": what took something out of the stream of a batch, or brought it in. */
export function arrowWords(
  arrow: FlowArrow,
  numberOf: { batch: (id: string) => number | undefined; jar: (id: string) => number | undefined },
): string {
  const { kind, step, form, batchId, jarId } = arrow
  const of = form ? ` ${PURPOSE_WORDS[form]}` : ''
  switch (kind) {
    case 'waste':
    case 'water':
    case 'added':
      return `${PREP_WORDS[step as EntryOf<'prep'>['body']['step']]}${kind === 'water' ? ': water' : kind === 'added' ? ': added' : ''}`
    case 'dried':
      return 'Water, in the machine'
    case 'powder dried':
      return 'Water, the powder dried once more'
    case 'mill':
      return 'Dust and what the sieve kept'
    case 'seed':
      return 'Older powder put in'
    case 'jar':
      return `${form === 'powder' ? 'Powder' : form === 'flakes' ? 'Flakes' : 'Pieces'} in jar ${(jarId && numberOf.jar(jarId)) ?? ''}`.trim()
    case 'part':
      return `Kept apart${of}: batch ${(batchId && numberOf.batch(batchId)) ?? ''}`.trim()
    case 'rest jar':
      return 'A jar at rest, thrown away'
    case 'scale':
      return 'What the weights differ by'
    case 'unsaid':
      return 'Missing, and nobody wrote where'
    case 'over':
      return 'In no jar: used up or lost'
    default:
      return `${of ? `${of.trim()[0]!.toUpperCase()}${of.trim().slice(1)} ` : ''}${of ? FATE_WORDS[kind] : `${FATE_WORDS[kind][0]!.toUpperCase()}${FATE_WORDS[kind].slice(1)}`}`
  }
}

/** "prepared, in the refrigerator". */
export const LOT_WORDS: Record<OpenLot['form'], string> = {
  whole: 'as it came',
  prepared: 'prepared',
  drying: 'on the trays',
  ...PURPOSE_WORDS,
}
