<script setup lang="ts">
/** Where a device of the house signs in: by a code from a keeper, or by the passphrase. */
definePageMeta({ layout: 'door' })
useHead({ title: 'Sign in · Dulse' })
const route = useRoute()
// Behind the hash, which no server is sent; and off the address at once, so that it is not kept in the history.
const code = ref(decodeURIComponent(route.hash.slice(1)))
const way = ref<'code' | 'passphrase'>(code.value ? 'code' : 'passphrase')
const passphrase = ref('')
const name = useLocalStorage('dulse.device', guess())
const problems = ref<Record<string, string>>({})
const busy = ref(false)
onMounted(() => {
  if (route.hash) window.history.replaceState(window.history.state, '', '/enter')
})

/** What a device is, said so that its owner knows it in a list. */
function guess(): string {
  const narrow = Math.min(window.screen.width, window.screen.height) < 500
  return narrow ? 'Phone' : navigator.maxTouchPoints > 1 ? 'Tablet' : 'Computer'
}
/** Only into this server: an address of elsewhere is none. */
const then = computed(() => {
  const { then: wanted } = route.query
  return typeof wanted === 'string' && /^\/(?![/\\])/.test(wanted) ? wanted : '/'
})
async function enter() {
  busy.value = true
  problems.value = {}
  try {
    await (way.value === 'code'
      ? call('pair', { body: { code: code.value, name: name.value } })
      : call('enter', { body: { passphrase: passphrase.value, name: name.value } }))
    window.location.replace(then.value)
  } catch (error) {
    problems.value = fieldsOf(error)
    busy.value = false
  }
}
</script>

<template>
  <main id="main" class="door">
    <h1>Dulse</h1>
    <p class="quiet">This household’s logbook asks who you are, once on each device.</p>
    <form class="form card" @submit.prevent="enter">
      <ChoiceField
        v-model="way"
        label="Come in by"
        hide-label
        :choices="[
          { value: 'code', words: 'A code' },
          { value: 'passphrase', words: 'The passphrase' },
        ]"
      />
      <TextField
        v-if="way === 'code'"
        v-model="code"
        label="Code"
        hint="A keeper shows it under Set-up, Home network."
        :problem="problems.code"
      />
      <SecretField
        v-else
        v-model="passphrase"
        label="Passphrase of the household"
        autocomplete="current-password"
        :problem="problems.passphrase"
      />
      <TextField
        v-model="name"
        label="Name of this device"
        hint="As others shall see it, such as “Mira’s phone”."
        :problem="problems.name"
      />
      <p v-if="problems.all" class="problem" role="alert">{{ problems.all }}</p>
      <ElButton type="primary" native-type="submit" :loading="busy">Come in</ElButton>
    </form>
    <p class="quiet small">A cookie of this server keeps it, for half a year.</p>
  </main>
</template>

<style scoped>
.door {
  max-width: 27rem;
  margin: 0 auto;
  padding: 12vh 1rem 2rem;
  display: grid;
  gap: 0.8rem;
}
</style>
