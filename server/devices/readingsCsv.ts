import Papa from 'papaparse'
import { InputError } from '#core/errors'

/**
 * Readings as a table with the columns channel, value and, if wanted, at: an ISO 8601 time with its
 * offset, or milliseconds since 1970. Figures with a decimal point. What is not a figure goes on as
 * text, to be refused with its line.
 * @throws InputError where a column is missing
 */
export function readingsFromCsv(text: string): unknown[] {
  const table = Papa.parse<Record<string, string>>(text.trim(), {
    header: true,
    skipEmptyLines: true,
    transformHeader: name => name.trim().toLowerCase(),
  })
  const missing = ['channel', 'value'].filter(column => !table.meta.fields?.includes(column))
  if (missing.length > 0)
    throw new InputError([
      {
        field: missing[0]!,
        code: 'columns-missing',
        message: `The first line must name the columns: channel, value and, if wanted, at. Missing: ${missing.join(', ')}.`,
      },
    ])
  return table.data.map(({ channel, value, at }) => ({
    channel: channel?.trim(),
    value: numberOrText(value),
    ...(at?.trim() && { at: /^\d+$/.test(at.trim()) ? Number(at) : instantOrText(at.trim()) }),
  }))
}

const numberOrText = (text: string | undefined) => (text?.trim() && Number.isFinite(Number(text)) ? Number(text) : text)
/** A time without an offset is nobody's: it stays text and is refused. */
const instantOrText = (text: string) => (/(Z|[+-]\d\d:?\d\d)$/.test(text) && Number.isFinite(Date.parse(text)) ? Date.parse(text) : text)
