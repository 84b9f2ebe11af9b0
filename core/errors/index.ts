export { InputError, type Problem } from './inputError'
