import type { Recipe } from '#shared/contracts'
import type { Db } from './open'
import { statement } from './statement'

interface RecipeRow { id: string, kind: 'blend' | 'dish', name: string, body: string, version: number }
export type RecipeRecord = Recipe & { version: number }

const toRecord = ({ id, kind, name, body, version }: RecipeRow) => ({ id, kind, name, version, ...JSON.parse(body) as object }) as RecipeRecord

/** Recipes by name. */
export function listRecipes(db: Db): RecipeRecord[] {
  return statement<RecipeRow>(db, 'SELECT * FROM recipe ORDER BY name COLLATE NOCASE, id').all().map(toRecord)
}

export function findRecipe(db: Db, id: string): RecipeRecord | undefined {
  const row = statement<RecipeRow>(db, 'SELECT * FROM recipe WHERE id = ?').get(id)
  return row && toRecord(row)
}

/** Adds the row, or changes it and raises its version. */
export function putRecipe(db: Db, { id, kind, name, version: _, ...body }: Recipe): void {
  statement(db, `
    INSERT INTO recipe (id, kind, name, body) VALUES (?, ?, ?, ?)
    ON CONFLICT (id) DO UPDATE SET kind = excluded.kind, name = excluded.name, body = excluded.body, version = recipe.version + 1`)
    .run(id, kind, name, JSON.stringify(body))
}

export function dropRecipe(db: Db, id: string): boolean {
  return statement(db, 'DELETE FROM recipe WHERE id = ?').run(id).changes > 0
}
