<script setup lang="ts">
import type { CodeAnswer, Role } from '#shared/contracts'

/** Lets a phone in: a code for its camera that holds for two minutes. */
const emit = defineEmits<{ used: [] }>()
const role = ref<Role>('cook')
const made = ref<CodeAnswer>()
const refused = ref('')
const now = useNow({ interval: 1000 })
const left = computed(() => (made.value ? Math.max(0, Math.ceil((made.value.until - now.value.getTime()) / 1000)) : 0))
const spaced = computed(() => made.value?.code.replace(/(.{4})(?=.)/g, '$1 '))

async function make() {
  refused.value = ''
  try {
    made.value = await call('makeCode', { body: { role: role.value } })
  } catch (error) {
    refused.value = (error as Error).message
  }
}
// Whoever uses it appears in the list.
useIntervalFn(() => left.value > 0 && emit('used'), 3000)
</script>

<template>
  <section class="card stack" aria-label="Let a phone in">
    <h2>Let a phone or tablet in</h2>
    <ChoiceField
      v-model="role"
      label="What it may"
      :choices="[
        { value: 'cook', words: 'Log and read', note: 'a cook' },
        { value: 'keeper', words: 'Everything', note: 'a keeper: settings, copies, devices' },
      ]"
    />
    <div class="row">
      <ElButton type="primary" @click="make">{{ left > 0 ? 'Another code' : 'Show a code' }}</ElButton>
    </div>
    <p v-if="refused" class="problem" role="alert">{{ refused }}</p>
    <div v-if="made && left > 0" class="pairing">
      <QrCode v-if="made.link" :text="made.link" label="Code for the phone’s camera" />
      <div class="stack">
        <p class="code" aria-label="Code">{{ spaced }}</p>
        <p role="timer">For one device, {{ left }} s more.</p>
        <p class="quiet small">Point the phone’s camera at the picture, or open {{ made.link?.split('#')[0] }} on it and type the code.</p>
      </div>
    </div>
    <p v-else-if="made" class="quiet" role="status">The code is over. Show another one.</p>
  </section>
</template>

<style scoped>
.pairing {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem;
  align-items: start;
}
.pairing > .stack {
  flex: 1 1 14rem;
}
.code {
  font: 700 1.7rem/1.1 var(--display);
  letter-spacing: 0.06em;
}
</style>
