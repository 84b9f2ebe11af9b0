import type { LiveEvent } from '#shared/contracts'

/** Tells open pages what happens, as it happens. Nothing waits for a listener and nothing is kept for one. */
export class Live {
  private readonly listeners = new Set<(event: LiveEvent) => void>()
  private readonly lines = new Set<() => void>()
  private pending = false
  /** Told apart from one server to the next: a page may outlive several. */
  turn = Date.now()
  /** The turn that was told last, and what was written since. */
  private told = this.turn
  private onlyLog = true

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

  /**
   * Something was written: pages ask again for what they show. Told once for all that is written in one turn.
   * @param what `log` where it was nothing but the log
   */
  changed(what: 'log' | 'anything' = 'anything'): void {
    this.turn++
    if (what === 'anything') this.onlyLog = false
    if (this.pending) return
    this.pending = true
    setImmediate(() => {
      this.pending = false
      this.tell({ kind: 'changed', turn: this.turn, ...(this.onlyLog && { since: this.told, log: true as const }) })
      this.told = this.turn
      this.onlyLog = true
    })
  }
}
