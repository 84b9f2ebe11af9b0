import type { LiveEvent } from '#shared/contracts'

/** Tells open pages what happens, as it happens. Nothing waits for a listener and nothing is kept for one. */
export class Live {
  private readonly listeners = new Set<(event: LiveEvent) => void>()
  private pending = false

  /** @returns a function that stops the listening */
  listen(listener: (event: LiveEvent) => void): () => void {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  tell(event: LiveEvent): void {
    for (const listener of this.listeners) listener(event)
  }

  /** Something was written: pages ask again for what they show. Told once for all that is written in one turn. */
  changed(): void {
    if (this.pending || this.listeners.size === 0) return
    this.pending = true
    setImmediate(() => {
      this.pending = false
      this.tell({ kind: 'changed' })
    })
  }
}
