import { execFileSync, spawn, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { homedir, tmpdir } from 'node:os'
import { dirname, join, relative } from 'node:path'
import { fileURLToPath } from 'node:url'

/** The steps that the commands of package.json share. Node and npm are all they need. */
export const root = fileURLToPath(new URL('..', import.meta.url))
export const say = text => console.log(`· ${text}`)

/** Runs a command with its output shown; ends the process with its code when it fails. */
export function must(command, args, options = {}) {
  const { status } = spawnSync(command, args, {
    cwd: root,
    stdio: 'inherit',
    ...options,
    env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1', ...options.env },
  })
  if (status !== 0) {
    console.error(`\n${command} ${args.join(' ')} failed.`)
    process.exit(status ?? 1)
  }
}

const digest = text => createHash('sha256').update(text).digest('hex')
const read = path => (existsSync(path) ? readFileSync(path, 'utf8') : '')

const modules = join(root, 'node_modules')
/** What must be compiled here: nobody has it ready for every machine. */
const DATABASE = 'better-sqlite3'
const COMPILED = `${DATABASE}/build/Release/better_sqlite3.node`
const locked = name => JSON.parse(read(join(root, 'package-lock.json'))).packages[`node_modules/${name}`].version

/**
 * Installs with npm what the lockfile names, where it is not there. The database is compiled beside it, in a folder of its own: that
 * takes as long as all the rest.
 * @param tools with what only tests, lint and types need
 * @returns when all but the compiled database is there; `compiled` once that is, too
 */
export async function installing({ tools = true } = {}) {
  const [major] = process.versions.node.split('.').map(Number)
  if (major < 20 || major >= 23) {
    console.error(`Dulse runs on Node.js 20 or 22; this is ${process.version}.`)
    process.exit(1)
  }
  const mark = join(modules, '.dulse-installed')
  const wanted = digest(read(join(root, 'package-lock.json')) + process.version)
  const [known, knownTools] = read(mark).split(' ')
  if (known === wanted && (!tools || knownTools === 'tools')) return { compiled: Promise.resolve() }
  if (known === wanted) say('Installing the tools of the tests.')
  else
    say(`Installing packages${tools ? ', those of the tests too' : ''}. The database is compiled beside it, which takes about two minutes.`)
  const apart = mkdtempSync(join(tmpdir(), 'dulse-database-'))
  const compiling =
    known === wanted ? undefined : running('npm', ['install', '--prefix', apart, '--no-save', `${DATABASE}@${locked(DATABASE)}`])
  // What is there stays there when only the tools are missing.
  const install = known === wanted ? ['install', '--no-save'] : ['ci']
  await running('npm', [...install, '--ignore-scripts', ...(tools ? [] : ['--omit=dev'])])
  const compiled = (async () => {
    if (compiling) {
      await compiling
      mkdirSync(dirname(join(modules, COMPILED)), { recursive: true })
      copyFileSync(join(apart, 'node_modules', COMPILED), join(modules, COMPILED))
    }
    rmSync(apart, { recursive: true, force: true })
    writeFileSync(mark, `${wanted} ${tools ? 'tools' : ''}`)
  })()
  return { compiled }
}

/** All of it, the tools too. */
export async function install() {
  await (
    await installing()
  ).compiled
}

/** A command beside others; what it says is shown only where it fails, which ends the process. */
function running(command, args) {
  const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] })
  let said = ''
  for (const stream of [child.stdout, child.stderr]) stream.on('data', part => (said += part))
  return new Promise(resolve =>
    child.on('close', code => {
      if (code === 0) return resolve()
      console.error(`${said}\n${command} ${args.join(' ')} failed.`)
      process.exit(code ?? 1)
    }),
  )
}

function filesBelow(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap(item => {
    const path = join(folder, item.name)
    return item.isDirectory() ? filesBelow(path) : [path]
  })
}

const BUILD = ['nuxt', 'build']

