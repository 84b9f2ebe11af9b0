<script setup lang="ts">
import type { HomeAnswer } from '#shared/contracts'

/** How a phone comes to trust this server: once, before it is let in. */
const props = defineProps<{ home: HomeAnswer }>()
const [first] = props.home.trustLinks
</script>

<template>
  <section class="card stack" aria-label="Trust">
    <h2>First, once on each phone: trust</h2>
    <div class="trust">
      <QrCode v-if="first" :text="first" label="Page for the phone to trust this server" />
      <ol>
        <li>
          Point the phone’s camera here, or open <strong class="break">{{ first }}</strong> on it.
        </li>
        <li>
          Get the household’s certificate there, and see that its fingerprint is
          <span class="print">{{ home.fingerprint }}</span>
        </li>
        <li>Trust it; the page says where phones keep that.</li>
      </ol>
    </div>
    <p class="quiet small">
      The certificate is this household’s own. It can vouch for names and addresses of a home, never for sites of the world. Its key does
      not leave this computer.
    </p>
  </section>
</template>

<style scoped>
.trust {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem;
  align-items: start;
}
ol {
  flex: 1 1 15rem;
  margin: 0;
  padding-left: 1.2rem;
  display: grid;
  gap: 0.5rem;
}
.break {
  overflow-wrap: anywhere;
}
.print {
  display: block;
  font:
    600 0.86rem/1.5 ui-monospace,
    monospace;
  overflow-wrap: anywhere;
}
</style>
