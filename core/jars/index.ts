export { checkJars, jarsNamed } from './check'
export { jarBest, jarDamp, jarWater, seenWrong, type JarBest, type JarWater, type Pantry, type SeenWrong } from './facts'
export { contentOf, type Content } from './content'
export { replayJars, type Replay } from './replay'
