<script setup lang="ts">
const outbox = useOutboxStore()
</script>

<template>
  <div aria-live="polite">
    <div v-if="outbox.away" class="banner away">
      <p>
        <strong>Out of touch with Dulse’s server.</strong>
        <template v-if="outbox.waiting.length">
          {{ plural(outbox.waiting.length, 'entry', 'entries') }} kept here and sent when it is back:
          {{ outbox.waiting.map(item => item.words).join(', ') }}.</template
        >
        <template v-else> What you log meanwhile is kept here.</template>
      </p>
      <ElButton @click="outbox.flush()">Try now</ElButton>
    </div>
    <div v-for="item in outbox.refused" :key="item.body.id" class="banner no">
      <p>
        <strong>Not taken: {{ item.words }}.</strong> {{ item.refusal.message }}
      </p>
      <ElButton @click="outbox.dismiss(item)">Put aside</ElButton>
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
</style>
