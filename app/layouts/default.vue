<script setup lang="ts">
const finder = ref(false)
const keys = ref(false)
const log = ref(false)
const theme = useTheme()
const ahead = useTypeAhead()
const { timers } = useTimers()
const { choice: alarms } = usePageAlarms()
const route = useRoute()
usePageFocus()
onMounted(() => {
  // Shortcuts of the installed application.
  if (route.query.open === 'log') log.value = true
  if (route.query.open === 'find') find()
})

function find() {
  ahead.begin()
  finder.value = true
}

useKeys({
  '$mod+k': find,
  'Shift+?': () => {
    keys.value = true
  },
  l: () => {
    log.value = true
  },
  d: () => theme.turn(),
  'g n': () => void navigateTo('/'),
  'g b': () => void navigateTo('/batches'),
  'g p': () => void navigateTo('/plan'),
  'g s': () => void navigateTo('/shelf'),
})
</script>

<template>
  <div class="frame">
    <a class="skip" href="#main">To the content</a>
    <StageBand class="frame-band" @log="log = true" />
    <SideRail class="frame-rail" @find="find" @keys="keys = true" @theme="theme.turn()" />
    <main id="main" class="frame-main" tabindex="-1">
      <VersionBanner />
      <HealthBanner />
      <OutboxBanner />
      <slot />
    </main>
    <LazyAlarmBell v-if="alarms.on" />
    <LazyTimerBar v-if="timers.length" />
    <PhoneBar class="frame-phone" @log="log = true" @find="find" @theme="theme.turn()" />
    <LazyFinderDialog v-if="finder" :take-typed="ahead.take" @close="finder = false" />
    <LazyKeysDialog v-if="keys" @close="keys = false" />
    <LazyLogDialog v-if="log" @close="log = false" />
  </div>
</template>

<style scoped>
.frame {
  display: grid;
  grid-template: 'band band' auto 'rail main' 1fr / 84px minmax(0, 1fr);
  min-height: 100dvh;
}
.frame-band {
  grid-area: band;
  position: sticky;
  top: 0;
  z-index: 20;
}
.frame-rail {
  grid-area: rail;
}
.frame-main {
  grid-area: main;
  padding: 1.1rem 1.5rem 2.5rem;
  max-width: 1500px;
  outline: none;
}
.frame-phone {
  display: none;
}
.skip {
  position: fixed;
  left: 1rem;
  top: -4rem;
  z-index: 40;
  background: var(--card);
  padding: 0.8rem 1rem;
  border-radius: 8px;
}
.skip:focus {
  top: 0.6rem;
}
@media (width <= 760px) {
  .frame {
    grid-template: 'band' auto 'main' 1fr / minmax(0, 1fr);
  }
  .frame-rail {
    display: none;
  }
  .frame-main {
    padding: 0.9rem 0.8rem 6rem;
  }
  .frame-phone {
    display: flex;
  }
}
/* Large letters leave little room: what stands fast must not take it. */
@media (height <= 500px) {
  .frame-band {
    position: static;
  }
}
@media print {
  .frame {
    display: block;
  }
  .frame-band,
  .frame-rail,
  .frame-phone {
    display: none;
  }
  .frame-main {
    padding: 0;
  }
}
</style>
