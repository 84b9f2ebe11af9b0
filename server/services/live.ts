import type { LiveEvent } from '#shared/contracts'

/** Tells open pages what happens, as it happens. Nothing waits for a listener and nothing is kept for one. */
export class Live {
  private readonly listeners = new Set<(event: LiveEvent) => void>()
  private readonly lines = new Set<() => void>()
  private pending = false
  /** Told apart from one server to the next: a page may outlive several. */
  turn = Date.now()

  /** @returns a function that stops the listening */
  listen(listener: (event: LiveEvent) => void): () => void {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  /**
   * Keeps an open line to a page, to be cut when the server ends: else it would wait for pages that never hang up.
   * @returns forgets it
   */
  keep(cut: () => void): () => void {
    this.lines.add(cut)
    return () => this.lines.delete(cut)
  }

  end(): void {
    for (const cut of this.lines) cut()
    this.lines.clear()
  }

  tell(event: LiveEvent): void {
    for (const listener of this.listeners) listener(event)
  }

  /** Something was written: pages ask again for what they show. Told once for all that is written in one turn. */
  changed(): void {
    this.turn++
    if (this.pending || this.listeners.size === 0) return
    this.pending = true
    setImmediate(() => {
      this.pending = false
      this.tell({ kind: 'changed', turn: this.turn })
    })
  }
}
