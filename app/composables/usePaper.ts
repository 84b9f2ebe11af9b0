import type { Reading } from '#core/practice'
import type { LookSight } from '#core/log'

/** What stands in for the kitchen where work is practised on paper: whoever measures asks it. */
export interface Paper {
  /** The clock of the story. */
  now: Ref<number>
  /** What the scale shows of a tray by its place, or of all of it (0). */
  weigh: (place: number) => Promise<number>
  feel: (trays: readonly number[], thick: boolean, cooled: boolean) => Promise<Extract<Reading, { of: 'feel' }>>
  jarAir: (hours: number) => Promise<Extract<Reading, { of: 'jarAir' }>>
  look: () => Promise<LookSight>
  /** Powder that is in the bowl already, g. */
  powderG: Ref<number | undefined>
  grind: (burstS: number) => Promise<Extract<Reading, { of: 'ground' }>>
}

const PAPER: InjectionKey<Paper> = Symbol('paper')

export const providePaper = (paper: Paper) => provide(PAPER, paper)
/** The kitchen on paper that this is part of; undefined where the work is real. */
export const usePaper = (): Paper | undefined => (hasInjectionContext() ? inject(PAPER, undefined) : undefined)
