import { wrap, type Remote } from 'comlink'
import type { BodyOf, EntryBody, PictureSubject } from '#core/log'
import type { Lab } from '#core/colour'
import type { PictureFile, Sent } from '~/data/parcel'
import type { PictureWorker } from '~/workers/picture.worker'

/** A picture that was taken and is not written yet. */
export interface TakenPicture extends PictureFile {
  /** For showing it. */
  url: string
  shows: PictureSubject
  colour?: Lab
}

/** Larger than any camera's picture: it would only fill the memory. */
const MOST_MB = 60

let worker: Remote<PictureWorker> | undefined
const small = () =>
  (worker ??= wrap<PictureWorker>(new Worker(new URL('../workers/picture.worker.ts', import.meta.url), { type: 'module' })))

/**
 * Makes a file of the camera or the disk into a picture that can be written.
 * @returns it, or in words why not
 */
export async function takenFrom(file: File, shows: PictureSubject): Promise<TakenPicture | string> {
  if (file.size > MOST_MB * 1e6)
    return `“${file.name}” is ${Math.round(file.size / 1e6)}\u00A0MB: a picture of a camera has a tenth of that. Choose another.`
  let bytes: Blob
  try {
    bytes = await small().makeSmall(file)
  } catch {
    return `“${file.name}” is no picture that this browser can read. Choose a JPEG, PNG or WebP.`
  }
  const digest = await crypto.subtle.digest('SHA-256', await bytes.arrayBuffer())
  const name = [...new Uint8Array(digest)].map(byte => byte.toString(16).padStart(2, '0')).join('')
  return { name, bytes, url: URL.createObjectURL(bytes), shows }
}

/** The entry that pictures were taken with: what was logged, not the caution that was read before it. */
export function takenWith(items: readonly Sent[]): string | undefined {
  const entries = items.flatMap(item => ('entry' in item ? [item.entry] : []))
  return entries.find(entry => entry.body.kind !== 'caution')?.id
}

/** The log's lines for pictures. */
export const pictureBodies = (taken: readonly TakenPicture[], about?: string, jarId?: string): BodyOf<'picture'>[] =>
  taken.map(({ name, shows, colour }) => ({
    kind: 'picture',
    picture: name,
    shows,
    ...(about !== undefined && { about }),
    ...(jarId !== undefined && { jarId }),
    ...(colour && { colour }),
  }))

/** The bytes with their name alone, as they are kept until they are sent. */
export const plainFile = ({ name, bytes }: PictureFile): PictureFile => ({ name, bytes: toRaw(bytes) })

/** What a picture most likely shows, by what it is taken with. */
export function subjectOf(kind: EntryBody['kind']): PictureSubject {
  if (kind === 'grind' || kind === 'powderDry' || kind === 'measure') return 'powder'
  if (kind === 'intake' || kind === 'prep') return 'food'
  if (kind === 'look' || kind === 'lookJar' || kind === 'pack' || kind === 'fill') return 'jar'
  return 'pieces'
}

/** Where a picture is shown from: what waits to be sent is shown from the browser's own. */
export function usePictureUrl() {
  const outbox = useOutboxStore()
  const made = new Map<string, string>()
  onScopeDispose(() => made.forEach(url => URL.revokeObjectURL(url)))
  return (name: string): string => {
    const waiting = outbox.parcels.flatMap(parcel => parcel.files ?? []).find(file => file.name === name)
    if (!waiting) return `/api/pictures/${name}`
    if (!made.has(name)) made.set(name, URL.createObjectURL(waiting.bytes))
    return made.get(name)!
  }
}
