import type { Recipe } from '#shared/contracts'
import type { Db } from './open'
import { statement } from './statement'

interface RecipeRow {
  id: string
  kind: 'blend' | 'dish'
  name: string
  body: string
  version: number
}
export type RecipeRecord = Recipe & { version: number }

const toRecord = ({ id, kind, name, body, version }: RecipeRow) =>
  ({ id, kind, name, version, ...(JSON.parse(body) as object) }) as RecipeRecord

/** Recipes by name. */
export function listRecipes(db: Db): RecipeRecord[] {
  return statement<RecipeRow>(db, 'SELECT * FROM recipe ORDER BY name COLLATE NOCASE, id').all().map(toRecord)
}

export function findRecipe(db: Db, id: string): RecipeRecord | undefined {
  const row = statement<RecipeRow>(db, 'SELECT * FROM recipe WHERE id = ?').get(id)
  return row && toRecord(row)
}

/** Adds the row, or changes it; what stood there is kept among the past, until `at`. */
export function putRecipe(db: Db, { id, kind, name, version: _, ...body }: Recipe, at: number): void {
  keepPast(db, id, at)
  statement(
    db,
    `
    INSERT INTO recipe (id, kind, name, body, version) VALUES (?, ?, ?, ?, (SELECT coalesce(max(version), 0) + 1 FROM recipe_past WHERE id = ?))
    ON CONFLICT (id) DO UPDATE SET kind = excluded.kind, name = excluded.name, body = excluded.body, version = excluded.version`,
  ).run(id, kind, name, JSON.stringify(body), id)
}

/** Takes it from the recipes; it stays among the past. */
export function dropRecipe(db: Db, id: string, at: number): boolean {
  keepPast(db, id, at)
  return statement(db, 'DELETE FROM recipe WHERE id = ?').run(id).changes > 0
}

function keepPast(db: Db, id: string, at: number): void {
  statement(
    db,
    'INSERT INTO recipe_past (id, version, kind, name, body, until) SELECT id, version, kind, name, body, ? FROM recipe WHERE id = ?',
  ).run(BigInt(at), id)
}

/** What was changed or removed, the last first. */
export function pastRecipes(db: Db): { recipe: RecipeRecord; until: number; removed: boolean }[] {
  return statement<RecipeRow & { until: number; removed: number }>(
    db,
    `
    SELECT p.*, p.version = (SELECT max(version) FROM recipe_past WHERE id = p.id) AND NOT EXISTS (SELECT 1 FROM recipe WHERE id = p.id) AS removed
    FROM recipe_past p ORDER BY until DESC, id, version DESC`,
  )
    .all()
    .map(({ until, removed, ...row }) => ({ recipe: toRecord(row), until, removed: removed === 1 }))
}
