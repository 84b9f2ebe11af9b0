import { PANTRY_HUMIDITY } from '#core/keeping'

/** Choices that the interface shows and the contracts hold: apart from the schemas, which the browser does without. */

/** English as it writes its dates. */
export const LOCALES = ['en-GB', 'en-US', 'en-CA', 'en-AU', 'en-NZ', 'en-IE', 'en-ZA', 'en-IN'] as const

/** Tables that leave as CSV. */
export const EXPORT_TABLES = ['batches', 'weighIns', 'checks', 'jars', 'uses', 'temperatures'] as const

/** A household before anybody changed it: times of day in minutes, money as a sign. */
export const freshHousehold = () => ({
  name: 'Our kitchen',
  timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC',
  weightUnit: 'g' as const,
  temperatureUnit: 'C' as const,
  clockHours: 24 as const,
  sleepFrom: 22 * 60 + 30,
  sleepTo: 6 * 60 + 30,
  pantryC: 20,
  pantryHumidity: PANTRY_HUMIDITY,
  jarMl: 250,
  money: '€',
  kwhPrice: 0.3,
  hourWorth: 0,
  measures: 'metric' as const,
  locale: 'en-GB' as const,
  version: 1,
})
