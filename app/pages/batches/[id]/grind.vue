<script setup lang="ts">
import type { EntryBody } from '#core/log'
import type { TakenPicture } from '~/composables/usePictures'
import { formMade, grindsAgain, toGrindG, type GroundForm } from '#core/batch'
import { grindSession, sumRounds } from '#core/grinding'
import type { GrindDraft } from '~/composables/useGrindDraft'

/** A session at the grinder: planned by the cup, told round by round, logged as one. */
const route = useRoute()
const batchId = String(route.params.id)
const format = useFormat()
const { page, state, problem, ready, write } = useBatch(batchId)
await ready()
useHead({ title: () => (state.value ? `Grind ${state.value.food.name.toLowerCase()} · Dulse` : 'Dulse') })

/** No pieces are left: the powder goes in once more. */
const again = computed(() => state.value !== undefined && grindsAgain(state.value))
const usualMade = computed(() => formMade({}, state.value?.purpose ?? 'powder'))
const makes = ref<GroundForm>(usualMade.value)
/** Jars of what comes out: older powder that may seed it. */
const seeds = computed(() => (page.value?.shelf ?? []).filter(jar => jar.purpose === makes.value))
const toGrind = computed(() => state.value && toGrindG(state.value, again.value))
const grinders = computed(() => (page.value?.tools ?? []).flatMap(tool => (tool.kind === 'grinder' ? [tool] : [])))
const fresh = (): GrindDraft => {
  // The finest for powder, the coarsest for flakes; the one that was used last before either.
  const order = state.value?.purpose === 'flakes' ? ['coarse', 'fine', 'flour'] : ['fine', 'flour', 'coarse']
  const last = state.value?.grinds.at(-1)?.body.grinderId
  const first =
    grinders.value.find(item => item.id === last) ??
    [...grinders.value].sort((a, b) => order.indexOf(a.fineness) - order.indexOf(b.fineness))[0]
  return {
    grinderId: first?.id,
    cupMl: first?.cupMl ?? 250,
    watts: first?.watts ?? 150,
    cupCm: first?.cupCm ?? 8,
    warm: false,
    dryG: toGrind.value,
    rounds: [],
    passes: [],
    lost: {},
    note: '',
  }
}
const { draft, forget } = useGrindDraft(batchId, fresh)
watch(
  () => draft.grinderId,
  id => {
    const chosen = grinders.value.find(item => item.id === id)
    if (chosen) Object.assign(draft, { cupMl: chosen.cupMl, watts: chosen.watts, cupCm: chosen.cupCm })
  },
)

const { settings: pantry } = storeToRefs(useHouseholdStore())
const session = computed(() => grindSession(state.value!.food, makes.value, draft))
const plan = computed(() => (state.value ? session.value.plan : undefined))
const hot = computed(() => state.value?.food.traits.includes('hot') ?? false)
const lidWords = computed(() => {
  const { lidS } = session.value
  return lidS < 120 ? `${lidS} s` : `${Math.round(lidS / 60)} min`
})

const inG = ref<number>()
const outG = ref<number>()
const turn = ref(0)
const sums = computed(() => sumRounds(draft.rounds, plan.value, draft.dryG))
watch(
  [() => draft.rounds.length, plan],
  () => {
    inG.value = sums.value.nextG
    outG.value = undefined
    turn.value++
  },
  { immediate: true },
)
function keepRound() {
  if (inG.value === undefined) {
    problems.value = ['Weigh what went into the cup.']
    return
  }
  problems.value = []
  draft.rounds.push({ inG: inG.value, outG: outG.value })
  if (sums.value.outG !== undefined) draft.powderOutG = sums.value.outG
  if (sums.value.inG > (draft.dryG ?? 0)) draft.dryG = sums.value.inG
}

const wentInG = computed(() => (draft.rounds.length > 0 ? sums.value.inG : (draft.dryG ?? 0)) + (draft.seedJarId ? (draft.seedG ?? 0) : 0))
const missingG = computed(() => (draft.powderOutG === undefined ? undefined : Math.max(0, wentInG.value - draft.powderOutG)))
const laidG = computed(() => Object.values(draft.lost).reduce<number>((sum, grams) => sum + (grams ?? 0), 0))
const LOSSES = [
  ['dustG', 'Dust in the air'],
  ['filmG', 'Film in the cup'],
  ['rejectsG', 'Sieve rejects'],
  ['cleaningG', 'Cleaning with rice or salt'],
] as const
const cautions = ref<{ problem: () => string | undefined; bodies: () => EntryBody[] }>()
const accepted = computed(() => new Set([...(page.value?.accepted ?? []), ...(state.value?.accepted ?? [])]))
const problems = ref<string[]>([])
const busy = ref(false)
const checkFields = useFieldChecks()

