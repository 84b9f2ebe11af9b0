/**
 * By which ways in each stop is held: a cell is a test in `tests/unit/server/rulesAndWays.test.ts`, and this table stands in
 * `docs/cautions.md`. “plan” is what is planned, “practice” what a player is told, “import” what a file brings.
 */
export const WAYS_IN = [
  'log',
  'hold',
  'load',
  'pack',
  'fill',
  'pour',
  'move',
  'split',
  'take',
  'API',
  'import',
  'plan',
  'practice',
] as const
export type WayIn = (typeof WAYS_IN)[number]

export const HELD_AT: Readonly<Record<string, readonly WayIn[]>> = {
  'too-warm': ['log', 'hold', 'load', 'split', 'fill', 'pour', 'take', 'API', 'import', 'plan', 'practice'],
  'raw-meat': ['load', 'API', 'log'],
  'heat-after': ['pack', 'API'],
  'animal-outdoors': ['load', 'API', 'plan'],
  'perishable-unheated': ['load', 'API', 'plan'],
  unblanched: ['load', 'API', 'log'],
  mould: ['log', 'pack', 'fill', 'pour', 'take', 'API'],
  oil: ['pack', 'fill', 'pour', 'move', 'take', 'API'],
  'no-oxygen': ['pack', 'fill', 'pour', 'move', 'API'],
}
