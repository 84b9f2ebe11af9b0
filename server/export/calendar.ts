import { ICalAlarmType, ICalCalendar } from 'ical-generator'
import { jarsToUse } from '#server/db/jars'
import { keptRuns } from '#server/db/plan'
import { householdOf, wordsFor, type Context } from '#server/services/context'
import { toJarSummary } from '#server/services/shelf'
import { todosFor } from '#server/services/todos'
import { DAY, MINUTE } from '#core/time'

const HALF_HOUR = 30 * MINUTE
const SHOWN = 500
/** Jars whose best time begins to end within so long. */
const JARS_AHEAD_MS = 60 * DAY

/**
 * What needs hands, as a calendar that others subscribe to (RFC 5545); instants in UTC. Each keeps its id, so that a
 * finish that moves moves in the calendar too.
 * @param origin address of this server, for the links
 */
export function calendar(context: Context, origin: string): string {
  const { db } = context
  const now = context.now()
  const words = wordsFor(context)
  const feed = new ICalCalendar({
    name: `${householdOf(context).name}: drying`,
    prodId: { company: 'Dulse', product: 'Drying', language: 'EN' },
    ttl: 15 * 60,
    url: `${origin}/`,
  })
  for (const todo of todosFor(context, SHOWN)) {
    const end = todo.to_at ?? todo.from_at + HALF_HOUR
    feed.createEvent({
      id: `${todo.batch_id}.${todo.kind}@dulse`,
      stamp: new Date(now),
      start: new Date(todo.from_at),
      end: new Date(Math.max(end, todo.from_at + MINUTE)),
      summary: todo.title,
      description: `${todo.why}\nBatch ${todo.number}: ${todo.batch_title}.`,
      url: `${origin}/b/${todo.number}`,
      // What is late already needs no bell.
      alarms: todo.from_at > now ? [{ type: ICalAlarmType.display, triggerBefore: 0, description: todo.title }] : [],
    })
  }
  // Harvests that are still to come have no batch yet, and yet their time in the plan.
  for (const { basketId, batchId, run } of keptRuns(db)) {
    if (batchId !== undefined || run.startAt < now) continue
    feed.createEvent({
      id: `${basketId}.planned@dulse`,
      stamp: new Date(now),
      start: new Date(run.prepareAt),
      end: new Date(run.startAt),
      summary: words(`Cut and load the ${run.title.toLowerCase()}`),
      description: `By the plan, if it was picked: ${words(run.cut)}, ${run.places} places of the ${run.machineName}.`,
      url: `${origin}/plan`,
      alarms: [{ type: ICalAlarmType.display, triggerBefore: 0, description: words(`Cut and load the ${run.title.toLowerCase()}`) }],
    })
  }
  for (const row of jarsToUse(db, now + JARS_AHEAD_MS, SHOWN)) {
    const jar = toJarSummary(context, row)
    feed.createEvent({
      id: `${jar.jarId}.use@dulse`,
      stamp: new Date(now),
      start: new Date(jar.bestFrom),
      allDay: true,
      timezone: null,
      summary: `Use up jar ${jar.number}, ${jar.foodName.toLowerCase()}`,
      description: 'Its best time begins to end about now: quality, not safety.',
      url: `${origin}/j/${jar.number}`,
    })
  }
  return feed.toString()
}
