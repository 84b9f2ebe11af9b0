<script setup lang="ts">
/** Letters through the household's own mailbox. */
export interface MailForm {
  on: boolean
  host: string
  port: number | undefined
  secure: boolean
  user: string
  password: string
  from: string
  to: string
}
defineProps<{ problemOf: (field: string) => string | undefined; busy: boolean; hasPassword: boolean }>()
const emit = defineEmits<{ try: [] }>()
const form = defineModel<MailForm>({ required: true })
</script>

<template>
  <section class="card stack form" aria-label="By mail">
    <h2>By mail</h2>
    <p class="quiet">Through your own mailbox. The password stays beside the keys of this server and goes into no copy or export.</p>
    <ElCheckbox v-model="form.on" size="large">Send mail</ElCheckbox>
    <template v-if="form.on">
      <div class="pair">
        <TextField v-model="form.host" label="Outgoing server" placeholder="such as smtp.example.org" :problem="problemOf('mail.host')" />
        <NumberField
          v-model="form.port"
          label="Port"
          hint="587 usually; 465 encrypted from the start"
          :least="1"
          :most="65535"
          :decimals="0"
          bare
        />
        <TextField v-model="form.user" label="User" optional />
        <SecretField
          v-model="form.password"
          label="Password"
          :hint="hasPassword ? 'kept; leave it empty to keep it' : 'where the server asks for one'"
          autocomplete="off"
        />
        <TextField v-model="form.from" label="From" placeholder="you@example.org" :problem="problemOf('mail.from')" />
        <TextField v-model="form.to" label="To" placeholder="you@example.org" :problem="problemOf('mail.to')" />
      </div>
      <ElCheckbox v-model="form.secure" size="large">Encrypted from the start (port 465)</ElCheckbox>
      <div class="row"><ElButton :loading="busy" @click="emit('try')">Save and send one</ElButton></div>
      <p v-if="problemOf('mailTrial')" class="problem" role="alert">{{ problemOf('mailTrial') }}</p>
    </template>
  </section>
</template>
