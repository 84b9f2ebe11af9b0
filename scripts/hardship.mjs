import { build, install, runTypeScript } from './steps.mjs'

/** `npm run hardship [-- kills inputs damage disk servers clocks floods] [-- --fast]`: what docs/security.md gives figures of. */
await install()
if (!(await build())) process.exit(1)
runTypeScript('scripts/hardship/main.ts', process.argv.slice(2))
