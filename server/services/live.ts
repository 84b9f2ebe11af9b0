import type { LiveEvent } from '#shared/contracts'

/** Tells open pages what happens, as it happens. Nothing waits for a listener and nothing is kept for one. */
export class Live {
  private readonly listeners = new Set<(event: LiveEvent) => void>()

  /** @returns a function that stops the listening */
  listen(listener: (event: LiveEvent) => void): () => void {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  tell(event: LiveEvent): void {
    for (const listener of this.listeners) listener(event)
  }
}
