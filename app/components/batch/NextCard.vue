<script setup lang="ts">
import { WAYS } from '#core/ways'
import {
  afterRun,
  balanceOnTrays,
  betweenGrindings,
  isDamp,
  packableForms,
  restDays,
  restNeeded,
  stepsAhead,
  toPackG,
  worstLook,
  type Assessment,
} from '#core/batch'
import { whatThereIs } from '#core/flow'
import type { PrepStepName } from '#core/foods'
import type { BatchState, EntryKind } from '#core/log'
import type { ActStep } from '~/components/frame/ActSteps.vue'

/** What comes next, with the verbs to do it, for every stage outside the machine. */
const props = defineProps<{ state: BatchState; batchId: string; now: number; assessment?: Assessment; others?: readonly ActStep[] }>()
const emit = defineEmits<{ act: [kind: EntryKind] }>()
const format = useFormat()

interface Next {
  title: string
  why: string
  acts: { kind: EntryKind; words: string; main?: boolean }[]
}
const next = computed<Next>(() => {
  const { state } = props
  const name = state.food.name.toLowerCase()
  switch (state.stage) {
    case 'intake':
      return {
        title: 'Trim and cut',
        why: `Log what comes off: it says how much of the basket is dried. Fresh ${name} waits about ${state.food.freshDays.value} days in the cold.`,
        acts: [
          { kind: 'prep', words: 'Log a step', main: true },
          { kind: 'load', words: 'Load' },
        ],
      }
    case 'prep': {
      const [ahead] = stepsAhead(state)
      if (ahead) return toPrepare(state, PREP_WORDS[ahead.name as PrepStepName])
      return {
        title: 'Load the trays',
        why: `About ${format.weight(state.balance.weightG.p50)} should be there, ${format.range(state.balance.moisture, format.share)} of it water. Cut food goes on the heat, or cold, within two hours.`,
        acts: [
          { kind: 'load', words: 'Load', main: true },
          { kind: 'prep', words: 'Another step' },
        ],
      }
    }
    case 'resting':
      return resting(state)
    case 'grinding':
      return grinding(state)
    default:
      return {
        title: state.jars.length > 0 ? 'It stands on the shelf' : 'Nothing of it is left here',
        ...(state.run
          ? {
              why: 'What is said now is shown when the same is begun again: how it came out, and what to change.',
              acts: [{ kind: 'review', words: 'For next time', main: true }],
            }
          : { why: state.jars.length > 0 ? 'All of it is in jars.' : 'All of it went elsewhere.', acts: [] }),
      }
  }
})
const steps = computed(() => {
  const { acts } = next.value
  const main = acts.find(act => act.main) ?? acts[0]
  const goes = (act: (typeof acts)[number]): ActStep => ({ words: act.words, go: () => emit('act', act.kind) })
  const timer = acts.some(act => act.kind === 'grind')
  return {
    first: main && goes(main),
    likely: [
      ...acts.filter(act => act !== main).map(goes),
      ...(timer ? [{ words: 'With the round timer', go: () => navigateTo(`/batches/${props.batchId}/grind`) }] : []),
    ],
    others: (props.others ?? []).filter(other => !acts.some(act => act.words === other.words)),
  }
})

/** A step of the card is not logged yet, and it changes what goes on the trays. */
function toPrepare(state: BatchState, step: string): Next {
  const after = balanceOnTrays(state)
  return {
    title: `${step} it`,
    why: `About ${format.weight(state.balance.weightG.p50)} is there now; prepared to the end about ${format.weight(after.weightG.p50)} should go on the trays, ${format.range(after.moisture, format.share)} of it water.`,
    acts: [
      { kind: 'prep', words: 'Log a step', main: true },
      { kind: 'load', words: 'Load' },
    ],
  }
}

