<script setup lang="ts">
import type { BatchState } from '#core/log'
import { overallYields } from '#core/mass'
import { packageOf } from '#core/keeping'
import type { BatchAnswer } from '#shared/contracts'

/** What the basket became: weights from step to step, and the jars. */
const props = defineProps<{ state: BatchState; page: BatchAnswer }>()
const format = useFormat()
const loadedG = computed(() => (props.state.earlierRuns[0] ?? props.state.run)?.loadedG)
const yields = computed(() =>
  overallYields({
    rawG: props.state.intake.body.weightG,
    loadedG: loadedG.value,
    dryG: props.state.dryWeighed ? props.state.dryG : undefined,
    groundG: props.state.piecesInG || undefined,
    powderG: props.state.powderG || undefined,
  }),
)
const steps = computed(() =>
  [
    { name: 'Came in', grams: props.state.intake.body.weightG, note: undefined },
    {
      name: 'On the trays',
      grams: loadedG.value,
      note: yields.value.prep === undefined ? undefined : `${format.share(yields.value.prep)} of the basket`,
    },
    {
      name: props.state.dryWeighed ? 'Dry' : 'Dry, not weighed',
      grams: props.state.dryG,
      note: !props.state.dryWeighed
        ? 'the last weight before it came out'
        : yields.value.dryingRatio === undefined
          ? undefined
          : `${yields.value.dryingRatio.toFixed(1)} wet to 1 dry`,
    },
    {
      name: props.state.purpose === 'flakes' ? 'Flakes' : 'Powder',
      grams: props.state.powderG || undefined,
      note: yields.value.overall === undefined ? undefined : `${format.share(yields.value.overall)} of the basket`,
    },
    {
      name: 'Not ground',
      grams: props.state.powderG ? props.state.had.pieces || undefined : undefined,
      note: undefined,
    },
  ].filter((step): step is { name: string; grams: number; note: string | undefined } => step.grams !== undefined),
)
const numberOf = (jarId: string) => props.page.jars.find(jar => jar.jarId === jarId)?.number
</script>

<template>
  <section class="card" aria-label="What it gave">
    <h2>What it gave</h2>
    <dl class="sums">
      <div v-for="step in steps" :key="step.name">
        <dt>{{ step.name }}</dt>
        <dd>
          <strong>{{ format.weight(step.grams) }}</strong><span v-if="step.note" class="quiet small">{{ step.note }}</span>
        </dd>
      </div>
    </dl>
    <ul v-if="state.jars.length" class="plain-list jars">
      <li v-for="jar in state.jars" :key="jar.jarId">
        <NuxtLink :to="`/jars/${jar.jarId}`" class="jar"
          ><strong>Jar {{ numberOf(jar.jarId) ?? '' }}</strong> {{ format.weight(jar.netG)
          }}<span class="quiet small">{{ packageOf(jar.body.packageKey)?.name }}, {{ jar.body.place }}</span></NuxtLink
        >
        <NuxtLink :to="`/jars/${jar.jarId}/label`" class="label">Label</NuxtLink>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.sums {
  margin: 0.5rem 0 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1.8rem;
}
dt {
  color: var(--quiet);
  font-size: 0.9rem;
}
dd {
  margin: 0;
  display: grid;
}
dd strong {
  font: 700 1.15rem var(--display);
}
.jars {
  margin-top: 0.8rem;
}
.jars li {
  display: flex;
  justify-content: space-between;
  border-top: 1px solid var(--rule);
}
.jar {
  display: flex;
  flex-wrap: wrap;
  gap: 0.1rem 0.7rem;
  align-items: center;
  min-height: 46px;
  text-decoration: none;
}
.label {
  display: grid;
  place-items: center;
  min-width: 60px;
  color: var(--dulse-ink);
  font-weight: 650;
}
</style>
