<script setup lang="ts">
import { useQueryCache } from '@pinia/colada'
import type { Parcel } from '~/data/parcel'

/** What waits to be sent, and what was set aside: in sight on every page, until a hand puts it right. */
const outbox = useOutboxStore()
const route = useRoute()
const cache = useQueryCache()
const format = useFormat()
const { now } = useClock()
function tryNow() {
  void outbox.flush()
  void cache.invalidateQueries().catch(() => undefined)
}
/** One entry of a batch or a jar is put right in its own form. */
function correct(parcel: Parcel) {
  const [item] = parcel.items
  const page = item && 'jarId' in item ? `/jars/${item.jarId}` : `/batches/${parcel.about}`
  void navigateTo({ path: page, query: { aside: parcel.id } }, { replace: route.path === page })
}
const canCorrect = ({ items }: Parcel) => items.length === 1 && 'entry' in items[0]! && items[0].entry.body.kind !== 'void'
</script>

<template>
  <div aria-live="polite">
    <div v-if="signedOut" class="banner away">
      <p>
        <strong>This device has to sign in again.</strong>
        {{
          outbox.waiting.length
            ? `${plural(outbox.waiting.length, 'entry', 'entries')} kept here until then.`
            : 'What you log is kept here until then.'
        }}
      </p>
      <ElButton type="primary" @click="navigateTo({ path: '/enter', query: { then: route.fullPath } }, { external: true })"
        >Sign in</ElButton
      >
    </div>
    <div v-else-if="outbox.away || outOfTouch" class="banner away">
      <p>
        <strong>Out of touch with Dulse’s server.</strong>
        <template v-if="outbox.waiting.length">
          {{ plural(outbox.waiting.length, 'entry', 'entries') }} kept here and sent when it is back:
          {{ outbox.waiting.map(parcel => parcel.words).join(', ') }}.</template
        >
        <template v-else> What you log meanwhile is kept here.</template>
        <template v-if="keptSince"> What you see is as of {{ format.moment(keptSince, now) }}.</template>
      </p>
      <ElButton @click="tryNow">Try now</ElButton>
    </div>
    <div v-else-if="outbox.waiting.some(parcel => parcel.clock)" class="banner away">
      <p>
        <strong>Waits for the clocks:</strong>
        {{
          outbox.waiting
            .filter(parcel => parcel.clock)
            .map(parcel => parcel.words)
            .join(', ')
        }}. By the server’s clock this has not happened yet. It is sent when the clock that is wrong is set.
      </p>
      <ElButton @click="outbox.flush()">Try now</ElButton>
    </div>
    <div v-else-if="outbox.waiting.some(parcel => parcel.failures > 0)" class="banner away">
      <p>
        <strong>The server failed at this, and is asked again:</strong>
        {{
          outbox.waiting
            .filter(parcel => parcel.failures > 0)
            .map(parcel => parcel.words)
            .join(', ')
        }}.
      </p>
      <ElButton @click="outbox.flush()">Try now</ElButton>
    </div>
    <p v-if="outbox.full" class="banner no">
      This browser’s storage is full: what is logged goes straight to the server. While it is out of touch, leave this page open.
    </p>
    <div v-for="parcel in outbox.aside" :key="parcel.id" class="banner no">
      <p>
        <strong>Not taken: {{ parcel.words }}.</strong> {{ parcel.aside!.message }}
      </p>
      <div class="row">
        <ElButton v-if="canCorrect(parcel)" type="primary" @click="correct(parcel)">Put it right</ElButton>
        <ElButton @click="outbox.sendAgain(parcel)">Send again</ElButton>
        <ElButton @click="outbox.throwAway(parcel)">Throw it away</ElButton>
      </div>
    </div>
  </div>
</template>

<style scoped>
.banner {
  display: flex;
  gap: 1rem;
  align-items: center;
  justify-content: space-between;
  padding: 0.7rem 1rem;
  border-radius: 10px;
  margin-bottom: 0.9rem;
}
.away {
  background: var(--amber-wash);
  color: var(--ink);
}
.no {
  background: var(--brick-wash);
  color: var(--ink);
}
@media (width <= 760px) {
  .banner {
    display: grid;
  }
}
</style>
