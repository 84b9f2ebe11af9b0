import { ColorSpace, deltaE2000, Lab, sRGB, sRGB_Linear, to, XYZ_D50, XYZ_D65 } from 'colorjs.io/fn'
import { InputError, type Problem } from '../errors'

for (const space of [XYZ_D65, XYZ_D50, sRGB_Linear, sRGB, Lab]) ColorSpace.register(space)

/** A colour as CIELAB: lightness 0–100, green to red, blue to yellow; white D50, as CSS has it. */
export interface Lab {
  l: number
  a: number
  b: number
}

/** A spot of a picture: mean of its pixels in linear light, 0–1 each, and the share of them that is at the end of the scale. */
export interface Patch {
  red: number
  green: number
  blue: number
  /** Share of pixels burnt out or black in any channel. */
  clipped: number
}

/**
 * Lightness of the white card: plain copying paper has L* 93 to 96, and near no hue (common practice; no sheet was measured for this).
 * It moves every colour alike, so differences hardly feel it.
 */
const CARD_L = 95
/** Linear light of that card where the picture is exposed to white. */
const CARD_Y = ((CARD_L + 16) / 116) ** 3
const MOST_CLIPPED = 0.02
/** Under this share of light a camera's noise is as large as what is read. */
const LEAST_LIGHT = 0.12
/** A card that is so far from grey stands in coloured light, or is no white card. */
const MOST_TINT = 2.2

/**
 * The colour of a spot, by a white card that lies beside it in the same light: each channel is scaled so that the card is the white
 * that it is known to be (von Kries' rule in the camera's own channels).
 * @throws InputError where the card is burnt out, in shadow, or no white at all
 */
export function colourOf(spot: Patch, card: Patch): Lab {
  const problems: Problem[] = []
  const wrong = (field: string, code: string, message: string) => problems.push({ field, code, message })
  const channels = [card.red, card.green, card.blue]
  if (card.clipped > MOST_CLIPPED)
    wrong(
      'card',
      'card-burnt',
      'The white card is burnt out there: tap where it is less bright, or take the picture again in softer light.',
    )
  else if (Math.max(...channels) / Math.min(...channels) > MOST_TINT)
    wrong('card', 'card-tinted', 'This is not white, or the light is strongly coloured: tap a white card beside the food.')
  else if (Math.min(...channels) < LEAST_LIGHT)
    wrong('card', 'card-dark', 'The white card is too dark there: it lies in shadow, or this is not the card.')
  if (spot.clipped > MOST_CLIPPED) wrong('spot', 'spot-burnt', 'The food is burnt out or black there: tap beside the glare.')
  if (problems.length > 0) throw new InputError(problems)
  const rgb = [spot.red / card.red, spot.green / card.green, spot.blue / card.blue].map(share => share * CARD_Y)
  if (Math.max(...rgb) > 1.25)
    throw new InputError([
      { field: 'spot', code: 'brighter-than-card', message: 'This is brighter than the white card: they are not in the same light.' },
    ])
  const { coords } = to({ space: sRGB_Linear, coords: rgb as [number, number, number], alpha: 1 }, Lab)
  const [l, a, b] = coords as [number, number, number]
  return { l: round(Math.min(l, 100)), a: round(a), b: round(b) }
}

const round = (value: number) => Number(value.toFixed(2))

/** The difference of two colours by CIEDE2000 (ISO/CIE 11664-6): 1 is what an eye can just tell, side by side. */
export const differenceOf = (one: Lab, other: Lab): number => deltaE2000(colorOf(one), colorOf(other))

const colorOf = ({ l, a, b }: Lab) => ({ space: Lab, coords: [l, a, b] as [number, number, number], alpha: 1 })

/** As a colour of a page; browsers know CIELAB themselves. */
export const cssOf = ({ l, a, b }: Lab) => `lab(${l}% ${a} ${b})`

/**
 * What a difference means to an eye (common practice), and to this measure: two pictures of one powder in two lights differ by
 * about two, so less than that is not told apart.
 */
export function wordsOfDifference(difference: number): string {
  if (difference < 2) return 'no difference that such a picture can tell'
  if (difference < 5) return 'seen side by side'
  if (difference < 10) return 'seen at once'
  return 'another colour'
}