/** What the build is made of: when it is not that of the last one, it is made anew. */
/** Every file that the build is made of, by its path from the root: what the config imports is among it, however far. */
export function sourceFiles() {
  const found = new Set(['nuxt.config.ts', 'package-lock.json'])
  const queue = ['nuxt.config.ts']
  for (let path = queue.pop(); path !== undefined; path = queue.pop())
    // Imported from beside it, or named from the root as what is run to make a part.
    for (const [, near, named] of read(join(root, path)).matchAll(/'(\.\.?\/[^']+)'|\b(scripts\/\w+)\.ts\b/g)) {
      const name = near === undefined ? named : relative(root, join(root, dirname(path), near))
      const next = /\.\w+$/.test(name) ? name : `${name}.ts`
      // What lies elsewhere is taken whole below.
      if (found.has(next) || !next.startsWith('scripts/') || !existsSync(join(root, next))) continue
      found.add(next)
      queue.push(next)
    }
  const below = ['app', 'core', 'public', 'server', 'shared'].flatMap(folder => filesBelow(join(root, folder)))
  return [...below.map(path => relative(root, path)), ...found].sort()
}

function sourcesDigest() {
  return digest(
    sourceFiles()
      .map(path => `${path}\n${digest(readFileSync(join(root, path)))}`)
      .join('\n'),
  )
}

/**
 * The build takes the database along. On a fresh machine it was still being compiled then, and for another Node.js it is another one: what
 * is installed is put beside the server, whole or not at all.
 */
export function placeDatabase() {
  const [from, place] = [join(modules, COMPILED), join(root, '.output/server/node_modules', COMPILED)]
  if (!existsSync(from) || (existsSync(place) && readFileSync(place).equals(readFileSync(from)))) return
  mkdirSync(dirname(place), { recursive: true })
  copyFileSync(from, `${place}.part`)
  renameSync(`${place}.part`, place)
}

/** Builds when the sources are not those of the last build. @returns whether there is a build now */
export async function build() {
  const mark = join(root, '.output/dulse-sources')
  const wanted = sourcesDigest()
  if (existsSync(join(root, '.output/server/index.mjs')) && read(mark) === wanted) {
    // Whoever built it may have been ended before the database was there.
    placeDatabase()
    return true
  }
  say('Building. This takes about a minute.')
  const child = spawn('npx', BUILD, {
    cwd: root,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1' },
  })
  const code = await new Promise(resolve => child.on('close', resolve))
  if (code === 0) writeFileSync(mark, wanted)
  else console.error('\nnpx nuxt build failed.')
  return code === 0
}

/** Folder of the user's own logbook: `DULSE_DATA`, or the user's data folder. */
export function ownFolder() {
  return process.env.DULSE_DATA ?? join(process.env.XDG_DATA_HOME ?? join(homedir(), '.local/share'), 'dulse')
}

/** Runs a TypeScript file of the project, with its aliases. */
export function runTypeScript(file, args = [], env = {}) {
  must('npx', ['tsx', '--tsconfig', 'tsconfig.tools.json', file, ...args], { env })
}

export function makeDemo(folder, fresh) {
  if (existsSync(join(folder, 'logbook.sqlite')) && !fresh) return
  say(fresh ? 'Making the demo data anew.' : 'Making the demo data.')
  mkdirSync(folder, { recursive: true })
  runTypeScript('demo/make.ts', [], { DULSE_DATA: folder })
}

/** First port from `from` on that nobody listens at. */
export async function freePort(from) {
  for (let port = from; port < from + 50; port++) {
    const free = await new Promise(resolve => {
      const probe = createServer()
        .once('error', () => resolve(false))
        .once('listening', () => probe.close(() => resolve(true)))
      probe.listen(port, '127.0.0.1')
    })
    if (free) return port
  }
  throw new Error(`No free port from ${from} to ${from + 49}.`)
}

