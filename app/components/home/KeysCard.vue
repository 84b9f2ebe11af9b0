<script setup lang="ts">
import type { HomeAnswer, TokenUse } from '#shared/contracts'

/** Keys for scales, loggers and calendars in the house: each good for one thing, and shown once. */
defineProps<{ home: HomeAnswer }>()
const emit = defineEmits<{ changed: [home: HomeAnswer] }>()
const format = useFormat()
const { answer: devices, ready } = useServer('devices')
await ready()
const form = ref<{ name: string; use: TokenUse; deviceId: string }>()
const problems = ref<Record<string, string>>({})
const shown = ref<{ name: string; use: TokenUse; key: string }>()
const off = ref('')
const USE_WORDS = { readings: 'sends readings', calendar: 'reads the calendar' }
const choices = computed(() => (devices.value ?? []).map(device => ({ value: device.id, words: device.name })))

async function make() {
  problems.value = {}
  const { name, use, deviceId } = form.value!
  try {
    const { key, home } = await call('makeToken', { body: { name, use, deviceId: use === 'readings' && deviceId ? deviceId : undefined } })
    shown.value = { name, use, key }
    form.value = undefined
    emit('changed', home)
  } catch (error) {
    problems.value = fieldsOf(error)
  }
}
async function takeOff(tokenId: string) {
  problems.value = {}
  try {
    emit('changed', await call('removeToken', { params: { tokenId } }))
    off.value = ''
  } catch (error) {
    problems.value = fieldsOf(error)
  }
}
</script>

<template>
  <section class="card stack" aria-label="Keys for devices and calendars">
    <div class="row between">
      <h2>Keys for scales and calendars</h2>
      <ElButton v-if="!form" @click="form = { name: '', use: 'readings', deviceId: choices[0]?.value ?? '' }">Add a key</ElButton>
    </div>
    <ul v-if="home.tokens.length" class="plain-list">
      <li v-for="token in home.tokens" :key="token.id" class="row between line">
        <div>
          <strong>{{ token.name }}</strong>
          <p class="quiet small">{{ USE_WORDS[token.use] }}; {{ token.seenAt ? `used ${format.date(token.seenAt)}` : 'not used yet' }}</p>
        </div>
        <div v-if="off === token.id" class="row">
          <ElButton type="danger" plain @click="takeOff(token.id)">Take it off</ElButton><ElButton @click="off = ''">Cancel</ElButton>
        </div>
        <ElButton v-else :aria-label="`Take the key of ${token.name} off`" @click="off = token.id">Take off</ElButton>
      </li>
    </ul>
    <p v-else-if="!form && !shown" class="quiet small">
      A scale or logger elsewhere in the house sends its readings with a key of its own, which can do nothing else.
    </p>
    <form v-if="form" class="form" @submit.prevent="make">
      <ChoiceField
        v-model="form.use"
        label="For"
        :choices="[
          { value: 'readings', words: 'A scale or logger' },
          { value: 'calendar', words: 'A calendar' },
        ]"
      />
      <TextField v-model="form.name" label="Name" :problem="problems.name" />
      <ChoiceField v-if="form.use === 'readings'" v-model="form.deviceId" label="Which" :choices="choices" :problem="problems.deviceId" />
      <div class="row">
        <ElButton type="primary" native-type="submit">Make the key</ElButton><ElButton @click="form = undefined">Cancel</ElButton>
      </div>
    </form>
    <div v-if="shown" class="note" role="status">
      <p>
        <strong>{{ shown.name }}.</strong> Copy it now: it is not shown again.
      </p>
      <p class="secret">
        {{
          shown.use === 'calendar'
            ? `${home.links[0] ?? 'https://…'}/api/calendar.ics?key=${shown.key}`
            : `Authorization: Bearer ${shown.key}`
        }}
      </p>
      <ElButton @click="shown = undefined">I have it</ElButton>
    </div>
    <p v-if="problems.all" class="problem" role="alert">{{ problems.all }}</p>
  </section>
</template>

<style scoped>
.line {
  border-top: 1px solid var(--rule);
  padding: 0.4rem 0;
}
.note {
  background: var(--sunk);
  border-radius: 8px;
  padding: 0.8rem;
  display: grid;
  gap: 0.6rem;
  justify-items: start;
}
.secret {
  font:
    600 0.86rem/1.5 ui-monospace,
    monospace;
  overflow-wrap: anywhere;
}
</style>
