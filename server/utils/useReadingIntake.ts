import { ReadingIntake } from '#server/devices/readingIntake'

let intake: ReadingIntake | undefined

/** The one way in for readings of devices. */
export function useReadingIntake(): ReadingIntake {
  intake ??= new ReadingIntake(useLogbook())
  return intake
}
