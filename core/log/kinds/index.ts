import type { BodySchema, EntryKindOf, LogScope } from '../define'
import { air } from './air'
import { caution } from './caution'
import { choose } from './choose'
import { contains } from './contains'
import { cycleHours } from './cycleHours'
import { cycleShows } from './cycleShows'
import { discard } from './discard'
import { feel } from './feel'
import { fill } from './fill'
import { finish } from './finish'
import { grind } from './grind'
import { heat } from './heat'
import { heatThrough } from './heatThrough'
import { hold } from './hold'
import { intake } from './intake'
import { jarAir } from './jarAir'
import { leaveOut } from './leaveOut'
import { load } from './load'
import { look } from './look'
import { lookJar } from './lookJar'
import { measure } from './measure'
import { move } from './move'
import { moveJar } from './moveJar'
import { note } from './note'
import { outlook } from './outlook'
import { pack } from './pack'
import { picture } from './picture'
import { pour } from './pour'
import { powderDry } from './powderDry'
import { prep } from './prep'
import { rest } from './rest'
import { restEnd } from './restEnd'
import { restOut } from './restOut'
import { review } from './review'
import { settle } from './settle'
import { smell } from './smell'
import { split } from './split'
import { stock } from './stock'
import { take } from './take'
import { tick } from './tick'
import { unload } from './unload'
import { unsettled } from './unsettled'
import { voided } from './void'
import { weigh } from './weigh'

/** Every kind of entry under its name. A kind that is declared by half, or under another name, does not compile. */
export const KINDS = {
  intake,
  prep,
  split,
  heatThrough,
  hold,
  caution,
  choose,
  contains,
  load,
  heat,
  air,
  move,
  cycleHours,
  cycleShows,
  tick,
  outlook,
  weigh,
  feel,
  unload,
  rest,
  look,
  restOut,
  jarAir,
  restEnd,
  grind,
  powderDry,
  pack,
  finish,
  note,
  picture,
  take,
  moveJar,
  discard,
  smell,
  lookJar,
  measure,
  fill,
  stock,
  pour,
  review,
  leaveOut,
  unsettled,
  settle,
  void: voided,
} satisfies Record<string, Declared>

/** What each of them declares, whatever its body is; that names and bodies agree is held by `tests/unit/core/kinds.test.ts`. */
interface Declared extends Pick<EntryKindOf<BodySchema, LogScope>, 'schema' | 'scopes' | 'words'> {
  effect: unknown
  check: unknown
}
