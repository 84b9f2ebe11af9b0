import { getQuery, getRequestHeader, type H3Event } from 'h3'
import { readingsPost, type ReadingsPost } from '#shared/contracts'
import { readingsFromCsv } from '#server/devices/readingsCsv'
import { readInput, readText } from './route'

/** Five thousand readings with room to spare. */
const MOST_KB = 1024

/** Readings as JSON, or as CSV with the device in the query. */
export async function readReadings(event: H3Event): Promise<ReadingsPost> {
  if (/^text\/csv\b/i.test(getRequestHeader(event, 'content-type') ?? '')) {
    return readingsPost.parse({ device: getQuery(event).device, readings: readingsFromCsv(await readText(event, MOST_KB)) })
  }
  return readInput(event, readingsPost, MOST_KB)
}
