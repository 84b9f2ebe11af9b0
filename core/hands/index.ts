export { CRACKS_K, DAMP_ACTIVITY, LEATHER_K, SNAPS_K } from './ladder'
export { feltTable } from './likelihood'
