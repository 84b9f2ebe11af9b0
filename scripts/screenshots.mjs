import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { uuidv7 } from 'uuidv7'
import { BROWSER_ARGS, build, ensureChromium, findChromium, install, makeDemo, root, say, startDevices, startServer } from './steps.mjs'

/** `npm run screenshots`: the pictures of the README, taken anew from fresh demo data. */
await install()
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
/** Name, path, what to do before the picture. */
const VIEWS = [
  ['now', '/'],
  ['batch', batch('beetroot', 'drying')],
  ['rack', `/machines/${machines.find(item => item.name === 'Tall cabinet').id}`, page => page.locator('[data-place="3"]').click()],
  ['grind', ground, page => page.getByRole('button', { name: 'Start the round' }).click()],
  ['intake', '/intake?food=tomato', page => page.getByLabel('Weight').fill('6 lb 4 oz')],
  ['shelf', '/shelf'],
  ['flow', `${batch('beetroot', 'shelf')}/flow`],
  ['jar', jar],
  ['kitchen', `/kitchen?jar=${jars.find(item => item.foodKey === 'tomato' && item.leftG > 80).jarId}`],
  ['blend', `/kitchen/blend?recipe=${recipes.find(item => item.name === 'Ember rub').id}`],
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
  ['practice', '/practice'],
  [
    'ending',
    '/practice/play/night-off?kitchen=12',
    async page => {
      const press = name => page.locator('main').getByRole('button', { name }).first().click()
      const weigh = async (low, high, sure) => {
        await press(/^Weigh/)
        await page.getByRole('radio', { name: 'All' }).click()
        await page.getByRole('button', { name: /Put it on the scale/ }).click()
        await page.waitForTimeout(500)
        await page.getByRole('button', { name: 'Enter' }).click()
        await page.getByLabel('from', { exact: true }).first().fill(String(low))
        await page.getByLabel('to', { exact: true }).first().fill(String(high))
        await page.getByText(sure, { exact: true }).click()
        await press('Say it')
      }
      await press(/^Begin/)
      for (let i = 0; i < 3; i++) await press(/^1 h/)
      await weigh(45, 60, 'surely not')
      await press(/^Heat/)
      await page.getByRole('dialog').getByText('Off', { exact: true }).click()
      await page.getByRole('button', { name: 'Set the heat' }).click()
      await page.waitForTimeout(600)
      await press('To the morning')
      await weigh(5, 20, 'hardly')
      await press(/^Heat/)
      await page.getByRole('button', { name: 'Set the heat' }).click()
      await page.waitForTimeout(600)
      for (let i = 0; i < 7; i++) await press(/^1 h/)
      await weigh(3, 8, 'likely')
      await press(/I am done/)
      await page.getByText(/^Of \d+ ways/).waitFor({ timeout: 240_000 })
      await page.evaluate(() => window.scrollTo(0, 0))
    },
  ],
  [
    'try',
    '/intake?food=tomato',
    async page => {
      await page.getByLabel('Weight').fill('3 kg')
      const tries = page.locator('details.try')
      await tries.locator('summary').click()
      const slider = tries.getByRole('slider', { name: 'Thickness' })
      await slider.waitFor()
      for (let i = 0; i < 4; i++) await slider.press('ArrowLeft')
      await page.waitForTimeout(800)
      await tries.evaluate(element => element.scrollIntoView())
      await page.evaluate(() => window.scrollBy(0, -84))
    },
  ],
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
