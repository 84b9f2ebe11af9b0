<script setup lang="ts">
/** The figures of a chart as a table, for whoever reads them rather than sees them. */
defineProps<{ caption: string; head: readonly string[]; rows: readonly (readonly string[])[] }>()
</script>

<template>
  <details class="as-table">
    <summary>As a table</summary>
    <div class="scroll">
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
