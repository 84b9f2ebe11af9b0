import { mkdtempSync, readdirSync, rmSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { alarmsDue, TODO_KINDS, type AlarmTodo, type TodoKind } from '#core/planning'
import { AlarmBook } from '#server/alarms/book'
import { tellDue } from '#server/alarms/watch'
import { tryAlarm } from '#server/services/alarms'
import { changeHousehold } from '#server/services/settings'
import { householdOf } from '#server/services/context'
import { alarmChoice, type AlarmChoice } from '#shared/contracts'
import { openHook, openMailbox } from '../../../devices/receivers'
import { HOUR, MORNING, testBook } from '../../support/logbook'

const household = { timeZone: 'UTC', sleepFrom: 22 * 60, sleepTo: 7 * 60 }
const NOON = Date.UTC(2026, 9, 6, 12)
const NIGHT = Date.UTC(2026, 9, 6, 23, 30)
const todo = (kind: TodoKind, from: number, batchId = 'a', to?: number): AlarmTodo => ({ kind, from, to, batchId, title: kind, why: 'so' })
const due = (todos: AlarmTodo[], now: number, more: Partial<Parameters<typeof alarmsDue>[1]> = {}) =>
  alarmsDue(todos, { now, household, kinds: TODO_KINDS, quiet: true, told: new Map(), ...more }).map(item => item.kind)

describe('what is to be told', () => {
  it('is what has begun and is chosen, each thing once', () => {
    const todos = [todo('weigh', NOON - 1), todo('weigh', NOON - 1), todo('look', NOON + 1), todo('grind', NOON), todo('pack', NOON)]
    expect(due(todos, NOON, { kinds: ['weigh', 'look', 'grind'] })).toEqual(['weigh', 'grind'])
  })
  it('is not told again while it stands, and is when it is asked for anew', () => {
    const told = new Map([['a weigh', NOON]])
    expect(due([todo('weigh', NOON - HOUR)], NOON + HOUR, { told })).toEqual([])
    // An oven is looked at every half hour: that is another look. A window that moves by minutes is not.
    expect(due([todo('weigh', NOON + HOUR / 2)], NOON + HOUR / 2, { told })).toEqual(['weigh'])
    expect(due([todo('weigh', NOON + HOUR / 10)], NOON + HOUR / 2, { told })).toEqual([])
    // The next weighing is of the same kind and hours later.
    expect(due([todo('weigh', NOON + 3 * HOUR)], NOON + 3 * HOUR, { told })).toEqual(['weigh'])
    expect(due([todo('weigh', NOON + 3 * HOUR, 'b')], NOON + 3 * HOUR, { told: new Map([['b weigh', NOON + 3 * HOUR]]) })).toEqual([])
  })
  it('waits for the morning at night, except where food spoils', () => {
    const todos = [todo('takeOut', NIGHT), todo('danger', NIGHT)]
    expect(due(todos, NIGHT)).toEqual(['danger'])
    expect(due(todos, NIGHT, { quiet: false })).toEqual(['takeOut', 'danger'])
    const morning = Date.UTC(2026, 9, 7, 7, 1)
    expect(due(todos, morning, { told: new Map([['a danger', NIGHT]]) })).toEqual(['takeOut'])
  })
  it('is let go when it is half a day late: the list has it', () => {
    expect(due([todo('look', NOON - 13 * HOUR), todo('dry', NOON - 13 * HOUR, 'a', NOON - HOUR)], NOON)).toEqual(['dry'])
  })
})

const opened: { close: () => unknown }[] = []
const folders: string[] = []
afterEach(async () => {
  for (const item of opened.splice(0)) await item.close()
  folders.splice(0).forEach(folder => rmSync(folder, { recursive: true, force: true }))
})
function bookIn(folder = mkdtempSync(join(tmpdir(), 'dulse-alarms-'))) {
  folders.push(folder)
  const book = new AlarmBook(join(folder, 'logbook.sqlite'))
  opened.push(book)
  return { folder, book }
}
async function mailbox(user?: { name: string; password: string }) {
  const box = await openMailbox(0, undefined, user)
  opened.push(box)
  return box
}
async function hook() {
  const there = await openHook(0)
  opened.push(there)
  return there
}
const mailOf = (port: number, more: Partial<NonNullable<AlarmChoice['mail']>> = {}): NonNullable<AlarmChoice['mail']> => ({
  host: '127.0.0.1',
  port,
  secure: false,
  from: 'kitchen@example.org',
  to: 'cook@example.org',
  kinds: ['dry', 'weigh', 'danger', 'prepare', 'load', 'takeOut', 'test'],
  ...more,
})

describe('telling, with a clock that is moved', () => {
  it('posts and mails what is due, once each, with the reason and a way to it', async () => {
    const log = testBook()
    changeHousehold(log.context, { ...householdOf(log.context), ...household })
    const { book } = bookIn()
    const [web, box] = [await hook(), await mailbox()]
    book.choose({ quiet: true, webhook: { url: `http://127.0.0.1:${web.port}/`, kinds: [...TODO_KINDS] }, mail: mailOf(box.port) })
    log.begin()
    const tell = () => tellDue(log.context, book, 'https://kitchen.home:4443')
    const first = await tell()
    expect(first.map(line => [line.way, line.failed])).toEqual([
      ['webhook', undefined],
      ['mail', undefined],
    ])
    expect(web.messages).toEqual([
      expect.objectContaining({
        source: 'dulse',
        batch: 1,
        title: expect.stringMatching(/beetroot/i) as string,
        why: expect.stringMatching(/\w+ \w+/) as string,
        url: 'https://kitchen.home:4443/b/1',
      }),
    ])
    expect(box.messages[0]).toMatch(/^Subject: .*beetroot/im)
    expect(box.messages[0]).toMatch(/Batch 1: Beetroot/)
    expect(box.messages[0]).toContain('https://kitchen.home:4443/b/1')
    // A minute later, and three hours later, the same thing stands: nobody is told again.
    log.at(1 / 60)
    expect(await tell()).toEqual([])
    expect(web.messages).toHaveLength(1)
    expect(book.answer.told.map(line => line.way)).toEqual(['mail', 'webhook'])
  })

  it('keeps still at night and tells in the morning what still stands', async () => {
    const log = testBook()
    changeHousehold(log.context, { ...householdOf(log.context), ...household })
    const { book } = bookIn()
    const web = await hook()
    book.choose({
      quiet: true,
      webhook: { url: `http://127.0.0.1:${web.port}/`, kinds: ['prepare', 'load', 'weigh', 'takeOut', 'dry', 'test'] },
    })
    // From 08:00 on the sixth: 15 hours later it is 23:00.
    log.begin({}, 15)
    expect(await tellDue(log.context, book, 'http://x')).toEqual([])
    log.at(23.1)
    const told = await tellDue(log.context, book, 'http://x')
    expect(told.length).toBeGreaterThan(0)
    expect(told[0]!.at).toBe(MORNING + 23.1 * HOUR)
  })

  it('says what stands in the way, tries again, and at last lets it be', async () => {
    const log = testBook()
    const { book } = bookIn()
    const web = await hook()
    const { port } = web
    await web.close()
    book.choose({ quiet: false, webhook: { url: `http://127.0.0.1:${port}/`, kinds: [...TODO_KINDS] } })
    log.begin()
    const lines = []
    for (let i = 0; i < 8; i++) {
      log.at(i / 60)
      lines.push(...(await tellDue(log.context, book, 'http://x')))
    }
    expect(lines).toHaveLength(5)
    expect(lines.every(line => /Nobody answers at http:\/\/127\.0\.0\.1:\d+\/ \(ECONNREFUSED\)/.test(line.failed ?? ''))).toBe(true)
    // The first that arrives ends it.
    const again = await openHook(port)
    opened.push(again)
    log.at(7)
    expect((await tellDue(log.context, book, 'http://x')).map(line => line.failed)).toEqual([undefined])
    expect(again.messages).toHaveLength(1)
  })

  it.each<[string, (box: number) => NonNullable<AlarmChoice['mail']>, RegExp]>([
    ['a wrong password', box => mailOf(box, { user: 'kitchen', password: 'wrong' }), /does not know this user with this password/],
    [
      'encryption where there is none',
      box => mailOf(box, { secure: true }),
      /cannot be reached \(ESOCKET\): check host, port and encryption/,
    ],
    ['a server that is not there', () => mailOf(1), /cannot be reached/],
  ])('a trial says in words: %s', async (_, mail, words) => {
    const { book } = bookIn()
    const box = await mailbox({ name: 'kitchen', password: 'right' })
    book.choose({ quiet: true, mail: mail(box.port) })
    await expect(tryAlarm(book, 'mail', 'http://x')).rejects.toThrow(words)
    await expect(tryAlarm(book, 'webhook', 'http://x')).rejects.toThrow(/Save its address first/)
    book.choose({ quiet: true, mail: mailOf(box.port, { user: 'kitchen', password: 'right' }) })
    await expect(tryAlarm(book, 'mail', 'http://x')).resolves.toEqual({ sent: true })
    expect(box.messages).toHaveLength(1)
  })
})

describe('the choice', () => {
  it('is kept beside the keys, for its owner alone, and its password never leaves', () => {
    const { folder, book } = bookIn()
    book.choose({ quiet: true, mail: mailOf(587, { user: 'kitchen', password: 'between us' }) })
    expect(readdirSync(join(folder, 'home'))).toContain('alarms.sqlite')
    expect(statSync(join(folder, 'home', 'alarms.sqlite')).mode & 0o777).toBe(0o600)
    expect(JSON.stringify(book.answer)).not.toContain('between us')
    expect(book.answer.hasPassword).toBe(true)
    // Saved again without it, it stays; for another mailbox it does not.
    book.choose({ quiet: true, mail: mailOf(465, { user: 'kitchen' }) })
    expect(book.choice.mail?.password).toBe('between us')
    book.choose({ quiet: true, mail: mailOf(465, { user: 'somebody else' }) })
    expect(book.choice.mail?.password).toBeUndefined()
  })

  it.each<[string, unknown, string]>([
    ['another scheme', { quiet: true, webhook: { url: 'file:///etc/passwd', kinds: [] } }, 'webhook.url'],
    ['no address', { quiet: true, webhook: { url: 'kitchen', kinds: [] } }, 'webhook.url'],
    ['a kind that is none', { quiet: true, webhook: { url: 'http://x.example/', kinds: ['dinner'] } }, 'webhook.kinds.0'],
    ['a port that is none', { quiet: true, mail: { ...mailOf(587), port: 70_000 } }, 'mail.port'],
    ['a receiver that is none', { quiet: true, mail: mailOf(587, { to: 'the cook' }) }, 'mail.to'],
    ['no word about nights', {}, 'quiet'],
  ])('is refused by field: %s', (_, body, field) => {
    const { error } = alarmChoice.safeParse(body)
    expect(error?.issues.map(issue => issue.path.join('.'))).toEqual([field])
  })
})
