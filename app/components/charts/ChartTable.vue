<script setup lang="ts">
/** The figures of a chart as a table, for whoever reads them rather than sees them. */
defineProps<{ caption: string; head: readonly string[]; rows: readonly (readonly string[])[] }>()
/** Hundreds of figures are not drawn for nobody. */
const open = ref(false)
</script>

<template>
  <details class="as-table" @toggle="event => (open = (event.target as HTMLDetailsElement).open)">
    <summary>As a table</summary>
    <div v-if="open" class="scroll">
      <table class="figures">
        <caption class="visually-hidden">
          {{
            caption
          }}
        </caption>
        <thead>
          <tr>
            <th v-for="name in head" :key="name" scope="col">{{ name }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, i) in rows" :key="i">
            <td v-for="(cell, k) in row" :key="k">{{ cell }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </details>
</template>

<style scoped>
summary {
  min-height: 44px;
  align-content: center;
  cursor: pointer;
  color: var(--quiet);
  font-weight: 650;
}
.scroll {
  overflow: auto;
  max-height: 320px;
}
</style>
