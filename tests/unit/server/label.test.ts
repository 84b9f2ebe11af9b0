import { inflateSync } from 'node:zlib'
import { readFile } from 'node:fs/promises'
import jsqr from 'jsqr'
import { batchCardPdf } from '#server/labels/batchCard'
import { loadLabelFonts, runsOf } from '#server/labels/fonts'
import { layOut, type LabelBar } from '#server/labels/layout'
import { labelPdf, labelSheet } from '#server/labels/pdf'
import { labelsWanted, templateNamed } from '#server/labels/request'
import { labelSvg } from '#server/labels/svg'
import { LABEL_TEMPLATES } from '#server/labels/templates'
import { jarLabel, type JarLabel } from '#server/labels/words'
import { saveMachine } from '#server/services/settings'
import { testBook } from '../../support/logbook'

const RUN = '018f0000-0000-7000-8000-000000000001'
const JAR = '018f0000-0000-7000-8000-000000000002'
const fonts = () => loadLabelFonts(name => readFile(`server/assets/fonts/${name}`))
const LABEL: JarLabel = {
  jarNumber: 7,
  food: 'Garlic “Česnek <Ruž>”',
  form: 'fine powder',
  lot: 'Batch 3 · jar 7',
  netWeight: '56 g',
  packed: '5 Feb 2026',
  best: 'Best Aug 2026–Nov 2026',
  warnings: [],
  allergens: 'Contains celery',
  url: 'http://127.0.0.1:4170/jars/0198c5a0-7a4d-7000-8000-000000000000',
}

const [SHEET] = LABEL_TEMPLATES as readonly [(typeof LABEL_TEMPLATES)[number]]

/** Bars as a camera would see them, `dots` to a millimetre. */
function photograph(bars: readonly LabelBar[], size: { width: number; height: number }, dots: number) {
  const width = Math.round(size.width * dots)
  const height = Math.round(size.height * dots)
  const pixels = new Uint8ClampedArray(width * height * 4).fill(255)
  for (const bar of bars) {
    for (let y = Math.round(bar.y * dots); y < Math.round((bar.y + bar.height) * dots); y++) {
      for (let x = Math.round(bar.x * dots); x < Math.round((bar.x + bar.width) * dots); x++)
        pixels.fill(0, (y * width + x) * 4, (y * width + x) * 4 + 3)
    }
  }
  return jsqr(pixels, width, height)?.data
}

/** Filled boxes of every page of a PDF in mm from the upper left, read from the file itself. */
function boxesOf(pdf: Buffer): LabelBar[][] {
  const text = pdf.toString('latin1')
  const heightPt = Number(/MediaBox \[0 0 [\d.]+ ([\d.]+)\]/.exec(text)![1])
  return [...text.matchAll(/<<[^>]*\/Filter \/FlateDecode[^>]*>>\s*stream\r?\n/g)].flatMap(match => {
    const from = match.index + match[0].length
    const length = Number(/\/Length (\d+)/.exec(match[0])?.[1])
    let drawn: string
    try {
      drawn = inflateSync(pdf.subarray(from, from + length)).toString('latin1')
    } catch {
      return []
    }
    // Only pages begin by turning the paper's corner up.
    if (!drawn.startsWith(`1 0 0 -1 0 ${heightPt}`)) return []
    const mm = (point: string) => (Number(point) / 72) * 25.4
    return [
      [...drawn.matchAll(/(-?[\d.]+) (-?[\d.]+) (-?[\d.]+) (-?[\d.]+) re/g)].map(([, x, y, width, height]) => ({
        x: mm(x!),
        y: mm(y!),
        width: mm(width!),
        height: mm(height!),
      })),
    ]
  })
}

