import type { Problem } from '#core/errors'
import type { NewBatch, NewEntry, NewJarEntry, NewRunEntry } from '#shared/contracts'

/** One entry on its way, and whose log it goes into. */
export type Sent =
  { begin: NewBatch } | { batchId: string; entry: NewEntry } | { runId: string; entry: NewRunEntry } | { jarId: string; entry: NewJarEntry }

/** A picture's bytes under the name that the log knows it by. */
export interface PictureFile {
  name: string
  bytes: Blob
}

/** What is sent as one: all of it is written, or nothing. */
export interface Parcel {
  /** The first entry's: the server knows by it what it has already. */
  id: string
  items: Sent[]
  /** Pictures that its entries name: their bytes go first. */
  files?: PictureFile[]
  /** Batch or jar whose page shows it meanwhile. */
  about: string
  /** What it is, in words, for the list of what waits. */
  words: string
  /** The device under whose name it was written; none on the server's own machine. */
  by?: string
  /** How often the server failed at it. */
  failures: number
  /** It waits until the clocks of this device and of the server agree: by one of them it has not happened yet. */
  clock?: boolean
  /** Set aside, to be put right by hand: the server said no, or failed at it again and again. */
  aside?: { message: string; problems: Problem[] }
}
