import { alarmKey, alarmsDue, type AlarmTodo } from '#core/planning'
import { HOUR, MINUTE } from '#core/time'
import { householdOf, type Context } from '#server/services/context'
import { todosFor } from '#server/services/todos'
import type { AlarmTold } from '#shared/contracts'
import type { AlarmBook } from './book'
import { postWebhook, sendMail, type AlarmMessage } from './post'

const MOST_LOOKED_AT = 500
const EVERY_MS = MINUTE
/** What does not arrive is tried so often within some hours; after that it stands as what did not arrive. */
const MOST_TRIES = 5
const TRIES_WITHIN_MS = 6 * HOUR

type Due = AlarmTodo & { number: number; food: string }

/**
 * Tells what is due, by each way that was chosen: none twice, and what failed again at the next look.
 * @param origin address of Dulse, for the links in messages
 * @returns what was told, or was not
 */
export async function tellDue(context: Context, book: AlarmBook, origin: string): Promise<AlarmTold[]> {
  const now = context.now()
  const { choice } = book
  const todos = todosFor(context, MOST_LOOKED_AT).map((row): Due => ({
    batchId: row.batch_id,
    number: row.number,
    food: row.batch_title,
    kind: row.kind,
    from: row.from_at,
    to: row.to_at ?? undefined,
    title: row.title,
    why: row.why,
  }))
  const household = householdOf(context)
  const told: AlarmTold[] = []
  for (const way of ['webhook', 'mail'] as const) {
    const chosen = choice[way]
    if (!chosen) continue
    const due = alarmsDue(todos, { now, household, kinds: chosen.kinds, quiet: choice.quiet, told: book.toldBy(way) }) as Due[]
    for (const todo of due) {
      const key = alarmKey(todo)
      if (book.failures(way, key, now - TRIES_WITHIN_MS) >= MOST_TRIES) continue
      const failed = await failureOf(() => sendBy(way, choice, messageOf(todo, origin)))
      const line: AlarmTold = { at: now, way, kind: todo.kind, title: todo.title, why: todo.why, number: todo.number, failed }
      book.note(key, line)
      told.push(line)
      // Who does not answer now does not answer the next one either: it is tried again in a minute.
      if (failed !== undefined) break
    }
  }
  return told
}

const messageOf = ({ kind, title, why, number, food, from, to }: Due, origin: string): AlarmMessage => ({
  kind,
  title,
  why,
  batch: number,
  food,
  from: new Date(from).toISOString(),
  ...(to !== undefined && { to: new Date(to).toISOString() }),
  url: `${origin}/b/${number}`,
})

/** Sends one message by a way. @throws Error in words */
export async function sendBy(way: 'webhook' | 'mail', choice: AlarmBook['choice'], message: AlarmMessage): Promise<void> {
  if (way === 'webhook' && choice.webhook) await postWebhook(choice.webhook, message)
  else if (way === 'mail' && choice.mail) await sendMail(choice.mail, message)
}

const failureOf = (act: () => Promise<void>) =>
  act().then(
    () => undefined,
    (error: unknown) => (error as Error).message,
  )

/** Looks every minute. @returns stops it */
export function watchAlarms(context: Context, book: AlarmBook, origin: () => string): () => void {
  let busy = false
  const timer = setInterval(() => {
    if (busy || context.busy || !context.db.open) return
    busy = true
    tellDue(context, book, origin())
      .catch((error: unknown) => console.error('Nobody was told:', error))
      .finally(() => (busy = false))
  }, EVERY_MS)
  timer.unref()
  return () => clearInterval(timer)
}
