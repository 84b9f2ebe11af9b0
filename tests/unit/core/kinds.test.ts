import { expectTypeOf } from 'expect-type'
import { assess, checkEntry, foldBatch } from '#core/batch'
import type { InputError } from '#core/errors'
import {
  anyBody,
  bodyIn,
  ENTRY_KINDS,
  isOfJar,
  isOfRun,
  kindOf,
  KINDS,
  type BodyIn,
  type BodyOf,
  type EntryBody,
  type EntryKind,
} from '#core/log'
import { agendaOf } from '#core/planning'
import type { NewEntry, NewJarEntry, NewRunEntry } from '#shared/contracts'
import { findFood } from '../../support/foods'
import { HOUR, logOf, MORNING } from '../../support/logbook'

const RUN = '018f0000-0000-7000-8000-000000000001'

describe('every kind of entry', () => {
  it.each(ENTRY_KINDS)('%s is declared whole, under its own name', kind => {
    const { schema, scopes, words, effect, check } = kindOf(kind)
    // A body of another kind does not pass; whatever else is missing is said of a field.
    const other = schema.safeParse({ kind: 'dance' })
    expect(other.error!.issues.some(issue => issue.path.join('.') === 'kind')).toBe(true)
    expect(schema.safeParse({ kind }).error?.issues.every(issue => issue.path[0] !== 'kind') ?? true).toBe(true)
    expect(scopes.length).toBeGreaterThan(0)
    expect(words.doing).toMatch(/^\p{Ll}/u)
    expect(words.what).toMatch(/^\p{Ll}/u)
    expect([effect, check].every(part => part === 'none' || typeof part === 'function')).toBe(true)
  })
  it('stands in one log of its own, and jars know what touches them', () => {
    expect(ENTRY_KINDS.filter(isOfRun)).toEqual(['heat', 'air', 'move', 'cycleHours', 'cycleShows', 'tick', 'outlook'])
    expect(ENTRY_KINDS.filter(isOfJar)).toEqual(['take', 'moveJar', 'discard', 'smell', 'lookJar', 'measure', 'fill', 'stock', 'pour'])
    expect(ENTRY_KINDS.filter(isOfJar).every(kind => kindOf(kind).jars !== undefined)).toBe(true)
  })
  it('is what the wire takes, by the same objects', () => {
    expect(bodyIn('run').safeParse({ kind: 'heat', runId: RUN, setC: 57 }).success).toBe(true)
    expect(bodyIn('run').safeParse({ kind: 'weigh', totalG: 5 }).success).toBe(false)
    expect(bodyIn('jar').safeParse({ kind: 'void', target: RUN }).success).toBe(true)
    expect(anyBody.safeParse({ kind: 'weigh', totalG: 5 }).success).toBe(true)
    expect(anyBody.safeParse({ kind: 'dance' }).success).toBe(false)
  })
  it('holds in types: names, bodies and logs agree, and what is not declared is not a kind', () => {
    expectTypeOf<{ [Kind in EntryKind]: BodyOf<Kind>['kind'] }>().toEqualTypeOf<{ [Kind in EntryKind]: Kind }>()
    expectTypeOf<EntryBody['kind']>().toEqualTypeOf<EntryKind>()
    expectTypeOf<BodyIn<'run'>['kind']>().toEqualTypeOf<
      'heat' | 'air' | 'move' | 'cycleHours' | 'cycleShows' | 'tick' | 'outlook' | 'void'
    >()
    expectTypeOf<NewEntry['body']>().toEqualTypeOf<BodyIn<'batch'>>()
    expectTypeOf<NewRunEntry['body']>().toEqualTypeOf<BodyIn<'run'>>()
    expectTypeOf<NewJarEntry['body']>().toEqualTypeOf<BodyIn<'jar'>>()
    // @ts-expect-error no such kind
    const dance: EntryBody = { kind: 'dance' }
    // @ts-expect-error a field that the schema does not have
    const note: EntryBody = { kind: 'note', text: 'x', loud: true }
    // @ts-expect-error a kind declared by half: no scopes, words, effect or check
    const half: (typeof KINDS)['note'] = { schema: KINDS.note.schema }
    expect([dance, note, half]).toHaveLength(3)
  })
})

