import { build, install, runTypeScript } from './steps.mjs'

/** `npm run bench`: the figures that the aims in docs/architecture.md are held against. */
install()
build()
runTypeScript('scripts/bench/main.ts', process.argv.slice(2))
