import type { EntryOf } from './entry'

/** Allergens that were said of a batch or a jar. */
export interface Contains {
  allergens: string[]
  /** There are no others. */
  all: boolean
}

/** What was set, measured and moved in a run, drawer by drawer, in the order in which it happened. */
export interface RunDraft {
  heats: EntryOf<'heat'>[]
  airs: EntryOf<'air'>[]
  moves: EntryOf<'move'>[]
  outlook?: EntryOf<'outlook'>['body']
  /** What was added to its cycle, and what its display showed. */
  cycle: EntryOf<'cycleHours' | 'cycleShows'>[]
}

/**
 * What the entries in force of a batch have laid down. `foldBatch` works out the state from it; each kind says in its own
 * file what it lays where.
 */
export interface BatchDraft {
  intake?: EntryOf<'intake'>
  prep: EntryOf<'prep'>[]
  splits: EntryOf<'split'>[]
  holds: EntryOf<'hold'>[]
  accepted: Set<string>
  /** Schools by question, the last word of each. */
  choices: Record<string, string>
  /** Allergens beside its food's own, and whether they are all. */
  contains?: Contains
  loads: EntryOf<'load'>[]
  run: (runId: string) => RunDraft
  weighs: EntryOf<'weigh'>[]
  feels: EntryOf<'feel'>[]
  unloads: EntryOf<'unload'>[]
  rests: EntryOf<'rest'>[]
  looks: EntryOf<'look'>[]
  restOuts: EntryOf<'restOut'>[]
  restEnds: EntryOf<'restEnd'>[]
  jarAirs: EntryOf<'jarAir'>[]
  grinds: EntryOf<'grind'>[]
  powderDries: EntryOf<'powderDry'>[]
  packs: EntryOf<'pack'>[]
  heated: EntryOf<'heatThrough'>[]
  finished: boolean
  /** Why it is not to teach. */
  leftOut?: string
}

export function emptyDraft(): BatchDraft {
  const runs = new Map<string, RunDraft>()
  return {
    prep: [],
    splits: [],
    holds: [],
    accepted: new Set(),
    choices: {},
    loads: [],
    run: runId => {
      const run = runs.get(runId) ?? { heats: [], airs: [], moves: [], cycle: [] }
      runs.set(runId, run)
      return run
    },
    weighs: [],
    feels: [],
    unloads: [],
    rests: [],
    looks: [],
    restOuts: [],
    restEnds: [],
    jarAirs: [],
    grinds: [],
    powderDries: [],
    packs: [],
    heated: [],
    finished: false,
  }
}