function resting(state: BatchState): Next {
  const rest = state.rest!
  if (state.mould) {
    const several = rest.jars.filter(jar => !jar.out).length > 1
    return {
      title: 'Discard it',
      why: several
        ? 'Mould anywhere: that whole jar goes, untasted. Until it is gone nothing else can be logged.'
        : 'Mould anywhere: all of it goes, untasted. Nothing else can be logged on it.',
      acts: several
        ? [
            { kind: 'restOut', words: 'That jar is thrown away', main: true },
            { kind: 'finish', words: 'All of it is discarded' },
          ]
        : [{ kind: 'finish', words: 'It is discarded', main: true }],
    }
  }
  const { is, finishing } = rest.startedAt === undefined ? afterRun(state, props.assessment) : { is: 'dry' as const, finishing: undefined }
  if (is === 'part') {
    return {
      title: 'Now into the dryer',
      why: 'Smoke took part of the water only: it is moist still. Load it into a machine today, or keep it cold until you do.',
      acts: [
        { kind: 'load', words: 'Load a machine', main: true },
        { kind: 'hold', words: 'Keep it for now' },
      ],
    }
  }
  if (is === 'vacuum') {
    return {
      title: 'Pack or grind it at once',
      why: 'Freeze-dried food takes water from the room within minutes; it is not rested in a jar that is opened daily.',
      acts: [
        { kind: 'restEnd', words: state.purpose === 'pieces' ? 'Go on to packing' : 'Go on to grinding', main: true },
        { kind: 'load', words: 'Back to the machine' },
      ],
    }
  }
  const verdict = props.assessment?.verdict
  const toDry: Next['acts'] = [
    { kind: 'load', words: 'Back to the machine', main: true },
    { kind: 'look', words: 'Look again' },
    { kind: 'restEnd', words: 'Go on all the same' },
  ]
  if (rest.startedAt === undefined) {
    const holds = () => format.range(props.assessment!.estimate.moistureNow, format.share)
    const mend =
      finishing &&
      ` ${sentenceCase(finishWords(finishing, format))} would bring it there${WAYS[state.run!.way.way].outdoors ? ', or another day out' : ''}.`
    if (is === 'wet')
      return {
        title: 'It is not dry',
        why: `It holds ${holds()} water. Closed in a jar it spoils.${mend ?? ''}`,
        acts: [
          { kind: 'load', words: finishing ? 'Into a machine' : 'Back to the machine', main: true },
          { kind: 'rest', words: 'Rest it all the same' },
          { kind: 'restEnd', words: 'Go on without a rest' },
        ],
      }
    if (is === 'doubtful')
      return {
        title: finishing ? 'Finish it first' : 'Test it before it is closed in',
        why: `It is ${chanceOfDry(props.assessment!.estimate.probabilityDry, 'now')}: ${holds()} water.${mend ?? ' Weigh it, or cool a few thick pieces and feel them.'}`,
        acts: [
          { kind: finishing ? 'load' : 'feel', words: finishing ? 'Into a machine' : 'Log a feel', main: true },
          ...(finishing ? [{ kind: 'feel' as const, words: 'Log a feel' }] : [{ kind: 'load' as const, words: 'Back to the machine' }]),
          { kind: 'rest', words: 'Rest it all the same' },
        ],
      }
  }
  if (rest.startedAt === undefined) {
    return {
      title: 'Close it in a jar',
      why:
        verdict?.level === 'cool-and-check'
          ? `It is ${chanceOfDry(props.assessment!.estimate.probabilityDry, 'now')}: the closed jar will tell. Look at it daily, and dry it on where anything shows.`
          : 'Dry food takes water from the room within hours. Resting shows whether a wet piece hides in it; the other school grinds at once.',
      acts: [
        { kind: 'rest', words: 'Begin the rest', main: restNeeded(state) > 0 },
        { kind: 'restEnd', words: 'Go on without a rest', main: restNeeded(state) === 0 },
        { kind: 'load', words: 'Back to the machine' },
      ],
    }
  }
  const wet = isDamp(worstLook(rest))
  const day = restDays(rest, props.now)
  const needed = restNeeded(state)
  if (wet)
    return {
      title: 'Dry it again',
      why: 'The jar showed moisture: back to the machine the same day.',
      acts: [
        { kind: 'load', words: 'Back to the machine', main: true },
        { kind: 'look', words: 'Look again' },
      ],
    }
  if (verdict?.level === 'keep-drying') return { title: 'Dry it again', why: verdict.reason, acts: toDry }
  if (rest.jars.some(jar => !jar.out && jar.looks.length === 0) && day >= 1)
    return {
      title: 'Look at the jar',
      why: 'Nobody has looked yet: time alone does not make it dry. Shake it, and look for beads, sticking or clumps.',
      acts: [
        { kind: 'look', words: 'Log a look', main: true },
        { kind: 'restEnd', words: 'End the rest' },
      ],
    }
  return {
    title: day >= needed ? 'The rest is over' : `Day ${day} of ${needed} in the jar`,
    why: day >= needed ? 'No moisture was seen: it can go on.' : 'Shake the jar and look for beads of moisture, sticking or clumps.',
    acts: [
      { kind: 'look', words: 'Log a look', main: day < needed },
      { kind: 'restEnd', words: 'End the rest', main: day >= needed },
    ],
  }
}

