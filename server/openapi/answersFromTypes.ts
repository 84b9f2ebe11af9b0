import { answersSchema } from '../../scripts/answersSchema'

/** For tests: what is made at build otherwise. */
export const answers = answersSchema()
