import { capital } from '../../text'
import * as z from 'zod'
import { InputError, type Say } from '../../errors'
import { sumPasses } from '../../grinding'
import { stopsUnheated } from '../../safety'
import { checkSources } from '../checkJar'
import type { EntryKindOf } from '../define'
import { id, jarDraw, sieveUm, text, weightG, weightOrNothingG } from '../fields'
import { mostPiecesG, SCALE_SHARE } from '../weights'

const grindRound = z.strictObject({ inG: weightG, outG: weightOrNothingG.optional() })
/** One round in the cup. */
export type GrindRound = z.infer<typeof grindRound>

const grindPass = z.strictObject({
  openingUm: sieveUm,
  throughG: weightOrNothingG,
  overG: weightOrNothingG,
  /** What stayed on top went into the cup again. */
  back: z.boolean().optional(),
})
/** A pass over a sieve: what fell through and what stayed on top. */
export type GrindPass = z.infer<typeof grindPass>

const grindLosses = z.strictObject({
  dustG: weightOrNothingG.optional(),
  filmG: weightOrNothingG.optional(),
  rejectsG: weightOrNothingG.optional(),
  cleaningG: weightOrNothingG.optional(),
})
/** Where the rest of a grinding went, g. */
export type GrindLosses = z.infer<typeof grindLosses>

const schema = z.strictObject({
  kind: z.literal('grind'),
  dryInG: weightG,
  powderOutG: weightG,
  /** It was powder already, ground once more. */
  again: z.boolean().optional(),
  /** What it became, where that is not what the batch is for: flakes of a part, or powder of pieces that were meant to be kept. */
  makes: z.enum(['flakes', 'powder'], { error: 'Say whether it became flakes or powder.' }).optional(),
  grinderId: id.optional(),
  warm: z.boolean().optional(),
  /** How the mill had been cleaned since it ground something else: only washed it leaves nothing of that. */
  cleaned: z.enum(['washed', 'brushed'], { error: 'Say how the mill was cleaned.' }).optional(),
  note: text(500).optional(),
  rounds: z.array(grindRound).min(1, 'At least one round.').max(100, 'At most 100 rounds.').optional(),
  seed: jarDraw.optional(),
  passes: z.array(grindPass).max(40, 'At most 40 passes.').optional(),
  lost: grindLosses.optional(),
})
type Grind = z.infer<typeof schema>

/** A session at the grinder. Powder out is what all rounds gave together, a seed of old powder included. */
export const grind: EntryKindOf<typeof schema> = {
  schema,
  scopes: ['batch'],
  words: { doing: 'grinding', what: 'the grinding' },
  tells: ['traces'],
  effect: (draft, entry) => void draft.grinds.push(entry),
  check: (body, { state, say }) => {
    if (state.run?.unloadedAt === undefined && !(state.beganDry && !state.run))
      return say('kind', 'in-a-machine', 'The batch has not left the machine.')
    if (state.stage === 'shelf') return say('kind', 'on-the-shelf', 'The batch is finished.')
    const [unheated] = stopsUnheated(state.card, state.choices, state.heated)
    if (unheated) return say('kind', 'stop-heat-after', unheated.message)
    checkSession(body, say)
    const { left } = state
    const unpackedG = (left.flakes ?? 0) + (left.powder ?? 0)
    const pieces = mostPiecesG(state)
    const mostG = body.again ? unpackedG : pieces + unpackedG
    if (body.dryInG > mostG * (1 + SCALE_SHARE) + 1)
      say('dryInG', 'more-than-there-is', '{isG} to grind is more than there is: {dryG} of dry pieces and {powderG} of powder.', {
        isG: body.dryInG,
        dryG: pieces,
        powderG: unpackedG,
      })
    const inG = body.dryInG + (body.seed?.weightG ?? 0)
    if (body.powderOutG > inG * (1 + SCALE_SHARE))
      say('powderOutG', 'more-than-went-in', '{outG} of powder is more than the {inG} that went in. Was the cup on the scale?', {
        outG: body.powderOutG,
        inG,
      })
  },
  jars: {
    names: body => (body.seed ? [body.seed.jarId] : []),
    check: (body, scene) => (body.seed ? checkSources([body.seed], 'seed', scene) : undefined),
    effect: (desk, { at, body, batchId }) => {
      const bowl = desk.bowlOf(batchId!)
      const ownG = body.powderOutG - (body.seed?.weightG ?? 0) - (body.again ? body.dryInG : 0)
      if (!bowl.fromJars) bowl.ownG = Math.max(0, bowl.ownG + ownG)
      if (body.seed) bowl.parts.push(...desk.draw(body.seed, at).parts)
    },
  },
}

/** The rounds, passes and losses of a session must add up with what went in and came out. */
function checkSession(body: Grind, say: Say): void {
  const seedG = body.seed?.weightG ?? 0
  const roundsG = (body.rounds ?? []).reduce((sum, round) => sum + round.inG, 0)
  if (body.rounds && Math.abs(roundsG - body.dryInG) > 1 + SCALE_SHARE * body.dryInG)
    say('rounds', 'rounds-sum-otherwise', 'The rounds add up to {roundsG}, not to the {inG} that went in.', { roundsG, inG: body.dryInG })
  body.rounds?.forEach((round, i) => {
    if (round.outG !== undefined && round.outG > (round.inG + seedG) * (1 + SCALE_SHARE) + 1)
      say(`rounds.${i}.outG`, 'more-than-went-in', '{outG} out of a round of {inG}. Was the cup on the scale?', {
        outG: round.outG,
        inG: round.inG,
      })
  })
  if (body.passes?.length) {
    try {
      sumPasses(body.passes)
    } catch (error) {
      if (!(error instanceof InputError)) throw error
      for (const { field, code, message } of error.problems) say(field, code, capital(message))
    }
  }
  const lostG = Object.values(body.lost ?? {}).reduce((sum, grams) => sum + (grams ?? 0), 0)
  const missingG = body.dryInG + seedG - body.powderOutG
  if (lostG > missingG + 1 + SCALE_SHARE * body.dryInG)
    say('lost', 'more-lost-than-missing', 'The losses add up to {lostG}, but only {missingG} is missing.', {
      lostG,
      missingG: Math.max(0, missingG),
    })
}
