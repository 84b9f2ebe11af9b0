import { addressOf } from './address'
import type { Answers } from './answers'
import type { RouteName } from './routes'

type Asked = Extract<RouteName, keyof Answers>

/** An answer that travels with a page, under the address that the page would ask. */
export interface FirstAnswer {
  name: Asked
  address: string
  answer: unknown
}
/** What comes with a page: answers, and the turn of the log that they are of. */
export interface FirstAnswers {
  turn: number
  answers: FirstAnswer[]
}
/** Element of the page that holds them. */
export const FIRST_ANSWERS_ID = 'dulse-first'

/** Stands on every page. */
const EVERYWHERE: Asked[] = ['household', 'stages']
/** Pages that are opened from nothing, by a bookmark, a label or a morning: their file, and what they ask for first. */
const OPENED: { file: string; path: RegExp; asks: Asked; param?: string }[] = [
  { file: 'pages/index.vue', path: /^\/$/, asks: 'now' },
  { file: 'pages/batches/[id]/index.vue', path: /^\/batches\/([\w-]+)$/, asks: 'batch', param: 'batchId' },
  { file: 'pages/jars/[id]/index.vue', path: /^\/jars\/([\w-]+)$/, asks: 'jar', param: 'jarId' },
  { file: 'pages/shelf.vue', path: /^\/shelf$/, asks: 'shelf' },
]

export interface FirstAsked {
  name: Asked
  params: Record<string, string>
  address: string
}

/** What a page at this path asks for before anything stands on it, and the file that it is in, where it is one that is opened often. */
export function firstAsked(path: string): { file?: string; asked: FirstAsked[] } {
  const asked = (name: Asked, params: Record<string, string> = {}): FirstAsked => ({ name, params, address: addressOf(name, { params }) })
  const page = OPENED.find(item => item.path.test(path))
  const param = page && page.path.exec(path)![1]
  return {
    file: page?.file,
    asked: [...EVERYWHERE.map(name => asked(name)), ...(page ? [asked(page.asks, page.param ? { [page.param]: param! } : {})] : [])],
  }
}
