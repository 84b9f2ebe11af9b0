export { InputError, refuse } from './inputError'
export { fill, gather, PLAIN_WORDS, problem, wordsOf, type Problem, type Quantities, type QuantityWords, type Say } from './problem'
