import { fields } from '#core/log'

/** Fields that many contracts share; an entry's are the same. */
export const { id, instant, weightG, text, purpose } = fields
