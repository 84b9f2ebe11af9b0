<script setup lang="ts">
import type { MachineAnswer } from '#shared/contracts'

/** What wear asks for, by hours run since it was last done. */
const props = defineProps<{ machine: MachineAnswer; now: number; busy: boolean }>()
defineEmits<{ done: [task: string] }>()
const format = useFormat()
const hours = (value: number) => `${Math.round(value)} h`
const tasks = computed(() => [...(props.machine.upkeep ?? [])].sort((a, b) => b.sinceHours / b.everyHours - a.sinceHours / a.everyHours))
</script>

<template>
  <section class="card" aria-label="Upkeep">
    <h2>Upkeep</h2>
    <p class="quiet small">{{ hours(machine.hoursRun ?? 0) }} with the heat on, by the log.</p>
    <ul class="plain-list">
      <li v-for="task in tasks" :key="task.key">
        <div>
          <span :class="{ due: task.due }">{{ task.words }}</span>
          <p class="quiet small">
            {{ hours(task.sinceHours) }} of {{ hours(task.everyHours) }}{{ task.doneAt ? `, done ${format.day(task.doneAt)}` : ''
            }}<span v-if="task.due" class="tag attention"> due</span>
          </p>
        </div>
        <ElButton :disabled="busy" :aria-label="`Done: ${task.words}`" @click="$emit('done', task.key)">Done</ElButton>
      </li>
    </ul>
  </section>
</template>

<style scoped>
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 0.8rem;
  padding: 0.45rem 0;
}
li + li {
  border-top: 1px solid var(--rule);
}
.due {
  font-weight: 700;
}
.tag {
  margin-left: 0.5rem;
}
</style>
