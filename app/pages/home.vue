<script setup lang="ts">
import type { HomeAnswer } from '#shared/contracts'

/** The home network: who may in and how. */
useHead({ title: 'Home network · Dulse' })
const { answer, problem, ready, load } = useServer('home')
await ready()
const changing = ref(false)
const problems = ref<Record<string, string>>({})
const busy = ref(false)
const cache = useQueryCache()

function took(home: HomeAnswer) {
  cache.setQueryData(keyOf('home', '/api/home'), home)
  changing.value = false
}
async function choose(body: { open?: boolean; askHere?: boolean }) {
  busy.value = true
  problems.value = {}
  try {
    took(await call('chooseHome', { body }))
    // This computer asks from now on: what it does next it does signed in.
    if (body.askHere) window.location.assign('/enter')
  } catch (error) {
    problems.value = fieldsOf(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="stack">
    <header class="page-head">
      <h1>Home network</h1>
      <NuxtLink to="/workshop">set-up</NuxtLink>
    </header>
    <p v-if="problem" class="card problem">{{ problem }}</p>
    <template v-if="answer">
      <section class="card stack" aria-label="Open or closed">
        <div class="row between">
          <h2>{{ answer.listening ? 'Open to the house' : answer.open ? 'To be open, and is not' : 'This computer only' }}</h2>
          <span class="tag" :class="answer.listening ? 'good' : ''">{{ answer.listening ? 'with a passphrase and TLS' : 'closed' }}</span>
        </div>
        <p v-if="answer.problem" class="problem" role="alert">{{ answer.problem }}</p>
        <template v-if="!answer.hasPassphrase">
          <p>
            Phones and tablets of the house can log too. Choose a passphrase first: without one, everybody in the house could write. Whoever
            knows it may change everything; others are let in by a code.
          </p>
          <PassphraseForm :has="false" @done="took" />
        </template>
        <template v-else>
          <p v-if="answer.listening">
            At <strong v-for="(link, i) in answer.links" :key="link" class="link">{{ i ? ', ' : '' }}{{ link }}</strong>
          </p>
          <p v-else class="quiet">Nothing but this computer reaches the logbook.</p>
          <div class="row">
            <ElButton v-if="!answer.listening" type="primary" :loading="busy" @click="choose({ open: true })"
              >Open it to the house</ElButton
            >
            <ElButton v-else :loading="busy" @click="choose({ open: false })">Close it</ElButton>
            <ElButton v-if="!changing" @click="changing = true">Change the passphrase</ElButton>
            <ElButton v-if="!answer.askHere" @click="choose({ askHere: true })">Ask it on this computer too</ElButton>
            <ElButton v-else @click="choose({ askHere: false })">Do not ask on this computer</ElButton>
          </div>
          <PassphraseForm v-if="changing" has @done="took" @leave="changing = false" />
        </template>
        <p v-for="(words, field) in problems" :key="field" class="problem" role="alert">{{ words }}</p>
      </section>
      <div v-if="answer.hasPassphrase" class="two">
        <div class="stack">
          <TrustCard v-if="answer.listening" :home="answer" />
          <PairCard v-if="answer.listening" @used="load" />
        </div>
        <div class="stack">
          <HomeDevices :home="answer" @changed="took" />
          <KeysCard :home="answer" @changed="took" />
        </div>
      </div>
    </template>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 1rem;
  align-items: start;
}
@media (width <= 1000px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
.link {
  overflow-wrap: anywhere;
}
</style>
