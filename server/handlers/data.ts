import { createReadStream, createWriteStream } from 'node:fs'
import { Readable, Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { InputError, refuse } from '#core/errors'
import { ROUTES } from '#shared/api'
import { EXPORT_TABLES, tableQuery } from '#shared/contracts'
import { backUp, besideLogbook, forget, restore } from '#server/export/backup'
import { bringCopiedPictures, copiesApart, copyPath, listCopies, lossOf, makeCopy } from '#server/export/copies'
import { NotFound } from '#server/services/refusals'
import { calendar } from '#server/export/calendar'
import { logbookSnapshot } from '#server/export/logbook'
import { tableCsv } from '#server/export/tables'
import { importLogbook } from '#server/import/logbook'
import { importTable } from '#server/import/table'
import { openApiDocument } from '#server/openapi/document'
import { logbookSchema } from '#server/openapi/logbookSchema'
import { exportCsv } from '#server/services/exportLog'
import type { H3Event } from 'h3'
import type { Context } from '#server/services/context'
import type { Handlers } from '../utils/route'

/** Lets so many bytes through: a body that does not say how long it is may not fill the disk. */
function atMost(bytes: number): Transform {
  let seen = 0
  return new Transform({
    transform(chunk: Buffer, _, next) {
      seen += chunk.length
      if (seen > bytes) next(new InputError([{ field: 'file', code: 'too-large', message: 'The file is over 4 GB: this is no logbook.' }]))
      else next(null, chunk)
    },
  })
}

/** @throws NotFound for what is no copy */
function namedCopy(context: Context, name: string): string {
  const path = copyPath(context, name)
  if (!path) throw new NotFound('name', 'There is no such copy: choose one of the list.')
  return path
}

const MOST_BYTES = 4 * 1024 ** 3

/** Sends a stream; one that breaks off cuts the line, so that half a file is not taken for a whole one. */
async function streamed(event: H3Event, stream: Readable): Promise<void> {
  stream.once('error', error => {
    console.error(error)
    event.node.res.destroy(error)
  })
  await sendStream(event, stream).catch(() => undefined)
}

/** What leaves the logbook whole, and what comes in. */
export const data = {
  logbookJson: ({ context, event }) => {
    giveFile(event, 'application/json; charset=utf-8', { name: 'dulse-logbook.json' })
    return streamed(event, Readable.from(logbookSnapshot(context)))
  },
  spreadsheet: async ({ context, event }) => {
    // Large, and seldom asked for: it is loaded then.
    const { spreadsheet } = await import('#server/export/spreadsheet')
    giveFile(event, ROUTES.spreadsheet.gives, { name: 'dulse-logbook.xlsx' })
    return spreadsheet(context, EXPORT_TABLES)
  },
  tableCsv: ({ context, event, params }) => {
    const { table } = tableQuery.parse({ table: params.table.replace(/\.csv$/, '') })
    giveFile(event, 'text/csv; charset=utf-8', { name: `dulse-${table}.csv` })
    return tableCsv(context, table)
  },
  logCsv: ({ context, event }) => {
    giveFile(event, 'text/csv; charset=utf-8', { name: 'dulse-log.csv' })
    return exportCsv(context)
  },
  logbookSchema: ({ event }) => {
    giveFile(event, 'application/schema+json; charset=utf-8')
    return JSON.stringify(logbookSchema(), undefined, 2)
  },
  openApi: ({ event }) => {
    giveFile(event, 'application/json; charset=utf-8')
    return JSON.stringify(openApiDocument(), undefined, 2)
  },
  calendar: ({ context, event }) => {
    giveFile(event, 'text/calendar; charset=utf-8', { name: 'dulse.ics', shown: true })
    return calendar(context, getRequestURL(event).origin)
  },
  backup: async ({ context, event }) => {
    const { path, leftOut } = await backUp(context)
    // The file itself keeps their names; whoever fetches it by a program sees here that it is not the whole.
    if (leftOut.length > 0) setResponseHeader(event, 'dulse-pictures-left-out', String(leftOut.length))
    giveFile(event, ROUTES.backup.gives, { name: `dulse-${new Date(context.now()).toISOString().slice(0, 10)}.sqlite` })
    const stream = createReadStream(path)
    stream.once('close', () => forget(path))
    // Cut on the way: file and handle go at once, not at the next start.
    event.node.res.once('close', () => stream.destroy())
    return streamed(event, stream)
  },
  /** A backup as a body of bytes takes the logbook's place, if it is one. */
  restore: async ({ context, event }) => {
    // A page of another site can send bytes by a form, but not with this type.
    if (getRequestHeader(event, 'content-type') !== ROUTES.restore.takes[0])
      refuse('content-type', 'not-a-backup', 'Send the backup’s bytes as application/vnd.sqlite3.')
    if (Number(getRequestHeader(event, 'content-length') ?? 0) > MOST_BYTES)
      refuse('file', 'too-large', 'The file is over 4 GB: this is no logbook.')
    const path = besideLogbook(context, 'incoming')
    try {
      await pipeline(event.node.req, atMost(MOST_BYTES), createWriteStream(path))
      while (context.busy) await context.busy
      return restore(context, path)
    } finally {
      forget(path)
    }
  },
  /** How the file stands, and the server's clock. */
  health: ({ context }) => ({ damaged: context.damaged ?? null, now: context.now() }),
  copies: ({ context }) => ({ apart: copiesApart(), copies: listCopies(context) }),
  makeCopy: ({ context }) => makeCopy(context),
  copyLoss: ({ context, params }) => lossOf(context, namedCopy(context, params.name)),
  restoreCopy: async ({ context, params }) => {
    while (context.busy) await context.busy
    const restored = restore(context, namedCopy(context, params.name))
    bringCopiedPictures(context)
    return restored
  },
  /** A whole logbook, into an empty one. */
  importLogbook: async ({ context, event }) => {
    if (!/^application\/json\b/i.test(getRequestHeader(event, 'content-type') ?? ''))
      refuse('content-type', 'not-json', 'Send the logbook as application/json.')
    const text = await readText(event, ROUTES.importLogbook.mostKb)
    return workInLines(
      event,
      context,
      apart => importLogbook(apart, parsed(text)),
      () => true,
    )
  },
  /** Weigh-ins or an inventory from a file, all of it or nothing. */
  importTable: ({ context, event, query: { check, leaveOut }, body }) =>
    workInLines(
      event,
      context,
      apart => importTable(apart, body),
      answer => !check && answer.kept > 0 && (leaveOut || answer.errors.length === 0),
    ),
} satisfies Partial<Handlers>

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return refuse('file', 'not-json', 'This file is not JSON: it breaks off or has a stray sign. Was it saved whole?')
  }
}
