import { install, runTypeScript } from './steps.mjs'

/** `npm run devices -- [options]`: the simulated devices, beside a Dulse that runs. */
await install()
runTypeScript('devices/all.ts', process.argv.slice(2))
