import { openSnapshot } from '#server/db/file'
import { namedPictures } from '#server/db/pictures'
import { findPicture } from '#server/pictures/store'
import { readChannels, readingsOf, rowsAsJson, WRITTEN_TABLES } from '#server/db/wholeLog'
import { householdOf, type Context } from '#server/services/context'

/**
 * The whole logbook as JSON, a row a line, in pieces that need no room. The order is fixed and figures stand as they
 * were written: what is taken in elsewhere leaves there byte by byte the same.
 */
export function* logbookJson(context: Context): Generator<string> {
  const { db } = context
  yield `{\n"format": "dulse-logbook",\n"form": 1,\n"household": ${JSON.stringify(householdOf(context))}`
  for (const table of WRITTEN_TABLES) {
    yield `,\n"${table.key}": [`
    yield* apart(rowsAsJson(db, table))
    yield ']'
  }
  yield ',\n"readings": ['
  yield* apart(readingLines(context))
  yield '],\n"pictures": ['
  yield* apart(pictureLines(context))
  yield ']\n}\n'
}

/**
 * The same from a connection of its own, which sees the logbook as of one instant: whoever fetches it may be slow, and
 * nobody waits for that.
 */
export function* logbookSnapshot(context: Context): Generator<string> {
  if (context.db.memory) return yield* logbookJson(context)
  const db = openSnapshot(context.db.name)
  try {
    yield* logbookJson({ ...context, db })
  } finally {
    db.close()
  }
}

/** Rows with commas between. */
function* apart(rows: Iterable<string>): Generator<string> {
  let first = true
  for (const row of rows) {
    yield `${first ? '\n' : ',\n'}${row}`
    first = false
  }
}

/** Pictures as they lie beside the logbook; one that is not there any more is left out. */
function* pictureLines({ db }: Context): Generator<string> {
  for (const name of namedPictures(db)) {
    const found = findPicture(db, name)
    if (found) yield `{"name":"${name}","base64":"${found.bytes.toString('base64')}"}`
  }
}

function* readingLines({ db }: Context): Generator<string> {
  for (const { device_id, channel } of readChannels(db)) {
    const points = [...readingsOf(db, device_id, channel)].map(({ at, value }) => `[${at},${JSON.stringify(value)}]`)
    yield `{"deviceId":"${device_id}","channel":"${channel}","points":[${points.join(',')}]}`
  }
}
