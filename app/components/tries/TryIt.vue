<script setup lang="ts">
import { fill } from '#core/errors'
import { cardOf } from '#core/foods'
import { USUAL_ROOM, type Air } from '#core/air'
import { hotStartC } from '#core/dryness'
import { layerKgM2 } from '#core/hours'
import type { TryKnobs, TryLoad, TryResult } from '#core/tries'
import { formatDegrees } from '#core/units'
import { HOUR } from '#core/time'

/** What if: knobs to turn at, and what would come of the load, beside up to three other tries. */
const props = defineProps<{ load?: TryLoad; machineId: string; cardKey: string; room?: Air; startAt: number; takeWords?: string }>()
const open = ref(false)
const asked = ref(false)
whenever(open, () => (asked.value = true))
const emit = defineEmits<{ take: [knobs: TryKnobs] }>()
const format = useFormat()
const { settings } = storeToRefs(useHouseholdStore())
const { tries, at, current, change, problem, turn, turnMachine, turnCut, show, another, drop } = useTries(
  // Nothing is reckoned before somebody asks.
  toRef(() => (asked.value ? props.load : undefined)),
  toRef(() => ({ machineId: props.machineId, cardKey: props.cardKey, room: props.room })),
)
const machine = computed(() => props.load?.machines.find(item => item.id === current.value?.knobs.machineId))
const card = computed(() => props.load && cardOf(props.load.food, current.value?.knobs.cardKey))
/** Cuts that a machine with heat dries. */
const cuts = computed(() => (props.load?.food.cards ?? []).filter(item => item.ways.some(way => way.way === machine.value?.kind)))
const running = computed(() => props.load?.running !== undefined)
const result = computed(() => current.value?.result)
const unit = computed(() => settings.value.temperatureUnit)
const units = { G: format.weight, C: format.temperature, Share: format.share, Ml: format.volume, Mm: format.length }
const sentence = (list: readonly { template: string; quantities: Record<string, number | string> }[]) =>
  list.map(({ template, quantities }) => fill(template, quantities, units)).join(', ')
const changeWords = computed(() => {
  if (!change.value || change.value.what.length === 0) return undefined
  const what = sentence(change.value.what)
  return `${what[0]!.toUpperCase()}${what.slice(1)}: ${change.value.so.length ? sentence(change.value.so) : 'hardly any difference'}.`
})
const finish = computed(() => {
  const { finishH, reach } = result.value!
  const { p10, p50, p90 } = finishH
  if (!Number.isFinite(p10)) return reach.verdict === 'cannot' ? 'never, in this air and heat' : 'perhaps never, in this air and heat'
  const when = (hours: number) => format.moment(props.startAt + hours * HOUR, props.startAt)
  if (!Number.isFinite(p50)) return `not before ${when(p10)}, perhaps never`
  if (!Number.isFinite(p90)) return `around ${when(p50)}, perhaps never`
  return format.window(props.startAt + p10 * HOUR, props.startAt + p90 * HOUR, props.startAt)
})
interface Knob {
  name: keyof TryKnobs
  label: string
  low: number
  high: number
  step: number
  value: number
  shown: string
  set: (value: number) => void
}
/** Nobody takes it out later than that: the end of the knob. */
const latestH = computed(() => Math.max(current.value?.knobs.stopH ?? 0, Math.ceil(result.value?.hours.at(-1) ?? 24)))
const knobs = computed((): Knob[] => {
  const now = current.value?.knobs
  const its = machine.value
  if (!now || !its || !card.value) return []
  const usual = card.value
  const room = now.room ?? USUAL_ROOM
  const hotC = hotStartC(now.setC, its.highC)
  const layer = layerKgM2(usual, now.thicknessMm)
  const knob = (
    name: 'thicknessMm' | 'setC' | 'hotH' | 'loadKgM2',
    label: string,
    low: number,
    high: number,
    step: number,
    shown: string,
  ): Knob => ({
    name,
    label,
    low,
    high,
    step,
    value: now[name],
    shown,
    set: value => turn(name, value),
  })
  return [
    ...(usual.thicknessMm && !running.value
      ? [
          knob(
            'thicknessMm',
            'Thickness',
            Math.max(1, Math.round(usual.thicknessMm / 3)),
            Math.round(usual.thicknessMm * 2.5),
            0.5,
            format.length(now.thicknessMm),
          ),
        ]
      : []),
    knob('setC', 'Heat', its.lowC, its.highC, 1, format.temperature(now.setC)),
    ...(running.value || hotC === undefined
      ? []
      : [
          knob(
            'hotH',
            'Hot start',
            0,
            4,
            0.5,
            now.hotH === 0 ? 'none' : `${now.hotH} h, ${formatDegrees(hotC - now.setC, unit.value)} more`,
          ),
        ]),
    ...(running.value
      ? []
      : [
          knob(
            'loadKgM2',
            'On a tray',
            Math.round(50 * layer) / 100,
            Math.round(200 * layer) / 100,
            0.1,
            format.weight(Math.round(1000 * now.loadKgM2 * its.trayAreaM2)),
          ),
        ]),
    {
      name: 'room',
      label: 'Room, humidity',
      low: 15,
      high: 95,
      step: 1,
      value: Math.round(100 * room.humidity),
      shown: now.room ? format.share(room.humidity) : `${format.share(room.humidity)}, as rooms are`,
      set: value => turn('room', { ...room, humidity: value / 100 }),
    },
    {
      name: 'room',
      label: 'Room, warmth',
      low: 0,
      high: 38,
      step: 1,
      value: Math.round(room.celsius),
      shown: now.room ? format.temperature(room.celsius) : `${format.temperature(room.celsius)}, as rooms are`,
      set: value => turn('room', { ...room, celsius: value }),
    },
    {
      name: 'stopH',
      label: 'Taken out',
      low: 0,
      high: latestH.value,
      step: 0.5,
      value: now.stopH ?? 0,
      shown: now.stopH === undefined ? 'when it is dry' : format.moment(props.startAt + now.stopH * HOUR, props.startAt),
      set: value => turn('stopH', value > 0 ? value : undefined),
    },
  ]
})
/** In a room that nobody measured it is a range. */
const lowest = ({ known, lowest: { p10, p50, p90 } }: TryResult['reach']) =>
  known ? format.share(p50) : `${format.share(p10)} to ${format.share(p90)}`
