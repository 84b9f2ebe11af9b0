import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { InputError } from '#core/errors'
import { guessTable } from '#core/tables'
import { AlarmBook } from '#server/alarms/book'
import { holdFolder } from '#server/db/hold'
import { CannotOpen } from '#server/db/opening'
import { listCopies, tooMany } from '#server/export/copies'
import { logbookJson } from '#server/export/logbook'
import { authorityOf } from '#server/home/authority'
import { keyFolder } from '#server/home/certificates'
import { Keyring } from '#server/home/keyring'
import { importLogbook } from '#server/import/logbook'
import { importTable } from '#server/import/table'
import { openLogbook } from '#server/services/logbook'
import { MORNING, testBook } from '../../support/logbook'

const folders: string[] = []
const folder = () => {
  const made = mkdtempSync(join(tmpdir(), 'dulse-door-'))
  folders.push(made)
  return made
}
afterAll(() => folders.forEach(made => rmSync(made, { recursive: true, force: true })))
const all = <Answer>(steps: Generator<unknown, Answer>): Answer => {
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value
}

describe('one door into the log, by table too', () => {
  const settingsOf = (text: string) => guessTable('inventory', text, { timeZone: 'UTC', unit: 'g' }).settings
  it.each([
    ['0.0000001 g of salt', 'food,weight,place\nTable salt,0.0000001 g,Shelf', 'weight'],
    ['a place of signs that nobody sees', 'food,weight,place\nTable salt,50 g,\u200B\u200C', 'place'],
  ])('refuses %s, by its line and column', (_, text, field) => {
    const { context } = testBook()
    const answer = all(importTable(context, { kind: 'inventory', text, settings: settingsOf(text) }))
    expect(answer.kept).toBe(0)
    expect(answer.errors.map(error => [error.line, error.field])).toContainEqual([2, field])
  })
  it('whatever a table brought in, the logbook’s own export comes in again', () => {
    const { context } = testBook()
    const text = 'food,weight,place\nTable salt,50 g,Shelf\nTable salt,0.00001 g,Shelf\nBlack pepper,40 g,Rack\u200Bone'
    all(importTable(context, { kind: 'inventory', text, settings: settingsOf(text) }))
    const file = JSON.parse([...logbookJson(context)].join('')) as unknown
    const other = openLogbook(':memory:', () => MORNING)
    expect(() => all(importLogbook(other, file))).not.toThrow()
  })
})

describe('a file that was changed by hand is refused in words', () => {
  function file() {
    const book = testBook()
    book.whole()
    return JSON.parse([...logbookJson(book.context)].join('')) as Record<string, Record<string, unknown>[]>
  }
  const comesIn = (doctored: unknown) => {
    try {
      all(
        importLogbook(
          openLogbook(':memory:', () => MORNING + 1e9),
          doctored,
        ),
      )
      return 'taken'
    } catch (error) {
      if (!(error instanceof InputError)) throw error
      return error.problems[0]!.message
    }
  }
  it('corrections in a circle, and of itself', () => {
    const doctored = file()
    const [a, b] = doctored.entries!.slice(1, 3) as { id: string; replaces?: string }[]
    Object.assign(a!, { replaces: b!.id })
    Object.assign(b!, { replaces: a!.id })
    expect(comesIn(doctored)).toMatch(/only correct or void one that was written before it/)
    const own = file()
    Object.assign(own.entries![2]!, { replaces: own.entries![2]!.id })
    expect(comesIn(own)).toMatch(/only correct or void/)
  })
  it.each(Object.keys(file()).filter(key => Array.isArray(file()[key]) && file()[key]!.length > 0))(
    'a row of %s that stands twice',
    key => {
      const doctored = file()
      doctored[key] = [...doctored[key]!, doctored[key]!.at(-1)!]
      expect(comesIn(doctored)).toMatch(/twice|not in the order|taken/)
    },
  )
  it('and as it left it comes in', () => expect(comesIn(file())).toBe('taken'))
})

describe('files beside the logbook that are damaged are told as what they are', () => {
  it('the lock is made anew: it is no damage of the logbook', () => {
    const place = folder()
    writeFileSync(join(place, 'in-use.sqlite'), 'x'.repeat(4096))
    const letGo = holdFolder(place, { pid: 1, address: 'here', since: 0 })
    letGo()
  })
  it('keys end the start in words, and are left as they are', () => {
    const place = folder()
    mkdirSync(keyFolder(place), { recursive: true })
    writeFileSync(join(keyFolder(place), 'keys.sqlite'), 'x'.repeat(4096))
    expect(() => new Keyring(place)).toThrow(CannotOpen)
    expect(() => new Keyring(place)).toThrow(/keys\.sqlite is damaged: it holds who may use this Dulse/)
    expect(existsSync(join(keyFolder(place), 'keys.sqlite'))).toBe(true)
  })
  it('alarms are put aside in words and begun anew', () => {
    const place = folder()
    mkdirSync(keyFolder(place), { recursive: true })
    writeFileSync(join(keyFolder(place), 'alarms.sqlite'), 'x'.repeat(4096))
    const said = jest.spyOn(console, 'error').mockImplementation(() => undefined)
    const book = new AlarmBook(join(place, 'logbook.sqlite'))
    expect(book.choice).toEqual({ quiet: true })
    book.close()
    expect(said.mock.calls[0]![0]).toMatch(/was damaged: it is put aside/)
    said.mockRestore()
    expect(readdirSync(keyFolder(place)).some(name => name.startsWith('alarms-damaged-'))).toBe(true)
  })
  it('an authority without its key is not replaced without a word', async () => {
    const place = folder()
    const names = { given: [], names: ['larder.local'], addresses: ['192.168.7.20'] }
    const first = await authorityOf(place, MORNING, names)
    expect(await authorityOf(place, MORNING, names)).toEqual(first)
    rmSync(join(keyFolder(place), 'authority.key'))
    await expect(authorityOf(place, MORNING, names)).rejects.toThrow(/every phone has to trust anew/)
  })
  it('a copy of no day of the calendar is none of ours, and hurts none', () => {
    const place = folder()
    const context = openLogbook(join(place, 'logbook.sqlite'), () => MORNING)
    mkdirSync(join(place, 'copies'))
    for (const day of ['2026-99-99', '2026-02-30', '2026-10-05']) writeFileSync(join(place, 'copies', `logbook-${day}.sqlite`), 'x')
    expect(listCopies(context).map(({ name }) => name)).toEqual(['logbook-2026-10-05.sqlite'])
    expect(() => tooMany(listCopies(context))).not.toThrow()
    context.db.close()
  })
})
