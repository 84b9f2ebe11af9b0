<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import { SALTS, type Salt } from '#core/sorption'
import type { HygrometerAnswer, HygrometerSettings } from '#shared/contracts'

/** Hygrometers for jars, and their salt test. */
const format = useFormat()
const { answer, problem: lost, ready, load } = useServer('hygrometers')
const hygrometers = computed(() => answer.value ?? [])
const problems = ref<Record<string, string>>({})
const form = ref<{ id: string; version?: number; name: string; shown: Record<string, number | undefined> }>()
const checkFields = useFieldChecks()
const salts = Object.entries(SALTS) as [Salt, (typeof SALTS)[Salt]][]
/** The two that a kitchen or a chemist’s has. */
const USUAL: readonly Salt[] = ['magnesium-chloride', 'sodium-chloride']
const all = ref(false)

await ready()
if (lost.value) problems.value = { all: lost.value }

function edit(item?: HygrometerAnswer) {
  problems.value = {}
  form.value = {
    id: item?.id ?? uuidv7(),
    version: item?.version,
    name: item?.name ?? '',
    shown: Object.fromEntries((item?.readings ?? []).map(reading => [reading.salt, reading.shown * 100])),
  }
  all.value = item?.readings.some(reading => !USUAL.includes(reading.salt)) ?? false
}
async function save() {
  if (!form.value || checkFields() !== undefined) return
  const { id, version, name, shown } = form.value
  const readings = salts.flatMap(([salt]) => (shown[salt] === undefined ? [] : [{ salt, shown: Math.round(shown[salt] * 10) / 1000 }]))
  const body: HygrometerSettings = { id, version, name, readings }
  try {
    await call('saveHygrometer', { body })
    form.value = undefined
    await load()
  } catch (error) {
    problems.value =
      error instanceof Refused
        ? Object.fromEntries(error.problems.map(({ field, message }) => [field === 'name' ? 'name' : 'all', message]))
        : { all: (error as Error).message }
  }
}
function state({ readings, calibration, testedAt }: HygrometerAnswer): string {
  if (readings.length === 0) return `Not tested: within about ${Math.round(calibration.sd * 100)} %.`
  const at = (true_: number) => Math.round((calibration.offset + calibration.gain * true_ - true_) * 100)
  const off = at(0.35)
  return `Tested over ${plural(readings.length, 'salt')}${testedAt === undefined ? '' : `, ${format.date(testedAt)}`}. At 35 % it shows ${off === 0 ? 'right' : `${Math.abs(off)} % too ${off > 0 ? 'little' : 'much'}`}, give or take ${Number((calibration.sd * 100).toFixed(1))}.`
}
</script>

<template>
  <section class="card">
    <div class="row between">
      <h2>Hygrometers</h2>
      <ElButton @click="edit()">Add a hygrometer</ElButton>
    </div>
    <p v-if="hygrometers.length === 0 && !form" class="quiet">
      A small one in a closed jar tells how dry the food in it is. Cheap ones are off by some percent: the salt test finds by how much.
    </p>
    <ul class="plain-list">
      <li v-for="item in hygrometers" :key="item.id" class="list-line">
        <div>
          <strong>{{ item.name }}</strong>
          <p class="quiet small">{{ state(item) }}</p>
        </div>
        <ElButton :aria-label="`Salt test of ${item.name}`" @click="edit(item)">Salt test</ElButton>
      </li>
    </ul>
    <form v-if="form" class="form inner" @submit.prevent="save">
      <h3>{{ form.version ? 'Salt test' : 'A new hygrometer' }}</h3>
      <p class="quiet small">
        Wet a spoon of salt with a few drops until it is like wet sand. Close it in a jar with the hygrometer, not touching, at room
        temperature for 12 hours, and read through the glass. One salt finds the offset, two the slope as well.
      </p>
      <TextField v-model="form.name" label="Name" :problem="problems.name" />
      <div class="pair">
        <template v-for="[salt, facts] in salts" :key="salt"
          ><NumberField
            v-if="all || USUAL.includes(salt)"
            v-model="form.shown[salt]"
            :label="`${facts.name} shows, %`"
            :hint="`true: ${(facts.humidity * 100).toFixed(1)} % at 25 °C`"
            :least="1"
            :most="99"
            bare
        /></template>
      </div>
      <ElButton v-if="!all" text class="more" @click="all = true">Other salts</ElButton>
      <p v-if="problems.all" class="problem">{{ problems.all }}</p>
      <div class="row">
        <ElButton type="primary" native-type="submit">Save the hygrometer</ElButton><ElButton @click="form = undefined">Cancel</ElButton>
      </div>
      <p class="quiet small">Humidities over salts: Greenspan, 1977.</p>
    </form>
    <p v-else-if="problems.all" class="problem">{{ problems.all }}</p>
  </section>
</template>

<style scoped>
.inner {
  border-top: 1px solid var(--rule);
  padding-top: 0.9rem;
}
.more {
  justify-self: start;
  padding: 0;
  text-decoration: underline;
  text-underline-offset: 3px;
}
</style>
