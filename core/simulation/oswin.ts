/** Shape of the sorption curve used at the face: Oswin (1946), X = a·(aw/(1−aw))^b, common for vegetables. */
const OSWIN = { a: 0.12, b: 0.55 }

/** Water activity of food at dry-basis moisture X (≥ 0), by Oswin's curve turned round. */
export function waterActivityOf(x: number): number {
  if (x <= 0) return 0
  const ratio = (x / OSWIN.a) ** (1 / OSWIN.b)
  return ratio / (1 + ratio)
}