describe('hours added to a freeze dryer’s cycle', () => {
  const loaded = (...more: Parameters<typeof logOf>) =>
    logOf(
      [0, { kind: 'intake', foodKey: 'strawberry', cardKey: 'slices-6', purpose: 'powder', source: 'Own garden', weightG: 2000 }],
      [1, { kind: 'load', runId: RUN, machineId: RUN, positions: [1, 2], totalG: 1700, way: 'freeze-dryer', frozen: [1, 2] }],
      [1, { kind: 'heat', runId: RUN, setC: 50 }],
      ...more,
    )
  const added = (hours: number, at = 2): Parameters<typeof logOf>[number] => [at, { kind: 'cycleHours', runId: RUN, hours }]
  const refusal = (log: ReturnType<typeof logOf>, body: EntryBody) => {
    try {
      checkEntry(
        log,
        { id: 'new', seq: 1e9, at: MORNING + 3 * HOUR, recordedAt: MORNING + 3 * HOUR, body },
        { now: MORNING + 3 * HOUR, find: findFood },
      )
      return undefined
    } catch (error) {
      return (error as InputError).problems[0]
    }
  }
  it('add up, and put the next weighing off by as much', () => {
    const household = { timeZone: 'UTC', sleepFrom: 0, sleepTo: 1 }
    const roundAt = (log: ReturnType<typeof logOf>) => {
      const state = foldBatch(log, findFood)!
      return agendaOf(state, assess(state, MORNING + 2 * HOUR), household).find(todo => todo.kind === 'round')!.from
    }
    expect(foldBatch(loaded(added(6), added(2, 2.5), added(-3, 2.6)), findFood)!.run!.cycle.addedH).toBe(5)
    expect(roundAt(loaded(added(5))) - roundAt(loaded())).toBe(5 * HOUR)
  })
  it('count from what the display showed last, and until the trays are weighed', () => {
    const shows = (leftH: number, at: number): Parameters<typeof logOf>[number] => [at, { kind: 'cycleShows', runId: RUN, leftH }]
    const endOf = (...more: Parameters<typeof logOf>) => {
      const state = foldBatch(loaded(...more), findFood)!
      return (assess(state, MORNING + 40 * HOUR)!.finish.middle - MORNING) / HOUR
    }
    expect(endOf(added(9), shows(3, 20))).toBe(23)
    expect(endOf(shows(3, 20), added(4, 21))).toBe(27)
    expect(endOf(shows(3, 20), shows(0, 22.5))).toBe(22.5)
    const weighed: Parameters<typeof logOf>[number] = [24, { kind: 'weigh', trays: [1, 2].map(position => ({ position, weightG: 200 })) }]
    // The scale knows better than the display.
    expect(endOf(shows(3, 20), weighed)).toBe(endOf(weighed))
    expect(endOf(weighed, added(2, 25))).toBeCloseTo(endOf(weighed) + 2, 6)
    expect(refusal(loaded(), { kind: 'cycleShows', runId: RUN, leftH: 3 })).toBeUndefined()
    expect(anyBody.safeParse({ kind: 'cycleShows', runId: RUN, leftH: -1 }).error!.issues[0]!.message).toContain(
      'give 0 where it has stopped',
    )
  })
  it('may be taken off again, but not more than were added', () => {
    expect(refusal(loaded(added(6)), { kind: 'cycleHours', runId: RUN, hours: -6 })).toBeUndefined()
    expect(refusal(loaded(added(6)), { kind: 'cycleHours', runId: RUN, hours: -7 })).toMatchObject({
      field: 'hours',
      code: 'more-than-was-added',
      message: 'Only 6 h were added to this cycle: no more can be taken off.',
    })
    expect(anyBody.safeParse({ kind: 'cycleHours', runId: RUN, hours: 0 }).error!.issues[0]!.message).toBe('Nothing was added.')
  })
  it('are a freeze dryer’s only', () => {
    const log = logOf(
      [0, { kind: 'intake', foodKey: 'carrot', cardKey: 'slices-3', purpose: 'powder', source: 'Own garden', weightG: 2000 }],
      [1, { kind: 'load', runId: RUN, machineId: RUN, positions: [1], totalG: 1700 }],
    )
    expect(refusal(log, { kind: 'cycleHours', runId: RUN, hours: 2 })).toMatchObject({ code: 'no-cycle' })
  })
})