describe('the label', () => {
  it.each(LABEL_TEMPLATES.map(template => [template.name, template] as const))(
    'of %s has a code that a reader turns back to the jar’s address, at a printer’s 8 dots a mm',
    (_, template) => {
      expect(photograph(layOut(LABEL, template).bars, template, 8)).toBe(LABEL.url)
    },
  )
  it.each(LABEL_TEMPLATES.map(template => [template.name, template] as const))(
    'of %s keeps everything on it and lines apart, with what must be told always there',
    (_, template) => {
      for (const food of ['Kale', 'Sweet red pepper “An Uncommonly Long Name Of A Kind”']) {
        const full = { ...LABEL, food, portion: '22 g is 240 mL purée', mixed: 'With salt' }
        const { lines, bars } = layOut(full, template)
        const text = lines.map(line => line.text).join(' ')
        for (const words of [food, full.form, full.lot, `Packed ${full.packed}`, full.allergens!]) expect(text).toContain(words)
        lines.forEach((line, i) => {
          expect(line.y).toBeLessThan(template.height - 0.3)
          expect(line.sizeMm).toBeGreaterThan(1)
          if (i > 0) expect(line.y - lines[i - 1]!.y).toBeGreaterThan(line.sizeMm * 0.95)
        })
        for (const bar of bars) {
          expect(bar.x + bar.width).toBeLessThanOrEqual(template.width)
          expect(bar.y).toBeGreaterThanOrEqual(0)
          expect(bar.y + bar.height).toBeLessThanOrEqual(template.height)
        }
      }
    },
  )
  it.each(LABEL_TEMPLATES.map(template => [template.name, template] as const))(
    'of %s tells every allergen and warning whole, beside the code and not over it',
    (_, template) => {
      const allergens = 'Contains celery, mustard, sesame, soya. May contain milk, sulphites'
      const warnings = ['RAW: cook through', 'Grapefruit: changes how medicines act']
      const { lines, bars } = layOut({ ...LABEL, allergens, warnings, best: 'In oil, keep cold, until 30 Nov 2026' }, template)
      const text = lines.map(line => line.text).join(' ')
      for (const words of [allergens, ...warnings, 'In oil, keep cold, until 30 Nov 2026']) expect(text).toContain(words)
      const code = Math.min(...bars.map(bar => bar.x))
      for (const line of lines) {
        // A bold letter is at most so wide over its height, on the mean of a line.
        expect(line.x + line.text.length * 0.5 * line.sizeMm).toBeLessThan(code)
        expect(line.sizeMm).toBeGreaterThan(0.9)
        expect(line.y).toBeLessThan(template.height - 0.2)
      }
    },
  )
  it('says all on the usual size, the portion too', () => {
    expect(layOut({ ...LABEL, portion: '22 g is 240 mL purée' }, SHEET).lines.map(line => line.text)).toEqual(
      expect.arrayContaining(['22 g is 240 mL purée', 'Contains celery', 'Net 56 g']),
    )
  })
  it('is drawn at true size with its text escaped and its typeface inside', async () => {
    const svg = labelSvg(LABEL, await fonts(), SHEET)
    expect(svg).toContain('width="70mm" height="37mm"')
    expect(svg).toContain('&#60;Ruž&#62;')
    expect(svg).not.toContain('<Ruž>')
    expect(svg.match(/@font-face/g)).toHaveLength(4)
    expect(labelSvg({ ...LABEL, food: 'Garlic' }, await fonts(), SHEET).match(/@font-face/g)).toHaveLength(2)
  })
  it('is a PDF page of its own size', async () => {
    const pdf = (await labelPdf(LABEL, await fonts(), SHEET)).toString('latin1')
    expect(pdf.startsWith('%PDF-1.')).toBe(true)
    const [, width, height] = /MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/.exec(pdf)!
    expect((Number(width) / 72) * 25.4).toBeCloseTo(70, 1)
    expect((Number(height) / 72) * 25.4).toBeCloseTo(37, 1)
  })
  it('cuts text by the font that has its letters', () => {
    expect(runsOf('Česnek')).toEqual([
      { text: 'Č', part: 'latinExt' },
      { text: 'esnek', part: 'latin' },
    ])
  })
  it('says what a sheet gives back, and that what was dried raw is raw', () => {
    const book = testBook()
    saveMachine(book.context, {
      id: RUN,
      name: 'Cold chest',
      kind: 'freeze-dryer',
      trays: 4,
      trayAreaM2: 0.12,
      trayTareG: 0,
      trayTares: {},
      watts: 1100,
      lowC: 20,
      highC: 60,
    })
    const batchId = book.begin({ foodKey: 'egg-whole', cardKey: 'liquid', weightG: 1500 })
    book.log(batchId, 1, {
      kind: 'load',
      runId: RUN,
      machineId: RUN,
      positions: [1, 2],
      totalG: 1200,
      way: 'freeze-dryer',
      frozen: [1, 2],
      portions: { count: 4, ml: 300 },
    })
    book.log(batchId, 30, { kind: 'unload', weightG: 300 })
    book.log(batchId, 31, { kind: 'grind', dryInG: 300, powderOutG: 296 })
    book.log(batchId, 31.5, { kind: 'pack', jarId: JAR, netG: 150, packageKey: 'foil-bag', place: 'Cellar' })
    expect(jarLabel(book.context, JAR, 'http://k')).toMatchObject({
      portion: '74\u00A0g is 300 mL purée',
      allergens: 'Contains egg',
      warnings: ['RAW: cook through'],
    })
  })
  it('says what a jar of the logbook holds, in the household’s units', () => {
    const book = testBook()
    const { jarId } = book.whole()
    expect(jarLabel(book.context, jarId, 'http://kitchen:4170')).toMatchObject({
      food: 'Beetroot',
      form: 'fine powder',
      netWeight: '112\u00A0g',
      lot: 'Batch 1 · jar 1',
      allergens: undefined,
      url: 'http://kitchen:4170/j/1',
    })
  })
  it('says what was mixed in, and every batch that is in the jar', () => {
    const book = testBook()
    const { jarId } = book.whole()
    const { batchId } = book.whole(400)
    const next = book.begin({}, 800)
    book.log(next, 800.5, { kind: 'load', runId: RUN, machineId: book.machineId, positions: [1, 2], totalG: 1700 })
    book.log(next, 815, { kind: 'unload', weightG: 224 })
    book.log(next, 816, { kind: 'grind', dryInG: 224, powderOutG: 212 })
    book.log(next, 817, { kind: 'pack', jarId, netG: 30, packageKey: 'screw-jar', place: 'Top board', topUp: true, mixed: { starchG: 3 } })
    expect(batchId).toBeDefined()
    expect(jarLabel(book.context, jarId, 'http://k')).toMatchObject({
      lot: 'Batches 1, 3 · jar 1',
      mixed: 'With starch',
      form: 'fine powder',
    })
  })
})