/** Pictures of the powder. */
const taken = ref<TakenPicture[]>([])
async function save() {
  if (busy.value || checkFields() !== undefined) return
  const unread = cautions.value?.problem()
  const dryInG = draft.rounds.length > 0 ? sums.value.inG : draft.dryG
  const missing =
    unread ??
    (dryInG === undefined
      ? 'Weigh what goes into the cup.'
      : draft.powderOutG === undefined
        ? 'Weigh what came out, all rounds together.'
        : undefined)
  if (missing !== undefined) {
    problems.value = [missing]
    return
  }
  busy.value = true
  problems.value = []
  try {
    await write(
      [
        ...(cautions.value?.bodies() ?? []),
        {
          kind: 'grind',
          dryInG: dryInG!,
          powderOutG: draft.powderOutG!,
          again: again.value || undefined,
          makes: makes.value === usualMade.value ? undefined : makes.value,
          grinderId: draft.grinderId,
          warm: draft.warm || undefined,
          cleaned: draft.cleaned,
          rounds: draft.rounds.length > 0 ? draft.rounds.map(round => ({ ...round })) : undefined,
          seed: draft.seedJarId && draft.seedG ? { jarId: draft.seedJarId, weightG: draft.seedG } : undefined,
          passes: draft.passes.length > 0 ? draft.passes.map(pass => ({ ...pass })) : undefined,
          lost: laidG.value > 0 ? { ...draft.lost } : undefined,
          note: draft.note.trim() || undefined,
        },
      ],
      { taken: taken.value },
    )
    forget()
    await navigateTo(`/batches/${batchId}`)
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    problems.value = error.problems.map(item => item.message)
  } finally {
    busy.value = false
  }
}
/** What went into one cup with others is ground as theirs. */
async function groundAs(together: string) {
  forget()
  await navigateTo(`/batches/${together}/grind`)
}
/** What a minute without a rest does to the powder, from the warmth of the pantry on. */
const minuteWords = computed(() => {
  const endC = pantry.value.pantryC + session.value.minuteK
  return endC > session.value.mostC
    ? `Ground for a minute without a rest it gets hotter than ${format.temperature(session.value.mostC)}, sticks to the cup and sets.`
    : `A minute without a rest warms it to about ${format.temperature(endC)}: it still flows.`
})
</script>

