import { expose } from 'comlink'
import { tryLoad, type TryKnobs, type TryLoad, type TryResult } from '#core/tries'

/** What would come of a load, away from the thread that draws. */
const desk = {
  try: (load: TryLoad, knobs: TryKnobs): TryResult => tryLoad(load, knobs),
}

export type TriesDesk = typeof desk

expose(desk)
