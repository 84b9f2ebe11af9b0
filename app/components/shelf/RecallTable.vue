<script setup lang="ts">
import type { RecallAnswer } from '#shared/contracts'

/** Every jar that a basket or a packet went into. */
const props = defineProps<{ answer: RecallAnswer; of: 'basket' | 'packet' }>()
const format = useFormat()
const there = computed(() => props.answer.jars.filter(jar => jar.partLeftG > 0.05))
</script>

<template>
  <section class="card scroll">
    <p v-if="answer.jars.length === 0">Nothing of it has been packed yet.</p>
    <template v-else>
      <p>
        <strong>{{ format.weight(there.reduce((sum, jar) => sum + jar.partLeftG, 0)) }}</strong> of it stand in
        {{ plural(there.length, 'jar') }}; {{ format.weight(answer.eatenG) }} were eaten, poured on or thrown away.
      </p>
      <table class="ruled">
        <thead>
          <tr>
            <th>Jar</th>
            <th>What</th>
            <th>Stands</th>
            <th class="n">Of this {{ of }}, ever</th>
            <th class="n">Still in it</th>
            <th class="n">In the jar</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="jar in answer.jars" :key="jar.jarId">
            <td>
              <NuxtLink :to="`/jars/${jar.jarId}`"
                ><strong>{{ jar.number }}</strong></NuxtLink
              >
            </td>
            <td>
              {{ jar.foodName }}, {{ PURPOSE_WORDS[jar.purpose]
              }}{{ jar.baskets > 1 ? `, with ${plural(jar.baskets - 1, 'other basket or packet', 'other baskets or packets')}` : '' }}
            </td>
            <td>{{ jar.leftG > 0 ? jar.place : 'empty' }}</td>
            <td class="n">{{ format.weight(jar.everG) }}</td>
            <td class="n">{{ format.weight(jar.partLeftG) }}</td>
            <td class="n">{{ format.weight(jar.leftG) }}</td>
          </tr>
        </tbody>
      </table>
      <p class="quiet small">A jar that was topped up, split or begun again brings its baskets along, so all of them are here.</p>
    </template>
  </section>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
table {
  margin: 0.7rem 0;
}
</style>
