import PDFDocument from 'pdfkit'
import { LABEL_MM, type JarLabel } from './label'
import { layOut } from './labelLayout'

const POINTS_PER_MM = 72 / 25.4

/** The label as a PDF page of its own size, to print at 100 %. Standard fonts: nothing to embed. */
export function labelPdf(label: JarLabel): Promise<Buffer> {
  const { lines, bars } = layOut(label)
  const points = (value: number) => value * POINTS_PER_MM
  const document = new PDFDocument({
    size: [points(LABEL_MM.width), points(LABEL_MM.height)], margin: 0,
    info: { Title: `Jar ${label.jarNumber}: ${label.food}, ${label.form}`, Creator: 'Dulse' },
  })
  for (const line of lines) {
    document.font(line.bold ? 'Helvetica-Bold' : 'Helvetica').fontSize(points(line.sizeMm))
      .text(line.text, points(line.x), points(line.y), { lineBreak: false, baseline: 'alphabetic' })
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
