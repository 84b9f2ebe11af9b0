<script setup lang="ts">
import { restDays, restNeeded } from '#core/batch'
import { LOOK_SIGHTS, type BatchState, type EntryBody, type EntryKind } from '#core/log'
import { DAY } from '#core/time'

/** The jars at rest: a look is one tap on what was seen. */
const props = defineProps<{ state: BatchState; now: number; write: (bodies: readonly EntryBody[]) => Promise<void> }>()
const emit = defineEmits<{ act: [kind: EntryKind] }>()
const format = useFormat()
const rest = computed(() => props.state.rest!)
const jars = computed(() => rest.value.jars)
const needed = computed(() => restNeeded(props.state))
const day = computed(() => restDays(rest.value, props.now))
const busy = ref(false)
const told = ref('')
const problem = ref('')
const SIGHTS = { dry: 'Dry', hung: 'Hung, fell when knocked', clumps: 'Sticking', moisture: 'Beads', mould: 'Mould' } as const
/** One mark a day of the rest: looked at or not. */
const days = (number: number) =>
  Array.from(
    { length: needed.value },
    (_, i) =>
      jars.value[number - 1]!.looks.filter(look => Math.max(1, Math.ceil((look.at - rest.value.startedAt!) / DAY)) === i + 1).at(-1)?.body
        .saw,
  )

async function look(jar: number, saw: (typeof LOOK_SIGHTS)[number]) {
  if (busy.value) return
  busy.value = true
  problem.value = ''
  try {
    await props.write([{ kind: 'look', saw, jar: jars.value.length > 1 ? jar : undefined }])
    told.value = `${jars.value.length > 1 ? jars.value[jar - 1]!.name : 'Today’s look'}: ${SAW_WORDS[saw]}.`
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <section class="card stack" aria-label="Jars at rest">
    <div class="row between">
      <h2>{{ jars.length === 1 ? 'The jar at rest' : `${countWord(jars.length)} jars at rest` }}</h2>
      <span class="quiet">day {{ Math.min(day, needed) }} of {{ needed }}</span>
    </div>
    <p class="quiet small">Shake it, hold it against the light, tap what you see.</p>
    <div v-for="jar in jars" :key="jar.number" class="jar">
      <div class="row between">
        <strong
          >{{ jar.name }}<span v-if="jar.weightG" class="quiet">, {{ format.weight(jar.weightG) }}</span></strong
        ><span v-if="jar.out" class="tag danger">thrown away: {{ jar.out.cause.toLowerCase() }}</span
        ><span v-else class="dots" role="img" :aria-label="`${plural(jar.looks.length, 'look')} so far`"
          ><i v-for="(saw, i) in days(jar.number)" :key="i" :class="saw ?? 'none'"
        /></span>
      </div>
      <div v-if="!jar.out" class="sights">
        <button
          v-for="saw in LOOK_SIGHTS"
          :key="saw"
          type="button"
          :class="saw"
          :disabled="busy"
          :aria-label="`${jar.name}: ${SIGHTS[saw].toLowerCase()}`"
          @click="look(jar.number, saw)"
        >
          {{ SIGHTS[saw] }}
        </button>
      </div>
      <p v-if="jar.last === 'moisture' || jar.last === 'clumps'" class="caution">
        {{
          jars.length > 1
            ? 'This jar is damp, and the others came from the same trays: all go back to the machine today.'
            : 'Back to the machine today.'
        }}
      </p>
      <p v-if="jar.mould && !jar.out" class="caution">
        The whole jar goes, untasted.
        <button v-if="jars.length > 1" type="button" class="link" @click="emit('act', 'restOut')">Throw this jar away</button>
      </p>
    </div>
    <p v-if="told" role="status" class="good">{{ told }}</p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div class="row">
      <ElButton @click="emit('act', 'jarAir')">What its air says <kbd class="key">J</kbd></ElButton>
    </div>
  </section>
</template>

<style scoped>
.jar {
  display: grid;
  gap: 0.5rem;
  border-top: 1px solid var(--rule);
  padding-top: 0.7rem;
}
.sights {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(96px, 1fr));
  gap: 0.4rem;
}
.sights button {
  min-height: 52px;
  padding: 0.2rem 0.5rem;
  border: 1px solid var(--el-border-color);
  border-radius: 8px;
  background: var(--card);
  color: var(--ink);
  cursor: pointer;
  line-height: 1.15;
}
.sights button:hover {
  background: var(--sunk);
}
.sights .dry,
.sights .hung {
  border-color: var(--kelp);
}
.sights .mould {
  border-color: var(--brick);
  color: var(--brick);
}
.sights .clumps,
.sights .moisture {
  border-color: var(--amber-mark);
}
.dots {
  display: flex;
  gap: 4px;
}
.dots i {
  width: 12px;
  height: 12px;
  border-radius: 50%;
  border: 1.5px solid var(--glass);
}
.dots .dry,
.dots .hung {
  background: var(--kelp);
  border-color: var(--kelp);
}
.dots .clumps,
.dots .moisture {
  background: var(--amber-mark);
  border-color: var(--amber-mark);
}
.dots .mould {
  background: var(--brick);
  border-color: var(--brick);
}
.good {
  color: var(--kelp);
  font-weight: 650;
  margin: 0;
}
.link {
  border: 0;
  background: none;
  text-decoration: underline;
  font-weight: 650;
  min-height: 44px;
  cursor: pointer;
  color: inherit;
}
</style>
