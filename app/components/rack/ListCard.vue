<script setup lang="ts">
import { ofKind, type Entry } from '#core/log'
import { WAYS, type WayKey } from '#core/ways'

/** What is gone through before and after a run, ticked as it is done; a tick says when. */
const props = defineProps<{ kind: WayKey; log: readonly Entry[]; now: number; busy: boolean }>()
const emit = defineEmits<{ tick: [list: 'start' | 'end', item: string]; untick: [entryId: string] }>()
const format = useFormat()
const list = ref<'start' | 'end'>(ofKind(props.log, 'tick').some(entry => entry.body.list === 'end') ? 'end' : 'start')
const items = computed(() =>
  WAYS[props.kind][list.value].map(item => {
    const entry = ofKind(props.log, 'tick').findLast(tick => tick.body.list === list.value && tick.body.item === item.key)
    return { ...item, entry }
  }),
)
const done = computed(() => items.value.filter(item => item.entry).length)
</script>

<template>
  <section class="card" aria-label="Lists">
    <div class="row between">
      <h2>Gone through</h2>
      <ChoiceField
        v-model="list"
        label="List"
        hide-label
        :choices="[
          { value: 'start', words: 'Start' },
          { value: 'end', words: 'End' },
        ]"
      />
    </div>
    <ul class="plain-list">
      <li v-for="item in items" :key="item.key">
        <ElCheckbox
          :model-value="Boolean(item.entry)"
          :disabled="busy"
          @change="item.entry ? emit('untick', item.entry.id) : emit('tick', list, item.key)"
          >{{ item.words }}</ElCheckbox
        >
        <span v-if="item.entry" class="quiet small">{{ format.moment(item.entry.at, now) }}</span>
      </li>
    </ul>
    <p class="quiet small">{{ done }} of {{ items.length }}. The machine’s own manual comes first.</p>
  </section>
</template>

<style scoped>
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 0.6rem;
  min-height: 44px;
}
li + li {
  border-top: 1px solid var(--rule);
}
li :deep(.el-checkbox) {
  white-space: normal;
  height: auto;
  min-height: 44px;
  margin: 0;
}
li :deep(.el-checkbox__label) {
  line-height: 1.25;
}
ul {
  margin: 0.4rem 0;
}
</style>
