import { createHash, randomBytes, timingSafeEqual } from 'node:crypto'
import { chmodSync, mkdirSync } from 'node:fs'
import { join } from 'node:path'
import Database from 'better-sqlite3'
import * as scrypt from 'scrypt-kdf'
import { uuidv7 } from 'uuidv7'
import type { HomeDevice, HomeToken, Role, TokenUse } from '#shared/contracts'
import type { Db } from '../db/open'
import { CannotOpen } from '../db/opening'
import { isDamage } from '../db/soundOrNew'
import { statement } from '../db/statement'
import { keyFolder } from './certificates'

/**
 * Who may in, in a file of its own beside the logbook: neither a backup nor an export carries it away, and putting an old copy back does
 * not let a phone in again that was taken off. What it holds of keys is their SHA-256, of the passphrase what scrypt makes of it.
 */
const TABLES = `
CREATE TABLE IF NOT EXISTS household (
  id INTEGER PRIMARY KEY CHECK (id = 1),
  passphrase BLOB,
  cookie_secret TEXT NOT NULL,
  open INTEGER NOT NULL DEFAULT 0 CHECK (open IN (0, 1)),
  ask_here INTEGER NOT NULL DEFAULT 0 CHECK (ask_here IN (0, 1))
) STRICT;
CREATE TABLE IF NOT EXISTS device (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  role TEXT NOT NULL CHECK (role IN ('cook', 'keeper')),
  key_hash BLOB NOT NULL UNIQUE,
  came_by TEXT NOT NULL CHECK (came_by IN ('passphrase', 'code')),
  added_at INTEGER NOT NULL,
  seen_at INTEGER NOT NULL
) STRICT;
CREATE TABLE IF NOT EXISTS token (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  use TEXT NOT NULL CHECK (use IN ('readings', 'calendar')),
  device_id TEXT,
  key_hash BLOB NOT NULL UNIQUE,
  added_at INTEGER NOT NULL,
  seen_at INTEGER
) STRICT;`

/** As strong as OWASP's password storage sheet asks of scrypt (N = 2^16, r = 8, p = 2): 64 MB, some tenths of a second. */
const SCRYPT = { logN: 16, r: 8, p: 2 }
/** When it was last seen is told to so many ms. */
const SEEN_MS = 60_000

interface HouseholdRow {
  passphrase: Buffer | null
  cookie_secret: string
  open: number
  ask_here: number
}
interface DeviceRow {
  id: string
  name: string
  role: Role
  came_by: 'passphrase' | 'code'
  added_at: number
  seen_at: number
}
interface TokenRow {
  id: string
  name: string
  use: TokenUse
  device_id: string | null
  added_at: number
  seen_at: number | null
}

// Its types name what it gives by default as if it were given by name.
const { kdf, verify } = (scrypt as unknown as { default: typeof scrypt }).default

const hashOf = (key: string) => createHash('sha256').update(key).digest()
const newKey = () => randomBytes(32).toString('base64url')

export class Keyring {
  private readonly db: Db
  /** One at a time: each takes 64 MB. */
  private turn: Promise<unknown> = Promise.resolve()

  /**
   * @param folder the data folder; ":memory:" keeps nothing
   * @param gone hears of each device that was taken off
   */
  constructor(
    folder: string,
    private readonly gone: (deviceId: string) => void = () => {},
  ) {
    if (folder === ':memory:') this.db = new Database(folder)
    else {
      mkdirSync(keyFolder(folder), { recursive: true, mode: 0o700 })
      const path = join(keyFolder(folder), 'keys.sqlite')
      this.db = new Database(path)
      chmodSync(path, 0o600)
    }
    try {
      this.db.pragma('journal_mode = DELETE')
      this.db.pragma('synchronous = FULL')
      this.db.exec(TABLES)
      statement(this.db, 'INSERT OR IGNORE INTO household (id, cookie_secret) VALUES (1, ?)').run(newKey())
    } catch (error) {
      this.db.close()
      if (!isDamage(error)) throw error
      // Who may in is not made up anew unasked.
      throw new CannotOpen(
        `${this.db.name} is damaged: it holds who may use this Dulse. Put it back from a copy, or move it away; then a passphrase is chosen anew and every phone let in again. The logbook is not touched.`,
      )
    }
  }

  close(): void {
    this.db.close()
  }

  private get household(): HouseholdRow {
    return statement<HouseholdRow>(this.db, 'SELECT passphrase, cookie_secret, open, ask_here FROM household').get()!
  }

