<script setup lang="ts">
import type { GrindPass } from '#core/log'
import { gradeReached, MESH_UM, nearestMesh, sumPasses } from '#core/grinding'
import type { ToolAnswer } from '#shared/contracts'

/** Passes over sieves, from coarse to fine, with what stays on top put through again. */
const passes = defineModel<GrindPass[]>({ required: true })
const props = defineProps<{ tools: readonly ToolAnswer[] }>()
const format = useFormat()
const sieves = computed(() =>
  props.tools.flatMap(tool =>
    tool.kind === 'sieve' ? [{ value: tool.openingUm, words: tool.name, note: `${Math.round(tool.openingUm)} µm` }] : [],
  ),
)
const PLAIN = [30, 60, 100].map(mesh => ({ value: MESH_UM[mesh]!, words: `No. ${mesh}`, note: `${MESH_UM[mesh]} µm` }))
const choices = computed(() => (sieves.value.length > 0 ? sieves.value : PLAIN))
const opening = ref<number | undefined>(passes.value.at(-1)?.openingUm ?? choices.value[0]?.value)
const throughG = ref<number>()
const overG = ref<number>()
const back = ref(true)
const problem = ref('')
const turn = ref(0)
const GRADES = {
  flake: 'flakes, for topping',
  coarse: 'coarse, for soups',
  fine: 'fine, for drinks and blends',
  flour: 'as flour, for bread',
} as const
const sum = computed(() => (passes.value.length > 0 ? sumPasses(passes.value) : undefined))
const grade = computed(() => gradeReached(passes.value))

function add() {
  if (opening.value === undefined || throughG.value === undefined || overG.value === undefined) {
    problem.value = 'Weigh what fell through and what stayed on top.'
    return
  }
  const next: GrindPass[] = [
    ...passes.value,
    { openingUm: opening.value, throughG: throughG.value, overG: overG.value, back: back.value || undefined },
  ]
  try {
    sumPasses(next)
  } catch (error) {
    const { message } = error as Error
    problem.value = `${message
      .replace(/^.*?: /, '')
      .charAt(0)
      .toUpperCase()}${message.replace(/^.*?: /, '').slice(1)}.`
    return
  }
  problem.value = ''
  passes.value = next
  throughG.value = overG.value = undefined
  turn.value++
}
</script>

<template>
  <section class="card form" aria-label="Sieve">
    <h2>Sieve</h2>
    <ol v-if="passes.length" class="plain-list">
      <li v-for="(pass, i) in passes" :key="i" class="pass">
        <span
          >Pass {{ i + 1 }}, {{ Math.round(pass.openingUm) }} µm (No. {{ nearestMesh(pass.openingUm) }}):
          <strong>{{ format.weight(pass.throughG) }}</strong> through, {{ format.weight(pass.overG) }} on top{{
            pass.back ? ', back into the cup' : ''
          }}</span
        ><button v-if="i === passes.length - 1" type="button" @click="passes = passes.slice(0, -1)">Take back</button>
      </li>
    </ol>
    <p v-if="sum">
      <strong>{{ format.share(sum.through) }} is through{{ grade ? `: ${GRADES[grade]}` : '' }}.</strong>
      <span class="quiet">{{
        sum.passesLeft === 0
          ? 'Nothing more to do here; what is left on top is pith and hard bits.'
          : sum.passesLeft === undefined
            ? 'Passes bring nothing more: keep the rest as flakes, or discard it.'
            : `About ${plural(sum.passesLeft, 'pass', 'passes')} more until nineteen in twenty are through.`
      }}</span>
    </p>
    <ChoiceField v-model="opening" label="Over" :choices="choices" />
    <div class="pair">
      <WeightField :key="`t${turn}`" v-model="throughG" label="Fell through" /><WeightField
        :key="`o${turn}`"
        v-model="overG"
        label="Stayed on top"
      />
    </div>
    <ChoiceField
      v-model="back"
      label="What stayed on top"
      :choices="[
        { value: true, words: 'goes into the cup again' },
        { value: false, words: 'stays out' },
      ]"
    />
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div class="row"><ElButton @click="add">Add this pass</ElButton></div>
  </section>
</template>

<style scoped>
.pass {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 0.8rem;
  min-height: 44px;
  border-bottom: 1px solid var(--rule);
}
.pass button {
  min-height: 44px;
  border: 0;
  background: none;
  color: var(--quiet);
  text-decoration: underline;
  cursor: pointer;
}
</style>
