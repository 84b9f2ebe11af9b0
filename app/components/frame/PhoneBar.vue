<script setup lang="ts">
const emit = defineEmits<{ log: []; find: []; theme: [] }>()
const route = useRoute()
const more = ref(false)
watch(
  () => route.fullPath,
  () => {
    more.value = false
  },
)
function find() {
  more.value = false
  emit('find')
}
</script>

<template>
  <div>
    <nav class="phone" aria-label="Places">
      <NuxtLink to="/" class="place" :class="{ here: route.path === '/' }"><IconClockHour4 :size="24" aria-hidden="true" />Now</NuxtLink>
      <button type="button" class="place log" @click="$emit('log')"><IconPencilPlus :size="24" aria-hidden="true" />Log</button>
      <NuxtLink to="/shelf" class="place" :class="{ here: isPlaceOf('/shelf', route.path) }"
        ><IconBottle :size="24" aria-hidden="true" />Shelf</NuxtLink
      >
      <button type="button" class="place" :aria-expanded="more" @click="more = !more">
        <IconDots :size="24" aria-hidden="true" />More
      </button>
    </nav>
    <div v-if="more" class="sheet">
      <NuxtLink v-for="place in PLACES.filter(item => !['/', '/shelf'].includes(item.to))" :key="place.to" :to="place.to" class="sheet-item"
        ><component :is="place.icon" :size="22" aria-hidden="true" />{{ place.name }}</NuxtLink
      >
      <button type="button" class="sheet-item" @click="find"><IconSearch :size="22" aria-hidden="true" />Find</button>
      <button type="button" class="sheet-item" @click="$emit('theme')"><IconMoon :size="22" aria-hidden="true" />Light or dim</button>
    </div>
  </div>
</template>

<style scoped>
.phone {
  position: fixed;
  inset: auto 0 0;
  z-index: 30;
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  background: var(--card);
  border-top: 1px solid var(--rule);
  padding-bottom: env(safe-area-inset-bottom);
}
.place {
  display: grid;
  justify-items: center;
  gap: 0.1rem;
  padding: 0.5rem 0 0.45rem;
  min-height: 58px;
  border: 0;
  background: none;
  font-size: 0.84rem;
  color: var(--quiet);
  text-decoration: none;
  cursor: pointer;
}
.place.here {
  color: var(--dulse-ink);
  font-weight: 700;
}
.log {
  color: var(--on-dulse);
  background: var(--dulse);
  font-weight: 700;
}
.sheet {
  position: fixed;
  inset: auto 0 58px;
  z-index: 29;
  background: var(--card);
  border-top: 1px solid var(--rule);
  padding: 0.5rem;
  display: grid;
  grid-template-columns: 1fr 1fr;
  box-shadow: var(--el-box-shadow-light);
}
.sheet-item {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  min-height: 52px;
  padding: 0 0.8rem;
  text-decoration: none;
  border: 0;
  background: none;
  text-align: left;
}
</style>
