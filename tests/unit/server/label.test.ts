import { readFile } from 'node:fs/promises'
import jsqr from 'jsqr'
import { jarLabel, LABEL_MM, type JarLabel } from '#server/services/label'
import { loadLabelFonts, runsOf } from '#server/services/labelFonts'
import { layOut } from '#server/services/labelLayout'
import { labelPdf } from '#server/services/labelPdf'
import { labelSvg } from '#server/services/labelSvg'
import { saveMachine } from '#server/services/settings'
import { testBook } from '../../support/logbook'

const RUN = '018f0000-0000-7000-8000-000000000001'
const JAR = '018f0000-0000-7000-8000-000000000002'
const fonts = () => loadLabelFonts(name => readFile(`server/assets/fonts/${name}`))
const LABEL: JarLabel = { jarNumber: 7, food: 'Garlic “Česnek <Ruž>”', form: 'fine powder', lot: 'Batch 3 · jar 7', netWeight: '56 g', packed: '5 Feb 2026', bestBy: 'Aug 2026–Nov 2026', allergens: 'Contains celery', url: 'http://127.0.0.1:4170/jars/0198c5a0-7a4d-7000-8000-000000000000' }

/** Draws the code's bars as a camera would see them, `dots` to a millimetre. */
function photograph(label: JarLabel, dots = 16) {
  const width = LABEL_MM.width * dots
  const height = LABEL_MM.height * dots
  const pixels = new Uint8ClampedArray(width * height * 4).fill(255)
  for (const bar of layOut(label).bars) {
    for (let y = Math.round(bar.y * dots); y < Math.round((bar.y + bar.height) * dots); y++) {
      for (let x = Math.round(bar.x * dots); x < Math.round((bar.x + bar.width) * dots); x++) pixels.fill(0, (y * width + x) * 4, (y * width + x) * 4 + 3)
    }
  }
  return { pixels, width, height }
}

describe('the label', () => {
  it('has a code that a reader turns back to the jar’s address', () => {
    const { pixels, width, height } = photograph(LABEL)
    expect(jsqr(pixels, width, height)?.data).toBe(LABEL.url)
  })
  it('keeps everything on the label, long names too', () => {
    for (const food of ['Kale', 'Sweet red pepper “An Uncommonly Long Name Of A Kind”']) {
      const { lines, bars } = layOut({ ...LABEL, food })
      for (const line of lines) expect(line.y).toBeLessThan(LABEL_MM.height - 1)
      for (const bar of bars) {
        expect(bar.x + bar.width).toBeLessThanOrEqual(LABEL_MM.width)
        expect(bar.y + bar.height).toBeLessThanOrEqual(LABEL_MM.height)
      }
    }
  })
  it('keeps lines apart, with a portion and an allergen as well', () => {
    const { lines } = layOut({ ...LABEL, portion: '22 g is 240 mL purée' })
    const ys = lines.map(line => line.y)
    expect(lines.map(line => line.text)).toEqual(expect.arrayContaining(['22 g is 240 mL purée', 'Contains celery']))
    for (let i = 1; i < ys.length; i++) expect(ys[i]! - ys[i - 1]!).toBeGreaterThan(lines[i]!.sizeMm * 0.95)
  })
  it('is drawn at true size with its text escaped and its typeface inside', async () => {
    const svg = labelSvg(LABEL, await fonts())
    expect(svg).toContain('width="70mm" height="37mm"')
    expect(svg).toContain('&#60;Ruž&#62;')
    expect(svg).not.toContain('<Ruž>')
    expect(svg.match(/@font-face/g)).toHaveLength(4)
    expect(labelSvg({ ...LABEL, food: 'Garlic' }, await fonts()).match(/@font-face/g)).toHaveLength(2)
  })
  it('is a PDF page of its own size', async () => {
    const pdf = (await labelPdf(LABEL, await fonts())).toString('latin1')
    expect(pdf.startsWith('%PDF-1.')).toBe(true)
    const [, width, height] = /MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/.exec(pdf)!
    expect(Number(width) / 72 * 25.4).toBeCloseTo(70, 1)
    expect(Number(height) / 72 * 25.4).toBeCloseTo(37, 1)
  })
  it('cuts text by the font that has its letters', () => {
    expect(runsOf('Česnek')).toEqual([{ text: 'Č', part: 'latinExt' }, { text: 'esnek', part: 'latin' }])
  })
  it('says what a sheet gives back, and that what was dried raw is raw', () => {
    const book = testBook()
    saveMachine(book.context, { id: RUN, name: 'Cold chest', kind: 'freeze-dryer', trays: 4, trayAreaM2: 0.12, trayTareG: 0, trayTares: {}, watts: 1100, lowC: 20, highC: 60 })
    const batchId = book.begin({ foodKey: 'egg-whole', cardKey: 'liquid', weightG: 1500 })
    book.log(batchId, 1, { kind: 'load', runId: RUN, machineId: RUN, positions: [1, 2], totalG: 1200, way: 'freeze-dryer', frozen: [1, 2], portions: { count: 4, ml: 300 } })
    book.log(batchId, 30, { kind: 'unload', weightG: 300 })
    book.log(batchId, 31, { kind: 'grind', dryInG: 300, powderOutG: 296 })
    book.log(batchId, 31.5, { kind: 'pack', jarId: JAR, netG: 150, packageKey: 'foil-bag', place: 'Cellar' })
    expect(jarLabel(book.context, JAR, 'http://k')).toMatchObject({ portion: '74\u00A0g is 300 mL purée', allergens: 'Contains egg · RAW: cook through' })
  })
  it('says what a jar of the logbook holds, in the household’s units', () => {
    const book = testBook()
    const { jarId } = book.whole()
    expect(jarLabel(book.context, jarId, 'http://kitchen:4170')).toMatchObject({ food: 'Beetroot', form: 'fine powder', netWeight: '112\u00A0g', lot: 'Batch 1 · jar 1', allergens: undefined, url: `http://kitchen:4170/jars/${jarId}` })
  })
})
