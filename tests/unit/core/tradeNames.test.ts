import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

/**
 * Names that belong to somebody, of foods and of what stands in such a kitchen: none of them stands in the reference, the texts or the demo.
 * The list is our own, from memory; it grows with whatever is found.
 */
const TRADE_NAMES = [
  // Vegetables and fruit sold under a registered name.
  ...['broccolini', 'tenderstem', 'bimi', 'craisins?', 'honeynut', 'sungold', 'sun gold', 'pink lady', 'cosmic crisp', 'sugarbee', 'kanzi', 'zespri', 'vidalia', 'tabasco', 'carolina reaper', 'cutie', 'clementines? cutie', 'sumo citrus', 'medley gold', 'cotton candy grape', 'kalettes', 'padron star', 'driscoll', 'chiquita', 'dole', 'sunkist', 'sun-?maid', 'ocean spray'],
  // Sauces, spreads, mixes, milks and meats.
  ...['old bay', 'tajín|tajin', 'mrs\\.? dash', 'lawry', 'sriracha', 'marmite', 'vegemite', 'bovril', 'maggi', 'knorr', 'oxo', 'vegeta', 'aromat', 'worcestershire lea', 'heinz', 'kewpie', 'nutella', 'philadelphia cheese', 'velveeta', 'crisco', 'bisquick', 'jell-?o', 'kool-?aid', 'gatorade', 'ovaltine', 'horlicks', 'nescaf[eé]', 'yakult', 'activia', 'chobani', 'fage', 'oatly', 'spam', 'quorn', 'impossible burger', 'beyond meat', 'tofurky', 'rotel', 'velveta', 'clamato', 'doritos', 'pringles', 'cheerios', 'weetabix', 'sure-?jell', 'fruit-?fresh'],
  // Vessels, films and machines.
  ...['ziplock?', 'mylar', 'tupperware', 'pyrex', 'teflon', 'silpat', 'parafilm', 'saran', 'kilner', 'le parfait', 'crock-?pot', 'instant pot', 'vitamix', 'nutribullet', 'magic bullet', 'thermomix', 'foodsaver', 'food saver', 'excalibur', 'nesco', 'cosori', 'harvest right', 'ronco', 'traeger', 'masterbuilt', 'kitchenaid', 'cuisinart', 'moulinex', 'oxy-?sorb', 'boveda', 'govee', 'thermapen', 'arduino', 'velcro', 'kleenex'],
] // prettier-ignore
const NAMED = new RegExp(`(?<![\\p{L}\\d])(?:${TRADE_NAMES.join('|')})(?![\\p{L}\\d])`, 'iu')

const root = join(import.meta.dirname, '../../..')
function filesIn(folder: string): string[] {
  return readdirSync(join(root, folder), { withFileTypes: true }).flatMap(item => {
    const path = join(folder, item.name)
    if (item.isDirectory()) return filesIn(path)
    return /\.(?:ts|vue|yaml|md|sql|mjs)$/.test(item.name) ? [path] : []
  })
}

it('no name that belongs to somebody stands in foods, goods, texts, docs or the demo', () => {
  const files = ['core', 'app', 'server', 'shared', 'devices', 'demo', 'docs', 'scripts'].flatMap(filesIn)
  expect(files.length).toBeGreaterThan(500)
  const found = files.flatMap(path =>
    readFileSync(join(root, path), 'utf8')
      .split('\n')
      .flatMap((line, i) => (NAMED.test(line) ? [`${path}:${i + 1}: ${NAMED.exec(line)![0]}`] : [])),
  )
  expect(found).toEqual([])
})
it('and the list finds what it is meant to', () => {
  for (const text of ['a Mylar bag', 'craisins, prunes', 'broccolini, rapini']) expect(NAMED.test(text)).toBe(true)
  for (const text of ['spammer', 'a dolmen', 'sprouting broccoli']) expect(NAMED.test(text)).toBe(false)
})
