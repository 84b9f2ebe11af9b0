import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { build, ensureChromium, install, root, say } from './steps.mjs'

/** Everything: lint, types, unit and end-to-end tests, with one closing line that counts the tests. */
install()
ensureChromium()

const out = mkdtempSync(join(tmpdir(), 'dulse-tests-'))
const env = { ...process.env, NUXT_TELEMETRY_DISABLED: '1' }
const run = (args, more = {}) => spawnSync('npx', args, { cwd: root, stdio: 'inherit', env: { ...env, ...more } }).status === 0
const results = []
function step(name, act) {
  say(name)
  const begun = Date.now()
  results.push({ name, good: act(), seconds: Math.round((Date.now() - begun) / 1000) })
}

step('Types of the framework', () => run(['nuxt', 'prepare']))
step('Lint', () => run(['eslint', '.']))
step('Types', () => run(['vue-tsc', '-b', '--noEmit']))
step('Unit tests', () => run(['jest', '--json', `--outputFile=${join(out, 'unit.json')}`]))
build()
step('End-to-end tests', () => run(['playwright', 'test', '--reporter=list,json'], { PLAYWRIGHT_JSON_OUTPUT_NAME: join(out, 'e2e.json') }))

const json = name => JSON.parse(readFileSync(join(out, name), 'utf8'))
let passed = 0
let failed = 0
try {
  const unit = json('unit.json')
  passed += unit.numPassedTests
  // A file that does not load has no tests to count, but it has failed.
  failed += unit.numFailedTests + unit.numRuntimeErrorTestSuites
} catch {
  failed++
}
try {
  const { stats } = json('e2e.json')
  passed += stats.expected + stats.flaky
  failed += stats.unexpected
} catch {
  failed++
}

console.log('')
for (const { name, good, seconds } of results) console.log(`${good ? 'good  ' : 'FAILED'} ${name} (${seconds} s)`)
console.log(`\n${passed} passed, ${failed} failed`)
process.exit(results.every(result => result.good) && failed === 0 ? 0 : 1)
