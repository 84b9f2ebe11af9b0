import type { Db } from './open'
import { statement } from './statement'

/** So many earlier users of a mill or a machine are asked after. */
const LOOKED_AT = 20

interface Earlier {
  batch_id: string
  at: number
  /** It left nothing behind: the mill had been washed before, the trays were after. */
  washed: number
}

/** Who ground in a mill before an instant, the newest first. */
export function groundBefore(db: Db, grinderId: string | undefined, at: number): Earlier[] {
  return statement<Earlier>(
    db,
    `
    SELECT batch_id, at, json_extract(body, '$.cleaned') IS 'washed' AS washed FROM entry_in_force
    WHERE kind = 'grind' AND json_extract(body, '$.grinderId') IS ? AND at < ? ORDER BY at DESC LIMIT ?`,
  ).all(grinderId ?? null, at, LOOKED_AT)
}

/** Who lay on a machine's trays in runs before this load's, the newest first, and whether they were washed at the end of theirs. */
export function loadedBefore(db: Db, { machineId, runId }: { machineId: string; runId: string }, at: number): Earlier[] {
  return statement<Earlier>(
    db,
    `
    SELECT l.batch_id, l.at, EXISTS (
      SELECT 1 FROM entry_in_force t WHERE t.kind = 'tick' AND t.run_id = json_extract(l.body, '$.runId')
        AND json_extract(t.body, '$.list') = 'end' AND json_extract(t.body, '$.item') = 'wash') AS washed
    FROM entry_in_force l
    WHERE l.kind = 'load' AND json_extract(l.body, '$.machineId') = ? AND l.at < ? AND json_extract(l.body, '$.runId') <> ?
    ORDER BY l.at DESC LIMIT ?`,
  ).all(machineId, at, runId, LOOKED_AT)
}

/** Batches that came into a mill or a machine after an instant, the nearest first. */
export function usedAfter(db: Db, tools: { grinders: readonly (string | undefined)[]; machines: readonly string[] }, at: number): string[] {
  const after = (kind: string, path: string, tool: string | null) =>
    statement<{ batch_id: string }>(
      db,
      `SELECT batch_id FROM entry_in_force WHERE kind = '${kind}' AND json_extract(body, '$.${path}') IS ? AND at > ? ORDER BY at LIMIT ?`,
    )
      .all(tool, at, LOOKED_AT)
      .map(row => row.batch_id)
  return [
    ...new Set([
      ...tools.grinders.flatMap(id => after('grind', 'grinderId', id ?? null)),
      ...tools.machines.flatMap(id => after('load', 'machineId', id)),
    ]),
  ]
}

/** Allergens of a batch by its line, and those of them that only came along. */
export function allergensKept(db: Db, batchId: string): { allergens: string[]; traces: string[] } {
  const row = statement<{ allergens: string | null; traces: string | null }>(
    db,
    `SELECT json_extract(product, '$.allergens') AS allergens, json_extract(product, '$.traces') AS traces FROM batch_view WHERE batch_id = ?`,
  ).get(batchId)
  const list = (text: string | null | undefined) => (text ? (JSON.parse(text) as string[]) : [])
  return { allergens: list(row?.allergens), traces: list(row?.traces) }
}
