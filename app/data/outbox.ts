import { uuidv7 } from 'uuidv7'
import { defineStore } from 'pinia'
import { computed, shallowRef, toRaw } from 'vue'
import { ROUTES } from '#shared/api'
import { callServer, Failed, Refused, signedInAs } from './call'
import { dropParcel, keepParcel, keptParcels } from './outboxShelf'
import type { Parcel, PictureFile, Sent } from './parcel'

const RETRY_MS = 4000
/** So often the server may fail at a parcel before it is set aside and no more is asked of it. */
const MOST_FAILURES = 3
/** So long what has arrived is shown by a page that has not fetched it yet, ms. */
const FRESH_MS = 60_000

const entryOf = (item: Sent) => ('begin' in item ? item.begin.entry : item.entry)

/** The route that takes a parcel: an entry's own, or the one for what belongs together. */
function requestOf({ items }: Pick<Parcel, 'items'>): { path: string; body: unknown } {
  const [item] = items
  if (items.length > 1) return { path: ROUTES.logTogether.path, body: { entries: items } }
  if ('begin' in item!) return { path: ROUTES.startBatch.path, body: item.begin }
  if ('batchId' in item!) return { path: ROUTES.logOnBatch.path.replace('{batchId}', item.batchId), body: item.entry }
  if ('runId' in item!) return { path: ROUTES.logOnRun.path.replace('{runId}', item.runId), body: item.entry }
  return { path: ROUTES.logOnJar.path.replace('{jarId}', item!.jarId), body: item!.entry }
}

/**
 * Everything written goes through here: first into the browser's own storage, then to the server, in order. What does not arrive
 * waits and is sent again; ids made here keep that harmless. What the server refuses after the page has gone on, or fails at
 * again and again, is set aside in sight, and the rest goes on.
 */
export const useOutboxStore = defineStore('outbox', () => {
  const parcels = shallowRef<readonly Parcel[]>([])
  /** The server is out of reach. */
  const away = shallowRef(false)
  /** The browser keeps nothing more: what is logged is in this page's memory only until it is sent. */
  const full = shallowRef(false)
  const waiting = computed(() => parcels.value.filter(parcel => !parcel.aside))
  const aside = computed(() => parcels.value.filter(parcel => parcel.aside))
  /** What arrived a moment ago: between that and its own next look at the server a page would show the log as if it had not been written. */
  const arrived = shallowRef<readonly Parcel[]>([])
  /** Refusals of what a form is still waiting for: they go back to the form. */
  const awaited = new Map<string, Refused | undefined>()
  const unkept = new Set<string>()
  /** What was sent at least once while a form waits for it. */
  const reached = new Set<string>()
  let flushing: Promise<void> | undefined
  let timer: ReturnType<typeof setTimeout> | undefined
  const otherTabs = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('dulse-outbox')
  otherTabs?.addEventListener('message', () => void refresh())

  /**
   * Sends, or keeps for later when the server is out of reach.
   * @param about batch or jar whose page shows it meanwhile; its own where it is left out
   * @returns whether it has arrived or waits
   * @throws Refused when the server says no; then it does not wait.
   */
  const send = (item: Sent, words: string, about?: string) => sendTogether([item], words, about)

  /** The same for what belongs together: all of it is written, or nothing. */
  async function sendTogether(
    items: Sent[],
    words: string,
    about = aboutOf(items[0]!),
    files: PictureFile[] = [],
  ): Promise<'arrived' | 'waits'> {
    // Without the page's own reactive wrappers, which no storage takes.
    const plain = JSON.parse(JSON.stringify(items)) as Sent[]
    const parcel: Parcel = {
      id: entryOf(plain[0]!).id,
      items: plain,
      about,
      words,
      failures: 0,
      by: signedInAs.value,
      ...(files.length > 0 && { files }),
    }
    awaited.set(parcel.id, undefined)
    put(parcel)
    await keep(parcel)
    try {
      await flush()
      // A flush that was under way may have ended before it saw this one.
      if (!away.value && isWaiting(parcel) && !reached.has(parcel.id)) await flush()
      const refused = awaited.get(parcel.id)
      if (refused) throw refused
      return isWaiting(parcel) ? 'waits' : 'arrived'
    } finally {
      awaited.delete(parcel.id)
      reached.delete(parcel.id)
    }
  }

  const isWaiting = ({ id }: Parcel) => waiting.value.some(other => other.id === id)

  function put(parcel: Parcel) {
    const others = parcels.value.filter(other => other.id !== parcel.id)
    parcels.value = [...others, parcel].sort((a, b) => (a.id < b.id ? -1 : 1))
  }

  async function keep(parcel: Parcel) {
    try {
      await keepParcel(toRaw(parcel))
      unkept.delete(parcel.id)
      full.value = unkept.size > 0
      otherTabs?.postMessage('changed')
    } catch {
      // Full, or closed to pages: it goes on from memory, under the id that it has.
      unkept.add(parcel.id)
      full.value = true
    }
  }

  function keepInSight(parcel: Parcel) {
    arrived.value = [...arrived.value, parcel]
    setTimeout(() => (arrived.value = arrived.value.filter(other => other !== parcel)), FRESH_MS)
  }

  async function drop({ id }: Parcel) {
    parcels.value = parcels.value.filter(other => other.id !== id)
    unkept.delete(id)
    full.value = unkept.size > 0
    await dropParcel(id).catch(() => undefined)
    otherTabs?.postMessage('changed')
  }

  /** What the browser keeps now, another tab's too; what it could not keep stays. */
  async function refresh() {
    const kept = await keptParcels().catch(() => undefined)
    if (!kept) return
    const known = new Set(kept.map(parcel => parcel.id))
    const mine = parcels.value.filter(parcel => !known.has(parcel.id) && (unkept.has(parcel.id) || awaited.has(parcel.id)))
    parcels.value = [...kept, ...mine].sort((a, b) => (a.id < b.id ? -1 : 1))
  }

  /** Sends what waits, oldest first, until the server is away or nothing is left. One tab at a time. */
  function flush(): Promise<void> {
    flushing ??= alone(sendAll).finally(() => {
      flushing = undefined
    })
    return flushing
  }

  async function sendAll() {
    const tried = new Set<string>()
    for (;;) {
      // Behind one that the server failed at, what is about the same waits: it may rest on it.
      const stuck = new Set(waiting.value.filter(parcel => tried.has(parcel.id)).map(parcel => parcel.about))
      const next = waiting.value.find(parcel => !tried.has(parcel.id) && !stuck.has(parcel.about))
      if (!next) break
      tried.add(next.id)
      reached.add(next.id)
      try {
        for (const { bytes } of next.files ?? []) await callServer(ROUTES.savePicture.path, { method: 'POST', body: bytes, by: next.by })
        const { path, body } = requestOf(next)
        await callServer(path, { method: 'POST', body, by: next.by })
        away.value = false
        keepInSight(next)
        await drop(next)
      } catch (error) {
        if (error instanceof Refused) await refused(next, error)
        else if (error instanceof Failed) await failed(next)
        else {
          away.value = true
          break
        }
        away.value = false
      }
    }
    if (waiting.value.length > 0) later()
  }

  async function refused(parcel: Parcel, error: Refused) {
    if (isClockBehind(parcel, error)) return put({ ...parcel, clock: true })
    if (awaited.has(parcel.id)) {
      awaited.set(parcel.id, error)
      await drop(parcel)
      return
    }
    const late = lateOf(parcel, error)
    if (late && (await keepsLate(late))) await drop(parcel)
    else await setAside(parcel, { message: error.message, problems: error.problems })
  }

  /**
   * Whether the log keeps, beside what others logged meanwhile, what it could not take: then it is settled there, by whoever knows. It
   * says no where nobody else logged anything; then it is put right here.
   */
  async function keepsLate(late: Sent): Promise<boolean> {
    try {
      const { path, body } = requestOf({ items: [late] })
      await callServer(path, { method: 'POST', body })
      return true
    } catch {
      return false
    }
  }

  async function failed(parcel: Parcel) {
    const failures = parcel.failures + 1
    if (failures >= MOST_FAILURES)
      return setAside(
        { ...parcel, failures },
        { message: 'The server failed at this three times. Send it again later, or log it anew.', problems: [] },
      )
    put({ ...parcel, failures })
    await keep({ ...parcel, failures })
  }

  async function setAside(parcel: Parcel, reason: Parcel['aside']) {
    const set = { ...parcel, aside: reason }
    put(set)
    await keep(set)
  }

  function later() {
    clearTimeout(timer)
    timer = setTimeout(() => void flush(), RETRY_MS)
  }

  /** Sends what was set aside once more, as it is. */
  async function sendAgain(parcel: Parcel) {
    // Whoever sends it now takes it over.
    const again = { ...parcel, aside: undefined, failures: 0, by: signedInAs.value }
    put(again)
    await keep(again)
    await flush()
  }

  async function open() {
    await refresh()
    if (waiting.value.length > 0) await flush()
  }

  const opened = open()

  return { parcels, waiting, arrived, aside, away, full, opened, send, sendTogether, flush, sendAgain, throwAway: drop }
})

