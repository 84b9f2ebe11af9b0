<script setup lang="ts">
const emit = defineEmits<{ close: [] }>()
const open = ref(true)
const KEYS = [
  ['L', 'Log something'],
  ['Ctrl K', 'Find a batch, a jar, a food'],
  ['?', 'These keys'],
  ['D', 'Light or dim'],
  ['G then N, B, P, S', 'Go to Now, Batches, Plan, Shelf'],
  ['W', 'Weigh (in a batch)'],
  ['F', 'Feel (in a batch)'],
  ['H', 'Heat (in a batch)'],
  ['A', 'Air (in a batch)'],
  ['J', 'Air in a closed jar (in a batch)'],
  ['R', 'Rack (in a batch)'],
  ['N', 'Note (in a batch)'],
  ['Shift ↑ ↓', 'Move a tray (on a rack)'],
  ['T, O, X', 'Turn it, turn its food over, take it out (on a rack)'],
]
</script>

<template>
  <ElDialog v-model="open" title="Keys" width="440px" @closed="emit('close')">
    <dl class="keys">
      <template v-for="[key, what] in KEYS" :key="key">
        <dt>
          <kbd>{{ key }}</kbd>
        </dt>
        <dd>{{ what }}</dd>
      </template>
    </dl>
  </ElDialog>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.6rem 1.2rem;
  margin: 0;
}
dd {
  margin: 0;
}
kbd {
  font: 650 0.95rem var(--text);
}
</style>
