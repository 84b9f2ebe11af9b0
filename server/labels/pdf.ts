import PDFDocument from 'pdfkit'
import { runsOf, type LabelFonts } from './fonts'
import { layOut, type LabelBar, type LabelLine } from './layout'
import type { LabelTemplate } from './templates'
import type { JarLabel } from './words'

const POINTS_PER_MM = 72 / 25.4
export const points = (mm: number) => mm * POINTS_PER_MM

/** A document with the label's typefaces under names: given as bytes each time they would be read anew for every line. */
export function newDocument(fonts: LabelFonts, options: PDFKit.PDFDocumentOptions): PDFKit.PDFDocument {
  const document = new PDFDocument({ margin: 0, ...options, info: { ...options.info, Creator: 'Dulse' } })
  for (const part of ['latin', 'latinExt'] as const) {
    document.registerFont(`regular-${part}`, fonts.regular[part])
    document.registerFont(`bold-${part}`, fonts.bold[part])
  }
  return document
}

/** The bytes of a document, once it is ended. */
export function bytesOf(document: PDFKit.PDFDocument): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const chunks: Buffer[] = []
    document.on('data', (chunk: Buffer) => chunks.push(chunk))
    document.on('end', () => resolve(Buffer.concat(chunks)))
    document.on('error', reject)
    document.end()
  })
}

/** Writes a line from its baseline's left end, letter by letter from the font that has them. */
export function drawLine(document: PDFKit.PDFDocument, line: LabelLine): void {
  let x = points(line.x)
  for (const run of runsOf(line.text)) {
    document.font(`${line.bold ? 'bold' : 'regular'}-${run.part}`).fontSize(points(line.sizeMm))
    document.text(run.text, x, points(line.y), { lineBreak: false, baseline: 'alphabetic' })
    x += document.widthOfString(run.text)
  }
}

export function drawBars(document: PDFKit.PDFDocument, bars: readonly LabelBar[]): void {
  for (const bar of bars) document.rect(points(bar.x), points(bar.y), points(bar.width), points(bar.height))
  document.fill('#000')
}

function drawLabel(document: PDFKit.PDFDocument, label: JarLabel, template: LabelTemplate, at: { x: number; y: number }): void {
  const { lines, bars } = layOut(label, template)
  for (const line of lines) drawLine(document, { ...line, x: line.x + at.x, y: line.y + at.y })
  drawBars(
    document,
    bars.map(bar => ({ ...bar, x: bar.x + at.x, y: bar.y + at.y })),
  )
}

/** One label as a PDF page of its own size, to print at 100 %, with the typeface embedded. */
export function labelPdf(label: JarLabel, fonts: LabelFonts, template: LabelTemplate): Promise<Buffer> {
  return labelSheet([label], fonts, { ...template, sheet: undefined })
}

/**
 * Labels at true scale: on sheets where the template has them, else a page each. `skip`: places of the first
 * sheet that are used already; `cut`: hairlines round the labels, for plain paper.
 */
export function labelSheet(
  labels: readonly JarLabel[],
  fonts: LabelFonts,
  template: LabelTemplate,
  more: { skip?: number; cut?: boolean } = {},
): Promise<Buffer> {
  const { sheet } = template
  const size: [number, number] = sheet ? [points(sheet.width), points(sheet.height)] : [points(template.width), points(template.height)]
  const document = newDocument(fonts, {
    size,
    autoFirstPage: false,
    info: {
      Title:
        labels.length === 1 ? `Jar ${labels[0]!.jarNumber}: ${labels[0]!.food}, ${labels[0]!.form}` : `Labels of ${labels.length} jars`,
    },
  })
  const places = sheet ? sheet.columns * sheet.rows : 1
  labels.forEach((label, i) => {
    const place = (i + (more.skip ?? 0)) % places
    if (i === 0 || place === 0) document.addPage()
    const at = sheet
      ? { x: sheet.left + (place % sheet.columns) * sheet.pitchX, y: sheet.top + Math.floor(place / sheet.columns) * sheet.pitchY }
      : { x: 0, y: 0 }
    drawLabel(document, label, template, at)
    if (more.cut) document.rect(points(at.x), points(at.y), points(template.width), points(template.height)).lineWidth(0.3).stroke('#999')
  })
  return bytesOf(document)
}
