import type { H3Event } from 'h3'
import type { Context } from '#server/services/context'

/** The logbook for a use case that writes into the log, with the device that does. */
export function writing(context: Context, { context: { who } }: H3Event): Context {
  return who.kind === 'device' ? { ...context, writer: { id: who.device.id, name: who.device.name } } : context
}
