import { randomInt } from 'node:crypto'
import { MINUTE } from '#core/time'
import type { Role } from '#shared/contracts'

/** So long a code lets one device in. */
export const CODE_MS = 2 * MINUTE
/** Figures and letters that nobody takes for one another when reading them out. */
const LETTERS = '23456789ABCDEFGHJKMNPQRSTVWXYZ'
/** 10 of 30 letters: 49 bits, tried five times at most. */
const LENGTH = 10

/** Codes by which phones are let in: each for one device and two minutes. They are in memory only and end with the server. */
export class PairingCodes {
  private readonly codes = new Map<string, { role: Role; until: number }>()

  make(role: Role, now: number): { code: string; until: number } {
    this.sweep(now)
    const code = Array.from({ length: LENGTH }, () => LETTERS[randomInt(LETTERS.length)]).join('')
    const until = now + CODE_MS
    this.codes.set(code, { role, until })
    return { code, until }
  }

  /** Uses a code up. @returns the role it gives; undefined where it is unknown, used or too old */
  use(typed: string, now: number): Role | undefined {
    this.sweep(now)
    const code = typed.toUpperCase().replace(/[^0-9A-Z]/g, '')
    const found = this.codes.get(code)
    this.codes.delete(code)
    return found?.role
  }

  private sweep(now: number): void {
    for (const [code, { until }] of this.codes) if (until <= now) this.codes.delete(code)
  }
}
