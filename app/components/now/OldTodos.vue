<script setup lang="ts">
import type { TodoAnswer } from '#shared/contracts'

/** What is late by days: one line, opened on demand; each is done, or cleared with a reason. */
const props = defineProps<{ todos: readonly TodoAnswer[]; now: number }>()
const emit = defineEmits<{ cleared: [] }>()
const format = useFormat()
/** Which of them is being cleared: by its key, since the list comes anew. */
const clearing = ref('')
const keyOf = (todo: TodoAnswer) => todo.batchId + todo.kind
const reason = ref('')
const problem = ref('')
const names = computed(() => [...new Set(props.todos.map(todo => todo.batchTitle.split(',')[0]!.toLowerCase()))].slice(0, 3).join(', '))

async function clear() {
  const todo = props.todos.find(item => keyOf(item) === clearing.value)
  if (!todo) return
  if (reason.value.trim() === '') {
    problem.value = 'Say why, in a word: “was done”, “thrown away”.'
    return
  }
  try {
    await call('clearTodo', { body: { batchId: todo.batchId, kind: todo.kind, from: todo.from, reason: reason.value } })
    clearing.value = ''
    reason.value = ''
    problem.value = ''
    emit('cleared')
  } catch (error) {
    problem.value = (error as Error).message
  }
}
</script>

<template>
  <details class="card old">
    <summary>
      {{ plural(todos.length, 'thing is', 'things are') }} late by days: {{ names }}{{ todos.length > 3 ? ' and others' : '' }}
    </summary>
    <ul class="plain-list">
      <li v-for="todo in todos" :key="keyOf(todo)" class="list-line">
        <div>
          <strong>{{ todo.title }}</strong>
          <p class="quiet small">{{ todo.batchTitle }} · batch {{ todo.batchNumber }} · since {{ format.moment(todo.from, now) }}</p>
          <form v-if="clearing === keyOf(todo)" class="row" @submit.prevent="clear">
            <TextField v-model="reason" label="Why it need not be done" :problem="problem || undefined" />
            <ElButton native-type="submit" type="primary">Clear it</ElButton>
          </form>
        </div>
        <div class="row">
          <ElButton :aria-label="`Open: ${todo.batchTitle}, batch ${todo.batchNumber}`" @click="navigateTo(`/batches/${todo.batchId}`)"
            >Open</ElButton
          >
          <ElButton
            v-if="clearing !== keyOf(todo)"
            :aria-label="`Clear: ${todo.title}, batch ${todo.batchNumber}`"
            @click="
              () => {
                clearing = keyOf(todo)
                problem = ''
              }
            "
            >Clear</ElButton
          >
        </div>
      </li>
    </ul>
  </details>
</template>

<style scoped>
.old {
  background: var(--amber-wash);
}
summary {
  min-height: 44px;
  display: flex;
  align-items: center;
  font-weight: 700;
  cursor: pointer;
}
summary::before {
  content: '▸';
  margin-right: 0.5rem;
}
.old[open] > summary::before {
  content: '▾';
}
</style>
