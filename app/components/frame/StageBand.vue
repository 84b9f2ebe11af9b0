<script setup lang="ts">
import type { StageCount } from '#shared/contracts'

defineEmits<{ log: [] }>()
const { answer: stages } = useStages()
const format = useFormat()
const route = useRoute()

/** Wet at the left, dry at the right: the band's own place on the ramp, no two alike. */
const COLOURS = {
  intake: 'var(--brine)',
  prep: 'var(--sea-glass)',
  drying: 'color-mix(in oklab, var(--sea-glass) 45%, var(--straw))',
  resting: 'var(--straw)',
  grinding: 'var(--ochre)',
  shelf: 'var(--husk)',
}
const NOUNS = { intake: 'basket', prep: 'basket', drying: 'batch', resting: 'batch', grinding: 'batch', shelf: 'jar' } as const
const MANY = { basket: 'baskets', batch: 'batches', jar: 'jars' } as const

function detail(stage: StageCount): string {
  if (stage.count === 0) return 'nothing'
  const noun = NOUNS[stage.stage]
  return `${plural(stage.count, noun, MANY[noun])} · ${format.weight(stage.weightG)}`
}
const target = (stage: StageCount) => (stage.stage === 'shelf' ? '/shelf' : `/batches?stage=${stage.stage}`)
const isHere = (stage: StageCount) =>
  stage.stage === 'shelf' ? route.path === '/shelf' : route.path === '/batches' && route.query.stage === stage.stage
</script>

<template>
  <header class="band">
    <NuxtLink to="/" class="mark" aria-label="Dulse, to Now">
      <img src="/dulse.svg" alt="" width="30" height="30" />
      <span class="name">Dulse</span>
    </NuxtLink>
    <nav class="stages" aria-label="Stages">
      <NuxtLink v-for="stage in stages ?? []" :key="stage.stage" :to="target(stage)" class="stage" :class="{ here: isHere(stage) }">
        <span class="stage-name">{{ STAGE_WORDS[stage.stage] }}</span>
        <span class="stage-count" aria-hidden="true">{{ stage.count }}</span>
        <span class="stage-detail"
          >{{ detail(stage)
          }}<template v-if="stage.stage === 'drying' && stage.count > 0"
            ><br />{{ Math.round(stage.share * 100) }} % of the water gone</template
          ></span
        >
        <span class="bar"
          ><span class="fill" :style="{ width: `${stage.count ? Math.max(4, stage.share * 100) : 0}%`, background: COLOURS[stage.stage] }"
        /></span>
      </NuxtLink>
    </nav>
    <button class="log" type="button" @click="$emit('log')">Log <kbd class="key">L</kbd></button>
  </header>
</template>

<style scoped>
.band {
  display: flex;
  background: var(--band);
  color: var(--band-ink);
  min-height: 66px;
}
.mark {
  display: flex;
  align-items: center;
  gap: 0.55rem;
  width: 168px;
  padding-left: 1.1rem;
  text-decoration: none;
  font: 700 1.35rem var(--display);
  flex: none;
}
.stages {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  flex: 1;
  min-width: 0;
}
.stage {
  position: relative;
  display: grid;
  align-content: center;
  padding: 0.5rem 0.8rem 0.75rem;
  text-decoration: none;
  border-left: 1px solid var(--band-rule);
  line-height: 1.2;
  min-width: 0;
}
.stage:hover,
.stage.here {
  background: var(--band-on);
}
.stage-name {
  font: 650 1rem var(--display);
}
.stage-count {
  display: none;
}
.stage-detail {
  font-size: 0.8rem;
  color: var(--band-quiet);
  margin-top: 0.1rem;
}
.bar {
  position: absolute;
  inset: auto 0 0;
  height: 6px;
  background: var(--band-rule);
}
.fill {
  display: block;
  height: 100%;
}
.log {
  flex: none;
  border: 0;
  background: var(--dulse);
  color: var(--on-dulse, #fff);
  font: 700 1.02rem var(--display);
  padding: 0 1.3rem;
  cursor: pointer;
}
.log:hover {
  background: color-mix(in srgb, var(--dulse) 86%, #000);
}
.band :focus-visible {
  outline-color: var(--band-ink);
  outline-offset: -4px;
}
@media (width <= 1100px) {
  .mark {
    width: 70px;
  }
  .name {
    display: none;
  }
}
@media (width <= 760px) {
  .band {
    min-height: 58px;
  }
  .mark,
  .log {
    display: none;
  }
  .stage {
    padding: 0.35rem 0.2rem 0.6rem;
    text-align: center;
  }
  .stage-name {
    font-size: 0.76rem;
  }
  .stage-count {
    display: block;
    font: 700 1.05rem var(--display);
    color: var(--band-ink);
  }
  .stage-detail {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
}
</style>
