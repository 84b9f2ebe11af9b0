<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
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
const { settings } = storeToRefs(useHouseholdStore())
const outbox = useOutboxStore()
const format = useFormat()
interface Item {
  key: string
  title: string
  detail: string
  to?: string
  run?: () => Promise<string>
}
const ACT_WORDS = { weigh: 'Weigh', feel: 'Feel', load: 'Load', unload: 'Take out', look: 'Look at', grind: 'Grind', pack: 'Pack' } as const
/** What was typed as a deed: it leads. */
const deeds = computed((): Item[] => {
  const command = findCommand(words.value, settings.value.weightUnit)
  if (!command) return []
  const { number } = command
  switch (command.do) {
    case 'open':
      return [{ key: 'deed', title: `Open ${command.kind} ${number}`, detail: 'By its number', run: () => addressBy(command.kind, number) }]
    case 'act':
      return [
        {
          key: 'deed',
          title: `${ACT_WORDS[command.act]} batch ${number}`,
          detail: 'Opens its form',
          run: async () => `${await addressBy('batch', number)}?act=${command.act}`,
        },
      ]
    case 'log':
      return [
        {
          key: 'deed',
          title: `Log ${format.weight(command.grams)} ${command.tray === undefined ? 'for the load' : `on tray ${command.tray}`} of batch ${number}`,
          detail: 'Enter writes it',
          run: async () => {
            const { id } = await call('byNumber', { query: { kind: 'batch', number } })
            const { grams, tray } = command
            const body =
              tray === undefined
                ? { kind: 'weigh' as const, totalG: grams }
                : { kind: 'weigh' as const, trays: [{ position: tray, weightG: grams }] }
            await outbox.send({ batchId: id, entry: { id: uuidv7(), at: Date.now(), body } }, `weight of batch ${number}`)
            return `/batches/${id}`
          },
        },
      ]
    case 'take':
      return [
        {
          key: 'deed',
          title: `Take ${format.weight(command.grams)} out of jar ${number}`,
          detail: 'Enter writes it',
          run: async () => {
            const { id } = await call('byNumber', { query: { kind: 'jar', number } })
            const body = { kind: 'take' as const, jarId: id, weightG: command.grams }
            await outbox.send({ jarId: id, entry: { id: uuidv7(), at: Date.now(), body } }, `jar ${number}`)
            return `/jars/${id}`
          },
        },
      ]
  }
})
async function addressBy(kind: 'batch' | 'jar', number: number): Promise<string> {
  const { id } = await call('byNumber', { query: { kind, number } })
  return kind === 'batch' ? `/batches/${id}` : `/jars/${id}`
}
const items = computed((): Item[] => {
  const wanted = words.value.trim().toLowerCase()
  const actions = ACTIONS.filter(action => wanted === '' || action.title.toLowerCase().includes(wanted)).map(item => ({
    ...item,
    key: item.to,
  }))
  const things = found.value.map(item => ({
    key: `${item.kind}${item.id}`,
    title: item.title,
    detail: item.detail,
    to: TARGETS[item.kind](item.id),
  }))
  const known = foundBy(wanted).map(({ title, detail, to }) => ({ key: to, title, detail, to }))
  return wanted === '' ? actions : [...deeds.value, ...known, ...things, ...actions]
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
async function go(item: Item | undefined) {
  if (!item) return
  problem.value = ''
  try {
    const to = item.to ?? (await item.run!())
    open.value = false
    await navigateTo(to)
  } catch (error) {
    problem.value = error instanceof Refused ? error.problems.map(issue => issue.message).join(' ') : (error as Error).message
  }
}
</script>

<template>
  <ElDialog v-model="open" title="Find" width="560px" @opened="opened" @closed="emit('close')">
    <ElInput
      ref="input"
      v-model="words"
      aria-label="Words to find"
      placeholder="Beetroot, batch 27, take 20 g jar 12, units"
      role="combobox"
      aria-autocomplete="list"
      :aria-expanded="items.length > 0"
      aria-controls="found"
      :aria-activedescendant="items.length > 0 ? `found-${at}` : undefined"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="go(items[at])"
    />
    <p v-if="problem" class="problem">{{ problem }}</p>
    <ul id="found" class="plain-list found" role="listbox" aria-label="Found">
      <li
        v-for="(item, i) in items"
        :id="`found-${i}`"
        :key="item.key"
        role="option"
        :aria-selected="i === at"
        class="item"
        :class="{ on: i === at }"
        @click="go(item)"
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
