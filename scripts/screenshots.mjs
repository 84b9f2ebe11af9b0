import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { uuidv7 } from 'uuidv7'
import { build, ensureChromium, findChromium, install, makeDemo, root, say, startDevices, startServer } from './steps.mjs'

/** `npm run screenshots`: the pictures of the README, taken anew from fresh demo data. */
install()
ensureChromium()
build()
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
/** A logger's file as one may be: its own order of columns, decimal commas, a line that broke. */
const LOGGER = ['Logger;T-20', 'No.;Humidity [%];Temperature [°C];Time', ...Array.from({ length: 480 }, (_, i) => {
  const at = new Date(Date.now() - (490 - i) * 60_000).toISOString().slice(0, 16).replace('T', ' ')
  return [i + 1, (41 + 3 * Math.sin(i / 60)).toFixed(1), i === 200 ? 'open' : (54 + 2 * Math.sin(i / 2)).toFixed(1), at].join(';').replaceAll(/(\d)\.(\d)/g, '$1,$2')
})].join('\n')

/** Shards of a jar begun again, to show the grinder: a batch of the pictures' own, not of the demo. */
const ground = `/batches/${uuidv7()}/grind`
const shards = jars.find(item => item.foodKey === 'apple' && item.leftG > 60)
await fetch(`${address}/api/batches`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ id: ground.split('/')[2], entry: { id: uuidv7(), at: Date.now(), body: { kind: 'intake', foodKey: 'apple', source: `Jar ${shards.number}`, weightG: 60, purpose: 'powder', cardKey: 'rings-5', fromJars: [{ jarId: shards.jarId, weightG: 60 }], fromForm: 'pieces' } } }) })
const press = key => async (page) => {
  await page.keyboard.press(key)
  await page.getByRole('dialog').waitFor()
}
/** Name, path, what to do before the picture. */
const VIEWS = [
  ['now', '/'],
  ['batch', batch('beetroot', 'drying')],
  ['rack', `/machines/${machines.find(item => item.name === 'Tall cabinet').id}`, page => page.locator('[data-place="3"]').click()],
  ['weigh', batch('beetroot', 'drying'), press('w')],
  ['rest', batch('tomato', 'resting')],
  ['grind', ground, page => page.getByRole('button', { name: 'Start the round' }).click()],
  ['pack', batch('carrot', 'grinding'), page => page.getByRole('button', { name: 'Pack a jar' }).click()],
  ['freeze-dryer', batch('raspberry', 'drying'), page => page.getByRole('region', { name: 'Rounds of extra drying' }).evaluate(card => window.scrollTo(0, card.getBoundingClientRect().top + window.scrollY - 160))],
  ['intake', '/intake?food=tomato', page => page.getByLabel('Weight').fill('6 lb 4 oz')],
  ['logger', '/logger', async (page) => {
    await page.getByLabel('File of the logger').setInputFiles({ name: 'cabinet-night.csv', mimeType: 'text/csv', buffer: Buffer.from(LOGGER) })
    await page.getByRole('region', { name: 'What would come in' }).waitFor()
  }],
  ['shelf', '/shelf'],
  ['jar', jar],
  ['labels', '/labels', page => page.getByRole('button', { name: 'Begin at place 5' }).click()],
  ['insight', '/insight', page => page.getByRole('button', { name: 'More' }).first().click()],
  ['reference', '/reference'],
  ['food', '/reference/hot-chili'],
  ['workshop', '/workshop'],
]
const browser = await chromium.launch({ executablePath: findChromium(), args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'] })

async function take(name, path, act, { phone = false, dim = false } = {}) {
  const page = await browser.newPage(phone ? { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true } : { viewport: { width: 1280, height: 800 } })
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