const figures = computed(() => {
  const it = result.value!
  return [
    { name: it.loads > 1 ? 'First load dry' : 'Dry', is: finish.value },
    ...(it.stopped
      ? [{ name: 'Taken out then', is: `${format.range(it.stopped.water, format.share)} water; ${chanceOfDry(it.stopped.dry, 'then')}` }]
      : []),
    ...(running.value ? [] : [{ name: 'Trays', is: `${plural(it.trays, 'tray')}, ${it.loads === 1 ? 'one load' : `${it.loads} loads`}` }]),
    ...(it.lastTrayH === undefined ? [] : [{ name: 'Slowest place', is: `about ${format.hours(it.lastTrayH)}` }]),
    {
      name: 'Power',
      is: it.kWh === undefined ? 'not known: it does not get dry' : it.kWh < 0.05 ? 'none' : `about ${it.kWh.toFixed(1)} kWh`,
    },
    ...(it.dangerH === undefined ? [] : [{ name: 'Where things grow', is: it.dangerH < 0.25 ? 'no time' : format.hours(it.dangerH) }]),
    ...(it.hardening > 0.02 ? [{ name: 'Outside may close', is: `${format.share(it.hardening)} longer for it` }] : []),
    { name: 'No drier than', is: `${lowest(it.reach)} (wanted ${format.share(it.target)})` },
  ]
})
</script>

