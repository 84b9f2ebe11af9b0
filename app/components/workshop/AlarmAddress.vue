<script setup lang="ts">
/** Messages to an address of the web. */
defineProps<{ problemOf: (field: string) => string | undefined; busy: boolean }>()
const emit = defineEmits<{ try: [] }>()
const form = defineModel<{ on: boolean; url: string }>({ required: true })
</script>

<template>
  <section class="card stack form" aria-label="By a message to the web">
    <h2>By a message to an address</h2>
    <p class="quiet">For a home automation, a chat or a script: JSON is posted to it.</p>
    <ElCheckbox v-model="form.on" size="large">Send messages</ElCheckbox>
    <template v-if="form.on">
      <TextField
        v-model="form.url"
        label="Address"
        placeholder="such as http://192.168.1.20:8080/dulse"
        :problem="problemOf('webhook.url')"
      />
      <div class="row"><ElButton :loading="busy" @click="emit('try')">Save and send one</ElButton></div>
      <p v-if="problemOf('webhookTrial')" class="problem" role="alert">{{ problemOf('webhookTrial') }}</p>
    </template>
  </section>
</template>
