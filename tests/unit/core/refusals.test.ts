import type { InputError } from '#core/errors'
import { fill, PLAIN_WORDS, problem, wordsOf } from '#core/errors'
import { checkEntry } from '#core/batch'
import { newEntry, problemsOfIssues } from '#shared/contracts'
import { findFood } from '../../support/foods'
import { BEETROOT, HOUR, logOf, MORNING } from '../../support/logbook'

const OUNCES = {
  ...PLAIN_WORDS,
  G: (grams: number) => `${(grams / 28.349523125).toFixed(1)} oz`,
  C: (celsius: number) => `${celsius * 1.8 + 32} °F`,
}

describe('a refusal', () => {
  it('writes its figures by the ending of their names, as a scale shows them', () => {
    expect(
      fill('{isG} of {wholeG} at {setC}, {waterShare}, {sizeMl}, {thickMm}, {count}', {
        isG: 3.26,
        wholeG: 1240.4,
        setC: 57,
        waterShare: 0.085,
        sizeMl: 250,
        thickMm: 3,
        count: 2,
      }),
    ).toBe('3.3 g of 1240 g at 57 °C, 8.5 %, 250 mL, 3 mm, 2')
    expect(fill('{missing} stays', {})).toBe('{missing} stays')
  })
  it('says the same in the household’s own units', () => {
    const told = problem('netG', 'more-than-is-left', 'Only {leftG} is left at {setC}.', { leftG: 224, setC: 50 })
    expect(told.message).toBe('Only 224 g is left at 50 °C.')
    expect(wordsOf(told, OUNCES)).toBe('Only 7.9 oz is left at 122 °F.')
    expect(wordsOf({ field: 'x', code: 'y', message: 'Plain.' }, OUNCES)).toBe('Plain.')
  })
  it('of a rule names field, code and figures', () => {
    const log = logOf([0, BEETROOT], [1, { kind: 'load', runId: 'r', machineId: 'm', positions: [1], totalG: 1700 }])
    const entry = { id: 'new', seq: 9, at: MORNING + 2 * HOUR, recordedAt: MORNING, body: { kind: 'weigh', totalG: 1900 } } as const
    let refused: InputError | undefined
    try {
      checkEntry(log, entry, { now: MORNING + 3 * HOUR, find: findFood })
    } catch (error) {
      refused = error as InputError
    }
    expect(refused!.problems).toMatchObject([{ field: 'totalG', code: 'heavier-than-loaded', quantities: { isG: 1900, loadedG: 1700 } }])
    expect(wordsOf(refused!.problems[0]!, OUNCES)).toMatch(/^67\.0 oz is more than the 60\.0 oz that was loaded/)
  })
  it.each<[unknown, RegExp]>([
    [{ kind: 'dance' }, /This kind is not known here/],
    [{ kind: 'note', text: 'x', loud: true }, /There is no field “loud” here/],
    [{ kind: 'load', runId: 'x', machineId: 4, positions: 'all', totalG: 5 }, /Give a UUID/],
    [{ kind: 'jarAir', shown: 0.4, closedHours: 4, calibration: { offset: 9, gain: 1, sd: 0 } }, /At most 0.5/],
    [{ kind: 'rest', jars: [{ name: 'x' }, 'y'] }, /Give an object with its fields/],
    [{ kind: 'weigh', trays: [] }, /At least 1 of them/],
    [{ kind: 'unload', positions: null }, /Give a list/],
    [undefined, /missing/],
  ])('of a shape has words of ours, never the schema library’s: %j', (body, words) => {
    const parsed = newEntry.safeParse({ id: crypto.randomUUID(), at: MORNING, body })
    const problems = problemsOfIssues(parsed.error!.issues)
    expect(problems.map(item => item.message).join(' ')).toMatch(words)
    for (const { message, field, code } of problems) {
      expect(message).not.toMatch(/expected|received|Invalid|Too (small|big)|Unrecognized/)
      expect(message).toMatch(/^[“A-Z].*\.$/)
      expect(field).not.toBe('')
      expect(code).toMatch(/^[a-z-]+$/)
    }
  })
})
