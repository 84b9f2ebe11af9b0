import { AlarmBook } from '#server/alarms/book'

let book: AlarmBook | undefined

/** Who is told of what. */
export function useAlarmBook(): AlarmBook {
  book ??= new AlarmBook(logbookPath())
  return book
}

/** The address in messages: one that other devices reach, where the house is open. */
export function addressForOthers(): string {
  const [first] = useHome().links
  return first ?? `http://127.0.0.1:${process.env.NITRO_PORT ?? process.env.PORT ?? 3000}`
}
