/** What one address may take of the server at once, so that another's write is answered meanwhile. */
export interface Most {
  /** Open connections of one address, and of all. */
  connections: number
  allConnections: number
  /** Open event streams of one address, and of all. */
  streams: number
  allStreams: number
  /** Share of the last second that reading may have taken for one address. */
  readShare: number
  /** Reads of one address that wait for its share; more are refused. */
  readsWaiting: number
}

/**
 * A household of some tabs and tablets stays far below; on this machine itself programs may read as fast as they like. Each side is counted by
 * itself: whatever comes by the network, this machine has its own.
 */
export const HOUSE_BOUNDS: Most = { connections: 96, allConnections: 512, streams: 24, allStreams: 160, readShare: 0.4, readsWaiting: 24 }
export const LOOPBACK_BOUNDS: Most = {
  connections: 384,
  allConnections: 512,
  streams: 64,
  allStreams: 160,
  readShare: Infinity,
  readsWaiting: Infinity,
}

/** Counts by address what is open. */
export class Counted {
  private readonly open = new Map<string, number>()
  private all = 0

  /** @returns ends it; undefined where that address, or all together, have as many as they may */
  take(address: string, most: number, mostOfAll: number): (() => void) | undefined {
    const has = this.open.get(address) ?? 0
    if (has >= most || this.all >= mostOfAll) return undefined
    this.open.set(address, has + 1)
    this.all++
    let ended = false
    return () => {
      if (ended) return
      ended = true
      this.all--
      const left = this.open.get(address)! - 1
      if (left > 0) this.open.set(address, left)
      else this.open.delete(address)
    }
  }
}

const WINDOW_MS = 1000

/** Time that reading took for each address, fading over a second. */
export class ReadTime {
  private readonly spent = new Map<string, { ms: number; at: number }>()

  private of(address: string, now: number): number {
    const found = this.spent.get(address)
    return found ? found.ms * Math.exp((found.at - now) / WINDOW_MS) : 0
  }

  /** Whether an address has had its share. */
  isOver(address: string, share: number, now: number): boolean {
    return this.of(address, now) > share * WINDOW_MS
  }

  add(address: string, ms: number, now: number): void {
    if (this.spent.size > 4096) this.spent.clear()
    this.spent.set(address, { ms: this.of(address, now) + ms, at: now })
  }
}
