export { insideOf, type TryInside } from './inside'
export { changeBetween, tryLoad, usualKnobs, type TryChange, type TryKnobs, type TryLoad, type TryMachine, type TryResult } from './tries'
