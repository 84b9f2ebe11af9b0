import { foldBatch } from '#core/batch'
import type { FlowArrow } from '#core/flow'
import type { BatchAnswer } from '#shared/contracts'
import { arrowWords } from '../../../app/utils/flowWords'
import { partParcel } from '../../../app/utils/parts'
import { findFood } from '../../support/foods'
import { BEETROOT, logOf, MORNING } from '../../support/logbook'

const arrow = (more: Partial<FlowArrow>): FlowArrow => ({
  at: 0,
  kind: 'waste',
  weightG: 1,
  solidsG: 1,
  weighed: true,
  leftG: 1,
  leftSolidsG: 1,
  ...more,
})
const numbers = { batch: (id: string) => (id === 'b' ? 7 : undefined), jar: (id: string) => (id === 'j' ? 12 : undefined) }

describe('an arrow of the stream in words', () => {
  it.each<[Partial<FlowArrow>, string]>([
    [{ kind: 'waste', step: 'trim' }, 'Trim'],
    [{ kind: 'water', step: 'roast' }, 'Roast: water'],
    [{ kind: 'added', step: 'season' }, 'Season: added'],
    [{ kind: 'dried' }, 'Water, in the machine'],
    [{ kind: 'powder dried' }, 'Water, the powder dried once more'],
    [{ kind: 'mill' }, 'Dust and what the sieve kept'],
    [{ kind: 'seed' }, 'Older powder put in'],
    [{ kind: 'jar', form: 'flakes', jarId: 'j' }, 'Flakes in jar 12'],
    [{ kind: 'jar', form: 'pieces', jarId: 'gone' }, 'Pieces in jar'],
    [{ kind: 'part', batchId: 'b' }, 'Kept apart: batch 7'],
    [{ kind: 'part', form: 'pieces', batchId: 'b' }, 'Kept apart pieces: batch 7'],
    [{ kind: 'rest jar' }, 'A jar at rest, thrown away'],
    [{ kind: 'scale' }, 'What the weights differ by'],
    [{ kind: 'unsaid' }, 'Missing, and nobody wrote where'],
    [{ kind: 'over' }, 'In no jar: used up or lost'],
    [{ kind: 'eaten' }, 'Eaten'],
    [{ kind: 'given', form: 'powder' }, 'Fine powder given away'],
  ])('%j', (more, words) => {
    expect(arrowWords(arrow(more), numbers)).toBe(words)
  })
})

describe('what is sent when a part leaves', () => {
  it('is a word in the first log, and the whole log that the second begins with', () => {
    const entries = logOf([0, BEETROOT], [0.5, { kind: 'prep', step: 'trim', effect: 'waste', weightG: 300 }])
    const state = foldBatch(entries, findFood)!
    const page = { batchId: 'first', number: 4, entries } as unknown as BatchAnswer
    const { body, more } = partParcel(state, page, MORNING + 3_600_000, { form: 'prepared', grams: 500, sdG: 0, cut: true }, 'freezer')
    expect(body).toMatchObject({ kind: 'split', weightG: 500, weightSdG: undefined, form: undefined })
    const [begin, ...log] = more
    const id = 'begin' in begin! ? begin.begin.id : ''
    expect(body.to).toBe(id)
    expect(log.map(item => ('batchId' in item && item.batchId === id ? item.entry.body.kind : ''))).toEqual(['prep', 'prep', 'hold'])
  })
})
