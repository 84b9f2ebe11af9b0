export { checkJars, jarsNamed } from './check'
export { jarBest, jarDamp, moistureOf, type JarBest } from './facts'
export { agedTo, replayJars, type Replay } from './replay'
export type { FindLot, Jar, JarItem, JarPart, JarSight, JarUse, Lot, Mixed, Smell } from './types'
