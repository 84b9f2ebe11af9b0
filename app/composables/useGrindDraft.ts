import type { GrindLosses, GrindPass, GrindRound } from '#core/log'

/** A session at the grinder while it lasts. */
export interface GrindDraft {
  grinderId?: string
  cupMl?: number
  watts?: number
  cupCm?: number
  warm: boolean
  cleaned?: 'washed' | 'brushed'
  dryG?: number
  seedJarId?: string
  seedG?: number
  rounds: GrindRound[]
  passes: GrindPass[]
  lost: GrindLosses
  powderOutG?: number
  note: string
}

/** Kept in the browser at every change: hands are full, and a tab is soon closed. */
export function useGrindDraft(batchId: string, fresh: () => GrindDraft) {
  const draft = useLocalStorage<GrindDraft | null>(`dulse.grind.${batchId}`, fresh(), { mergeDefaults: true })
  return {
    // Whatever the storage makes of it: always what it holds now.
    draft: toReactive(draft as Ref<GrindDraft>),
    forget: () => {
      draft.value = null
    },
  }
}
