<script setup lang="ts">
import { useWindowVirtualizer } from '@tanstack/vue-virtual'
import { freshnessOf, type Freshness } from '#core/keeping'
import type { JarSummary } from '#shared/contracts'

/** Jars as they stand, board by board; only the rows in sight are drawn, so that thousands scroll as well as ten. */
const props = defineProps<{ boards: readonly { name: string, jars: readonly JarSummary[] }[], now: number }>()
const format = useFormat()
const frame = ref<HTMLElement>()
const width = ref(900)
const top = ref(0)
const LEAST_PX = 130
const ROW_PX = 176
const HEAD_PX = 40
const GAP_PX = 14

let watcher: ResizeObserver | undefined
onMounted(() => {
  const measure = () => {
    if (!frame.value) return
    width.value = frame.value.clientWidth
    top.value = frame.value.getBoundingClientRect().top + window.scrollY
  }
  watcher = new ResizeObserver(measure)
  watcher.observe(frame.value!)
  measure()
})
onBeforeUnmount(() => watcher?.disconnect())

const columns = computed(() => Math.max(2, Math.floor(width.value / LEAST_PX)))
type Row = { kind: 'head', name: string, count: number } | { kind: 'jars', jars: readonly JarSummary[], last: boolean }
const rows = computed<Row[]>(() => props.boards.flatMap(({ name, jars }): Row[] => {
  const lines: Row[] = []
  for (let i = 0; i < jars.length; i += columns.value) lines.push({ kind: 'jars', jars: jars.slice(i, i + columns.value), last: i + columns.value >= jars.length })
  return [{ kind: 'head', name, count: jars.length }, ...lines]
}))
const virtual = useWindowVirtualizer(computed(() => ({
  count: rows.value.length, overscan: 4, scrollMargin: top.value,
  estimateSize: (index: number) => rows.value[index]?.kind === 'head' ? HEAD_PX : ROW_PX + GAP_PX,
})))
// Another order has other heights.
watch(rows, () => virtual.value.measure())

/** What stands on the jar's shoulder, if anything. */
const MARKS: Partial<Record<Freshness, { words: string, tone: string }>> = {
  'stale': { words: 'stale', tone: 'danger' }, 'past': { words: 'past', tone: 'danger' }, 'use-first': { words: 'use', tone: 'attention' },
}
const mark = (jar: JarSummary) => jar.saw === 'mould' ? { words: 'mould', tone: 'danger' } : jar.saw === 'moisture' || jar.saw === 'clumps' ? { words: 'damp', tone: 'danger' } : MARKS[freshnessOf(jar, props.now)]
</script>

<template>
  <div ref="frame" class="boards" role="list" aria-label="Jars" :style="{ height: `${virtual.getTotalSize()}px` }">
    <template v-for="line in virtual.getVirtualItems()" :key="line.index">
      <h2 v-if="rows[line.index]!.kind === 'head'" class="line" :style="{ transform: `translateY(${line.start - top}px)` }">{{ (rows[line.index] as { name: string }).name }} <span class="quiet small">{{ plural((rows[line.index] as { count: number }).count, 'jar') }}</span></h2>
      <div v-else class="line jars" :class="{ last: (rows[line.index] as { last: boolean }).last }" :style="{ transform: `translateY(${line.start - top}px)`, gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }">
        <div v-for="jar in (rows[line.index] as { jars: readonly JarSummary[] }).jars" :key="jar.jarId" role="listitem">
          <NuxtLink :to="`/jars/${jar.jarId}`" class="jar" :prefetch="false">
            <span v-if="mark(jar)" class="tag on-jar" :class="mark(jar)!.tone">{{ mark(jar)!.words }}</span>
            <JarGlass :jar="jar" :height="104" />
            <strong>{{ jar.foodName }}{{ jar.purpose === 'powder' ? '' : `, ${PURPOSE_WORDS[jar.purpose]}` }}</strong>
            <span class="quiet small">{{ format.weight(jar.leftG) }} · {{ format.month(jar.bestFrom) }}</span>
          </NuxtLink>
        </div>
      </div>
    </template>
  </div>
</template>

<style scoped>
.boards { position: relative; }
.line { position: absolute; left: 0; right: 0; top: 0; margin: 0; }
h2.line { font-size: 1.02rem; color: var(--quiet); padding-top: 0.5rem; }
.jars { display: grid; height: 184px; align-items: start; }
.jars.last { border-bottom: 2px solid var(--glass); }
.jar { position: relative; display: grid; justify-items: center; text-align: center; text-decoration: none; padding: 0.3rem 0.2rem; border-radius: 10px; line-height: 1.2; height: 176px; align-content: start; overflow: hidden; }
.jar:hover { background: var(--sunk); }
.jar strong { display: -webkit-box; -webkit-line-clamp: 2; -webkit-box-orient: vertical; overflow: hidden; }
.on-jar { position: absolute; top: 0.2rem; right: calc(50% - 52px); z-index: 1; }
</style>
