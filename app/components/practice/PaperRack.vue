<script setup lang="ts">
import type { LessonAnswer } from '#shared/contracts'
import type { PaperView } from '~/workers/practice.worker'

/** What one sees from the kitchen door: trays, the dial, the weather. Nothing of what is within. */
const props = defineProps<{ answer: LessonAnswer; view: PaperView; weighed: ReadonlyMap<number, number> }>()
const format = useFormat()
const WHERE = {
  cut: 'on the board',
  machine: 'in the machine',
  out: 'out, on the table',
  jar: 'at rest in a closed jar',
  powder: 'powder, in a bowl',
  packed: 'packed',
  ended: 'over',
}
const OPENED: Record<NonNullable<PaperView['opened']>['saw'], string> = {
  loose: 'loose, as it went in',
  packed: 'packed hard, it gives to a spoon',
  clumps: 'one cake, and no spoon breaks it',
  moisture: 'damp',
  mould: 'mouldy',
  insects: 'not alone',
}
const CUP = { thin: 'thin', right: 'as it was', thick: 'thick' }
const heat = computed(() => {
  const { setC, stage, machine } = props.view
  if (stage !== 'machine') return undefined
  return setC === null ? `${machine.name}, off` : `${machine.name}, ${format.temperature(setC)}`
})
const trays = computed(() =>
  props.view.trayWeightsG.map((loadedG, i) => ({ tray: i + 1, loadedG, there: props.view.present.includes(i + 1) })),
)
</script>

<template>
  <section class="card sees" aria-label="What you see">
    <h2>{{ WHERE[view.stage] === 'in the machine' ? heat : `${answer.food.name}, ${WHERE[view.stage]}` }}</h2>
    <p class="quiet small">The room has {{ format.temperature(view.roomC) }}, {{ format.share(view.humidity) }} humidity.</p>
    <p v-if="view.rained && !view.second" class="caution">It rains, and the fire is out.</p>
    <p v-if="view.opened" class="strong">
      {{ plural(view.opened.months, 'month') }} later somebody opens it: {{ OPENED[view.opened.saw] }}.
    </p>
    <p v-if="view.cup" class="strong">In the cup it is {{ CUP[view.cup] }}.</p>
    <p v-if="view.saidDone && view.stage === 'machine'" class="caution">The display says: complete.</p>
    <ol v-if="view.stage === 'machine' && trays.length" class="plain-list trays">
      <li v-for="tray in trays" :key="tray.tray" :class="{ out: !tray.there }">
        <span>Tray {{ tray.tray }}</span>
        <span class="quiet small"
          >{{ tray.there ? '' : 'taken out, ' }}loaded {{ format.weight(tray.loadedG)
          }}{{ weighed.has(tray.tray) ? `, last ${format.weight(weighed.get(tray.tray)!)}` : '' }}</span
        >
      </li>
    </ol>
  </section>
</template>

<style scoped>
.sees {
  display: grid;
  gap: 0.5rem;
  align-content: start;
}
.trays {
  display: grid;
  border: 1px solid var(--rule);
  border-radius: 8px;
}
.trays li {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 1rem;
  padding: 0.45rem 0.8rem;
  border-top: 1px solid var(--rule);
}
.trays li:first-child {
  border-top: 0;
}
.trays li.out {
  opacity: 0.6;
}
</style>
