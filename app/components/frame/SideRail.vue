<script setup lang="ts">
defineEmits<{ find: []; keys: []; theme: [] }>()
const route = useRoute()
const { dim } = useTheme()
</script>

<template>
  <nav class="rail" aria-label="Places">
    <NuxtLink
      v-for="place in PLACES"
      :key="place.to"
      :to="place.to"
      class="place"
      :class="{ here: isPlaceOf(place.to, route.path) }"
      :aria-current="isPlaceOf(place.to, route.path) ? 'page' : undefined"
    >
      <component :is="place.icon" :size="25" aria-hidden="true" />
      {{ place.name }}
    </NuxtLink>
    <div class="foot">
      <button type="button" class="place" @click="$emit('find')"><IconSearch :size="23" aria-hidden="true" /> Find</button>
      <button type="button" class="place" @click="$emit('theme')">
        <component :is="dim ? IconSun : IconMoon" :size="23" aria-hidden="true" /> {{ dim ? 'Light' : 'Dim' }}
      </button>
      <button type="button" class="place" @click="$emit('keys')"><IconKeyboard :size="23" aria-hidden="true" /> Keys</button>
    </div>
  </nav>
</template>

<style scoped>
.rail {
  background: var(--sunk);
  border-right: 1px solid var(--rule);
  display: flex;
  flex-direction: column;
  padding-top: 0.6rem;
  position: sticky;
  top: 66px;
  height: calc(100dvh - 66px);
  overflow-y: auto;
}
.place {
  display: grid;
  justify-items: center;
  gap: 0.2rem;
  width: 100%;
  padding: 0.62rem 0.1rem;
  min-height: 60px;
  font-size: 0.82rem;
  line-height: 1.2;
  text-decoration: none;
  color: var(--quiet);
  border: 0;
  border-left: 4px solid transparent;
  border-right: 4px solid transparent;
  background: none;
  cursor: pointer;
}
.place:hover {
  color: var(--ink);
}
.place.here {
  color: var(--dulse-ink);
  font-weight: 700;
  border-left-color: var(--dulse);
  background: var(--paper);
}
.foot {
  margin-top: auto;
  padding-bottom: 0.4rem;
}
.foot .place {
  min-height: 52px;
  padding: 0.4rem 0.1rem;
}
</style>