function grinding(state: BatchState): Next {
  const lots = whatThereIs(state, props.now)
  const grams = (form: string) => lots.find(lot => lot.form === form)?.weightG.p50 ?? 0
  const piecesG = grams('pieces')
  const toPack = toPackG(state)
  const meantWhole = state.purpose === 'pieces'
  const alsoPieces: Next['acts'] =
    !meantWhole && packableForms(state).includes('pieces') ? [{ kind: 'pack', words: 'Pack pieces of it' }] : []
  if (toPack === undefined) {
    return {
      title: 'Grind',
      why: `${piecesG > 0 ? format.weight(piecesG) : 'What is dry'} to grind. Weigh what goes in and what comes out: the difference is dust and sieve.`,
      acts: [
        { kind: 'grind', words: 'Log the grinding', main: true },
        ...alsoPieces,
        ...(state.beganDry && !state.run ? [{ kind: 'load' as const, words: 'Dry it first' }] : []),
      ],
    }
  }
  const groundG = grams('flakes') + grams('powder')
  const between = betweenGrindings(state)
  if (between) {
    const acts: Next['acts'] = [
      { kind: 'powderDry', words: 'Dry the powder', main: between === 'dry' },
      { kind: 'grind', words: 'Grind it again', main: between === 'grind' },
    ]
    return {
      title: between === 'dry' ? 'Dry the coarse powder' : 'Grind it again',
      why:
        between === 'dry'
          ? `${format.weight(groundG)} thin on a sheet for about an hour: coarse powder gives up its last water sooner than pieces do.`
          : `${format.weight(groundG)} dried between the two grindings: now it is ground fine.`,
      acts: [...acts, { kind: 'load', words: 'Back to the machine' }, { kind: 'pack', words: 'Pack a jar' }],
    }
  }
  const toPackNow = meantWhole ? piecesG + groundG : groundG
  const grinds = toPackNow < 1 && piecesG > 0
  const acts: Next['acts'] = [{ kind: 'pack', words: 'Pack a jar', main: !grinds }, ...(groundG >= 1 ? alsoPieces : [])]
  if (groundG >= 1 && state.jars.length === 0)
    acts.push({ kind: 'powderDry', words: 'Dry the powder' }, { kind: 'load', words: 'Back to the machine' })
  if (piecesG > 0 && !meantWhole) acts.push({ kind: 'grind', words: `Grind the other ${format.weight(piecesG)}`, main: grinds })
  else if (piecesG > 0) acts.push({ kind: 'grind', words: 'Grind some of it' })
  else if (groundG > 0) acts.push({ kind: 'grind', words: 'Grind it again' })
  if (state.jars.length > 0) acts.push({ kind: 'finish', words: 'Finish here' })
  return {
    title: grinds ? `${format.weight(piecesG)} still to grind` : `${toPackWords(lots, meantWhole)} to pack`,
    why:
      groundG >= 1
        ? 'Open powder takes water from the room and sets: close it in jars now.'
        : 'Open it takes water from the room: close it in jars now.',
    acts,
  }
}

/** "40 g", or where there are several forms "60 g of pieces and 40 g of powder". */
function toPackWords(lots: ReturnType<typeof whatThereIs>, meantWhole: boolean): string {
  const ready = lots.filter(lot => meantWhole || lot.form !== 'pieces')
  const [only] = ready
  if (ready.length <= 1) return format.weight(only?.weightG.p50 ?? 0)
  return ready.map(lot => `${format.weight(lot.weightG.p50)} of ${lot.form}`).join(' and ')
}
</script>

<template>
  <section class="card next" aria-label="What comes next">
    <div>
      <h2>{{ next.title }}</h2>
      <p class="quiet">{{ next.why }}</p>
    </div>
    <ActSteps v-bind="steps" />
  </section>
</template>

<style scoped>
.next {
  display: grid;
  gap: 0.8rem;
}
h2 {
  font-size: 1.4rem;
  margin-bottom: 0.2rem;
}
</style>