/** The process that says that it holds a data folder (`server/db/hold.ts`). */
function holderOf(folder) {
  try {
    return JSON.parse(readFileSync(join(folder, 'in-use.json'), 'utf8')).pid
  } catch {
    return undefined
  }
}

/** Starts the built server and waits until it answers. */
export async function startServer(folder, { port, quiet = false, home = false } = {}) {
  const at = await freePort(port ?? 4170)
  // What already listens there is another's: its answers are not taken for our own.
  if (port && at !== port) say(`Port ${port} is taken; this Dulse takes ${at}.`)
  const server = spawn(process.execPath, [join(root, '.output/server/index.mjs')], {
    cwd: root,
    stdio: ['ignore', quiet ? 'ignore' : 'inherit', 'inherit'],
    env: {
      ...process.env,
      DULSE_DATA: folder,
      HOST: process.env.HOST ?? '127.0.0.1',
      PORT: String(at),
      NITRO_PORT: String(at),
      NODE_ENV: 'production',
      ...(home ? { DULSE_HOME: '1' } : {}),
    },
  })
  const address = `http://127.0.0.1:${at}`
  const patience = Date.now() + 20_000
  for (;;) {
    if (server.exitCode !== null) throw new Error('The server ended before it answered; its message stands above.')
    // Where it asks who we are, that is an answer too.
    const answer = await fetch(`${address}/api/home/me`).catch(() => undefined)
    if (answer?.ok && holderOf(folder) === server.pid) return { server, address }
    if (Date.now() > patience) {
      server.kill()
      throw new Error('The server did not answer within 20 seconds.')
    }
    await new Promise(resolve => setTimeout(resolve, 25))
  }
}

/** Starts the simulated devices beside a server; they end with this process. */
export function startDevices(address, folder) {
  return spawn(
    process.execPath,
    [
      join(root, 'node_modules/tsx/dist/cli.mjs'),
      '--tsconfig',
      'tsconfig.tools.json',
      'devices/all.ts',
      '--server',
      address,
      '--speed',
      '600',
      '--hours',
      '8',
    ],
    {
      cwd: root,
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DULSE_DATA: folder },
    },
  )
}

/** Path of a Chromium, or undefined. */
export const BROWSER_ARGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
]

/** The browser without a frame comes first: the whole one draws its own menus for each page, which takes as long as the page. */
const HEADLESS = 'chromium-headless-shell'
const BROWSERS = [HEADLESS, 'chromium', 'chromium-browser', 'google-chrome-stable', 'google-chrome']

function onPath(name) {
  try {
    return execFileSync('which', [name], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] }).trim()
  } catch {
    return undefined
  }
}

export function findChromium() {
  for (const name of BROWSERS) {
    const path = onPath(name)
    if (path) return path
  }
  return undefined
}

/** Chromium for the tests of the interface: installed from Debian's packages where that is possible. */
export function ensureChromium() {
  if (onPath(HEADLESS)) return
  const isDebian = existsSync('/usr/bin/apt-get')
  const isRoot = process.getuid?.() === 0
  if (isDebian && isRoot) {
    say('Installing Chromium from Debian’s packages.')
    const apt = (...args) =>
      spawnSync('apt-get', [...args, '-qq'], {
        stdio: ['ignore', 'ignore', 'inherit'],
        env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
      }).status === 0
    // Some releases of Debian have the whole browser only, and one that is there already will do.
    for (const name of [HEADLESS, ...(findChromium() ? [] : ['chromium'])])
      if (apt('install', '-y', '--no-install-recommends', name) || (apt('update') && apt('install', '-y', '--no-install-recommends', name)))
        break
  }
  if (findChromium()) return
  console.error(
    `The tests of the interface need Chromium. Install it${isDebian ? ' with: sudo apt-get install chromium-headless-shell' : ', so that “chromium” is on the PATH'}, then run npm test again.`,
  )
  process.exit(1)
}
