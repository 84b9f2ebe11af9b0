import { createWriteStream } from 'node:fs'
import { pipeline } from 'node:stream/promises'
import { InputError } from '#core/errors'
import { besideLogbook, forget, restore } from '#server/export/backup'

const MOST_BYTES = 4 * 1024 ** 3

/** A backup as a body of bytes takes the logbook's place, if it is one. */
export default route(async (event, context) => {
  // A page of another site can send bytes by a form, but not with this type.
  if (getRequestHeader(event, 'content-type') !== 'application/vnd.sqlite3')
    throw new InputError([
      { field: 'content-type', code: 'send-backups-bytes-as', message: 'Send the backup’s bytes as application/vnd.sqlite3.' },
    ])
  if (Number(getRequestHeader(event, 'content-length') ?? 0) > MOST_BYTES)
    throw new InputError([{ field: 'file', code: 'file-over-gb', message: 'The file is over 4 GB: this is no logbook.' }])
  const path = besideLogbook(context, 'incoming')
  try {
    await pipeline(event.node.req, createWriteStream(path))
    while (context.busy) await context.busy
    return restore(context, path)
  } finally {
    forget(path)
  }
})
