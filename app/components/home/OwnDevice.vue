<script setup lang="ts">
/** Under what name this device is signed in, and the way out; nothing on the computer that Dulse runs on. */
const { answer, ready } = useServer('whoAmI')
await ready()
const ROLE_WORDS = { cook: 'logs and reads', keeper: 'may change everything' }

const outbox = useOutboxStore()
/** What has not been sent: it stays with who wrote it. */
const asking = ref(false)
async function signOut(sure = false) {
  if (outbox.waiting.length > 0 && !sure) return void (asking.value = true)
  await call('leave')
  await forgetKept()
  signedInAs.value = undefined
  window.location.replace('/enter')
}
</script>

<template>
  <div v-if="answer?.name && answer.role" class="row between">
    <p>
      This device is <strong>{{ answer.name }}</strong> and {{ ROLE_WORDS[answer.role] }}.
    </p>
    <ElButton @click="signOut()">Sign out</ElButton>
    <div v-if="asking" class="caution" role="alertdialog" aria-label="Not sent yet">
      <p>
        {{ plural(outbox.waiting.length, 'entry', 'entries') }} of yours {{ outbox.waiting.length === 1 ? 'has' : 'have' }} not been sent:
        {{ outbox.waiting.map(parcel => parcel.words).join(', ') }}. Signed out,
        {{ outbox.waiting.length === 1 ? 'it stays' : 'they stay' }} here under your name; nobody else sends them as theirs.
      </p>
      <div class="row">
        <ElButton @click="asking = false">Stay signed in</ElButton>
        <ElButton @click="signOut(true)">Sign out all the same</ElButton>
      </div>
    </div>
  </div>
</template>
