<script setup lang="ts">
/** The household's own recipes: blends, and dishes that use powders. */
const store = useKitchen()
const recipes = computed(() => store.answer?.recipes ?? [])
const dishes = computed(() => recipes.value.filter(recipe => recipe.kind === 'dish'))
const blends = computed(() => recipes.value.filter(recipe => recipe.kind === 'blend'))
const nameOf = (key: string) =>
  (
    store.answer?.jars.find(jar => jar.foodKey === key)?.foodName ??
    store.answer?.goods.find(item => item.key === key)?.name ??
    key.replaceAll('-', ' ')
  ).toLowerCase()
</script>

<template>
  <div class="stack">
    <div class="row">
      <ElButton type="primary" @click="navigateTo('/kitchen/recipes/edit')">A new dish</ElButton
      ><ElButton @click="navigateTo('/kitchen/blend')">A new blend</ElButton>
    </div>
    <section v-if="dishes.length" class="card" aria-label="Dishes">
      <h2>Dishes</h2>
      <ul class="plain-list">
        <li v-for="recipe in dishes" :key="recipe.id">
          <NuxtLink :to="`/kitchen/recipes/${recipe.id}`" class="line"
            ><strong>{{ recipe.name }}</strong
            ><span class="quiet">{{
              recipe.kind === 'dish' ? recipe.powders.map(line => nameOf(line.foodKey)).join(', ') : ''
            }}</span></NuxtLink
          >
        </li>
      </ul>
    </section>
    <section v-if="blends.length" class="card" aria-label="Blends">
      <h2>Blends</h2>
      <ul class="plain-list">
        <li v-for="recipe in blends" :key="recipe.id">
          <NuxtLink :to="{ path: '/kitchen/blend', query: { recipe: recipe.id } }" class="line"
            ><strong>{{ recipe.name }}</strong
            ><span class="quiet">{{
              recipe.kind === 'blend' ? recipe.parts.map(part => nameOf(part.foodKey)).join(', ') : ''
            }}</span></NuxtLink
          >
        </li>
      </ul>
    </section>
    <p v-if="recipes.length === 0" class="card quiet">
      None yet. A dish keeps how much of which powder goes in; the amounts then follow each jar’s own density and water.
    </p>
    <RecipesOnce />
  </div>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1rem;
  align-items: baseline;
  min-height: 48px;
  padding: 0.6rem 0;
  text-decoration: none;
}
li + li .line {
  border-top: 1px solid var(--rule);
}
.line:hover strong {
  color: var(--dulse-ink);
}
</style>
