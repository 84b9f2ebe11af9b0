import type { Interval } from '../stats'

/** One of two batches that were tried beside each other. */
export interface TrialSide {
  number: number
  /** How it was done: cut, machine, heat, thickness, way of grinding. */
  method: { machine?: string; cut: string; setC?: number | null; thicknessMm?: number; purpose: string; rested: boolean }
  rawG: number
  loadedG?: number
  dryG?: number
  productG?: number
  hoursToDry?: Interval
  handsMinutes?: number
  colour?: number
  taste?: number
}

export interface TrialDifference {
  what: 'method' | 'hours' | 'yield' | 'recovery' | 'hands' | 'colour' | 'taste'
  words: string
  clear: boolean
}

/** Less than this a scale and a hand do not tell apart. */
const SAME_SHARE = 0.03
const tell = (value: number, digits = 0) => value.toFixed(digits)

/**
 * What two batches differ in, said in sentences, the method first. Two single batches prove little: a
 * difference is called clear only where it is beyond the doubt of both, or a whole point of colour or taste.
 */
export function trialDifferences(a: TrialSide, b: TrialSide): TrialDifference[] {
  const found: TrialDifference[] = []
  const add = (what: TrialDifference['what'], words: string, clear: boolean) => found.push({ what, words, clear })
  const unlike = (
    [
      ['machine', 'machine'],
      ['cut', 'cut'],
      ['setC', 'heat'],
      ['thicknessMm', 'thickness'],
      ['purpose', 'purpose'],
      ['rested', 'rest'],
    ] as const
  )
    .filter(([key]) => a.method[key] !== b.method[key])
    .map(([, name]) => name)
  if (unlike.length === 0) add('method', 'Both were done alike: what differs is the basket, the weather or chance.', false)
  else if (unlike.length > 1) add('method', `They differ in ${unlike.join(', ')} at once: whatever comes out may be due to either.`, false)
  else add('method', `They differ in the ${unlike[0]} alone.`, true)
  if (a.hoursToDry && b.hoursToDry && Number.isFinite(a.hoursToDry.p50) && Number.isFinite(b.hoursToDry.p50)) {
    const [fast, slow, less, more] =
      a.hoursToDry.p50 <= b.hoursToDry.p50 ? [a, b, a.hoursToDry, b.hoursToDry] : [b, a, b.hoursToDry, a.hoursToDry]
    const clear = less.p90 < more.p10
    add(
      'hours',
      clear
        ? `Batch ${slow.number} took ${tell(more.p50 - less.p50, 1)} hours more to dry than batch ${fast.number}: ${tell(more.p50, 1)} against ${tell(less.p50, 1)}.`
        : `They dried in about the same time, ${tell(less.p50, 1)} and ${tell(more.p50, 1)} hours, within the doubt of both.`,
      clear,
    )
  }
  share('yield', 'of the basket as product', a.productG, a.rawG, b.productG, b.rawG)
  share('recovery', 'of the dry weight as product', a.productG, a.dryG, b.productG, b.dryG)
  if (a.handsMinutes !== undefined && b.handsMinutes !== undefined && a.productG && b.productG) {
    const [mine, other] = [(a.handsMinutes / a.productG) * 100, (b.handsMinutes / b.productG) * 100]
    const clear = Math.abs(mine - other) > 0.1 * Math.max(mine, other)
    if (clear)
      add(
        'hands',
        `Batch ${mine < other ? a.number : b.number} asked less of the hands: ${tell(Math.min(mine, other))} minutes for 100 g against ${tell(Math.max(mine, other))}.`,
        true,
      )
  }
  for (const what of ['colour', 'taste'] as const) {
    const [mine, other] = [a[what], b[what]]
    if (mine === undefined || other === undefined) continue
    add(
      what,
      mine === other
        ? `${what === 'colour' ? 'Colour' : 'Taste'} came out alike, ${mine} of 5.`
        : `${what === 'colour' ? 'Colour' : 'Taste'} was better in batch ${mine > other ? a.number : b.number}: ${Math.max(mine, other)} of 5 against ${Math.min(mine, other)}.`,
      mine !== other,
    )
  }
  return found

  function share(what: 'yield' | 'recovery', of: string, outA?: number, inA?: number, outB?: number, inB?: number) {
    if (!outA || !inA || !outB || !inB) return
    const [shareA, shareB] = [outA / inA, outB / inB]
    const clear = Math.abs(Math.log(shareA / shareB)) > SAME_SHARE
    const digits = what === 'yield' ? 1 : 0
    add(
      what,
      clear
        ? `Batch ${shareA > shareB ? a.number : b.number} gave more ${of}: ${tell(100 * Math.max(shareA, shareB), digits)} % against ${tell(100 * Math.min(shareA, shareB), digits)}.`
        : `Both gave as much ${of}, ${tell(100 * shareA, digits)} and ${tell(100 * shareB, digits)} %.`,
      clear,
    )
  }
}
