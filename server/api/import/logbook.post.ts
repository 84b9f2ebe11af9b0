import { importLogbook } from '#server/import/logbook'
import { InputError } from '#core/errors'

const MOST_KB = 400 * 1024

/** A whole logbook, into an empty one. */
export default route(async (event, context) => {
  if (!/^application\/json\b/i.test(getRequestHeader(event, 'content-type') ?? ''))
    throw new InputError([{ field: 'content-type', code: 'send-logbook-as-application', message: 'Send the logbook as application/json.' }])
  const text = await readText(event, MOST_KB)
  return workInLines(
    event,
    context,
    apart => importLogbook(apart, parsed(text)),
    () => true,
  )
})

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    throw new InputError([
      { field: 'file', code: 'file-not-json', message: 'This file is not JSON: it breaks off or has a stray sign. Was it saved whole?' },
    ])
  }
}
