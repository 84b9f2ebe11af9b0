export { colourOf, differenceOf, cssOf, wordsOfDifference, type Lab, type Patch } from './colour'
