import { Temporal } from 'temporal-polyfill'

/** An instant as the household's clock writes it, for fields of a day and a time; empty where there is none. */
export function useWallTime(model: Ref<number | undefined>) {
  const { settings } = storeToRefs(useHouseholdStore())
  return computed({
    get: () =>
      model.value === undefined
        ? ''
        : Temporal.Instant.fromEpochMilliseconds(model.value)
            .toZonedDateTimeISO(settings.value.timeZone)
            .toPlainDateTime()
            .toString({ smallestUnit: 'minute' }),
    set: (text: string | null) => {
      model.value = text ? Temporal.PlainDateTime.from(text).toZonedDateTime(settings.value.timeZone).epochMilliseconds : undefined
    },
  })
}
