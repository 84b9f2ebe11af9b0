import type { GrindLosses, GrindPass, GrindRound } from '#core/log'

/** A session at the grinder while it lasts. */
export interface GrindDraft {
  grinderId?: string
  cupMl?: number
  watts?: number
  cupCm?: number
  warm: boolean
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
  const key = `dulse.grind.${batchId}`
  const draft = reactive<GrindDraft>({ ...fresh(), ...remembered(key) })
  watch(draft, () => localStorage.setItem(key, JSON.stringify(draft)))
  return { draft, forget: () => localStorage.removeItem(key) }
}

function remembered(key: string): Partial<GrindDraft> {
  try {
    return JSON.parse(localStorage.getItem(key) ?? '{}') as Partial<GrindDraft>
  } catch {
    return {}
  }
}
