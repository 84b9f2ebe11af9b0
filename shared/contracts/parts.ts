import * as z from 'zod'

/** Fields that many contracts share. Weights are grams, instants milliseconds since 1970 UTC. */
export const id = z.uuid({ error: 'Give a UUID.' })

export const instant = z
  .number({ error: 'Give an instant in milliseconds since 1970.' })
  .int('Give whole milliseconds.')
  .min(0, 'Give an instant after 1970.')
  .max(8.64e15, 'This instant is out of range.')

export const weightG = z
  .number({ error: 'Give a weight in grams, as a number.' })
  .positive('The weight must be above zero.')
  .max(1_000_000, 'That is over a tonne: check the unit.')

/** A weight that may be nothing, such as powder lost to the last grain. */
export const weightOrNothingG = z
  .number({ error: 'Give a weight in grams, as a number.' })
  .min(0, 'The weight must not be negative.')
  .max(1_000_000, 'That is over a tonne: check the unit.')

export const text = (most: number) =>
  z.string({ error: 'Give some text.' }).trim().min(1, 'Write something here.').max(most, `At most ${most} characters.`)

export const purpose = z.enum(['pieces', 'flakes', 'powder'], { error: 'Choose pieces, flakes or powder.' })

export const trayPosition = z
  .number({ error: 'Give a tray number.' })
  .int('Give a whole tray number.')
  .min(1, 'Trays count from 1.')
  .max(40, 'At most 40 trays.')
