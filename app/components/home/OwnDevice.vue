<script setup lang="ts">
/** Under what name this device is signed in, and the way out; nothing on the computer that Dulse runs on. */
const { answer, ready } = useServer('whoAmI')
await ready()
const ROLE_WORDS = { cook: 'logs and reads', keeper: 'may change everything' }

async function signOut() {
  await call('leave')
  await forgetKept()
  window.location.replace('/enter')
}
</script>

<template>
  <div v-if="answer?.name && answer.role" class="row between">
    <p>
      This device is <strong>{{ answer.name }}</strong> and {{ ROLE_WORDS[answer.role] }}.
    </p>
    <ElButton @click="signOut">Sign out</ElButton>
  </div>
</template>
