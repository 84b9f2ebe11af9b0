import { spawn } from 'node:child_process'
import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, relative } from 'node:path'
import { stripVTControlCharacters } from 'node:util'
import { build, ensureChromium, install, root, say } from './steps.mjs'

/**
 * Everything: lines, lint, types, what is unused, unit tests with what they cover, and end-to-end tests, with one closing line that counts the tests.
 * `--quick`: without all of the interface but one walk, in a few minutes.
 * What needs one core runs two at a time; what waits for a browser has both to itself.
 */
const quick = process.argv.includes('--quick')
/** Simulations of many runs, years and kitchens: half of the time of all unit tests. */
const LONG_LEFT_OUT = ['--testPathIgnorePatterns', 'long\\.test']
/**
 * Shares of core and of the app's own files that unit tests run through, by the engine's count; those that no test reads are in it. Never lower.
 * Functions are not counted: the engine sees the getters that exports are compiled into as such, and counts none of what it inlines.
 */
const FLOOR = { lines: 71, branches: 91 }
const SOURCES = ['core', 'shared', 'server', 'app', 'demo', 'devices', 'scripts', 'tests']
await install()
ensureChromium()

const out = mkdtempSync(join(tmpdir(), 'dulse-tests-'))
const results = []

/** Runs a command; what it says is shown when it ends, so that two do not talk at once. */
function run(name, args, { live = false, env = {} } = {}) {
  say(name)
  const begun = Date.now()
  const child = spawn('npx', args, {
    cwd: root,
    stdio: ['ignore', live ? 'inherit' : 'pipe', live ? 'inherit' : 'pipe'],
    env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1', FORCE_COLOR: '0', ...env },
  })
  let said = ''
  child.stdout?.on('data', part => (said += part))
  child.stderr?.on('data', part => (said += part))
  return new Promise(resolve =>
    child.on('close', code => {
      if (code !== 0 || !live) process.stdout.write(said)
      results.push({ name, good: code === 0, seconds: Math.round((Date.now() - begun) / 1000) })
      resolve(code === 0)
    }),
  )
}
const inTurn = async steps => {
  for (const step of steps) await step()
}
async function buildStep() {
  say('Building')
  const begun = Date.now()
  const good = await build()
  results.push({ name: 'Build', good, seconds: Math.round((Date.now() - begun) / 1000) })
}

const unit = () =>
  run('Unit tests', ['jest', '--json', `--outputFile=${join(out, 'unit.json')}`, '--silent', '--ci', ...(quick ? LONG_LEFT_OUT : [])], {
    env: { NODE_V8_COVERAGE: join(out, 'counted') },
  })
/** What the unit tests run through, of core and app; less than the floor fails. */
const covered = () =>
  run('Coverage', [
    'c8',
    'report',
    '--all',
    `--temp-directory=${join(out, 'counted')}`,
    `--reports-dir=${join(out, 'coverage')}`,
    '--reporter=json-summary',
    '--include=core/**/*.ts',
    '--include=app/**/*.ts',
    '--exclude-after-remap',
    '--check-coverage',
    ...Object.entries(FLOOR).map(([what, share]) => `--${what}=${share}`),
  ])
await Promise.all([
  inTurn([unit, ...(quick ? [] : [covered])]),
  inTurn([
    buildStep,
    () => run('Types', ['node', 'scripts/types.mjs']),
    () => run('Lint', ['eslint', '.']),
    () => run('Promises and switches', ['oxlint', '--type-aware', ...SOURCES]),
    () => run('Unused files, exports and packages', ['knip']),
    () => run('Lines', ['prettier', '--check', '--log-level', 'warn', '.']),
  ]),
])
await run('End-to-end tests', ['playwright', 'test', '--reporter=list,json', ...(quick ? ['path', '--grep', 'by mouse'] : [])], {
  live: true,
  env: { PLAYWRIGHT_JSON_OUTPUT_NAME: join(out, 'e2e.json') },
})

const json = name => JSON.parse(readFileSync(join(out, name), 'utf8'))
let passed = 0
let failed = 0
/** What failed and where, in a line or two each: of a long log the end is what is read. */
const faults = []
const firstLines = (text, most = 6) => {
  const lines = stripVTControlCharacters(text).split('\n')
  return lines
    .map(line => line.trim())
    .filter(line => line !== '')
    .slice(0, most)
    .join('\n  ')
}
/** Every test of the interface, out of the files and groups that it stands in. */
const specsOf = suite => [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specsOf)]
const count = (name, add) => {
  try {
    add(json(name))
  } catch {
    // What left no result has failed, whatever its code was.
    failed++
  }
}
count('unit.json', told => {
  passed += told.numPassedTests
  // A file that does not load has no tests to count, but it has failed.
  failed += told.numFailedTests + told.numRuntimeErrorTestSuites
  for (const { name, assertionResults, message } of told.testResults) {
    const bad = assertionResults.filter(test => test.status === 'failed')
    for (const test of bad) faults.push(`${relative(root, name)}: ${test.fullName}\n  ${firstLines(test.failureMessages.join('\n'))}`)
    if (assertionResults.length === 0) faults.push(`${relative(root, name)}\n  ${firstLines(message)}`)
  }
})
count('e2e.json', told => {
  passed += told.stats.expected
  failed += told.stats.unexpected + told.stats.flaky
  for (const { ok, file, title, tests } of specsOf(told)) {
    if (ok) continue
    for (const { message, location } of tests.flatMap(test => test.results.flatMap(result => result.errors)))
      faults.push(`${file}:${location?.line ?? '?'}: ${title}\n  ${firstLines(message ?? '')}`)
  }
})

console.log('')
try {
  const { lines, branches } = json('coverage/coverage-summary.json').total
  console.log(`core and app are covered by unit tests: ${lines.pct} % of lines, ${branches.pct} % of branches`)
} catch {
  console.log('Coverage is measured by the whole chain only.')
}
for (const { name, good, seconds } of results) console.log(`${good ? 'good  ' : 'FAILED'} ${name} (${seconds} s)`)
for (const fault of faults) console.log(`\nFAILED ${fault}`)
console.log(`\n${passed} passed, ${failed} failed`)
process.exit(results.every(result => result.good) && failed === 0 ? 0 : 1)
