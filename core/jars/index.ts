export { checkJars, jarsNamed } from './check'
export { jarBest, jarDamp, type JarBest, type Pantry } from './facts'
export { contentOf, type Content } from './content'
export { replayJars, type Replay } from './replay'
