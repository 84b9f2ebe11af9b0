/** Where the browser keeps the last answers of the server, for when that is out of reach. */
export const KEPT_ANSWERS = 'dulse-answers'
/** On an answer that was kept: when it was given, ms since 1970. */
export const KEPT_HEADER = 'x-dulse-kept'

/** Questions whose last answer is of use without the server: pages, not files, searches, or the house's keys. */
const KEPT =
  /^\/api\/(?:now|stages|household|batches|jars|runs|shelf|kitchen|recipes|machines|tools|hygrometers|foods|insight|plan|practice)(?:\/|$)/
const NOT_KEPT = /\.(?:pdf|svg|yaml|csv)$|\/(?:export|recall)$/

export const isKept = (path: string) => KEPT.test(path) && !NOT_KEPT.test(path)

/** Nothing of the house stays on a device that leaves it. */
export const forgetKept = () => (typeof caches === 'undefined' ? Promise.resolve(false) : caches.delete(KEPT_ANSWERS))
