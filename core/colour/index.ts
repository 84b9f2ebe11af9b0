export { colourOf, differenceOf, cssOf, wordsOfDifference, type Lab, type Patch } from './colour'
export { patchOf } from './patch'
