/**
 * Rows of a table in which those that differ in one column only are one row: "dry / damp; felt". From the last column to the first.
 * @returns a line a row
 */
export function collapse(rows: readonly (readonly string[])[]): string[] {
  let left = rows.map(row => [...row])
  for (let column = (left[0]?.length ?? 0) - 1; column >= 0; column--) {
    const merged = new Map<string, string[]>()
    for (const row of left) {
      const key = row.filter((_, i) => i !== column).join('; ')
      const known = merged.get(key)
      if (known) known[column] += ` / ${row[column]}`
      else merged.set(key, row)
    }
    left = [...merged.values()]
  }
  return left.map(row => row.join('; '))
}
