<script setup lang="ts">
import type { Purpose } from '#core/foods'
import type { BoughtIn } from '#core/planning'

/** Peeling a mountain of one's own, or peeled and frozen from the shop: by minutes and money. */
const props = defineProps<{ foodKey: string; purpose: Purpose; minutesKg: number; price?: number; weightG?: number }>()
const format = useFormat()
const own = ref<number | undefined>(
  props.price && props.weightG ? Math.round(100 * format.priceOf(props.price / (props.weightG / 1000))) / 100 : 0,
)
const minutes = ref<number | undefined>(Math.round(10 * format.priceOf(props.minutesKg)) / 10)
const bought = ref<number>()
const boughtMinutes = ref<number | undefined>(Math.round(10 * format.priceOf(2)) / 10)
const worth = ref<number | undefined>(0)
const { answer, problem } = useServer('forecastBoughtIn', () => {
  const [ownPriceKg, ownMinutesKg, boughtPriceKg, boughtMinutesKg] = [own, minutes, bought, boughtMinutes].map(({ value }) =>
    value === undefined ? undefined : format.priceFrom(value),
  )
  const hourWorth = worth.value
  if ([ownPriceKg, ownMinutesKg, boughtPriceKg, boughtMinutesKg, hourWorth].includes(undefined)) return undefined
  const { foodKey, purpose } = props
  return { query: { foodKey, purpose, ownPriceKg, ownMinutesKg, boughtPriceKg, boughtMinutesKg, hourWorth } }
})
const side = (value: BoughtIn['own']) =>
  `${format.weight(value.kilograms * 1000)}, ${value.money.toFixed(2)} and ${Math.round(value.minutes)} min of work`
</script>

<template>
  <details class="card">
    <summary><h2>Peel your own, or buy it in?</h2></summary>
    <div class="form">
      <div class="pair">
        <NumberField v-model="own" :label="`Yours, a ${format.each()} costs`" bare :least="0" :decimals="2" /><NumberField
          v-model="minutes"
          :label="`Minutes to peel a ${format.each()}`"
          bare
          :least="0"
        />
        <NumberField v-model="bought" :label="`Peeled or frozen, a ${format.each()} costs`" bare :least="0" :decimals="2" /><NumberField
          v-model="boughtMinutes"
          :label="`Minutes for a ${format.each()} of that`"
          bare
          :least="0"
        />
        <NumberField v-model="worth" label="An hour of your work is worth" bare :least="0" :decimals="2" hint="0 where it is pleasure" />
      </div>
      <p v-if="problem" class="problem">{{ problem }}</p>
      <div v-if="answer" role="status">
        <p>
          <strong>{{ answer.cheaper === 'own' ? 'Your own comes cheaper.' : 'Bought in comes cheaper.' }}</strong> For
          {{ format.weight(100) }} dry: yours {{ side(answer.own) }}; bought in {{ side(answer.bought) }}.
        </p>
        <p v-if="answer.evenAt" class="quiet">Both come to the same where an hour of your work is worth {{ answer.evenAt.toFixed(2) }}.</p>
      </div>
    </div>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  min-height: 44px;
  align-content: center;
}
summary h2 {
  display: inline;
}
.form {
  margin-top: 0.6rem;
}
</style>
