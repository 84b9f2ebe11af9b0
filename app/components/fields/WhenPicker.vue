<script setup lang="ts">
/** The calendar, apart from its field: it is the heaviest part of any form and seldom needed. */
defineProps<{ id: string; label: string }>()
const model = defineModel<string | null>()
const { settings } = storeToRefs(useHouseholdStore())
const clock = computed(() => (settings.value.clockHours === 12 ? 'h:mm A' : 'HH:mm'))
</script>

<template>
  <ElDatePicker
    :id="id"
    v-model="model"
    type="datetime"
    :format="`D MMM YYYY ${clock}`"
    :time-format="clock"
    value-format="YYYY-MM-DDTHH:mm"
    :clearable="false"
    :automatic-dropdown="false"
    :aria-label="label"
  />
</template>
