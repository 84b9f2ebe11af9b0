import { expose } from 'comlink'
import {
  guessTable,
  readInventory,
  readWeighIns,
  type InventoryRow,
  type LineError,
  type TableGuess,
  type TableKind,
  type TableSettings,
  type WeighInRow,
} from '#core/tables'

/** So many rows are shown. */
const SHOWN = 8

/** What would come of a file, as far as the file alone tells. */
export interface TablePreview {
  count: number
  rows: (WeighInRow | InventoryRow)[]
  errors: LineError[]
  faults: number
}

/** Reads tables, which may be long. Refusals come as words: an error loses its kind on the way. */
const reader = {
  guess: (kind: TableKind, text: string, household: { timeZone: string; unit: 'g' | 'oz' }) =>
    attempt((): TableGuess => guessTable(kind, text, household)),
  read: (kind: TableKind, text: string, settings: TableSettings, now: number) =>
    attempt((): TablePreview => {
      const { rows, errors } = kind === 'weighIns' ? readWeighIns(text, settings, now) : readInventory(text, settings, now)
      return {
        count: rows.length,
        rows: rows.slice(0, SHOWN),
        errors: errors.slice(0, 200),
        faults: new Set(errors.map(error => error.line)).size,
      }
    }),
}

function attempt<Answer>(act: () => Answer): Answer | { problem: string } {
  try {
    return act()
  } catch (error) {
    return { problem: (error as Error).message }
  }
}

export type TableReader = typeof reader

expose(reader)
