import { spawnSync } from 'node:child_process'
import { mkdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { install, root, say } from './steps.mjs'

/**
 * `npm run mutants -- mass keeping`: small faults put into core, folder by folder, and how many of them the tests catch.
 * What was found out already is kept in .data/mutants.json, so that it goes on where it stopped.
 */
const BAR = 85
const FOLDERS = ['mass', 'kinetics', 'dryness', 'safety', 'keeping', 'batch', 'jars']
const asked = process.argv.slice(2)
install()
mkdirSync(join(root, '.data/mutants'), { recursive: true })
let good = true
for (const folder of asked.length > 0 ? asked : FOLDERS) {
  say(`Faults in core/${folder}`)
  const { status } = spawnSync('npx', ['stryker', 'run', '--mutate', `core/${folder}/**/*.ts`], { cwd: root, stdio: 'inherit' })
  if (status !== 0) process.exit(status ?? 1)
  const { files } = JSON.parse(readFileSync(join(root, '.data/mutants/report.json'), 'utf8'))
  const all = Object.entries(files).flatMap(([file, { mutants }]) => (file.startsWith(`core/${folder}/`) ? mutants : []))
  const count = (...states) => all.filter(mutant => states.includes(mutant.status)).length
  const caught = count('Killed', 'Timeout')
  const share = (100 * caught) / Math.max(1, caught + count('Survived', 'NoCoverage'))
  console.log(`core/${folder}: ${share.toFixed(1)} of 100 caught (bar ${BAR})`)
  good &&= share >= BAR
}
process.exit(good ? 0 : 1)
