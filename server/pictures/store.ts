import { createHash, randomUUID } from 'node:crypto'
import { closeSync, existsSync, fsyncSync, mkdirSync, openSync, readdirSync, readFileSync, renameSync, rmSync, writeSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { imageSize } from 'image-size'
import { refuse } from '#core/errors'
import type { Db } from '#server/db/open'
import { writeMeta } from '#server/db/settings'
import { carriesPictures, dropPacked, namedPictures, packedPictures, packInto } from '#server/db/pictures'

/** A picture is kept small: browsers send theirs so. */
export const PICTURE_KB = 300
/** Longest side, pixels: what is larger was not made small. */
const MOST_PIXELS = 4000
const TYPES: Record<string, string> = { jpg: 'image/jpeg', webp: 'image/webp' }

/** Where pictures lie: beside the logbook, each under the name that its bytes give it. */
export const picturesFolder = (db: Db) => join(db.memory ? join(tmpdir(), 'dulse-in-memory') : dirname(db.name), 'pictures')

const pathOf = (folder: string, name: string) => join(folder, name)

/** SHA-256 of the bytes: the same picture is kept once, and one that was damaged is known. */
export const nameOf = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')

/**
 * Keeps a picture; what is acknowledged is on the disk.
 * @returns its name
 * @throws InputError for what is no picture, or is not made small
 */
export function savePicture(db: Db, bytes: Uint8Array): string {
  if (bytes.length > PICTURE_KB * 1024)
    refuse('picture', 'too-large', `The picture is over ${PICTURE_KB} kB: send it smaller, such as 1280 pixels wide.`)
  typeOf(bytes)
  return keepBytes(picturesFolder(db), bytes)
}

/** The type that a picture's first bytes say. @throws InputError for what is none */
function typeOf(bytes: Uint8Array): string {
  const { type, width, height } = looked(bytes)
  const mime = TYPES[type ?? '']
  if (!mime) return refuse('picture', 'not-a-picture', 'This is no picture that Dulse keeps: send a JPEG or a WebP.')
  if (Math.max(width, height) > MOST_PIXELS)
    refuse('picture', 'too-many-pixels', `The picture is ${width} by ${height} pixels: send it smaller, at most ${MOST_PIXELS} on a side.`)
  return mime
}

function looked(bytes: Uint8Array): { type?: string; width: number; height: number } {
  try {
    return imageSize(bytes)
  } catch {
    return { width: 0, height: 0 }
  }
}

function keepBytes(folder: string, bytes: Uint8Array): string {
  const name = nameOf(bytes)
  // One that was damaged meanwhile is replaced by what is sent again.
  if (soundBytes(folder, name)) return name
  mkdirSync(folder, { recursive: true })
  const trial = join(folder, `part-${randomUUID()}`)
  try {
    const file = openSync(trial, 'wx')
    try {
      writeWhole(file, bytes)
      fsyncSync(file)
    } finally {
      closeSync(file)
    }
    renameSync(trial, pathOf(folder, name))
  } finally {
    rmSync(trial, { force: true })
  }
  const directory = openSync(folder, 'r')
  try {
    fsyncSync(directory)
  } finally {
    closeSync(directory)
  }
  return name
}

/** All of it or an error: a disk that is nearly full takes a part, and says only how much. */
function writeWhole(file: number, bytes: Uint8Array): void {
  for (let at = 0; at < bytes.length;) {
    const taken = writeSync(file, bytes, at)
    if (taken === 0) throw Object.assign(new Error('The disk took nothing.'), { code: 'ENOSPC' })
    at += taken
  }
}

/** The bytes under a name, where they are what it says; undefined for what is not there, or was cut short or damaged. */
function soundBytes(folder: string, name: string): Buffer | undefined {
  if (!existsSync(pathOf(folder, name))) return undefined
  const bytes = readFileSync(pathOf(folder, name))
  return nameOf(bytes) === name ? bytes : undefined
}

/** A picture with its type; undefined where it is not there, or is not what its name says. */
export function findPicture(db: Db, name: string): { bytes: Buffer; type: string } | undefined {
  const bytes = soundBytes(picturesFolder(db), name)
  return bytes && { bytes, type: typeOf(bytes) }
}

/** Pictures that the log names and whose bytes are gone or damaged. */
export function missingPictures(db: Db): string[] {
  const folder = picturesFolder(db)
  return namedPictures(db).filter(name => soundBytes(folder, name) === undefined)
}

export const hasPicture = (db: Db, name: string) => soundBytes(picturesFolder(db), name) !== undefined

/** Takes pictures in from a file that carries them. @throws InputError for one that is not what its name says */
export function takePicture(db: Db, name: string, bytes: Uint8Array, field: string): void {
  if (nameOf(bytes) !== name) refuse(field, 'picture-damaged', 'This picture is not what its name says: the file is damaged.')
  typeOf(bytes)
  keepBytes(picturesFolder(db), bytes)
}

/** Lays the pictures of a logbook beside a copy of it, those that are not there yet. */
export function copyPictures(db: Db, folder: string): void {
  const there = picturesFolder(db)
  mkdirSync(folder, { recursive: true })
  for (const name of namedPictures(db)) bring(there, folder, name)
}

/** Brings back what lies beside a copy, and is not here. */
export function bringPictures(db: Db, folder: string): void {
  if (!existsSync(folder)) return
  const here = picturesFolder(db)
  mkdirSync(here, { recursive: true })
  for (const name of readdirSync(folder)) if (/^[0-9a-f]{64}$/.test(name)) bring(folder, here, name)
}

/** Lays a picture elsewhere, unless it lies there whole; what is damaged is not passed on. */
function bring(from: string, to: string, name: string): void {
  if (soundBytes(to, name)) return
  const bytes = soundBytes(from, name)
  if (bytes) keepBytes(to, bytes)
}

/** What a power cut left half written. */
export function sweepPictures(db: Db): void {
  const folder = picturesFolder(db)
  if (!existsSync(folder)) return
  for (const name of readdirSync(folder)) if (name.startsWith('part-')) rmSync(join(folder, name), { force: true })
}

/** So many pictures are packed between two breaths: others are served meanwhile. */
const AT_ONCE = 8

/**
 * Packs the pictures into a backup, so that one file is the whole of it: in one transaction, and with pauses.
 * @returns those that are gone or damaged: they are left out, and the backup says so itself
 */
export async function packPictures(db: Db, copy: Db): Promise<string[]> {
  copy.exec('BEGIN')
  const pack = packInto(copy)
  const leftOut: string[] = []
  for (const [i, name] of namedPictures(copy).entries()) {
    const found = findPicture(db, name)
    if (found) pack(name, found.bytes)
    else leftOut.push(name)
    if (i % AT_ONCE === AT_ONCE - 1) await new Promise(resolve => setImmediate(resolve))
  }
  if (leftOut.length > 0) writeMeta(copy, LEFT_OUT, leftOut.join(' '))
  copy.exec('COMMIT')
  return leftOut
}

/** Under this a backup keeps the names of pictures that it has not got. */
const LEFT_OUT = 'pictures_left_out'

/** Takes them out of a backup that has become the logbook, and lays them beside it. */
export function unpackPictures(db: Db): void {
  if (!carriesPictures(db)) return
  for (const { name, bytes } of packedPictures(db)) {
    if (nameOf(bytes) === name) keepBytes(picturesFolder(db), bytes)
  }
  dropPacked(db)
}
