export {
  changeBetween,
  HOT_START_K,
  neverDry,
  tryLoad,
  usualKnobs,
  type RunningLoad,
  type TryChange,
  type TryKnobs,
  type TryLoad,
  type TryMachine,
  type TryResult,
} from './tries'
