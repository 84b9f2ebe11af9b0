/** Choices that the interface shows and the contracts hold: apart from the schemas, which the browser does without. */

/** English as it writes its dates. */
export const LOCALES = ['en-GB', 'en-US', 'en-CA', 'en-AU', 'en-NZ', 'en-IE', 'en-ZA', 'en-IN'] as const

/** Tables that leave as CSV. */
export const EXPORT_TABLES = ['batches', 'weighIns', 'checks', 'jars', 'uses', 'temperatures'] as const
