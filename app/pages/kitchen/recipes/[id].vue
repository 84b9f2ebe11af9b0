<script setup lang="ts">
import { scaledLine } from '#core/using'

/** A dish: its powders by the jars at hand, then the rest. */
const store = useKitchen()
const route = useRoute()
const format = useFormat()
const recipe = computed(() => (store.answer?.recipes ?? []).find(item => item.id === route.params.id))
const times = ref(1)
const sure = ref(false)
/** What goes with it, for so many times; a line without a figure stays as it was written. */
const others = computed(() => (recipe.value?.kind === 'dish' ? recipe.value.others : []).map(line => scaledLine(line, times.value) ?? line))
const print = () => window.print()
const problem = ref('')
useHead({ title: () => `${recipe.value?.name ?? 'Recipe'} · Dulse` })
async function remove() {
  try {
    await call('removeRecipe', { params: { recipeId: String(route.params.id) } })
    await store.load()
    await navigateTo('/kitchen/recipes')
  } catch (error) {
    problem.value = (error as Error).message
  }
}
</script>

<template>
  <div v-if="!recipe || recipe.kind !== 'dish'" class="card">
    <h2>No such recipe</h2>
    <p><NuxtLink to="/kitchen/recipes">To the recipes</NuxtLink></p>
  </div>
  <div v-else class="two">
    <section class="card stack" aria-label="What goes in">
      <header class="row between">
        <h2 class="title">{{ recipe.name }}</h2>
        <span v-if="recipe.serves" class="quiet">{{ recipe.serves }}</span>
      </header>
      <ChoiceField
        v-model="times"
        class="no-print"
        label="How much of it"
        :choices="[
          { value: 0.5, words: 'Half' },
          { value: 1, words: 'Once' },
          { value: 2, words: 'Twice' },
          { value: 3, words: 'Three times' },
        ]"
      />
      <DishLines :recipe="recipe" :times="times" />
      <div v-if="others.length">
        <h3>And</h3>
        <ul class="others">
          <li v-for="(line, i) in others" :key="i">{{ line }}</li>
        </ul>
      </div>
    </section>
    <div class="stack">
      <section class="card" aria-label="How">
        <h2>How</h2>
        <ol class="steps">
          <li v-for="step in recipe.steps" :key="step">{{ format.sentence(step) }}</li>
        </ol>
        <p v-if="recipe.note" class="quiet">{{ format.sentence(recipe.note) }}</p>
      </section>
      <div class="row no-print">
        <ElButton @click="print">Print</ElButton><ElButton @click="navigateTo(`/kitchen/recipes/edit?id=${recipe.id}`)">Change it</ElButton
        ><ElButton v-if="!sure" @click="sure = true">Remove it</ElButton
        ><template v-else
          ><span>Remove it?</span><ElButton type="danger" plain @click="remove">Remove</ElButton
          ><ElButton @click="sure = false">Keep it</ElButton></template
        >
      </div>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    </div>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr);
  gap: 1rem;
  align-items: start;
}
.title {
  font-size: 1.4rem;
}
.others {
  margin: 0.3rem 0;
  padding-left: 1.2rem;
}
.steps {
  display: grid;
  gap: 0.5rem;
  padding-left: 1.3rem;
  margin: 0.6rem 0;
}
@media print {
  .two {
    display: block;
  }
}
@media (width <= 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