  get hasPassphrase(): boolean {
    return this.household.passphrase !== null
  }
  /** Seals the cookies. */
  get cookieSecret(): string {
    return this.household.cookie_secret
  }
  /** Whether it is to listen in the house at each start. */
  get open(): boolean {
    return this.household.open === 1
  }
  /** Whether a passphrase is asked on this machine too. */
  get askHere(): boolean {
    return this.household.ask_here === 1
  }
  choose({ open = this.open, askHere = this.askHere }: { open?: boolean; askHere?: boolean }): void {
    statement(this.db, 'UPDATE household SET open = ?, ask_here = ?').run(Number(open), Number(askHere))
  }

  async setPassphrase(passphrase: string): Promise<void> {
    const made = await this.alone(() => kdf(passphrase.normalize('NFKC'), SCRYPT))
    statement(this.db, 'UPDATE household SET passphrase = ?').run(Buffer.from(made))
  }

  async isPassphrase(passphrase: string): Promise<boolean> {
    const { passphrase: known } = this.household
    return known !== null && this.alone(() => verify(new Uint8Array(known), passphrase.normalize('NFKC')))
  }

  private alone<Result>(work: () => Promise<Result>): Promise<Result> {
    const result = this.turn.then(work, work)
    this.turn = result.catch(() => undefined)
    return result
  }

  /** @returns the key that the device keeps in its cookie; it is known here by its hash alone */
  addDevice({ name, role, cameBy }: Pick<HomeDevice, 'name' | 'role' | 'cameBy'>, now: number): { id: string; key: string } {
    const made = { id: uuidv7(), key: newKey() }
    statement(this.db, 'INSERT INTO device VALUES (?, ?, ?, ?, ?, ?, ?)').run(made.id, name, role, hashOf(made.key), cameBy, now, now)
    return made
  }

  /** The device that holds a key, seen now; undefined where it was taken off. */
  device(id: string, key: string, now: number): HomeDevice | undefined {
    const row = statement<DeviceRow & { key_hash: Buffer }>(this.db, 'SELECT * FROM device WHERE id = ?').get(id)
    if (!row || !timingSafeEqual(row.key_hash, hashOf(key))) return undefined
    if (now - row.seen_at > SEEN_MS) statement(this.db, 'UPDATE device SET seen_at = ? WHERE id = ?').run(now, id)
    return deviceOf(row)
  }

  devices(): HomeDevice[] {
    return statement<DeviceRow>(this.db, 'SELECT * FROM device ORDER BY seen_at DESC').all().map(deviceOf)
  }
  /** @returns whether there is such a device */
  changeDevice(id: string, { name, role }: { name: string; role: Role }): boolean {
    return statement(this.db, 'UPDATE device SET name = ?, role = ? WHERE id = ?').run(name, role, id).changes > 0
  }
  removeDevice(id: string): boolean {
    const { changes } = statement(this.db, 'DELETE FROM device WHERE id = ?').run(id)
    this.gone(id)
    return changes > 0
  }
  /** All but one; none is spared where none is named. */
  removeOtherDevices(spared: string | undefined): void {
    const others = this.devices().filter(({ id }) => id !== spared)
    statement(this.db, 'DELETE FROM device WHERE id IS NOT ?').run(spared ?? null)
    for (const { id } of others) this.gone(id)
  }

  addToken({ name, use, deviceId }: Pick<HomeToken, 'name' | 'use' | 'deviceId'>, now: number): { id: string; key: string } {
    const made = { id: uuidv7(), key: newKey() }
    statement(this.db, 'INSERT INTO token VALUES (?, ?, ?, ?, ?, ?, NULL)').run(made.id, name, use, deviceId ?? null, hashOf(made.key), now)
    return made
  }
  token(key: string, now: number): HomeToken | undefined {
    const row = statement<TokenRow>(this.db, 'SELECT * FROM token WHERE key_hash = ?').get(hashOf(key))
    if (!row) return undefined
    if (now - (row.seen_at ?? 0) > SEEN_MS) statement(this.db, 'UPDATE token SET seen_at = ? WHERE id = ?').run(now, row.id)
    return tokenOf(row)
  }
  tokens(): HomeToken[] {
    return statement<TokenRow>(this.db, 'SELECT * FROM token ORDER BY added_at DESC').all().map(tokenOf)
  }
  removeToken(id: string): boolean {
    return statement(this.db, 'DELETE FROM token WHERE id = ?').run(id).changes > 0
  }
}

const deviceOf = (row: DeviceRow): HomeDevice => ({
  id: row.id,
  name: row.name,
  role: row.role,
  cameBy: row.came_by,
  addedAt: row.added_at,
  seenAt: row.seen_at,
})
const tokenOf = (row: TokenRow): HomeToken => ({
  id: row.id,
  name: row.name,
  use: row.use,
  deviceId: row.device_id ?? undefined,
  addedAt: row.added_at,
  seenAt: row.seen_at ?? undefined,
})
