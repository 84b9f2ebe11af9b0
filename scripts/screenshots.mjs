import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { uuidv7 } from 'uuidv7'
import { BROWSER_ARGS, build, ensureChromium, findChromium, install, makeDemo, root, say, startDevices, startServer } from './steps.mjs'

/** `npm run screenshots`: the pictures of the README, taken anew from fresh demo data. */
install()
ensureChromium()
if (!(await build())) process.exit(1)
const folder = mkdtempSync(join(tmpdir(), 'dulse-pictures-'))
makeDemo(folder, true)
const { server, address } = await startServer(folder, { quiet: true })
const devices = startDevices(address, folder)
// Eight hours of readings, six hundred times as fast.
await new Promise(resolve => setTimeout(resolve, 55_000))
const ask = async path => (await fetch(address + path)).json()
const { batches } = await ask('/api/batches')
const batch = (foodKey, stage) => `/batches/${batches.find(item => item.foodKey === foodKey && item.stage === stage).batchId}`
const { jars } = await ask('/api/shelf')
const jar = `/jars/${jars.find(item => item.foodKey === 'pumpkin' && item.leftG < item.netG).jarId}`

const machines = await ask('/api/machines')
/** Shards of a jar begun again, to show the grinder: a batch of the pictures' own, not of the demo. */
const ground = `/batches/${uuidv7()}/grind`
const shards = jars.find(item => item.foodKey === 'apple' && item.leftG > 60)
await fetch(`${address}/api/batches`, {
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify({
    id: ground.split('/')[2],
    entry: {
      id: uuidv7(),
      at: Date.now(),
      body: {
        kind: 'intake',
        foodKey: 'apple',
        source: `Jar ${shards.number}`,
        weightG: 60,
        purpose: 'powder',
        cardKey: 'rings-5',
        fromJars: [{ jarId: shards.jarId, weightG: 60 }],
        fromForm: 'pieces',
      },
    },
  }),
})
const recipes = await ask('/api/recipes')
/** A list as somebody keeps it, with slips in it. */
const SPICES =
  'food,weight (g),packed,form,place,price\nCumin,45,2026-05-01,powder,Spice drawer,2.40\nSmoked paprika,60,2026-06-11,powder,Spice drawer,3.10\nCimamon,30,2026-05-01,powder,Spice drawer,\nTomato,380,31/31/2026,powder,Cellar,\nOnion,a lot,2026-08-12,powder,Cellar,\nGarlic,120,2026-08-12,powder,Cellar,\n'
/** Name, path, what to do before the picture. */
const VIEWS = [
  ['now', '/'],
  ['batch', batch('beetroot', 'drying')],
  ['rack', `/machines/${machines.find(item => item.name === 'Tall cabinet').id}`, page => page.locator('[data-place="3"]').click()],
  ['grind', ground, page => page.getByRole('button', { name: 'Start the round' }).click()],
  ['pack', batch('carrot', 'grinding'), page => page.getByRole('button', { name: 'Pack a jar' }).click()],
  ['intake', '/intake?food=tomato', page => page.getByLabel('Weight').fill('6 lb 4 oz')],
  ['shelf', '/shelf'],
  ['jar', jar],
  ['kitchen', `/kitchen?jar=${jars.find(item => item.foodKey === 'tomato' && item.leftG > 80).jarId}`],
  ['blend', `/kitchen/blend?recipe=${recipes.find(item => item.name === 'Ember rub').id}`],
  [
    'import',
    '/data/import?kind=inventory',
    async page => {
      await page
        .getByLabel('File of the table')
        .setInputFiles({ name: 'spice-drawer.csv', mimeType: 'text/csv', buffer: Buffer.from(SPICES) })
      await page.getByText('Held against the logbook').waitFor()
    },
  ],
  [
    'home',
    '/home',
    async page => {
      // A machine of the demo's own: this one's names stay here.
      const [at, plain] = ['https://larder.local:4443', 'http://larder.local:4480']
      const seen = Date.now() - 5 * 60_000
      const device = (name, role, ago) => ({
        id: uuidv7(),
        name,
        role,
        cameBy: 'code',
        addedAt: seen - ago * 86_400_000,
        seenAt: seen - ago * 7e6,
      })
      const home = {
        hasPassphrase: true,
        open: true,
        askHere: false,
        listening: true,
        links: [at, 'https://192.168.7.20:4443'],
        trustLinks: [plain],
        fingerprint: Array.from({ length: 32 }, (_, i) => ((i * 37 + 11) % 256).toString(16).padStart(2, '0').toUpperCase()).join(':'),
        devices: [device('Mira’s phone', 'cook', 3), device('Tablet on the counter', 'cook', 21), device('Jon’s computer', 'keeper', 40)],
        tokens: [{ id: uuidv7(), name: 'Scale in the pantry', use: 'readings', addedAt: seen }],
      }
      await page.route('**/api/home', route => route.fulfill({ json: home }))
      await page.route('**/api/home/codes', route =>
        route.fulfill({ json: { code: 'K7QF3M2PXR', until: Date.now() + 120_000, link: `${at}/enter#K7QF3M2PXR` } }),
      )
      await page.reload()
      await page.getByRole('button', { name: 'Show a code' }).click()
      await page.locator('h1').click()
      await page.evaluate(() => window.scrollTo(0, 0))
    },
  ],
  ['insight', '/insight', page => page.getByRole('button', { name: 'More' }).first().click()],
  ['reference', '/reference'],
  ['plan', '/plan', page => page.getByText('The best that was found').waitFor()],
  ['year', '/plan/year', page => page.getByRole('heading', { name: 'To buy' }).waitFor()],
  ['workshop', '/workshop'],
]
const browser = await chromium.launch({
  executablePath: findChromium(),
  args: BROWSER_ARGS,
})

async function take(name, path, act, { phone = false, dim = false } = {}) {
  const page = await browser.newPage(
    phone ? { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true } : { viewport: { width: 1280, height: 800 } },
  )
  await page.addInitScript(theme => localStorage.setItem('dulse.theme', theme), dim ? 'dim' : 'light')
  await page.goto(address + path)
  await page.locator('main h1').first().waitFor()
  await page.waitForTimeout(1200)
  if (act) await act(page)
  await page.waitForTimeout(900)
  await page.screenshot({ path: join(root, 'docs/screenshots', `${name}.png`) })
  await page.close()
  say(`${name}.png`)
}
for (const [name, path, act] of VIEWS) await take(name, path, act)
await take('now-phone', '/', undefined, { phone: true })
await take('batch-phone', batch('beetroot', 'drying'), undefined, { phone: true })
await browser.close()
devices.kill()
server.kill()
rmSync(folder, { recursive: true })
