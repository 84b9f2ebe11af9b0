<script setup lang="ts">
/** What this device tells by itself. */
const { choice: here, permission, ask } = usePageAlarms()
async function turnOn(on: boolean) {
  here.value.on = on
  if (on && permission.value === 'default') await ask()
}
</script>

<template>
  <section class="card stack" aria-label="On this device">
    <h2>On this device</h2>
    <p class="quiet">While Dulse is open or installed here: a notification, a sound, and words for a screen reader.</p>
    <ElCheckbox :model-value="here.on" size="large" @update:model-value="on => turnOn(Boolean(on))">Tell me here</ElCheckbox>
    <ElCheckbox v-model="here.sound" size="large" :disabled="!here.on">With a sound</ElCheckbox>
    <ElCheckbox v-model="here.quiet" size="large" :disabled="!here.on">Quiet at night, except where food spoils</ElCheckbox>
    <p v-if="here.on && permission === 'denied'" class="caution">
      This browser keeps Dulse’s notifications back: allow them in the settings of this page. The sound comes all the same.
    </p>
    <p v-else-if="here.on && permission === 'default'">
      <ElButton @click="ask">Let notifications through</ElButton>
    </p>
    <p v-else-if="here.on && permission === 'missing'" class="quiet small">This browser has no notifications; the sound comes.</p>
  </section>
</template>
