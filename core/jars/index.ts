export { checkJars, jarsNamed } from './check'
export { jarBest, jarDamp, jarWater, type JarBest, type JarWater, type Pantry } from './facts'
export { contentOf, type Content } from './content'
export { replayJars, type Replay } from './replay'
