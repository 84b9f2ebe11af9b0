import { join } from 'node:path'
import { build, installing, makeDemo, must, ownFolder, placeDatabase, root, say, startDevices, startServer } from './steps.mjs'
import { sayHome } from './home.mjs'

/**
 * `npm run demo` (the invented household), `npm start` (one's own logbook), `npm run dev`.
 * `npm run demo -- --fresh` makes the demo data anew; `-- --home` opens Dulse to the house.
 */
const mode = process.argv[2] ?? 'own'
const fresh = process.argv.includes('--fresh')
const home = process.argv.includes('--home')

const { compiled } = await installing({ tools: mode === 'dev' })
if (mode === 'dev') {
  await compiled
  const folder = process.env.DULSE_DATA ?? join(root, '.data/demo')
  makeDemo(folder, fresh)
  must('npx', ['nuxt', 'dev', '--host', '127.0.0.1'], { env: { DULSE_DATA: folder } })
  process.exit(0)
}
const folder = mode === 'demo' ? (process.env.DULSE_DATA ?? join(root, '.data/demo')) : ownFolder()
// The machine has more than one core.
const [built] = await Promise.all([build(), compiled.then(() => (mode === 'demo' ? makeDemo(folder, fresh) : undefined))])
if (!built) process.exit(1)
placeDatabase()
try {
  const { server, address } = await startServer(folder, {
    port: process.env.PORT ? Number(process.env.PORT) : undefined,
    quiet: true,
    home,
  })
  say(`The logbook is in ${folder}`)
  console.log(`\n  Dulse is at ${address}\n\n  Ctrl C ends it.\n`)
  if (home) await sayHome(address)
  const devices = mode === 'demo' ? startDevices(address, folder) : undefined
  if (devices) say('Simulated devices read the Tall cabinet’s rack and a freeze dryer.')
  for (const signal of ['SIGINT', 'SIGTERM'])
    process.on(signal, () => {
      devices?.kill(signal)
      server.kill(signal)
    })
  server.on('exit', code => {
    devices?.kill()
    process.exit(code ?? 0)
  })
} catch (error) {
  console.error(error.message)
  process.exit(1)
}
