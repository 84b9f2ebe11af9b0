import { spawnSync } from 'node:child_process'
import { mkdirSync, readdirSync, readFileSync } from 'node:fs'
import { join, relative } from 'node:path'
import { install, root, say } from './steps.mjs'

/**
 * `npm run mutants -- mass keeping`: small faults put into core, folder by folder, and how many of them the tests catch.
 * `--every 5` puts them into every fifth line only, always the same ones: a figure in minutes, not hours. What was found out
 * already is kept in .data/mutants.json, so that it goes on where it stopped.
 */
const BAR = 85
const FOLDERS = ['mass', 'kinetics', 'dryness', 'safety', 'keeping', 'batch', 'jars']
const asked = process.argv.slice(2)
const flag = asked.indexOf('--every')
const every = flag < 0 ? 1 : Number(asked.splice(flag, 2)[1])
if (!(every >= 1)) {
  console.error('--every wants a number from 1: every so manieth line is tried.')
  process.exit(2)
}

/** What Stryker is to change of a folder: all of it, or every so manieth line. */
function wanted(folder) {
  if (every === 1) return `core/${folder}/**/*.ts`
  const path = join(root, 'core', folder)
  return readdirSync(path, { recursive: true, withFileTypes: true })
    .filter(item => item.isFile() && item.name.endsWith('.ts') && item.name !== 'index.ts')
    .flatMap(item => {
      const file = join(item.parentPath, item.name)
      const lines = readFileSync(file, 'utf8').split('\n')
      // A fault lies within its line: those that span several begin in one and end in another, and are left out.
      return lines.flatMap((line, i) => (i % every === 0 && line.trim() !== '' ? [`${relative(root, file)}:${i + 1}-${i + 1}`] : []))
    })
    .join(',')
}

await install()
mkdirSync(join(root, '.data/mutants'), { recursive: true })
let good = true
for (const folder of asked.length > 0 ? asked : FOLDERS) {
  say(`Faults in core/${folder}`)
  const { status } = spawnSync('npx', ['stryker', 'run', '--mutate', wanted(folder)], { cwd: root, stdio: 'inherit' })
  if (status !== 0) process.exit(status ?? 1)
  const { files } = JSON.parse(readFileSync(join(root, '.data/mutants/report.json'), 'utf8'))
  const within = ({ location: { start, end } }) => every === 1 || ((start.line - 1) % every === 0 && end.line === start.line)
  const all = Object.entries(files).flatMap(([file, { mutants }]) => (file.startsWith(`core/${folder}/`) ? mutants.filter(within) : []))
  const count = (...states) => all.filter(mutant => states.includes(mutant.status)).length
  const caught = count('Killed', 'Timeout')
  const share = (100 * caught) / Math.max(1, caught + count('Survived', 'NoCoverage'))
  console.log(`core/${folder}: ${share.toFixed(1)} of 100 caught, ${all.length} tried (bar ${BAR})`)
  for (const [file, { mutants, source }] of Object.entries(files))
    for (const mutant of mutants.filter(
      item => file.startsWith(`core/${folder}/`) && within(item) && ['Survived', 'NoCoverage'].includes(item.status),
    )) {
      const { line } = mutant.location.start
      console.log(
        `  ${file}:${line} ${mutant.replacement?.replace(/\s+/g, ' ').slice(0, 50)} | ${source.split('\n')[line - 1].trim().slice(0, 100)}`,
      )
    }
  good &&= share >= BAR
}
process.exit(good ? 0 : 1)
