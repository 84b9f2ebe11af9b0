<script setup lang="ts">
/** Every jar that has something in it, place by place, with room for what was counted. */
useHead({ title: 'The shelf on paper · Dulse' })
const format = useFormat()
const { answer, problem, ready } = useServer('shelf')
await ready()
const places = computed(() => byPlace(answer.value?.jars ?? []))
</script>

<template>
  <div class="stack paper">
    <PaperHead
      title="What stands on the shelf"
      :back="{ to: '/shelf', words: 'Back to the shelf' }"
      :more="{ to: '/count', words: 'Type in what was counted' }"
    />
    <p v-if="problem" class="problem">{{ problem }}</p>
    <p v-else-if="places.length === 0">The shelf is empty.</p>
    <section v-for="{ place, jars } in places" :key="place">
      <h2>{{ place }}</h2>
      <table class="paper-lines">
        <thead>
          <tr>
            <th scope="col">Jar</th>
            <th scope="col">What</th>
            <th scope="col">Packed</th>
            <th scope="col">Best by</th>
            <th scope="col" class="n">By the log</th>
            <th scope="col">Counted</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="jar in jars" :key="jar.jarId">
            <td>
              <strong>{{ jar.number }}</strong>
            </td>
            <td>{{ jar.name ?? answer?.foods[jar.foodKey]?.name }}, {{ PURPOSE_WORDS[jar.purpose] }}</td>
            <td>{{ format.month(jar.packedAt) }}</td>
            <td>{{ format.month(jar.bestTo) }}</td>
            <td class="n">{{ format.weight(jar.leftG) }}</td>
            <td class="line" />
          </tr>
        </tbody>
      </table>
    </section>
  </div>
</template>
