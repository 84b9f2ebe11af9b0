import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

/** What documents and comments name must be there: a sentence about a file that is gone is not true any more. */
const below = (folder: string, wanted: RegExp): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap(item => {
    const path = join(folder, item.name)
    if (item.isDirectory()) return item.name.startsWith('.') || item.name === 'node_modules' ? [] : below(path, wanted)
    return wanted.test(item.name) ? [path] : []
  })
const FOLDERS = ['app', 'core', 'demo', 'devices', 'docs', 'scripts', 'server', 'shared', 'tests'].filter(existsSync)
const CODE = FOLDERS.flatMap(folder => below(folder, /\.(ts|mjs|vue)$/))
const FILES = new Set(FOLDERS.flatMap(folder => below(folder, /./)).map(path => path.split('/').at(-1)!))
/** A path from the root, or a file by its name alone. */
const PATH = new RegExp(`(?<![\\w./#@-])((?:${FOLDERS.join('|')})/[\\w./[\\]-]*[\\w\\]])`, 'g')
const FILE = /`([\w-]+(?:\.(?:test|spec))?\.(?:ts|mjs|vue|yaml|sql))`/g

const isThere = (path: string) =>
  existsSync(path) ||
  ['.ts', '.mjs', '.vue', '.yaml', '/index.ts'].some(end => existsSync(path + end)) ||
  /[*<…]|\.\.\.|\bN{2,3}-/.test(path)
const comments = (text: string) => (text.match(/\/\*\*?[\s\S]*?\*\/|(?<=^|\s)\/\/ .*$/gm) ?? []).join('\n')
const lost = (name: string, text: string) =>
  [
    ...[...text.matchAll(PATH)].map(([, path]) => path!).filter(path => !isThere(path)),
    ...[...text.matchAll(FILE)].map(([, file]) => file!).filter(file => !FILES.has(file) && !existsSync(file)),
  ].map(path => `${name}: ${path}`)

/** Code without its comments. */
const codeOf = (path: string) => readFileSync(path, 'utf8').replace(/\/\*[\s\S]*?\*\/|\/\/ .*$/gm, '')

describe('what the documents say of names', () => {
  const outside = (room: string) => CODE.filter(path => /^(app|core|server|shared)\//.test(path) && !path.startsWith(room))
  it('no food is known by its name but in the reference', () => {
    const keys = ['vegetables', 'fruit', 'leaves', 'animal'].flatMap(name =>
      [...readFileSync(`core/foods/data/${name}.yaml`, 'utf8').matchAll(/^- \{? ?key: ([a-z-]+)/gm)].map(([, key]) => key!),
    )
    expect(keys.length).toBeGreaterThan(200)
    const named = new RegExp(`(?:[fF]oodKey|food\\.key|key) [!=]== '(?:${keys.join('|')})'`)
    expect(outside('core/foods/data').filter(path => named.test(codeOf(path)))).toEqual([])
  })
  it('no way of drying is compared by its name outside its room', () => {
    const named = /[!=]== '(?:dehydrator|oven|smoker|freeze-dryer|sun)'/
    // A price of power that is "while our own sun shines" is no way of drying.
    expect(outside('core/ways').filter(path => named.test(codeOf(path)) && path !== 'app/components/plan/PowerCard.vue')).toEqual([])
  })
})

describe('what is named is there', () => {
  it('in the documents', () => {
    const docs = ['README.md', ...below('docs', /\.md$/)]
    expect(docs.length).toBeGreaterThan(8)
    expect(docs.flatMap(name => lost(name, readFileSync(name, 'utf8')))).toEqual([])
  })
  it('in the comments of the code', () => {
    expect(CODE.length).toBeGreaterThan(500)
    expect(CODE.flatMap(name => lost(name, comments(readFileSync(name, 'utf8'))))).toEqual([])
  })
  it('every script that they run', () => {
    const { scripts } = JSON.parse(readFileSync('package.json', 'utf8')) as { scripts: Record<string, string> }
    const said = ['README.md', ...below('docs', /\.md$/), ...CODE].flatMap(name =>
      [...readFileSync(name, 'utf8').matchAll(/`npm run ([\w:]+)/g)].map(([, script]) => [name, script!] as const),
    )
    expect(said.length).toBeGreaterThan(8)
    expect(said.filter(([, script]) => !(script in scripts))).toEqual([])
  })
})