/** What has happened by this device's clock, and has not yet by the server's: one of them is wrong, and nobody dates it otherwise for them. */
function isClockBehind({ items }: Parcel, { problems }: Refused): boolean {
  const ahead = Math.max(...items.map(item => entryOf(item).at))
  return ahead <= Date.now() && problems.length > 0 && problems.every(problem => problem.code === 'in-future')
}

/** A single entry on a batch or a jar that came late, as something to be settled. Its time must be right: a wrong clock is put right first. */
function lateOf({ items, id }: Parcel, { status, message, problems }: Refused): Sent | undefined {
  const [item] = items
  if (status !== 422 || items.length > 1 || !item || !('entry' in item) || 'runId' in item || item.entry.body.kind === 'void')
    return undefined
  if (problems.some(problem => problem.field === 'at' || problem.code === 'another-writer')) return undefined
  const { at, body, replaces } = item.entry
  const jar = 'jarId' in item ? { jarId: item.jarId } : {}
  const unsettled = { kind: 'unsettled', ...jar, said: body, replaces, wroteAt: instantOf(id), because: message.slice(0, 600) } as const
  return { ...item, entry: { id: uuidv7(), at, body: unsettled } } as Sent
}
/** When an id of version 7 was made (RFC 9562, 5.7), ms since 1970. */
const instantOf = (id: string) => Number.parseInt(id.replaceAll('-', '').slice(0, 12), 16)

const aboutOf = (item: Sent) =>
  'begin' in item ? item.begin.id : 'batchId' in item ? item.batchId : 'runId' in item ? item.runId : item.jarId

/** Runs what two tabs must not run at once. */
async function alone(act: () => Promise<void>): Promise<void> {
  if (typeof navigator === 'undefined' || !('locks' in navigator)) return act()
  await navigator.locks.request('dulse-outbox', act)
}
