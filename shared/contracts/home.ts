import * as z from 'zod'
import { fields } from '#core/log'

const { id, text } = fields

/** A cook logs and reads; a keeper also changes settings, takes the logbook out and in, and lets devices in. */
const ROLES = ['cook', 'keeper'] as const
export type Role = (typeof ROLES)[number]
/** What a key for a program or a device is good for, and nothing else. */
const TOKEN_USES = ['readings', 'calendar'] as const
export type TokenUse = (typeof TOKEN_USES)[number]

const role = z.enum(ROLES, { error: 'A device logs and reads (cook), or may change everything (keeper).' })
const deviceName = text(40)

/** Long enough that it cannot be guessed by trying; nothing is asked of its letters. */
const PASSPHRASE_LEAST = 12
export const newPassphrase = z
  .string({ error: 'A passphrase is text.' })
  .max(200, 'At most 200 letters.')
  .refine(typed => [...typed.normalize('NFKC').trim()].length >= PASSPHRASE_LEAST, {
    error: `At least ${PASSPHRASE_LEAST} letters: four words that do not belong together do well.`,
    abort: true,
  })
  .refine(typed => new Set(typed.toLowerCase().replace(/\s/g, '')).size >= 6, {
    error: 'Too few different letters: it would be guessed.',
    abort: true,
  })
  .refine(typed => !isWellKnown(typed), 'This is among the first that anybody would try: choose words of your own.')

/** Long passphrases that head every list of leaked ones, and rows of keys (from memory; after NIST SP 800-63B, 5.1.1.2). */
const WELL_KNOWN =
  /^(?:(?:pass(?:word|phrase|w0rd)|dulse|letmein|welcome|iloveyou|household|kitchen|dehydrator|changeme|trustno1|administrator|qwert[yz](?:uiop)?|asdfgh(?:jkl)?|[yz]xcvbnm?|abcdef(?:gh(?:ijklmnop)?)?|0?123456(?:7(?:8(?:90?)?)?)?|0?987654(?:321)?|1q2w3e4r(?:5t)?(?:6y)?)[\W_\d]*)+$/i
const isWellKnown = (typed: string) => WELL_KNOWN.test(typed.replace(/\s/g, ''))

export const passphraseChange = z.strictObject({
  passphrase: newPassphrase,
  /** The one until now, where there is one. */
  before: z.string().max(200).optional(),
  /** Whether all other devices are signed out. */
  signOut: z.boolean().default(false),
})
export type PassphraseChange = z.infer<typeof passphraseChange>
export const entrance = z.strictObject({
  passphrase: z.string().min(1, 'Type the passphrase.').max(200),
  name: deviceName,
  role: role.default('keeper'),
})
export const pairing = z.strictObject({ code: z.string().trim().min(1, 'Type the code.').max(40), name: deviceName })
export const codeWish = z.strictObject({ role })
export const homeChoice = z.strictObject({ open: z.boolean().optional(), askHere: z.boolean().optional() })
export const deviceChange = z.strictObject({ name: deviceName, role })
export const newToken = z
  .strictObject({ name: deviceName, use: z.enum(TOKEN_USES), deviceId: id.optional() })
  .refine(token => token.use !== 'readings' || token.deviceId !== undefined, {
    path: ['deviceId'],
    error: 'Say which scale or logger it is for.',
  })
export type NewToken = z.infer<typeof newToken>

/** A phone, tablet or browser that was let in. */
export interface HomeDevice {
  id: string
  name: string
  role: Role
  cameBy: 'passphrase' | 'code'
  addedAt: number
  seenAt: number
}
/** A key for a scale, logger or calendar. */
export interface HomeToken {
  id: string
  name: string
  use: TokenUse
  deviceId?: string
  addedAt: number
  seenAt?: number
}

/** Who asks, as the server sees it; `role` is null for one that has to sign in first. */
export interface WhoAnswer {
  role: Role | null
  name?: string
  /** Whether it came by the house's network. */
  fromHouse: boolean
  hasPassphrase: boolean
}
export interface HomeAnswer {
  hasPassphrase: boolean
  /** Whether it is opened at each start. */
  open: boolean
  askHere: boolean
  /** Whether it listens in the house now. */
  listening: boolean
  /** Why it does not, though it should. */
  problem?: string
  links: string[]
  trustLinks: string[]
  fingerprint?: string
  devices: HomeDevice[]
  /** The device that asks. */
  own?: string
  tokens: HomeToken[]
}
export interface CodeAnswer {
  code: string
  until: number
  /** What the QR code holds: the page that lets a phone in, with the code behind the hash, which no server is sent. */
  link?: string
}
