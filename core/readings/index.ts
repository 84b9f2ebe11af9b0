export {
  guessLogger,
  readLogger,
  type LoggerError,
  type LoggerGuess,
  type LoggerReadings,
  type LoggerRow,
  type LoggerSettings,
} from './loggerFile'
export { dayOrderOf, instantOf, parseLocalTime, type DayOrder, type LocalTime } from './loggerTime'
