import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Ajv from 'ajv/dist/2020'
import addFormats from 'ajv-formats'
import ICAL from 'ical.js'
import * as XLSX from '@e965/xlsx'
import Papa from 'papaparse'
import { uuidv7 } from 'uuidv7'
import { calendar } from '#server/export/calendar'
import { logbookJson } from '#server/export/logbook'
import { spreadsheet } from '#server/export/spreadsheet'
import { tableCsv } from '#server/export/tables'
import { openApiDocument } from '#server/openapi/document'
import { ROUTE_NAMES, routeOf, type RouteName } from '#shared/api'
import { logbookSchema } from '#server/openapi/logbookSchema'
import { nowPage } from '#server/services/pages'
import { changeHousehold } from '#server/services/settings'
import { EXPORT_TABLES } from '#shared/contracts'
import { testBook } from '../../support/logbook'

const book = testBook()
const { jarId } = book.whole()
book.onJar(jarId, 200, { kind: 'take', jarId, weightG: 12, use: '=HYPERLINK("x")' })
book.begin({ source: 'Market, “north” side' }, 210)

describe('the whole logbook as JSON', () => {
  const text = () => [...logbookJson(book.context)].join('')
  it('holds to its published schema, as an independent validator reads it (JSON Schema 2020-12)', () => {
    const ajv = new Ajv({ strict: false, allErrors: true })
    addFormats(ajv)
    const validate = ajv.compile(logbookSchema())
    const good = validate(JSON.parse(text()))
    expect(validate.errors ?? []).toEqual([])
    expect(good).toBe(true)
  })
  it.each<[string, (file: Record<string, never[]>) => void]>([
    [
      'a weight as text',
      file =>
        Object.assign((file.entries as unknown as { body: { kind: string } }[]).find(entry => entry.body.kind === 'weigh')!.body, {
          totalG: 'heavy',
        }),
    ],
    ['a kind that nobody knows', file => Object.assign((file.entries as unknown as { body: object }[])[0]!.body, { kind: 'dream' })],
    ['a list that is missing', file => delete (file as Partial<typeof file>).jars],
  ])('fails it with %s', (_, spoil) => {
    const ajv = new Ajv({ strict: false })
    addFormats(ajv)
    const file = JSON.parse(text()) as Record<string, never[]>
    spoil(file)
    expect(ajv.validate(logbookSchema(), file)).toBe(false)
  })
})

