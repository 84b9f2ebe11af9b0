<script setup lang="ts">
import { useWindowVirtualizer } from '@tanstack/vue-virtual'
import { freshnessOf, type Freshness } from '#core/keeping'
import type { ShelfAnswer, ShelfJar } from '#shared/contracts'

/** Jars as they stand, board by board; only the rows in sight are drawn, so that thousands scroll as well as ten. */
const props = defineProps<{ boards: readonly { name: string; jars: readonly ShelfJar[] }[]; foods: ShelfAnswer['foods']; now: number }>()
const format = useFormat()
const frame = ref<HTMLElement>()
const width = ref(0)
const top = ref(0)
const LEAST_PX = 118
const ROW_PX = 196
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

const columns = computed(() => (width.value === 0 ? 0 : Math.max(2, Math.floor(width.value / LEAST_PX))))
/** A jar, with those that are like it to the gram of a month and stand as one with it. */
interface Tile {
  jar: ShelfJar
  like: readonly ShelfJar[]
  key: string
}
type Row = { kind: 'head'; name: string; count: number } | { kind: 'jars'; tiles: readonly Tile[]; last: boolean }
/** From so many on like jars stand as one. */
const FEW = 3
const apart = ref(new Set<string>())
/** Untouched and of one kind, size and month: nobody minds which of them is taken. */
const kindOf = (jar: ShelfJar) =>
  jar.leftG < 0.98 * jar.netG || mark(jar)
    ? jar.jarId
    : [jar.foodKey, jar.name, jar.purpose, Math.round(jar.netG / 5), jar.place, format.month(jar.bestFrom)].join('|')
function tilesOf(jars: readonly ShelfJar[]): Tile[] {
  const kinds = new Map<string, ShelfJar[]>()
  for (const jar of jars) {
    const key = kindOf(jar)
    const there = kinds.get(key)
    if (there) there.push(jar)
    else kinds.set(key, [jar])
  }
  return [...kinds].flatMap(([key, list]) =>
    list.length < FEW || apart.value.has(key)
      ? list.map(jar => ({ jar, like: [], key: jar.jarId }))
      : [{ jar: list[0]!, like: list.slice(1), key }],
  )
}
const rows = computed<Row[]>(() =>
  columns.value === 0
    ? []
    : props.boards.flatMap(({ name, jars }): Row[] => {
        const lines: Row[] = []
        const tiles = tilesOf(jars)
        for (let i = 0; i < tiles.length; i += columns.value)
          lines.push({ kind: 'jars', tiles: tiles.slice(i, i + columns.value), last: i + columns.value >= tiles.length })
        return [{ kind: 'head', name, count: jars.length }, ...lines]
      }),
)
const virtual = useWindowVirtualizer(
  computed(() => ({
    count: rows.value.length,
    overscan: 3,
    scrollMargin: top.value,
    estimateSize: (index: number) => (rows.value[index]?.kind === 'head' ? HEAD_PX : ROW_PX + GAP_PX),
  })),
)
/** Rows in sight and a few beyond, each with its place in the frame. */
const lines = computed(() =>
  virtual.value.getVirtualItems().flatMap(({ index, start }) => {
    const row = rows.value[index]
    return row ? [{ key: index, row, y: start - top.value }] : []
  }),
)
// Another order has other heights.
watch(rows, () => virtual.value.measure())

/** What stands on the jar's shoulder, if anything. */
const MARKS: Partial<Record<Freshness, { words: string; tone: string }>> = {
  spoiled: { words: 'spoiled', tone: 'danger' },
  damp: { words: 'damp', tone: 'danger' },
  stale: { words: 'stale', tone: 'danger' },
  past: { words: 'past', tone: 'danger' },
  'use-first': { words: 'use', tone: 'attention' },
}
const mark = (jar: ShelfJar) => MARKS[freshnessOf(jar, props.now)]
</script>

<template>
  <div ref="frame" class="boards" :style="{ height: `${virtual.getTotalSize()}px` }">
    <!-- A row that stays where it is need not be looked at again while the page scrolls. -->
    <div v-for="line in lines" :key="line.key" v-memo="[line.row, line.y, columns, now]" class="line" :style="{ top: `${line.y}px` }">
      <h2 v-if="line.row.kind === 'head'">
        {{ line.row.name }} <span class="quiet small">{{ plural(line.row.count, 'jar') }}</span>
      </h2>
      <div
        v-else
        class="jars"
        role="list"
        :class="{ last: line.row.last }"
        :style="{ gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }"
      >
        <div v-for="{ jar, like, key } in line.row.tiles" :key="key" role="listitem" class="tile">
          <NuxtLink :to="`/jars/${jar.jarId}`" class="jar" :prefetch="false">
            <span v-if="mark(jar)" class="tag on-jar" :class="mark(jar)!.tone">{{ mark(jar)!.words }}</span>
            <JarGlass :jar="{ ...jar, colour: foods[jar.foodKey]!.colour }" :height="104" />
            <strong
              >{{ jar.name ?? foods[jar.foodKey]!.name }}{{ jar.purpose === 'powder' ? '' : `, ${PURPOSE_WORDS[jar.purpose]}` }}</strong
            >
            <span class="quiet small">#{{ jar.number }} · {{ format.weight(jar.leftG) }} · {{ format.month(jar.bestFrom) }}</span>
          </NuxtLink>
          <button
            v-if="like.length > 0"
            type="button"
            class="stacked"
            :aria-label="`${like.length + 1} jars alike, ${jar.number} to ${like.at(-1)!.number}: show each`"
            @click="apart = new Set([...apart, key])"
          >
            × {{ like.length + 1 }}
          </button>
        </div>
      </div>
    </div>
  </div>
</template>

<style scoped>
.boards {
  position: relative;
}
.line {
  position: absolute;
  left: 0;
  right: 0;
  margin: 0;
  contain: layout paint;
}
h2 {
  margin: 0;
  font-size: 1.02rem;
  color: var(--quiet);
  padding-top: 0.5rem;
}
.jars {
  display: grid;
  height: 184px;
  align-items: start;
}
.jars.last {
  border-bottom: 2px solid var(--glass);
}
.jar {
  position: relative;
  display: grid;
  justify-items: center;
  text-align: center;
  text-decoration: none;
  padding: 0.3rem 0.2rem;
  border-radius: 10px;
  line-height: 1.2;
  height: 196px;
  align-content: start;
  overflow: hidden;
}
.tile {
  position: relative;
}
.stacked {
  position: absolute;
  left: calc(50% + 14px);
  top: 56px;
  min-width: 44px;
  min-height: 44px;
  border: 1px solid var(--rule);
  border-radius: 22px;
  background: var(--card);
  color: var(--ink);
  font-weight: 750;
  cursor: pointer;
}
.jar:hover {
  background: var(--sunk);
}
.jar strong {
  line-height: 1.15;
  overflow-wrap: anywhere;
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
.on-jar {
  position: absolute;
  top: 0.2rem;
  right: calc(50% - 52px);
  z-index: 1;
}
</style>
