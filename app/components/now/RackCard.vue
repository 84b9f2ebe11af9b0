<script setup lang="ts">
import { finishAxis } from '#core/planning'
import { capital } from '#core/text'
import { heatState, WAYS } from '#core/ways'
import type { RackAnswer } from '#shared/contracts'

/** A machine from the front: its trays, how wet each is, and when its batches will be dry. */
const props = defineProps<{ rack: RackAnswer; now: number }>()
const format = useFormat()
const state = computed(() => {
  const { kind } = props.rack.machine
  if (!WAYS[kind].plainHeat) return capital(heatState(kind, props.rack.setC ?? null, format.temperature))
  return props.rack.setC === null ? 'Off: food takes water back' : `Set ${format.temperature(props.rack.setC!)}`
})
/** What the figures on the trays are, and what each food must come to. */
const needs = computed(() => {
  const targets = new Map(props.rack.trays.flatMap(tray => (tray.title ? [[tray.title, tray.target!] as const] : [])))
  const [one] = targets.values()
  return `water in the food; must be ${targets.size === 1 ? format.share(one!) : [...targets].map(([title, target]) => `${title.toLowerCase()} ${format.share(target)}`).join(', ')}`
})
const NuxtLink = resolveComponent('NuxtLink')
const busy = computed(() => props.rack.finishes.length > 0)
const open = computed(
  () =>
    props.rack.finishes.filter(finish => finish.from !== undefined && finish.to !== undefined) as {
      batchId: string
      batchNumber: number
      title: string
      from: number
      to: number
    }[],
)
const ends = computed(() => leftWords(props.rack, props.now))
const axis = computed(() => finishAxis(open.value, props.now, 6))
/** A bar too short for its name has it beside. */
const labelPlace = (waterLeft?: number) => (waterLeft !== undefined && waterLeft < 0.2 ? `${Math.max(2, waterLeft * 100)}%` : undefined)
const leftOf = (batchId: string) => props.rack.trays.find(tray => tray.batchId === batchId)?.waterLeft ?? 0
</script>

<template>
  <section class="card rack" :aria-label="rack.machine.name">
    <div class="row between">
      <h2>
        <NuxtLink :to="`/machines/${rack.machine.id}`">{{ rack.machine.name }}</NuxtLink>
      </h2>
      <span class="ends" :class="{ off: rack.setC === null }">{{ ends }}</span>
    </div>
    <p v-if="busy" class="quiet small">{{ state }} · {{ needs }}</p>
    <p v-else class="quiet">{{ plural(rack.machine.trays, 'tray') }} free.</p>
    <ol v-if="busy" class="plain-list trays">
      <li v-for="tray in rack.trays" :key="tray.position">
        <span class="number">{{ tray.position }}</span>
        <component
          :is="tray.batchId ? NuxtLink : 'span'"
          :to="tray.batchId ? `/batches/${tray.batchId}` : undefined"
          class="tray"
          :class="{ free: !tray.batchId }"
        >
          <span
            v-if="tray.batchId"
            class="water"
            :style="{ width: `${Math.max(2, tray.waterLeft! * 100)}%`, background: rampColour(tray.waterLeft!) }"
          />
          <span class="words" :style="{ marginLeft: labelPlace(tray.waterLeft) }">{{ tray.batchId ? tray.title : 'free' }}</span>
          <span v-if="tray.batchId" class="figure"
            >{{ tray.guessed ? 'not weighed, about ' : '' }}{{ format.share(tray.moisture!)
            }}<span class="visually-hidden"> water, must be {{ format.share(tray.target!) }}</span></span
          >
        </component>
      </li>
    </ol>
    <div v-if="open.length" class="axis" aria-hidden="true">
      <div v-for="finish in open" :key="finish.batchId" class="lane">
        <span class="window" :style="{ ...onAxis(axis, finish), background: rampColour(leftOf(finish.batchId)) }" />
      </div>
    </div>
    <ul v-if="open.length" class="plain-list small finishes">
      <li v-for="finish in open" :key="finish.batchId">
        <strong>{{ finish.title }}</strong> {{ format.finish(finish.from, finish.to, now) }}
      </li>
    </ul>
  </section>
</template>

<style scoped>
.ends {
  font-weight: 700;
  color: var(--kelp);
}
.ends.off {
  color: var(--amber);
}
.trays {
  margin: 0.5rem 0 0.4rem;
  display: grid;
  gap: 4px;
}
.trays li {
  display: grid;
  grid-template-columns: 1.6rem 1fr;
  align-items: center;
}
.number {
  color: var(--quiet);
  font-size: 0.86rem;
}
.tray {
  position: relative;
  display: flex;
  justify-content: space-between;
  align-items: center;
  height: 25px;
  padding: 0 0.5rem;
  border: 1px solid var(--rule);
  border-radius: 4px;
  text-decoration: none;
  font-size: 0.88rem;
  font-weight: 650;
  overflow: hidden;
  background: var(--paper);
}
.tray.free {
  color: var(--quiet);
  font-weight: 400;
  border-style: dashed;
}
.water {
  position: absolute;
  inset: 0 auto 0 0;
  opacity: 0.82;
}
.words,
.figure {
  position: relative;
  text-shadow:
    0 0 3px var(--paper),
    0 0 3px var(--paper),
    0 0 2px var(--paper);
}
.axis {
  border-left: 2px solid var(--quiet);
  padding: 0.2rem 0;
  margin-left: 1.6rem;
  background: var(--sunk);
  border-radius: 0 4px 4px 0;
}
.lane {
  position: relative;
  height: 9px;
}
.window {
  position: absolute;
  inset-block: 1px;
  border-radius: 3px;
}
.finishes {
  margin: 0.35rem 0 0 1.6rem;
}
@media (width <= 760px) {
  .tray {
    height: 44px;
  }
  h2 a {
    display: inline-block;
    padding: 0.75rem 0;
  }
}
</style>
