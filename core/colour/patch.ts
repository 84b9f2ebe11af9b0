import type { Patch } from './colour'

/** Linear light of each of the 256 steps of a picture's channel (sRGB, IEC 61966-2-1). */
const LINEAR = Float64Array.from({ length: 256 }, (_, i) => {
  const share = i / 255
  return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4
})
const BLACK = 2
const WHITE = 253

/**
 * The mean of a spot of a picture, in linear light.
 * @param data RGBA, row by row, of the spot alone
 */
export function patchOf(data: Uint8ClampedArray): Patch {
  const sum = [0, 0, 0]
  let clipped = 0
  for (let i = 0; i < data.length; i += 4) {
    const channels = [data[i]!, data[i + 1]!, data[i + 2]!]
    channels.forEach((value, k) => (sum[k]! += LINEAR[value]!))
    // Saturated food may have no blue at all: only what is black or white in every way of seeing is lost.
    if (channels.some(value => value > WHITE) || channels.every(value => value < BLACK)) clipped++
  }
  const pixels = data.length / 4
  const [red, green, blue] = sum.map(total => total / pixels)
  return { red: red!, green: green!, blue: blue!, clipped: clipped / pixels }
}
