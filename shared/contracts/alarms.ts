import * as z from 'zod'
import { TODO_KINDS, type AlarmWay, type TodoKind } from '#core/planning'
import { text } from './parts'

const kinds = z.array(z.enum(TODO_KINDS, { error: 'Name kinds of things to do.' })).max(TODO_KINDS.length)

/** An address that a message is sent to. */
const webAddress = z
  .url({ protocol: /^https?$/, error: 'Give an address that begins with http:// or https://.' })
  .max(500, 'At most 500 characters.')
const mailAddress = z.email('This is no mail address.').max(200, 'At most 200 characters.')

/** Who is told of what by which way. A field that is left out is switched off. */
export const alarmChoice = z.strictObject({
  /** Nobody is told at night, except where food spoils. */
  quiet: z.boolean({ error: 'Say whether nights are quiet.' }),
  webhook: z.strictObject({ url: webAddress, kinds }).optional(),
  mail: z
    .strictObject({
      host: text(200),
      port: z
        .number({ error: 'Give the port as a number.' })
        .int('A whole number.')
        .min(1, 'Ports count from 1.')
        .max(65535, 'Ports go up to 65535.'),
      /** Encrypted from the first byte (usual at port 465); else it is asked for after the greeting, where the server offers it. */
      secure: z.boolean(),
      user: z.string().max(200, 'At most 200 characters.').optional(),
      /** Left out: the one that is kept already. */
      password: z.string().max(500, 'At most 500 characters.').optional(),
      from: mailAddress,
      to: mailAddress,
      kinds,
    })
    .optional(),
})
export type AlarmChoice = z.infer<typeof alarmChoice>

export const alarmTrial = z.strictObject({ way: z.enum(['webhook', 'mail'], { error: 'Choose webhook or mail.' }) })

/** What was told, or was not, and why. */
export interface AlarmTold {
  at: number
  way: Exclude<AlarmWay, 'page'>
  kind: TodoKind
  title: string
  why: string
  number: number
  /** What stood in the way, where it did not arrive. */
  failed?: string
}

export interface AlarmsAnswer {
  /** Without the password, which leaves the server to no one. */
  choice: AlarmChoice
  hasPassword: boolean
  /** The newest first. */
  told: AlarmTold[]
}
