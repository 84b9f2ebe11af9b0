import { refuse } from '#core/errors'
import type { AlarmChoice, AlarmsAnswer } from '#shared/contracts'
import type { AlarmBook } from '#server/alarms/book'
import { sendBy } from '#server/alarms/watch'

/** Keeps who is told of what. */
export function chooseAlarms(book: AlarmBook, choice: AlarmChoice): AlarmsAnswer {
  book.choose(choice)
  return book.answer
}

/**
 * Sends a message to see whether it arrives.
 * @throws InputError in words for what stands in the way
 */
export async function tryAlarm(book: AlarmBook, way: 'webhook' | 'mail', origin: string): Promise<{ sent: boolean }> {
  if (!book.choice[way]) refuse(way, 'not-set-up', 'Save its address first: there is nothing yet to send to.')
  try {
    await sendBy(way, book.choice, {
      kind: 'trial',
      title: 'Dulse can reach you',
      why: 'This was sent by hand, to see whether it arrives.',
      url: `${origin}/workshop/alarms`,
    })
  } catch (error) {
    refuse(way, 'not-sent', (error as Error).message)
  }
  return { sent: true }
}
