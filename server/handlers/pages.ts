import { batchList, batchPage, clearLate, findAnything, nowPage, stageBand } from '#server/services/pages'
import { flowPage } from '#server/services/flow'
import { comparedRuns } from '#server/services/compare'
import { insightPage, trialPage } from '#server/services/insight'
import { learnedPage } from '#server/services/learning'
import { lessonList, lessonOf } from '#server/services/practice'
import { idOfNumber, recallPage } from '#server/services/shelf'
import { logEntry, logOnRun, logTogether, requireBatch, startBatch } from '#server/services/writeLog'
import { HOUSE_BOUNDS, LOOPBACK_BOUNDS } from '#server/home/bounds'
import { TooFast } from '#server/services/refusals'
import { batchCardPdf } from '#server/labels/batchCard'
import type { LiveEvent } from '#shared/contracts'
import type { Handlers } from '../utils/route'

/** Pages that are asked for most, and batches with their logs. */
export const pages = {
  now: ({ context }) => nowPage(context),
  clearTodo: ({ context, body }) => clearLate(context, body),
  stages: ({ context }) => stageBand(context),
  find: ({ context, query }) => findAnything(context, query.q),
  byNumber: ({ context, query }) => idOfNumber(context, query),
  live: ({ event, context }) => {
    const home = useHome()
    const fromHouse = home.isFromHouse(event.node.req)
    const { streams, allStreams } = fromHouse ? HOUSE_BOUNDS : LOOPBACK_BOUNDS
    const side = fromHouse ? home.house : home.here
    const end = side.streams.take(addressOfCaller(event), streams, allStreams)
    if (!end) throw new TooFast('Too many pages of this device follow the log at once: close some.', 'request')
    const stream = createEventStream(event)
    const stop = context.live.listen(news => void stream.push(JSON.stringify(news)))
    // A line that was cut is taken up again within a second. What happened meanwhile is known by its turn.
    void stream.push({ retry: 1000, data: JSON.stringify({ kind: 'changed', turn: context.live.turn } satisfies LiveEvent) })
    // A line now and then shows both ends that the other is there.
    const pulse = setInterval(() => void stream.push({ event: 'pulse', data: '' }), 20_000)
    const cut = () => void stream.close()
    const { who } = event.context
    const letGo = who.kind === 'device' ? home.keepLine(who.device.id, cut) : undefined
    const forget = context.live.keep(cut)
    stream.onClosed(() => {
      end()
      clearInterval(pulse)
      forget()
      letGo?.()
      stop()
    })
    return stream.send()
  },

  batches: ({ context, query }) => batchList(context, query),
  startBatch: ({ context, event, body }) => startBatch(writing(context, event), body),
  batch: ({ context, params }) => batchPage(context, params.batchId),
  logOnBatch: ({ context, event, params, body }) => logEntry(writing(context, event), params.batchId, body),
  batchRecall: ({ context, params }) => {
    requireBatch(context, params.batchId)
    return recallPage(context, params.batchId)
  },
  batchFlow: ({ context, params }) => {
    requireBatch(context, params.batchId)
    return flowPage(context, params.batchId)
  },
  batchCard: async ({ context, event, params }) => {
    const pdf = await batchCardPdf(context, params.batchId, await useLabelFonts(), getRequestURL(event).origin)
    giveFile(event, 'application/pdf', { name: 'batch-card.pdf', shown: true })
    return pdf
  },
  logOnRun: ({ context, event, params, body }) => logOnRun(writing(context, event), params.runId, body),
  logTogether: ({ context, event, body }) => ({ written: logTogether(writing(context, event), body) }),
  compare: ({ context, query }) => comparedRuns(context, query),
  trial: ({ context, query }) => trialPage(context, query.batches),
  lessons: ({ context }) => lessonList(context),
  readLesson: ({ context, body }) => lessonOf(context, body),
  insight: ({ context, query }) => insightPage(context, query),
  learned: ({ context, query }) => learnedPage(context, query),
} satisfies Partial<Handlers>
