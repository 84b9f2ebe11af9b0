<script setup lang="ts">
import type { FoundItem } from '#shared/contracts'

const props = defineProps<{ takeTyped: () => string }>()
const emit = defineEmits<{ close: [] }>()
const open = ref(true)
const words = ref('')
const input = ref<{ focus: () => void }>()
const found = ref<FoundItem[]>([])
const at = ref(0)
const problem = ref('')
let asked = 0

/** What can be done from anywhere, found by its words. */
const ACTIONS = [
  { title: 'Take in a basket', detail: 'A new batch', to: '/intake' },
  ...PLACES.map(place => ({ title: `Go to ${place.name}`, detail: 'A place', to: place.to as string })),
]
const TARGETS = {
  batch: (id: string) => `/batches/${id}`,
  jar: (id: string) => `/jars/${id}`,
  food: (id: string) => `/reference?food=${id}`,
}
const items = computed(() => {
  const wanted = words.value.trim().toLowerCase()
  const actions = ACTIONS.filter(action => wanted === '' || action.title.toLowerCase().includes(wanted))
  const things = found.value.map(item => ({ title: item.title, detail: item.detail, to: TARGETS[item.kind](item.id) }))
  return wanted === '' ? actions : [...things, ...actions]
})

watch(words, async text => {
  const turn = ++asked
  at.value = 0
  try {
    const answer = text.trim() === '' ? [] : await call('find', { query: { q: text.trim().slice(0, 80) } })
    if (turn === asked) found.value = answer
    problem.value = ''
  } catch (error) {
    problem.value = (error as Error).message
  }
})

function opened() {
  input.value?.focus()
  words.value += props.takeTyped().replaceAll('\n', '')
}
function move(by: number) {
  at.value = (at.value + by + items.value.length) % Math.max(1, items.value.length)
}
function go(to: string | undefined) {
  if (!to) return
  open.value = false
  void navigateTo(to)
}
</script>

<template>
  <ElDialog v-model="open" title="Find" width="560px" @opened="opened" @closed="emit('close')">
    <ElInput
      ref="input"
      v-model="words"
      aria-label="Words to find"
      placeholder="Batch 27, beetroot, jar 12, top board"
      role="combobox"
      aria-expanded="true"
      aria-controls="found"
      :aria-activedescendant="`found-${at}`"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="go(items[at]?.to)"
    />
    <p v-if="problem" class="problem">{{ problem }}</p>
    <ul id="found" class="plain-list found" role="listbox" aria-label="Found">
      <li
        v-for="(item, i) in items"
        :id="`found-${i}`"
        :key="item.to + item.title"
        role="option"
        :aria-selected="i === at"
        class="item"
        :class="{ on: i === at }"
        @click="go(item.to)"
        @mousemove="at = i"
      >
        <span class="strong">{{ item.title }}</span><span class="quiet small">{{ item.detail }}</span>
      </li>
    </ul>
    <p v-if="words && items.length === 0" class="quiet">Nothing fits “{{ words }}”.</p>
  </ElDialog>
</template>

<style scoped>
.found {
  margin-top: 0.7rem;
  max-height: 52vh;
  overflow: auto;
}
.item {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 1rem;
  min-height: 46px;
  padding: 0.3rem 0.8rem;
  border-radius: 8px;
  cursor: pointer;
}
.item.on {
  background: var(--sunk);
}
</style>
