import { runsOf, type LabelFonts } from './fonts'
import { layOut } from './layout'
import type { LabelTemplate } from './templates'
import type { JarLabel } from './words'

const escape = (text: string) => text.replace(/[&<>"']/g, sign => `&#${sign.charCodeAt(0)};`)
const mm = (value: number) => Number(value.toFixed(3))

/** The label as SVG at true size. Text stays text, and the typeface travels inside. */
export function labelSvg(label: JarLabel, fonts: LabelFonts, { width, height }: LabelTemplate): string {
  const { lines, bars } = layOut(label, { width, height })
  const needsExt = lines.some(line => runsOf(line.text).some(run => run.part === 'latinExt'))
  const face = (weight: number, part: 'latin' | 'latinExt', font: Buffer) =>
    `@font-face{font-family:"Label ${part}";font-weight:${weight};src:url(data:font/woff;base64,${font.toString('base64')}) format("woff")}`
  const faces = (
    [
      [400, fonts.regular],
      [700, fonts.bold],
    ] as const
  ).flatMap(([weight, parts]) => [face(weight, 'latin', parts.latin), ...(needsExt ? [face(weight, 'latinExt', parts.latinExt)] : [])])
  const text = lines.map(
    line =>
      `<text x="${mm(line.x)}" y="${mm(line.y)}" font-size="${mm(line.sizeMm)}"${line.bold ? ' font-weight="700"' : ''}>${escape(line.text)}</text>`,
  )
  const code = bars.map(bar => `M${mm(bar.x)} ${mm(bar.y)}h${mm(bar.width)}v${mm(bar.height)}h${mm(-bar.width)}z`).join('')
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}" role="img" aria-label="${escape(`Label of jar ${label.jarNumber}: ${label.food}, ${label.form}`)}">`,
    `<style>${faces.join('')}</style>`,
    `<rect width="${width}" height="${height}" fill="#fff"/>`,
    `<g fill="#000" font-family="'Label latin', 'Label latinExt', sans-serif">${text.join('')}</g>`,
    `<path d="${code}" fill="#000" shape-rendering="crispEdges"/>`,
    '</svg>',
  ].join('')
}
