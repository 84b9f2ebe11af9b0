import type { ToolSettings } from '#shared/contracts'
import type { Db } from './open'
import { statement } from './statement'

interface ToolRow {
  id: string
  kind: 'grinder' | 'sieve'
  name: string
  body: string
  version: number
}
export type ToolRecord = ToolSettings & { version: number }

const toRecord = ({ id, kind, name, body, version }: ToolRow) =>
  ({ id, kind, name, version, ...(JSON.parse(body) as object) }) as ToolRecord

/** Grinders and sieves, the sieves from coarse to fine. */
export function listTools(db: Db): ToolRecord[] {
  return statement<ToolRow>(
    db,
    "SELECT id, kind, name, body, version FROM tool WHERE retired_at IS NULL ORDER BY kind, json_extract(body, '$.openingUm') DESC, name",
  )
    .all()
    .map(toRecord)
}

export function findTool(db: Db, id: string): ToolRecord | undefined {
  const row = statement<ToolRow>(db, 'SELECT id, kind, name, body, version FROM tool WHERE id = ?').get(id)
  return row && toRecord(row)
}

/** Adds the row, or changes it and raises its version. */
export function putTool(db: Db, { id, kind, name, version: _, ...body }: ToolSettings): void {
  statement(
    db,
    `
    INSERT INTO tool (id, kind, name, body) VALUES (?, ?, ?, ?)
    ON CONFLICT (id) DO UPDATE SET kind = excluded.kind, name = excluded.name, body = excluded.body, version = tool.version + 1`,
  ).run(id, kind, name, JSON.stringify(body))
}