<template>
  <div v-if="problem || !state" class="card">
    <h1>No such batch</h1>
    <p>{{ problem }}</p>
  </div>
  <div v-else-if="state.stage !== 'grinding'" class="card">
    <h1>Nothing to grind now</h1>
    <p>This batch is not at the grinder. <NuxtLink :to="`/batches/${batchId}`">Back to the batch</NuxtLink></p>
  </div>
  <div v-else class="stack">
    <header class="page-head">
      <div>
        <h1>Grind {{ state.food.name.toLowerCase() }}</h1>
        <p class="quiet">
          <NuxtLink :to="`/batches/${batchId}`">Batch {{ page?.number }}</NuxtLink> ·
          {{ toGrind === undefined ? 'another round' : `${format.weight(toGrind)} ${again ? 'of powder, once more' : 'dry'}` }} · for
          {{ PURPOSE_WORDS[state.purpose] }}
        </p>
      </div>
    </header>
    <div class="desk">
      <div class="stack">
        <CautionList ref="cautions" step="grind" :food="state.food" :accepted="accepted" open />
        <SameCup
          v-if="page && !again && toGrind !== undefined && draft.rounds.length === 0"
          :state="state"
          :page="page"
          :write="write"
          :together="groundAs"
        />
        <RoundTimer :plan="plan" :lid-s="session.lidS" :round="draft.rounds.length + 1" :rounds="sums.rounds" :hot="hot" />
        <section class="card form" aria-label="Rounds">
          <h2>Rounds</h2>
          <ol v-if="draft.rounds.length" class="plain-list">
            <li v-for="(round, i) in draft.rounds" :key="i" class="line">
              <span
                >Round {{ i + 1 }}: <strong>{{ format.weight(round.inG) }}</strong> in<template v-if="round.outG !== undefined"
                  >, {{ format.weight(round.outG) }} out</template
                ></span
              ><button v-if="i === draft.rounds.length - 1" type="button" @click="draft.rounds.pop()">Take back</button>
            </li>
          </ol>
          <div class="pair">
            <WeightField
              :key="`i${turn}`"
              v-model="inG"
              label="Into the cup"
              :hint="plan ? `about ${format.weight(plan.gramsPerRound)} a round` : undefined"
            /><WeightField :key="`u${turn}`" v-model="outG" label="Out of the cup" />
          </div>
          <div class="row"><ElButton @click="keepRound">This round is done</ElButton></div>
          <p v-if="draft.rounds.length > 1" class="quiet small">
            Blend the rounds together at the end: the first came out paler or coarser than the last.
          </p>
        </section>
        <SieveCard v-model="draft.passes" :tools="page?.tools ?? []" />
      </div>
      <div class="stack">
        <section class="card form" aria-label="Plan">
          <h2>{{ plan ? `${plural(plan.rounds, 'round')} of about ${format.weight(plan.gramsPerRound)}` : 'Plan' }}</h2>
          <p v-if="plan">
            Bursts of <strong>{{ plan.burstS }} s</strong>, {{ plan.restS }} s between, {{ plural(plan.burstsPerRound, 'burst') }} a round;
            the lid stays shut <strong>{{ lidWords }}</strong>. About
            {{ format.hours(plan.minutes / 60 + (plan.rounds * session.lidS) / 3600) }} in all.
          </p>
          <p v-if="plan" class="quiet small">
            {{ minuteWords }} Dust of this kind takes {{ lidWords }} to fall {{ format.length(10 * (draft.cupCm ?? 0)) }}.
          </p>
          <p v-else-if="session.sticks" class="caution">
            {{
              draft.warm
                ? `Warm as it is, it sticks at ${format.temperature(session.stickyC)}: let it cool first.`
                : `Sweet or sour as it is, it sticks at ${format.temperature(session.stickyC)} already: chill pieces and cup in the freezer, dry it further, or take it as flakes.`
            }}
          </p>
          <WeightField
            v-model="draft.dryG"
            label="To grind"
            :hint="toGrind === undefined ? undefined : `${format.weight(toGrind)} ${again ? 'of powder' : 'is dry'}`"
          />
          <ChoiceField
            v-if="grinders.length"
            v-model="draft.grinderId"
            label="Grinder"
            :choices="grinders.map(item => ({ value: item.id, words: item.name, note: `${format.volume(item.cupMl)}, ${item.watts} W` }))"
          />
          <div v-else class="pair">
            <VolumeField v-model="draft.cupMl" label="Cup" bare :least="20" :most="5000" /><NumberField
              v-model="draft.watts"
              label="Power, W"
              bare
              :least="20"
              :most="3000"
              :decimals="0"
            />
          </div>
          <ChoiceField
            v-model="draft.warm"
            label="It is"
            :choices="[
              { value: false, words: 'Cooled, or rested' },
              { value: true, words: 'Warm and crisp', note: 'straight from the machine' },
            ]"
          />
          <p v-if="draft.warm" class="quiet small">
            This school rests the powder instead: close it in a jar, look for lumps for some days, and dry it once more if there are any.
          </p>
          <MillCleaned v-model="draft.cleaned" />
          <p v-if="session.seedG > 0.5" class="caution">
            The cup is only {{ Math.round(session.fill * 100) }} % full, and the knives will throw air: add about
            {{ format.weight(session.seedG) }} of finished powder, or wait for more.
          </p>
          <template v-if="seeds.length && (session.seedG > 0.5 || draft.seedJarId)">
            <ChoiceField
              v-model="draft.seedJarId"
              label="Seed it from"
              :choices="
                seeds.slice(0, 6).map(jar => ({
                  value: jar.jarId,
                  words: `Jar ${jar.number}`,
                  note: `${format.weight(jar.leftG)}, ${format.month(jar.oldestAt)}`,
                }))
              "
            />
            <WeightField
              v-if="draft.seedJarId"
              v-model="draft.seedG"
              label="Old powder added"
              :hint="`about ${format.weight(session.seedG)}; the new jars are then as old as it`"
              required
            />
          </template>
        </section>
        <section class="card form" aria-label="What came out">
          <h2>What came out</h2>
          <ChoiceField
            v-model="makes"
            label="It became"
            :choices="[
              { value: 'powder', words: 'powder' },
              { value: 'flakes', words: 'flakes' },
            ]"
          />
          <WeightField
            :key="`all${draft.rounds.length}`"
            v-model="draft.powderOutG"
            :label="makes === 'flakes' ? 'Flakes in all' : 'Powder in all'"
            :hint="missingG === undefined ? undefined : `${format.weight(missingG)} missing`"
          />
          <details v-if="missingG !== undefined && missingG > 0.4" :open="laidG > 0">
            <summary>
              Where {{ format.weight(missingG) }} went{{ laidG > 0 ? `: ${format.weight(Math.max(0, missingG - laidG))} not told` : '' }}
            </summary>
            <div class="pair"><WeightField v-for="[cause, words] in LOSSES" :key="cause" v-model="draft.lost[cause]" :label="words" /></div>
          </details>
          <TextField v-model="draft.note" label="Note" optional />
          <PictureField v-model="taken" shows="powder" />
          <p class="quiet small">What is typed here is kept in this browser until it is logged.</p>
        </section>
      </div>
    </div>
    <div class="save-bar card">
      <div role="alert">
        <p v-for="item in problems" :key="item" class="problem">{{ item }}</p>
      </div>
      <ElButton type="primary" :loading="busy" @click="save">Log the grinding</ElButton>
    </div>
  </div>
</template>

<style scoped>
.desk {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(300px, 430px);
  gap: 1rem;
  align-items: start;
}
.save-bar.card {
  padding-inline: 1.1rem;
}
.line {
  display: flex;
  justify-content: space-between;
  align-items: center;
  min-height: 44px;
  border-bottom: 1px solid var(--rule);
}
.line button {
  min-height: 44px;
  border: 0;
  background: none;
  color: var(--quiet);
  text-decoration: underline;
  cursor: pointer;
}
summary {
  cursor: pointer;
  min-height: 44px;
  align-content: center;
  font-weight: 650;
}
@media (width <= 980px) {
  .desk {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
