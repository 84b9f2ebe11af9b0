export {
  changeBetween,
  tryLoad,
  usualKnobs,
  type RunningLoad,
  type TryChange,
  type TryKnobs,
  type TryLoad,
  type TryMachine,
  type TryResult,
} from './tries'
