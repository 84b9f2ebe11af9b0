import type { LineError } from '#core/tables'

/** What came of the rows that could be read. */
export interface Taken {
  kept: number
  repeated: number
  errors: LineError[]
}
