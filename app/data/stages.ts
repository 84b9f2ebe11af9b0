import { useServer } from './useServer'

/** The stage band's figures: they stand on every page, and follow what is written. */
export const useStages = () => useServer('stages')
