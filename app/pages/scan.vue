<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import type { JarAnswer } from '#shared/contracts'

/** A jar by its label: held before the camera it opens, and something is taken out at once. */
useHead({ title: 'Scan a jar · Dulse' })
const format = useFormat()
const outbox = useOutboxStore()
const jar = shallowRef<JarAnswer>()
const told = ref('')
const trouble = ref('')
const weightG = ref<number>()
const again = ref(0)
const checkFields = useFieldChecks()

const reader = useCodeReader(text => void found(text))
const { video, problem, looking } = reader
async function found(text: string) {
  trouble.value = ''
  const code = labelCode(text)
  if (!code) {
    trouble.value = 'This is a code of something else: the labels of jars and batches are read here.'
    return
  }
  try {
    // The label that comes back into sight while something is typed.
    if (code.kind === 'jar' && code.number === jar.value?.number) return
    const { id } = await call('byNumber', { query: { kind: code.kind, number: code.number } })
    if (code.kind === 'batch') return void (await navigateTo(`/batches/${id}`))
    jar.value = await call('jar', { params: { jarId: id } })
    weightG.value = undefined
    again.value++
    told.value = ''
  } catch (error) {
    trouble.value = error instanceof Refused ? `There is no ${code.kind} ${code.number} here.` : (error as Error).message
  }
}
async function take() {
  if (!jar.value || checkFields() !== undefined || weightG.value === undefined) return
  const { jarId, number } = jar.value
  const grams = weightG.value
  try {
    await outbox.send({ jarId, entry: { id: uuidv7(), at: Date.now(), body: { kind: 'take', jarId, weightG: grams } } }, `jar ${number}`)
    told.value = `${format.weight(grams)} taken out of jar ${number}.`
    // The label may lie there still: what was taken stays said until another comes, or this one again.
    jar.value = undefined
  } catch (error) {
    trouble.value = error instanceof Refused ? error.problems.map(item => item.message).join(' ') : (error as Error).message
  }
}
function fromFile(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (file) void reader.read(file)
}
onMounted(reader.start)
</script>

<template>
  <div class="stack scan">
    <h1>Scan a jar</h1>
    <div class="view">
      <video ref="video" muted playsinline aria-label="What the camera sees" />
      <p v-if="!looking" class="quiet">{{ problem ? '' : 'Waiting for the camera.' }}</p>
    </div>
    <div role="alert">
      <p v-if="problem || trouble" class="card problem">{{ trouble || problem }}</p>
    </div>
    <p role="status" :class="{ card: told }">{{ told || (looking && !jar ? 'Hold a label before the camera.' : '') }}</p>
    <section v-if="jar" class="card stack" :aria-label="`Jar ${jar.number}`">
      <div class="row between">
        <h2>Jar {{ jar.number }}: {{ jar.foodName }}, {{ PURPOSE_WORDS[jar.purpose] }}</h2>
        <ElButton @click="navigateTo(`/jars/${jar.jarId}`)">Open</ElButton>
      </div>
      <p>{{ format.weight(jar.leftG) }} left · {{ jar.place }} · best before {{ format.month(jar.bestFrom) }}</p>
      <form class="row" aria-label="Take out" @submit.prevent="take">
        <WeightField :key="again" v-model="weightG" label="Taken out" required />
        <ElButton type="primary" native-type="submit">Take out</ElButton>
      </form>
    </section>
    <div class="field">
      <label for="picture">Or a picture of the label</label>
      <input id="picture" type="file" accept="image/*" @change="fromFile" />
    </div>
  </div>
</template>

<style scoped>
.scan {
  max-width: 720px;
}
.view {
  position: relative;
  display: grid;
  place-items: center;
  min-height: 40vh;
  border-radius: 12px;
  overflow: hidden;
  background: var(--sunk);
}
video {
  width: 100%;
  max-height: 56vh;
  object-fit: cover;
}
.view p {
  position: absolute;
}
</style>
