<script setup lang="ts">
import { capital } from '#core/text'
import { uuidv7 } from 'uuidv7'
import { foldBatch, heatHours } from '#core/batch'
import { ofKind, type BodyIn, type TrayMove } from '#core/log'

const route = useRoute()
const machineId = String(route.params.id)
const { now, tick } = useClock()
const format = useFormat()
const { page, trays, log, problem, ready, load, write } = useMachine(machineId, now)
const busy = ref(false)
const late = ref<number>()
const refused = ref('')
const undo = ref<{ id: string; words: string }>()

await ready()
useHead({ title: () => (page.value ? `${page.value.machine.name} · Dulse` : 'Dulse') })

const machine = computed(() => page.value?.machine)
const run = computed(() => page.value?.run)
const startedAt = computed(() =>
  Math.min(...(run.value?.batches ?? []).map(batch => foldBatch(batch.entries, () => batch.food)?.run?.loadedAt ?? Infinity)),
)
const setC = computed(() => ofKind(log.value, 'heat').at(-1)?.body.setC ?? null)
const state = computed(() => {
  if (!run.value) return 'Empty.'
  const spent = format.hours(heatHours(log.value, startedAt.value, now.value))
  return [
    setC.value === null ? `Heat off after ${spent}` : `Set ${format.temperature(setC.value)}, ${spent} of heat`,
    plural(run.value.batches.length, 'batch', 'batches'),
    `${trays.value.length} of ${plural(machine.value!.trays, 'place')} taken`,
  ].join(' · ')
})

/** What the devices read; asked for again while readings come, but not at every one. */
const until = ref(Date.now())
const { answer: series } = useServer('readings', () =>
  Number.isFinite(startedAt.value)
    ? { query: { machine: machineId, from: Math.round(startedAt.value - 600_000), to: until.value, points: 300 } }
    : undefined,
)
const drawAgain = useThrottleFn(
  () => {
    tick()
    until.value = Date.now()
  },
  5000,
  true,
  false,
)
const live = ref<Record<string, { at: number; value: number }>>({})
onReadings(readings => {
  const here = readings.filter(item => item.machineId === machineId)
  if (here.length === 0) return
  live.value = {
    ...live.value,
    ...Object.fromEntries(here.map(item => [item.deviceId + item.channel, { at: item.at, value: item.value }])),
  }
  void drawAgain()
})

async function note(body: BodyIn<'run'>): Promise<string | undefined> {
  if (busy.value) return undefined
  busy.value = true
  refused.value = ''
  try {
    return await write(body)
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    refused.value = error.message
    return undefined
  } finally {
    busy.value = false
  }
}
async function move(moves: TrayMove[]) {
  const words = logWords({ kind: 'move', runId: '', trays: moves }, format)
  const id = await note({ kind: 'move', runId: run.value!.runId, trays: moves })
  if (id) undo.value = { id, words: capital(words) }
}
async function takeBack() {
  const target = undo.value?.id
  undo.value = undefined
  if (target) await note({ kind: 'void', target, reason: 'taken back' })
}
/** A swap of trays that are nearly dry evens nothing out any more. */
const WET_ENOUGH = 0.15
const swaps = computed(() =>
  (page.value?.swaps ?? []).filter(pair =>
    trays.value.some(tray => tray.left > WET_ENOUGH && (tray.place === pair.from || tray.place === pair.to)),
  ),
)
const swapWords = computed(() => swaps.value.map(({ from, to }) => `${from} with ${to}`).join(', '))
async function swapAll() {
  await move(
    swaps.value.flatMap(({ from, to }) => [
      { from, to },
      { from: to, to: from },
    ]),
  )
}
async function upkeepDone(task: string) {
  busy.value = true
  try {
    await call('upkeep', { params: { machineId }, body: { id: uuidv7(), task, at: Date.now() } })
    await load()
  } catch (error) {
    refused.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div v-if="problem" class="card">
    <h1>No such machine</h1>
    <p>{{ problem }}</p>
    <p><NuxtLink to="/workshop">All machines</NuxtLink></p>
  </div>
  <div v-else-if="page && machine" class="stack">
    <header class="page-head">
      <div>
        <h1>{{ machine.name }}</h1>
        <p class="quiet">{{ state }}</p>
      </div>
      <div class="row">
        <span v-for="device in page.devices.filter(item => item.last.length)" :key="device.id" class="device small"
          >{{ device.name }}
          <strong>{{
            device.last.map(last => format.reading(last.channel, (live[device.id + last.channel] ?? last).value)).join(', ')
          }}</strong></span
        >
      </div>
    </header>
    <div class="two">
      <div class="stack">
        <section class="card" aria-label="Rack">
          <template v-if="run">
            <div v-if="swaps.length" class="swap row between">
              <p>
                <strong>Swap {{ swapWords }}</strong> about halfway: these places dry unevenly here, and so the trays end together.
              </p>
              <ElButton :disabled="busy" @click="swapAll">Swapped</ElButton>
            </div>
            <RackElevation
              :places="machine.trays"
              :trays="trays"
              :now="now"
              :busy="busy"
              @move="move"
              @add="place => (late = place)"
              @weigh="tray => navigateTo(`/batches/${tray.batchId}?act=weigh`)"
              @take-out="tray => navigateTo(`/batches/${tray.batchId}?act=unload&place=${tray.place}`)"
            />
            <div role="status">
              <p v-if="undo" class="undo">{{ undo.words }}. <button type="button" @click="takeBack">Take it back</button></p>
            </div>
            <div role="alert">
              <p v-if="refused" class="problem">{{ refused }}</p>
            </div>
          </template>
          <template v-else>
            <h2>Nothing in it</h2>
            <p class="quiet">{{ plural(machine.trays, 'tray') }} free. Open a batch that is cut, and load it here.</p>
            <div class="row"><ElButton type="primary" @click="navigateTo('/intake')">A basket came in</ElButton></div>
          </template>
        </section>
        <LazyHeatChart v-if="run && Number.isFinite(startedAt)" :log="log" :series="series ?? []" :from="startedAt" :now="now" />
      </div>
      <div class="stack">
        <ListCard
          v-if="run"
          :kind="machine.kind"
          :log="log"
          :now="now"
          :busy="busy"
          @tick="(list, item) => note({ kind: 'tick', runId: run!.runId, list, item })"
          @untick="id => note({ kind: 'void', target: id, reason: 'unticked' })"
        />
        <CalibrationCard :machine="machine" :calibration="page.calibration" />
        <UpkeepCard :machine="machine" :now="now" :busy="busy" @done="upkeepDone" />
      </div>
    </div>
    <LazyLateTrayDialog v-if="late !== undefined && run" :page="page" :place="late" @close="late = undefined" @saved="load" />
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(300px, 400px);
  gap: 1rem;
  align-items: start;
}
.swap {
  padding: 0.6rem 0.8rem;
  margin-bottom: 0.8rem;
  background: var(--kelp-wash);
  border-radius: 8px;
  flex-wrap: nowrap;
}
.undo {
  margin-top: 0.6rem;
}
.undo button {
  border: 0;
  background: none;
  min-height: 44px;
  padding: 0 0.4rem;
  text-decoration: underline;
  text-underline-offset: 3px;
  font-weight: 650;
  cursor: pointer;
}
.device {
  padding: 0.3rem 0.7rem;
  border: 1px solid var(--rule);
  border-radius: 8px;
  background: var(--card);
}
@media (width <= 980px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
