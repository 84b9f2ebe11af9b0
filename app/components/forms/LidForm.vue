<script setup lang="ts">
import { measuredLeak, permeanceOf } from '#core/keeping'

/** What an unknown lid or bag lets in: measured with silica gel, or from its film's figure. */
const leak = defineModel<number>()
const { settings } = storeToRefs(useHouseholdStore())
const how = ref<'gel' | 'film'>('gel')
const gainedG = ref<number>()
const days = ref<number | undefined>(7)
const humidity = ref<number | undefined>(55)
const wvtr = ref<number>()
const areaCm2 = ref<number>()
watchEffect(() => {
  leak.value =
    how.value === 'gel'
      ? gainedG.value && days.value && humidity.value
        ? measuredLeak({
            gainedG: gainedG.value,
            days: days.value,
            room: { celsius: settings.value.pantryC, humidity: humidity.value / 100 },
          })
        : undefined
      : wvtr.value && areaCm2.value
        ? permeanceOf(wvtr.value, areaCm2.value / 1e4)
        : undefined
})
</script>

<template>
  <div class="lid">
    <p class="quiet small">
      Close a spoon of fresh silica gel in the empty package, weigh the gel, and weigh it again after a week: what it gained came through
      the lid.
    </p>
    <ChoiceField
      v-model="how"
      label="Known by"
      :choices="[
        { value: 'gel', words: 'Silica gel, weighed' },
        { value: 'film', words: 'The film’s figure', note: 'g/m² a day at 38 °C, 90 %' },
      ]"
    />
    <div v-if="how === 'gel'" class="pair">
      <NumberField v-model="gainedG" label="The gel gained, g" :least="0.01" :most="500" :decimals="2" bare /><NumberField
        v-model="days"
        label="In days"
        :least="0.5"
        :most="365"
        bare
      /><NumberField v-model="humidity" label="Room, % humidity" :least="5" :most="99" :decimals="0" bare />
    </div>
    <div v-else class="pair">
      <NumberField v-model="wvtr" label="Rate, g/m² a day" :least="0.001" :most="2000" :decimals="3" bare /><NumberField
        v-model="areaCm2"
        label="Its area, cm²"
        :least="1"
        :most="20000"
        bare
      />
    </div>
    <p v-if="leak !== undefined" class="small">
      <strong>{{ (leak * 1000).toPrecision(2) }} mg a day</strong>
      <span class="quiet">for each kPa of vapour; a lined screw lid about 1, a plastic lid 20, a plain bag 50.</span>
    </p>
  </div>
</template>

<style scoped>
.lid {
  display: grid;
  gap: 0.6rem;
  border-left: 3px solid var(--rule);
  padding-left: 0.9rem;
}
</style>
