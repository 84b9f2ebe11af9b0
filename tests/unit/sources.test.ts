import { spawnSync } from 'node:child_process'
import { readdirSync, readFileSync } from 'node:fs'

/** What a build is made of must all be known: else an old one is served, and tested. */
describe('the sources of a build', () => {
  const { stdout } = spawnSync(
    process.execPath,
    ['--input-type=module', '-e', `import { sourceFiles } from './scripts/steps.mjs'; console.log(JSON.stringify(sourceFiles()))`],
    { encoding: 'utf8' },
  )
  const files = JSON.parse(stdout) as string[]
  it('are those of the folders, and every script that the config imports or runs, however far', () => {
    const scripts = readdirSync('scripts').filter(name => name.endsWith('.ts'))
    const named = (text: string) => scripts.filter(name => new RegExp(`(\\./|scripts/)${name.replace('.ts', '')}(['.])`).test(text))
    const reached = new Set<string>()
    for (const queue = named(readFileSync('nuxt.config.ts', 'utf8')); queue.length > 0;) {
      const name = queue.pop()!
      if (reached.has(name)) continue
      reached.add(name)
      queue.push(...named(readFileSync(`scripts/${name}`, 'utf8')))
    }
    expect(reached.size).toBeGreaterThanOrEqual(4)
    expect([...reached].filter(name => !files.includes(`scripts/${name}`))).toEqual([])
    expect(files).toEqual(expect.arrayContaining(['nuxt.config.ts', 'package-lock.json', 'app/app.vue', 'core/foods/data/names.yaml']))
  })
  it('hold nothing that only tests and tools need', () => {
    expect(files.filter(path => /^(tests|docs|demo)\//.test(path))).toEqual([])
    expect(files).not.toContain('scripts/cautionTable.ts')
  })
})
