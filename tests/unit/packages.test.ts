import { readdirSync, readFileSync } from 'node:fs'
import { builtinModules } from 'node:module'
import { join } from 'node:path'
import ts from 'typescript'

/** What the first command installs is what builds and runs; the tools of the tests come with theirs. */
const below = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap(item => {
    const path = join(folder, item.name)
    return item.isDirectory() ? below(path) : /\.(ts|vue|mjs)$/.test(item.name) ? [path] : []
  })
/** The packages that a file imports; not for types alone. */
function packagesOf(file: string): string[] {
  const text = readFileSync(file, 'utf8')
  const code = (file.endsWith('.vue') ? (/<script[^>]*>([^]*?)<\/script>/.exec(text)?.[1] ?? '') : text).replace(/^import type .*$/gm, '')
  return ts
    .preProcessFile(code)
    .importedFiles.map(({ fileName }) => fileName)
    .filter(name => /^@?[a-z]/.test(name) && !name.startsWith('node:') && !builtinModules.includes(name))
    .map(name => name.split('/', name.startsWith('@') ? 2 : 1).join('/'))
}

it('whatever is imported by what runs is installed without the tools of the tests', () => {
  const { dependencies } = JSON.parse(readFileSync('package.json', 'utf8')) as { dependencies: Record<string, string> }
  const named = ['app', 'core', 'server', 'shared', 'demo', 'devices'].flatMap(below).flatMap(packagesOf)
  expect(named.length).toBeGreaterThan(100)
  // The web server's own parts come with the framework.
  expect([...new Set(named)].filter(name => !(name in dependencies) && name !== 'h3')).toEqual([])
})
