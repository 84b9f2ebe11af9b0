import { chromium } from 'playwright-core'
const b = await chromium.launch({ executablePath: process.env.CHROMIUM })
for (const [name, w, h] of [['d', 1280, 900], ['p', 390, 844]]) {
  const p = await b.newPage({ viewport: { width: w, height: h } })
  p.on('pageerror', e => console.log('ERR', e.message))
  await p.goto('http://127.0.0.1:4199/intake'); await p.waitForLoadState('networkidle')
  await p.getByRole('combobox', { name: /food/i }).first().fill('beetroot'); await p.waitForTimeout(500)
  await p.keyboard.press('Enter'); await p.waitForTimeout(300)
  const wgt = p.getByLabel(/weight/i).first(); await wgt.fill('4000'); await p.keyboard.press('Tab'); await p.waitForTimeout(1500)
  const s = p.locator('details.try summary'); await s.scrollIntoViewIfNeeded(); await s.click(); await p.waitForTimeout(2000)
  const stop = p.getByLabel('Taken out', { exact: true })
  await stop.evaluate(el => { el.value = 10; el.dispatchEvent(new Event('input')) }); await p.waitForTimeout(1200)
  const times = await p.evaluate(async () => { const el = document.querySelector('input[aria-label="Heat"]'); const out = []; for (let i = 0; i < 10; i++) { el.value = 50 + i; const t = performance.now(); el.dispatchEvent(new Event('input')); await new Promise(r => requestAnimationFrame(() => setTimeout(r))); out.push(Math.round(performance.now() - t)) } return out })
  console.log(name, 'ms a knob', times.join(' '))
  await p.waitForTimeout(800)
  await p.locator('details.try').screenshot({ path: `/tmp/try-${name}.png` })
}
await b.close()
