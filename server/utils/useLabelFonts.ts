import { loadLabelFonts, type LabelFonts } from '#server/labels/fonts'

let fonts: Promise<LabelFonts> | undefined

/** The label's fonts, read once from what the build carries. */
export function useLabelFonts(): Promise<LabelFonts> {
  fonts ??= loadLabelFonts(async name => {
    const raw = await useStorage('assets:server').getItemRaw(`fonts:${name}`)
    if (!raw) throw new Error(`The build lacks the font ${name}.`)
    return Buffer.from(raw as Uint8Array)
  })
  return fonts
}
