import jpeg from 'jpeg-js'
import { uuidv7 } from 'uuidv7'
import { colourOf, patchOf } from '#core/colour'
import { randomSource } from '#core/stats'
import { DAY } from '#core/time'
import { savePicture } from '#server/pictures/store'
import type { Context } from '#server/services/context'
import { logEntry, logOnJar } from '#server/services/writeLog'

type Rgb = readonly [number, number, number]
const WIDTH = 960
const HEIGHT = 720
const BOARD: Rgb = [148, 112, 78]
const CARD: Rgb = [226, 224, 219]
/** Middles of the food and of the card, and half of the side of what is read there, pixels. */
const FOOD_AT = [380, 400] as const
const CARD_AT = [800, 200] as const
const SPOT = 14

/** A board with a white card and a heap upon it, as a camera would see them; drawn, since nobody's kitchen is shown here. */
function draw(food: Rgb, grain: number, seed: number): Buffer {
  const { uniform: random } = randomSource(seed)
  const data = Buffer.alloc(WIDTH * HEIGHT * 4, 255)
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const inCard = x > 690 && x < 910 && y > 90 && y < 310
      const out = Math.hypot((x - FOOD_AT[0]) / 300, (y - FOOD_AT[1]) / 220)
      // A heap is lit from above left, and falls off to its edge.
      const light =
        out < 1
          ? 1 + (0.12 * (FOOD_AT[0] - x)) / 300 + (0.12 * (FOOD_AT[1] - y)) / 220 - 0.25 * out ** 4
          : 1 - 0.25 * Math.max(0, 1.25 - out)
      const noise =
        out < 1 ? grain * (random() - 0.5) : inCard ? 2 * (random() - 0.5) : 10 * (random() - 0.5) + 8 * Math.sin(y / 9 + Math.sin(x / 70))
      const colour = out < 1 ? food : inCard ? CARD : BOARD
      colour.forEach(
        (value, k) => (data[(y * WIDTH + x) * 4 + k] = Math.max(0, Math.min(255, Math.round(value * (inCard ? 1 : light) + noise)))),
      )
    }
  return jpeg.encode({ data, width: WIDTH, height: HEIGHT }, 82).data
}

/** What the page reads of a picture at its two taps. */
function measured(bytes: Buffer) {
  const { data } = jpeg.decode(bytes)
  const spot = ([x, y]: readonly [number, number]) => {
    const pixels: number[] = []
    for (let row = y - SPOT; row < y + SPOT; row++)
      pixels.push(...data.subarray((row * WIDTH + x - SPOT) * 4, (row * WIDTH + x + SPOT) * 4))
    return patchOf(Uint8ClampedArray.from(pixels))
  }
  return colourOf(spot(FOOD_AT), spot(CARD_AT))
}

const jarOf = ({ db }: Context, foodKey: string, purpose: string) =>
  db
    .prepare<[string, string], { jar_id: string; packed_at: number }>(
      'SELECT jar_id, packed_at FROM jar_view WHERE food_key = ? AND purpose = ? AND left_g > 0 ORDER BY number LIMIT 1',
    )
    .get(foodKey, purpose)

/** Pictures of the household: a powder over its months, and one chili dried in two machines. */
export function takePictures(context: Context, now: number): void {
  const kale = jarOf(context, 'kale', 'powder')
  const fading: [number, Rgb][] = [
    [0.5, [92, 118, 48]],
    [60, [98, 118, 54]],
    [150, [110, 116, 64]],
  ]
  for (const [i, [days, rgb]] of fading.entries()) {
    const at = Math.round((kale?.packed_at ?? now) + days * DAY)
    if (!kale || at > now) continue
    const bytes = draw(rgb, 26, i + 1)
    const body = {
      kind: 'picture',
      jarId: kale.jar_id,
      picture: savePicture(context.db, bytes),
      shows: 'powder',
      colour: measured(bytes),
    } as const
    logOnJar(context, kale.jar_id, { id: uuidv7(), at, body })
  }
  const chilies = context.db
    .prepare<[], { batch_id: string; last: number }>(
      "SELECT batch_id, (SELECT max(at) FROM entry e WHERE e.batch_id = v.batch_id) AS last FROM batch_view v WHERE food_key = 'hot-chili' AND card_key = 'halves' AND stage = 'shelf' ORDER BY number LIMIT 2",
    )
    .all()
  const ways: Rgb[] = [
    [158, 34, 22],
    [124, 42, 28],
  ]
  for (const [i, { batch_id, last }] of chilies.entries()) {
    const bytes = draw(ways[i]!, 70, i + 10)
    const body = { kind: 'picture', picture: savePicture(context.db, bytes), shows: 'pieces', colour: measured(bytes) } as const
    logEntry(context, batch_id, { id: uuidv7(), at: Math.min(last, now), body })
  }
}
