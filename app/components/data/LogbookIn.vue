<script setup lang="ts">
import type { Restored } from '#shared/api'
import type { Refusal } from '#shared/contracts'

/** What comes back whole: a logbook as JSON into an empty one, or a backup in this one's place. */
const problems = ref<string[]>([])
const told = ref('')
const progress = ref<{ phase: string; done: number; of: number }>()
const sure = ref<File>()
const busy = ref(false)
let stop: AbortController | undefined
onBeforeUnmount(() => stop?.abort())

async function takeIn(file: File | undefined) {
  if (!file || busy.value) return
  problems.value = []
  told.value = ''
  busy.value = true
  stop = new AbortController()
  try {
    const { answer } = await longWork<{ batches: number; jars: number; entries: number }>(
      '/api/import/logbook',
      await file.text(),
      step => {
        progress.value = step
      },
      stop.signal,
    )
    told.value = `${plural(answer.batches, 'batch', 'batches')}, ${plural(answer.jars, 'jar')} and ${answer.entries} lines of the log came in.`
    await useHouseholdStore().load()
  } catch (error) {
    problems.value = stop.signal.aborted
      ? ['Stopped: nothing came in.']
      : error instanceof Refused && error.problems.length > 0
        ? error.problems.slice(0, 6).map(({ field, message }) => `${field}: ${message}`)
        : [(error as Error).message]
  } finally {
    busy.value = false
    progress.value = undefined
  }
}

async function putBack() {
  const file = sure.value
  sure.value = undefined
  if (!file || busy.value) return
  problems.value = []
  told.value = ''
  busy.value = true
  try {
    const response = await fetch('/api/restore', { method: 'POST', headers: { 'content-type': 'application/vnd.sqlite3' }, body: file })
    const answer = (await response.json()) as Restored & Refusal
    if (!response.ok) throw new Refused(answer)
    told.value = `The backup stands in the logbook’s place: ${plural(answer.batches, 'batch', 'batches')}, ${answer.entries} lines. What stood there before is kept as ${answer.aside}.${answer.picturesMissing ? ` ${plural(answer.picturesMissing, 'picture')} of it is damaged or gone: send it again from where you have it, or restore an older copy.` : ''}`
    await useHouseholdStore().load()
  } catch (error) {
    problems.value = [error instanceof Refused ? error.message : 'Dulse’s server cannot be reached. The logbook is as it was.']
  } finally {
    busy.value = false
  }
}
const fileOf = (event: Event) => {
  const input = event.target as HTMLInputElement
  const chosen = input.files?.[0]
  // The same file may be chosen again after it was refused.
  input.value = ''
  return chosen
}
</script>

<template>
  <div class="stack">
    <div class="row">
      <label class="el-button el-button--large file" :class="{ 'is-disabled': busy }"
        ><input
          type="file"
          accept=".json,application/json"
          class="visually-hidden"
          aria-label="Logbook as JSON"
          :disabled="busy"
          @change="event => takeIn(fileOf(event))"
        />A whole logbook, JSON</label
      >
      <label class="el-button el-button--large file" :class="{ 'is-disabled': busy }"
        ><input
          type="file"
          accept=".sqlite,.db,application/vnd.sqlite3"
          class="visually-hidden"
          aria-label="Backup to restore"
          :disabled="busy"
          @change="event => (sure = fileOf(event))"
        />A backup in its place</label
      >
      <ElButton v-if="progress" @click="stop?.abort()">Stop</ElButton>
    </div>
    <div v-if="sure" class="ask">
      <p>
        <strong>Put “{{ sure.name }}” in this logbook’s place?</strong> It is checked first; what stands here now is kept beside it under
        another name.
      </p>
      <div class="row">
        <ElButton type="primary" @click="putBack">Put it in place</ElButton><ElButton @click="sure = undefined">Cancel</ElButton>
      </div>
    </div>
    <ElProgress
      v-if="progress"
      :percentage="Math.round((100 * progress.done) / Math.max(1, progress.of))"
      :stroke-width="14"
      :format="() => progress!.phase"
    />
    <div role="alert">
      <p v-for="problem in problems" :key="problem" class="problem">{{ problem }}</p>
    </div>
    <p v-if="told" class="good" role="status">{{ told }}</p>
    <p class="quiet small">A logbook as JSON is taken in by an empty one only, whole or not at all.</p>
  </div>
</template>

<style scoped>
.file {
  display: inline-flex;
  align-items: center;
  cursor: pointer;
}
.file:focus-within {
  outline: 3px solid color-mix(in srgb, var(--brine) 75%, transparent);
  outline-offset: 2px;
}
.ask {
  display: grid;
  gap: 0.6rem;
  padding: 0.8rem 1rem;
  border-radius: 8px;
  background: var(--amber-wash);
}
.good {
  color: var(--kelp);
  font-weight: 650;
}
</style>
