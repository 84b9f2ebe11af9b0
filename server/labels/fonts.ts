/** The label's typeface: regular and bold, each in a part for western letters and one for the rest of Latin. */
export interface LabelFonts {
  regular: FontParts
  bold: FontParts
}
export interface FontParts {
  latin: Buffer
  latinExt: Buffer
}

/** A stretch of text that one font file can write. */
export interface TextRun {
  text: string
  part: keyof FontParts
}

/** Letters that the western part holds: Latin-1 and the punctuation of print. */
const WESTERN = /[ -\u00FF\u2000-\u206F\u20AC\u2122\u2212\u2215]/

/** Cuts a line into stretches by the font file that holds their letters. */
export function runsOf(text: string): TextRun[] {
  const runs: TextRun[] = []
  for (const letter of text) {
    const part = WESTERN.test(letter) ? 'latin' : 'latinExt'
    const last = runs.at(-1)
    if (last?.part === part) last.text += letter
    else runs.push({ text: letter, part })
  }
  return runs
}

/** Loads the four font files by name. */
export async function loadLabelFonts(read: (name: string) => Promise<Buffer>): Promise<LabelFonts> {
  const parts = async (weight: number): Promise<FontParts> => ({
    latin: await read(`latin-${weight}.woff`),
    latinExt: await read(`latin-ext-${weight}.woff`),
  })
  return { regular: await parts(400), bold: await parts(700) }
}
