import * as z from 'zod'
import type { BatchScene, EntryKindOf } from '../define'
import { trayWeight, weightG } from '../fields'
import { heavierThanLoaded, loadedOn, mostOf, placesOf, SCALE_SHARE } from '../weights'

const schema = z
  .strictObject({ kind: z.literal('weigh'), trays: z.array(trayWeight).min(1).max(40).optional(), totalG: weightG.optional() })
  .refine(body => (body.trays === undefined) !== (body.totalG === undefined), {
    path: ['totalG'],
    message: 'Give the whole load or single trays, not both and not neither.',
  })

/** The whole load on the scale, or single trays, net. */
export const weigh: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'weighing', what: 'a weight' },
  evidence: true,
  replayed: true,
  effect: (draft, entry) => void draft.weighs.push(entry),
  check: (body, scene) => {
    const { run, at, say } = scene
    if (!scene.need(scene.inMachine, 'not-in-a-machine', 'The batch is not in a machine')) return
    const presentG = loadedOn(run!, run!.present)
    if (body.totalG !== undefined && body.totalG > mostOf(run!, presentG)) heavierThanLoaded(say, 'totalG', body.totalG, presentG)
    body.trays?.forEach((tray, i) => checkTray(tray, i, run!, at, say))
  },
}

function checkTray(
  tray: z.infer<typeof trayWeight>,
  i: number,
  run: NonNullable<BatchScene['run']>,
  at: number,
  say: BatchScene['say'],
): void {
  const loaded = run.trays.find(item => item.position === run.places.trayAt(tray.position, at))
  if (!loaded || !run.present.includes(loaded.position)) {
    const out = run.positions.some(position => !run.present.includes(position) && run.places.placeAt(position, at) === tray.position)
    const field = `trays.${i}.position`
    return out
      ? say(field, 'tray-out', 'Tray {tray} has been taken out.', { tray: tray.position })
      : say(field, 'tray-not-of-this-batch', 'Tray {tray} does not carry this batch: it lies on {places}.', {
          tray: tray.position,
          places: placesOf(run, at).join(', '),
        })
  }
  // Where the trays were not weighed at loading an even share is only a guess.
  const mostG = run.traysWeighed ? loaded.weightG * (1 + SCALE_SHARE) : Math.min(mostOf(run), loaded.weightG * 2)
  if (tray.weightG > mostG) heavierThanLoaded(say, `trays.${i}.weightG`, tray.weightG, loaded.weightG)
}
