<script setup lang="ts">
/** The pages of the Workshop. */
const TABS = [
  { to: '/workshop', words: 'Machines' },
  { to: '/workshop/tools', words: 'Tools' },
  { to: '/workshop/household', words: 'Household' },
  { to: '/workshop/places', words: 'Places' },
  { to: '/workshop/devices', words: 'Devices' },
  { to: '/workshop/alarms', words: 'Alarms' },
  { to: '/data', words: 'Data and copies' },
]
</script>

<template>
  <TabLinks :tabs="TABS" label="In the set-up" />
</template>
