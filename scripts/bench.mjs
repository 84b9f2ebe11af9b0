import { build, install, runTypeScript } from './steps.mjs'

/** `npm run bench`: the figures that the aims in docs/architecture.md are held against. */
await install()
if (!(await build())) process.exit(1)
runTypeScript('scripts/bench/main.ts', process.argv.slice(2))
