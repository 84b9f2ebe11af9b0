<script setup lang="ts">
import type { CautionStep, Food } from '#core/foods'
import type { WayKey } from '#core/ways'
import { cautionsAt, type Stop, type ToldCautions } from '#core/safety'
import type { EntryBody } from '#core/log'

/** The cautions of a step, where its danger is: some to read, some to accept once, and what stops. */
const props = defineProps<{
  step: CautionStep
  food: Food
  way?: WayKey
  liquid?: boolean
  raw?: boolean
  sulphited?: boolean
  sachet?: boolean
  canningLid?: boolean
  sold?: boolean
  accepted: ReadonlySet<string>
  stops?: readonly Stop[]
  /** Its notes lie open, however many: what follows starts the danger. */
  open?: boolean
}>()
const told = computed(() =>
  cautionsAt(props.step, props.food, {
    way: props.way,
    liquid: props.liquid,
    raw: props.raw,
    sulphited: props.sulphited,
    sachet: props.sachet,
    canningLid: props.canningLid,
    sold: props.sold,
    accepted: props.accepted,
  }),
)
/** What is rare and grave, and the food's own, is read without opening anything. */
const isGrave = (note: ToldCautions['notes'][number]) => !('key' in note) || note.key === undefined || note.grave
const grave = computed(() => told.value.notes.filter(isGrave))
const others = computed(() => told.value.notes.filter(note => !isGrave(note)))
const format = useFormat()
const ticked = ref<string[]>([])
const unread = computed(() => told.value.cares.filter(rule => !ticked.value.includes(rule.key)))

defineExpose({
  /** What is wrong, if a caution was not accepted. */
  problem: () => (unread.value.length > 0 ? 'Read the caution and tick that you have.' : undefined),
  /** Entries that record what was accepted. */
  bodies: (): EntryBody[] => told.value.cares.map(rule => ({ kind: 'caution', rule: rule.key })),
})
</script>

<template>
  <div v-if="(stops?.length ?? 0) + told.cares.length + told.notes.length > 0" class="cautions">
    <div v-for="stop in stops" :key="stop.rule.key" class="stop" role="alert">
      <p class="strong">This must not be done</p>
      <p>{{ format.sentence(stop.message) }}</p>
    </div>
    <div v-for="rule in told.cares" :key="rule.key" class="care">
      <p>{{ format.sentence(rule.text) }}</p>
      <ElCheckbox
        :model-value="ticked.includes(rule.key)"
        size="large"
        @update:model-value="on => (ticked = on ? [...ticked, rule.key] : ticked.filter(key => key !== rule.key))"
        >I have read this</ElCheckbox
      >
    </div>
    <div v-if="grave.length" class="grave">
      <p v-for="note in grave" :key="note.text" class="small">{{ format.sentence(note.text) }}</p>
    </div>
    <details v-if="others.length" :open="open || others.length < 3">
      <summary>{{ others.length === 1 ? 'A caution' : `${countWord(others.length)} cautions` }}</summary>
      <p v-for="note in others" :key="note.text" class="small">{{ format.sentence(note.text) }}</p>
    </details>
  </div>
</template>

<style scoped>
.cautions {
  display: grid;
  gap: 0.6rem;
}
.stop {
  border-left: 5px solid var(--brick);
  background: var(--brick-wash);
  border-radius: 8px;
  padding: 0.7rem 0.9rem;
}
.stop .strong {
  color: var(--brick);
}
.care {
  background: var(--amber-wash);
  border-radius: 8px;
  padding: 0.6rem 0.9rem 0.2rem;
}
details,
.grave {
  border-left: 3px solid var(--amber-mark);
  padding-left: 0.7rem;
}
summary {
  cursor: pointer;
  min-height: 44px;
  align-content: center;
  font-weight: 650;
}
details p,
.grave p {
  margin-bottom: 0.35rem;
}
</style>
