import type { DeviceSettings, ReadingsAnswer } from '#shared/contracts'

type Sent = { channel: string; at: number; value: number }

/** Readings of one call at most. */
const MOST_AT_ONCE = 1000
/** Readings kept while the server is away; beyond, the oldest go. */
const MOST_KEPT = 20_000

/** Sends a device's readings over HTTP, as any device may; what does not arrive is kept and sent again. */
export class Sender {
  private kept: Sent[] = []
  private busy = false
  private known: boolean

  constructor(
    private readonly server: string,
    private readonly device: DeviceSettings,
    private readonly say: (words: string) => void = console.log,
    /** Its key, where the server is elsewhere in the house: there it is known already, and may send readings alone. */
    private readonly key = process.env.DULSE_KEY,
  ) {
    this.known = key !== undefined
  }

  add(readings: readonly Sent[]): void {
    this.kept.push(...readings)
    if (this.kept.length > MOST_KEPT) this.kept.splice(0, this.kept.length - MOST_KEPT)
  }

  /** Sends what is kept, oldest first. @returns how many the server kept */
  async send(): Promise<number> {
    if (this.busy) return 0
    this.busy = true
    let arrived = 0
    try {
      if (!this.known) await this.introduce()
      while (this.kept.length > 0) {
        const part = this.kept.slice(0, MOST_AT_ONCE)
        const answer = await this.call<ReadingsAnswer>('POST', '/api/readings', { device: this.device.id, readings: part })
        this.kept.splice(0, part.length)
        arrived += answer.kept
        if (answer.refused.length > 0)
          this.say(`${this.device.name}: ${answer.refused.length} refused; the first: ${answer.refused[0]!.message}`)
      }
    } catch (error) {
      this.say(`${this.device.name}: ${(error as Error).message} ${this.kept.length} readings wait.`)
    } finally {
      this.busy = false
    }
    return arrived
  }

  /** Makes the device known. One that the household has renamed or moved stays as it is. */
  private async introduce(): Promise<void> {
    await this.call('PUT', '/api/devices', this.device).catch((error: Error) => {
      if (!/409/.test(error.message)) throw error
    })
    this.known = true
  }

  private async call<Answer>(method: string, path: string, body: unknown): Promise<Answer> {
    const response = await fetch(this.server + path, {
      method,
      headers: { 'content-type': 'application/json', ...(this.key === undefined ? {} : { authorization: `Bearer ${this.key}` }) },
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(10_000),
    })
    const answer = (await response.json()) as Answer & { message?: string }
    if (!response.ok) throw new Error(`${response.status} ${answer.message ?? ''}`)
    return answer
  }
}
