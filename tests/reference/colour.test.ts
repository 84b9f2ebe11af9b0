import { colourOf, differenceOf, patchOf, wordsOfDifference, type Lab, type Patch } from '#core/colour'
import { InputError } from '#core/errors'

/**
 * Pairs of colours with their ΔE00: G. Sharma, W. Wu, E. N. Dalal, “The CIEDE2000 color-difference formula: implementation notes,
 * supplementary test data, and mathematical observations”, Color Research and Application 30 (2005), table 1. Written down from memory.
 */
const PAIRS: readonly [number, number, number, number, number, number, number][] = [
  [50, 2.6772, -79.7751, 50, 0, -82.7485, 2.0425],
  [50, 3.1571, -77.2803, 50, 0, -82.7485, 2.8615],
  [50, 2.8361, -74.02, 50, 0, -82.7485, 3.4412],
  [50, -1.3802, -84.2814, 50, 0, -82.7485, 1],
  [50, -1.1848, -84.8006, 50, 0, -82.7485, 1],
  [50, -0.9009, -85.5211, 50, 0, -82.7485, 1],
  [50, 0, 0, 50, -1, 2, 2.3669],
  [50, -1, 2, 50, 0, 0, 2.3669],
  [50, 2.49, -0.001, 50, -2.49, 0.0009, 7.1792],
  [50, 2.49, -0.001, 50, -2.49, 0.001, 7.1792],
  [50, 2.49, -0.001, 50, -2.49, 0.0011, 7.2195],
  [50, 2.49, -0.001, 50, -2.49, 0.0012, 7.2195],
  [50, -0.001, 2.49, 50, 0.0009, -2.49, 4.8045],
  [50, -0.001, 2.49, 50, 0.001, -2.49, 4.8045],
  [50, -0.001, 2.49, 50, 0.0011, -2.49, 4.7461],
  [50, 2.5, 0, 50, 0, -2.5, 4.3065],
  [50, 2.5, 0, 73, 25, -18, 27.1492],
  [50, 2.5, 0, 61, -5, 29, 22.8977],
  [50, 2.5, 0, 56, -27, -3, 31.903],
  [50, 2.5, 0, 58, 24, 15, 19.4535],
  [50, 2.5, 0, 50, 3.1736, 0.5854, 1],
  [50, 2.5, 0, 50, 3.2972, 0, 1],
  [50, 2.5, 0, 50, 1.8634, 0.5757, 1],
  [50, 2.5, 0, 50, 3.2592, 0.335, 1],
  [60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387, 1.2644],
  [63.0109, -31.0961, -5.8663, 62.8187, -29.7946, -4.0864, 1.263],
  [61.2901, 3.7196, -5.3901, 61.4292, 2.248, -4.962, 1.8731],
  [35.0831, -44.1164, 3.7933, 35.0232, -40.0716, 1.5901, 1.8645],
  [22.7233, 20.0904, -46.694, 23.0331, 14.973, -42.5619, 2.0373],
  [36.4612, 47.858, 18.3852, 36.2715, 50.5065, 21.2231, 1.4146],
  [90.8027, -2.0831, 1.441, 91.1528, -1.6435, 0.0447, 1.4441],
  [90.9257, -0.5406, -0.9208, 88.6381, -0.8985, -0.7239, 1.5381],
  [6.7747, -0.2908, -2.4247, 5.8714, -0.0985, -2.2286, 0.6377],
  [2.0776, 0.0795, -1.135, 0.9033, -0.0636, -0.5514, 0.9082],
]
const lab = (l: number, a: number, b: number): Lab => ({ l, a, b })

describe('the difference of two colours', () => {
  it.each(PAIRS)('of %d %d %d and %d %d %d is %d', (l, a, b, l2, a2, b2, difference) => {
    expect(differenceOf(lab(l, a, b), lab(l2, a2, b2))).toBeCloseTo(difference, 4)
    expect(differenceOf(lab(l2, a2, b2), lab(l, a, b))).toBeCloseTo(difference, 4)
  })
  it('is told in words that do not claim more than a picture can', () => {
    expect([0.5, 3, 7, 20].map(wordsOfDifference)).toEqual([
      'no difference that such a picture can tell',
      'seen side by side',
      'seen at once',
      'another colour',
    ])
  })
})

/** A spot of one colour as a camera's file has it, 0–255. */
const flat = (...rgb: [number, number, number]): Patch =>
  patchOf(Uint8ClampedArray.from({ length: 4 * 400 }, (_, i) => (i % 4 === 3 ? 255 : rgb[i % 4]!)))

/** The same spot in another light, whose channels are so much stronger, in linear light. */
function inLight(patch: Patch, gains: readonly [number, number, number]): Patch {
  return { ...patch, red: patch.red * gains[0], green: patch.green * gains[1], blue: patch.blue * gains[2] }
}

describe('the colour of a spot by a white card', () => {
  const card = flat(225, 225, 225)

  it('gives the card itself the lightness of paper and no hue', () => {
    const { l, a, b } = colourOf(card, card)
    expect(l).toBeCloseTo(95, 1)
    expect(Math.hypot(a, b)).toBeLessThan(0.05)
  })

  it('gives the primaries of sRGB where the card is white of full light (CSS Color 4, sample pairs of sRGB and Lab)', () => {
    // L* 95 of CIE 1976: so much of the light of white does the card give back.
    const paper = ((95 + 16) / 116) ** 3
    const red = colourOf({ red: 1, green: 0, blue: 0, clipped: 0 }, { red: paper, green: paper, blue: paper, clipped: 0 })
    expect(red.l).toBeCloseTo(54.3, 0)
    expect(red.a).toBeCloseTo(80.8, 0)
    expect(red.b).toBeCloseTo(69.9, 0)
  })

  it.each<[string, [number, number, number]]>([
    ['a lamp', [1.15, 1, 0.62]],
    ['shade', [0.8, 0.92, 1.1]],
    ['half the light', [0.5, 0.5, 0.5]],
  ])('is the same in %s, since the card stands in it too', (_, gains) => {
    const beet = flat(120, 20, 45)
    const difference = differenceOf(colourOf(beet, card), colourOf(inLight(beet, gains), inLight(card, gains)))
    expect(difference).toBeLessThan(0.05)
  })

  it('would be far off without it', () => {
    const beet = flat(120, 20, 45)
    expect(differenceOf(colourOf(beet, card), colourOf(inLight(beet, [1.15, 1, 0.62]), card))).toBeGreaterThan(3)
  })

  it.each<[string, Patch, Patch, string, RegExp]>([
    ['a card that is burnt out', flat(120, 20, 45), flat(255, 255, 255), 'card', /burnt out/],
    ['a card in shadow', flat(20, 5, 8), flat(60, 60, 60), 'card', /too dark/],
    ['a card that is none', flat(120, 20, 45), flat(220, 120, 90), 'card', /not white/],
    ['glare on the food', flat(255, 255, 255), card, 'spot', /glare/],
    ['food in other light than the card', flat(250, 250, 250), flat(150, 150, 150), 'spot', /same light/],
  ])('is refused with %s', (_, spot, white, field, words) => {
    let problems: InputError['problems'] = []
    try {
      colourOf(spot, white)
    } catch (error) {
      if (!(error instanceof InputError)) throw error
      ;({ problems } = error)
    }
    expect(problems[0]?.field).toBe(field)
    expect(problems[0]?.message).toMatch(words)
  })
})
