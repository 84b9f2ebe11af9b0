import PDFDocument from 'pdfkit'
import { LABEL_MM, type JarLabel } from './label'
import { runsOf, type LabelFonts } from './labelFonts'
import { layOut } from './labelLayout'

const POINTS_PER_MM = 72 / 25.4

/** The label as a PDF page of its own size, to print at 100 %, with the typeface embedded. */
export function labelPdf(label: JarLabel, fonts: LabelFonts): Promise<Buffer> {
  const { lines, bars } = layOut(label)
  const points = (value: number) => value * POINTS_PER_MM
  const document = new PDFDocument({
    size: [points(LABEL_MM.width), points(LABEL_MM.height)], margin: 0,
    info: { Title: `Jar ${label.jarNumber}: ${label.food}, ${label.form}`, Creator: 'Dulse' },
  })
  for (const line of lines) {
    let x = points(line.x)
    for (const run of runsOf(line.text)) {
      document.font((line.bold ? fonts.bold : fonts.regular)[run.part]).fontSize(points(line.sizeMm))
      document.text(run.text, x, points(line.y), { lineBreak: false, baseline: 'alphabetic' })
      x += document.widthOfString(run.text)
    }
  }
  for (const bar of bars) document.rect(points(bar.x), points(bar.y), points(bar.width), points(bar.height))
  document.fill('#000')
  return new Promise((resolve, reject) => {
    const chunks: Buffer[] = []
    document.on('data', (chunk: Buffer) => chunks.push(chunk))
    document.on('end', () => resolve(Buffer.concat(chunks)))
    document.on('error', reject)
    document.end()
  })
}
