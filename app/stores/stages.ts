import type { StageCount } from '#shared/contracts'

/** The stage band's figures. Pages that bring them along hand them over; others ask. */
export const useStagesStore = defineStore('stages', () => {
  const stages = ref<StageCount[]>([])

  async function refresh() {
    try {
      stages.value = await callServer<StageCount[]>('/api/stages')
    } catch {
      // The band keeps its last figures; the banner tells that the server is away.
    }
  }

  return { stages, refresh }
})