describe('sheets of labels', () => {
  it('lie on the paper where its labels are cut, to a twentieth of a millimetre, page after page', async () => {
    for (const template of LABEL_TEMPLATES.filter(item => item.sheet)) {
      const { columns, rows, left, top, pitchX, pitchY } = template.sheet!
      const count = columns * rows + 2
      const pages = boxesOf(
        await labelSheet(
          Array.from({ length: count }, () => LABEL),
          await fonts(),
          template,
          { cut: true },
        ),
      )
      expect(pages).toHaveLength(2)
      const frames = pages.map(page =>
        page.filter(box => Math.abs(box.width - template.width) < 0.05 && Math.abs(box.height - template.height) < 0.05),
      )
      expect(frames.map(list => list.length)).toEqual([columns * rows, 2])
      frames[0]!.forEach((frame, i) => {
        expect(Math.abs(frame.x - (left + (i % columns) * pitchX))).toBeLessThan(0.05)
        expect(Math.abs(frame.y - (top + Math.floor(i / columns) * pitchY))).toBeLessThan(0.05)
      })
      // The last one still lies on the paper.
      expect(frames[0]!.at(-1)!.x + template.width).toBeLessThan(template.sheet!.width + 0.1)
      expect(frames[0]!.at(-1)!.y + template.height).toBeLessThan(template.sheet!.height + 0.1)
    }
  })
  it('begin at the first place that is free', async () => {
    const [page] = boxesOf(await labelSheet([LABEL], await fonts(), SHEET, { skip: 4, cut: true }))
    expect(page!.find(box => Math.abs(box.width - 70) < 0.05)).toMatchObject({ x: expect.closeTo(70, 1), y: expect.closeTo(37.5, 1) })
  })
  it('carry codes that are read from the paper itself', async () => {
    const template = templateNamed('a4-65')
    const [page] = boxesOf(await labelSheet([LABEL, { ...LABEL, url: 'http://kitchen:4170/j/8' }], await fonts(), template))
    const second = page!
      .filter(box => box.x > template.sheet!.left + template.sheet!.pitchX)
      .map(box => ({ ...box, x: box.x - template.sheet!.left - template.sheet!.pitchX, y: box.y - template.sheet!.top }))
    expect(photograph(second, template, 12)).toBe('http://kitchen:4170/j/8')
  })
  it('are of the jars asked for, each as often as asked; an unknown template is refused by name', () => {
    const book = testBook()
    const { jarId } = book.whole()
    expect(labelsWanted(book.context, [jarId], 3, 'http://k').map(label => label.jarNumber)).toEqual([1, 1, 1])
    expect(() => templateNamed('a5-2')).toThrow(/no template “a5-2”. Choose a4-24/)
  })
})

describe('the card for the wall', () => {
  it('is an A4 page with the batch’s code and fourteen blank rows', async () => {
    const book = testBook()
    const { batchId } = book.whole()
    const pdf = await batchCardPdf(book.context, batchId, await fonts(), 'http://kitchen:4170')
    const [, width, height] = /MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/.exec(pdf.toString('latin1'))!
    expect([(Number(width) / 72) * 25.4, (Number(height) / 72) * 25.4].map(Math.round)).toEqual([210, 297])
    const [page] = boxesOf(pdf)
    const code = page!.filter(box => box.x > 160 && box.y < 50).map(box => ({ ...box, x: box.x - 160, y: box.y - 10 }))
    expect(photograph(code, { width: 40, height: 40 }, 8)).toBe('http://kitchen:4170/b/1')
  })
})
