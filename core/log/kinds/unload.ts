import * as z from 'zod'
import type { EntryKindOf } from '../define'
import { trayPositions, weightG } from '../fields'
import { heavierThanLoaded, loadedOn, mostOf, placesOf } from '../weights'

const schema = z.strictObject({ kind: z.literal('unload'), weightG: weightG.optional(), positions: trayPositions.optional() })

/** Taken out: all trays that are left, or those named. */
export const unload: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'taking out', what: 'taking out' },
  evidence: true,
  tells: ['machine'],
  replayed: true,
  effect: (draft, entry) => void draft.unloads.push(entry),
  check: (body, { at, inMachine, need, say, run }) => {
    if (!need(inMachine, 'not-in-a-machine', 'The batch is not in a machine') || !run) return
    const here = placesOf(run, at)
    const strange = (body.positions ?? []).filter(position => !here.includes(position))
    if (strange.length > 0)
      return say('positions', 'tray-not-of-this-batch', 'Tray {trays} is not in the machine with this batch: it has {places}.', {
        trays: strange.join(', '),
        places: here.join(', '),
      })
    const out = body.positions ? run.present.filter(tray => body.positions!.includes(run.places.placeAt(tray, at))) : run.present
    // Where the trays were not weighed an even share is only a guess.
    const mostG =
      run.traysWeighed || out.length === run.positions.length ? loadedOn(run, out) : Math.min(run.loadedG, 2 * loadedOn(run, out))
    if (body.weightG !== undefined && body.weightG > mostOf(run, mostG)) heavierThanLoaded(say, 'weightG', body.weightG, mostG)
  },
}