<template>
  <details class="card try" :open="open" @toggle="open = ($event.target as HTMLDetailsElement).open">
    <summary>Try it: what if it were thinner, hotter, off at night?</summary>
    <p v-if="!load" class="quiet">Choose the food and give its weight first.</p>
    <div v-else-if="open && current" class="inner">
      <div class="row tabs" role="group" aria-label="Tries">
        <ElButton
          v-for="(item, i) in tries"
          :key="item.id"
          :type="i === at ? 'primary' : undefined"
          :aria-pressed="i === at"
          @click="show(i)"
          >{{ i === 0 ? 'First try' : `Try ${i + 1}` }}</ElButton
        >
        <ElButton v-if="tries.length < MOST_TRIES" @click="another">Another beside it</ElButton>
        <ElButton v-if="tries.length > 1" @click="drop(at)">Drop this one</ElButton>
      </div>
      <ChoiceField
        v-if="load.machines.length > 1 && !running"
        :model-value="current.knobs.machineId"
        label="In"
        :choices="load.machines.map(item => ({ value: item.id, words: item.name }))"
        @update:model-value="value => value && turnMachine(value)"
      />
      <ChoiceField
        v-if="cuts.length > 1 && !running"
        :model-value="current.knobs.cardKey"
        label="Cut"
        :choices="cuts.map(item => ({ value: item.key, words: item.name }))"
        @update:model-value="value => value && turnCut(value)"
      />
      <p class="change" role="status">{{ problem || changeWords || 'Turn at a knob: each change is told here.' }}</p>
      <div class="desk">
        <LazyTryChart v-if="result" :tries="tries" :at="at" :start-at="startAt" />
        <div class="knobs">
          <label v-for="knob in knobs" :key="knob.label" class="knob">
            <span>{{ knob.label }}</span><span class="shown" aria-hidden="true">{{ knob.shown }}</span>
            <input
              type="range"
              :min="knob.low"
              :max="knob.high"
              :step="knob.step"
              :value="knob.value"
              :aria-label="knob.label"
              :aria-valuetext="knob.shown"
              @input="knob.set(Number(($event.target as HTMLInputElement).value))"
            />
          </label>
        </div>
        <ChoiceField
          :model-value="current.knobs.night"
          label="At night"
          :choices="[
            { value: 'leave' as const, words: 'Left on' },
            { value: 'off' as const, words: 'Off' },
            { value: 'warm' as const, words: `Held at ${format.temperature(40)}` },
          ]"
          @update:model-value="value => value && turn('night', value)"
        />
        <ElCheckbox
          v-if="result?.lastTrayH !== undefined"
          :model-value="current.knobs.rotate"
          size="large"
          @update:model-value="value => turn('rotate', Boolean(value))"
          >Change places halfway</ElCheckbox
        >
        <dl v-if="result" class="figures">
          <div v-for="figure in figures" :key="figure.name">
            <dt>{{ figure.name }}</dt>
            <dd>{{ figure.is }}</dd>
          </div>
        </dl>
        <LazyInsidePieces v-if="result && load && !running" :load="load" :knobs="current.knobs" :result="result" />
        <p class="quiet small">
          {{
            running
              ? 'Reckoned from its log, as its page will once the heat is set so'
              : 'Reckoned as the batch will be once it is loaded so'
          }}: 8 of 10 loads like yours end within the window.
        </p>
        <div v-if="takeWords" class="row">
          <ElButton type="primary" @click="emit('take', current.knobs)">{{ takeWords }}</ElButton>
        </div>
      </div>
    </div>
  </details>
</template>

<style scoped>
.try {
  padding-block: 0.2rem;
}
summary {
  min-height: 48px;
  align-content: center;
  font-weight: 650;
  cursor: pointer;
}
.inner {
  display: grid;
  gap: 0.8rem;
  padding-bottom: 0.8rem;
}
.desk {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.8rem;
}
.knobs {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(220px, 100%), 1fr));
  gap: 0.35rem 1.4rem;
}
.knob {
  display: grid;
  grid-template-columns: 1fr auto;
}
.knob .shown {
  font-weight: 650;
}
.knob input {
  grid-column: 1 / -1;
  width: 100%;
  height: 44px;
  margin: 0;
  accent-color: var(--dulse);
}
/* It stays in sight while a knob further down is turned. */
.change {
  position: sticky;
  top: 74px;
  z-index: 2;
  min-height: 3.4em;
  padding: 0.3rem 0;
  background: var(--card);
  font-weight: 600;
}
@media (width <= 760px) {
  .change {
    top: 0;
  }
}
/* Large letters leave little room: what stands fast must not take it. */
@media (height <= 500px) {
  .change {
    position: static;
  }
}
.figures {
  margin: 0;
  display: grid;
}
.figures > div {
  display: grid;
  grid-template-columns: 9.5rem 1fr;
  gap: 0.6rem;
  border-top: 1px solid var(--rule);
  padding: 0.4rem 0;
}
.figures dt {
  color: var(--quiet);
}
.figures dd {
  margin: 0;
  font-weight: 650;
}
.tabs .el-button {
  margin: 0;
}
</style>
