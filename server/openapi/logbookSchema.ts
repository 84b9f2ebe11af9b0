import * as z from 'zod'
import { logbookFile } from '#shared/contracts'

let made: object | undefined

/** The file of a whole logbook as JSON Schema (2020-12), made from the contract that takes it in. */
export function logbookSchema(): object {
  made ??= {
    $id: 'urn:dulse:logbook:1',
    title: 'Logbook of Dulse',
    ...z.toJSONSchema(logbookFile, { target: 'draft-2020-12', io: 'input', reused: 'ref' }),
  }
  return made
}