describe('the OpenAPI document', () => {
  it('is valid OpenAPI 3.1, by an independent validator', () => {
    const folder = mkdtempSync(join(tmpdir(), 'dulse-openapi-'))
    try {
      // It reads its own schemas beside itself, which Jest's loader does not let it do: it runs as a program.
      const validate = (document: object) => {
        writeFileSync(join(folder, 'openapi.json'), JSON.stringify(document))
        return execFileSync(
          process.execPath,
          ['node_modules/@seriousme/openapi-schema-validator/bin/validate-api-cli.js', join(folder, 'openapi.json')],
          { encoding: 'utf8', stdio: 'pipe' },
        )
      }
      expect(() => validate(openApiDocument())).not.toThrow()
      expect(() => validate({ ...openApiDocument(), paths: { 'no-slash': {} } })).toThrow()
    } finally {
      rmSync(folder, { recursive: true })
    }
  })
  it('names every route with what it takes and answers', () => {
    const { paths, components } = openApiDocument() as {
      paths: Record<
        string,
        Record<string, { operationId: string; responses: Record<string, { content: Record<string, { schema: object }> }> }>
      >
      components: { schemas: Record<string, object> }
    }
    const told = Object.values(paths).flatMap(methods => Object.values(methods))
    expect(told.map(operation => operation.operationId).sort()).toEqual([...ROUTE_NAMES].sort())
    for (const { operationId, responses } of told) {
      const json = responses[200]!.content['application/json']
      // Nothing is left to be read elsewhere: an answer in JSON has its schema, parts included.
      if (json && !routeOf(operationId as RouteName).gives)
        expect([operationId, Object.keys(json.schema).length > 0]).toEqual([operationId, true])
      for (const [, part] of JSON.stringify(responses).matchAll(/#\/components\/schemas\/([^"]+)/g))
        expect(components.schemas).toHaveProperty([decodeURIComponent(part!)])
    }
  })
})

describe('the calendar', () => {
  it('reads back with an independent parser (RFC 5545): each todo with its time, in UTC', () => {
    const text = calendar(book.context, 'http://kitchen.local')
    const events = new ICAL.Component(ICAL.parse(text) as unknown[]).getAllSubcomponents('vevent').map(item => new ICAL.Event(item))
    const { todos } = nowPage(book.context)
    expect(todos.length).toBeGreaterThan(0)
    for (const todo of todos) {
      const event = events.find(item => item.uid === `${todo.batchId}.${todo.kind}@dulse`)!
      expect([event.summary, event.startDate.toJSDate().getTime()]).toEqual([todo.title, Math.floor(todo.from / 1000) * 1000])
      expect(event.endDate.compare(event.startDate)).toBe(1)
    }
    expect(text.split('\r\n').every(line => Buffer.byteLength(line) <= 75)).toBe(true)
  })
  it('holds a whole day for a jar whose best time ends', () => {
    const other = testBook()
    const id = uuidv7()
    other.onJar(id, 1, {
      kind: 'stock',
      jarId: id,
      foodKey: 'cumin',
      purpose: 'powder',
      netG: 40,
      packageKey: 'screw-jar',
      place: 'Drawer',
      bestTo: other.at(500),
    })
    const [event] = new ICAL.Component(ICAL.parse(calendar(other.context, 'http://kitchen.local')) as unknown[])
      .getAllSubcomponents('vevent')
      .map(item => new ICAL.Event(item))
      .filter(item => item.uid === `${id}.use@dulse`)
    expect(event!.startDate.isDate).toBe(true)
    expect(event!.summary).toBe('Use up jar 1, cumin')
  })
  it('keeps its ids, so that what moves is moved and not doubled', () => {
    const ids = () => [...calendar(book.context, 'http://kitchen.local').matchAll(/^UID:(.*)$/gm)].map(match => match[1])
    expect(ids()).toEqual(ids())
    expect(new Set(ids()).size).toBe(ids().length)
  })
})

describe('tables', () => {
  const csv = (name: (typeof EXPORT_TABLES)[number]) => Papa.parse<Record<string, string>>(tableCsv(book.context, name), { header: true })
  it('hold a line a fact: every weigh-in in force with its batch, weight and time', () => {
    const { data, errors } = csv('weighIns')
    expect(errors).toEqual([])
    expect(data.map(row => [row.batch, row.weight_g])).toEqual([
      ['1', '900'],
      ['1', '420'],
      ['1', '270'],
      ['1', '226'],
      ['1', '224.5'],
    ])
    expect(Date.parse(data[0]!.time!)).toBe(book.at(4))
  })
  it('leave out what was corrected or voided', () => {
    const other = testBook()
    other.whole()
    const [first] = other.context.db.prepare("SELECT id, batch_id FROM entry WHERE kind = 'weigh' ORDER BY seq").all() as {
      id: string
      batch_id: string
    }[]
    other.log(first!.batch_id, 4, { kind: 'weigh', totalG: 880 }, { replaces: first!.id })
    expect(Papa.parse<Record<string, string>>(tableCsv(other.context, 'weighIns'), { header: true }).data.map(row => row.weight_g)).toEqual(
      ['880', '420', '270', '226', '224.5'],
    )
  })
  it('defuse what a spreadsheet would run', () => {
    expect(csv('uses').data[0]!.for).toBe('\'=HYPERLINK("x")')
  })
  it('follow the household: ounces and °F, said in the heading', () => {
    const other = testBook()
    other.whole()
    const { context } = other
    changeHousehold(context, { timeZone: 'America/Chicago', weightUnit: 'oz', temperatureUnit: 'F', version: 1 })
    expect(tableCsv(context, 'weighIns')).toMatch(/^batch,time,tray,weight_oz\r\n1,2026-10-06T07:00:00-05:00,,31\.747/)
    expect(tableCsv(context, 'temperatures')).toMatch(/set_f[^\r]*\r\n1,[^,]*,134\.6/)
  })
  it('stand in the spreadsheet, a sheet each, with figures as figures and text as text', () => {
    const workbook = XLSX.read(spreadsheet(book.context, EXPORT_TABLES))
    expect(workbook.SheetNames).toEqual([...EXPORT_TABLES])
    expect(XLSX.utils.sheet_to_json<Record<string, unknown>>(workbook.Sheets.weighIns!)[0]).toMatchObject({ batch: 1, weight_g: 900 })
    const uses = workbook.Sheets.uses!
    expect(Object.keys(uses).filter(cell => (uses[cell] as { f?: string }).f)).toEqual([])
  })
  it('have the same headings whether there is anything below them or not, in the spreadsheet too', () => {
    const empty = testBook().context
    const sheets = XLSX.read(spreadsheet(empty, EXPORT_TABLES)).Sheets
    for (const name of EXPORT_TABLES) {
      const {
        meta: { fields },
        data,
      } = csv(name)
      // Rows hold no column that the heading does not name.
      for (const row of data) expect(Object.keys(row)).toEqual(fields)
      expect(tableCsv(empty, name).trim().split(',')).toEqual(fields)
      expect(XLSX.utils.sheet_to_json(sheets[name]!, { header: 1 })).toEqual([fields])
    }
  })
})
