<script setup lang="ts">
/** Whether one's "sure" is sure, over all that was said, and whether one gets better. */
useHead({ title: 'How sure you are · Dulse' })
const practice = usePracticeStore()
const calibration = computed(() => practice.calibration)
const VERDICT = {
  'too-sure': 'Your windows are too narrow: what you say holds less often than eight in ten. Say wider ones, until you know better.',
  'too-unsure': 'Your windows are wider than they need be: they nearly always hold. You know more than you say.',
  fair: 'Your windows hold about as often as they should.',
}
const trend = computed(() => {
  const { earlier, later } = calibration.value
  if (earlier === undefined || later === undefined) return undefined
  const change = Math.round(100 * (1 - later / Math.max(0.01, earlier)))
  return change >= 10
    ? `You get better: your guesses of water cost ${change} % less than before.`
    : change <= -10
      ? `Your later guesses of water cost ${-change} % more than the earlier ones.`
      : 'Your guesses of water are about as good as they were.'
})
const drills = computed(() => {
  const of = (list: typeof practice.drills) => list.filter(item => item.right).length
  const half = Math.floor(practice.drills.length / 2)
  return { right: of(practice.drills), count: practice.drills.length, before: of(practice.drills.slice(0, half)), half }
})
const sureToForget = ref(false)
</script>

<template>
  <div class="desk">
    <section class="card stack">
      <h2>Is your “sure” sure?</h2>
      <template v-if="calibration.bins.length">
        <SureChart :calibration="calibration" />
        <p class="quiet small">
          On the line it is as you say. Above it you are too careful, below it too sure. Bars are what so few cases leave open, 8 in 10.
        </p>
      </template>
      <p v-else>
        Nothing was said yet. In a lesson, and in your own runs once more, you are asked what you believe before Dulse says it; here you see
        how that went.
      </p>
    </section>
    <section class="card stack">
      <h2>Your windows</h2>
      <p v-if="calibration.windows">
        <strong class="figure">{{ calibration.held }} of {{ calibration.windows }}</strong> windows held; eight in ten should.
      </p>
      <p v-if="calibration.verdict">{{ VERDICT[calibration.verdict] }}</p>
      <p v-else class="quiet">From eight windows on it is said whether they are too narrow or too wide.</p>
      <p v-if="trend">{{ trend }}</p>
      <p v-if="calibration.brier !== undefined" class="quiet">
        “Dry or not” costs you {{ calibration.brier.toFixed(2) }} on average: 0 is who always knew, 0.25 who says even each time (Brier’s
        score).
      </p>
      <p v-if="drills.count">
        Drills: {{ drills.right }} of {{ drills.count }} right{{
          drills.half > 3 ? `, of the earlier half ${drills.before} of ${drills.half}` : ''
        }}.
      </p>
      <p class="quiet small">
        Windows are scored by their width and ten times what they miss by, so that it pays to say just what you believe.
      </p>
      <div class="row">
        <ElButton v-if="!sureToForget && calibration.count + drills.count > 0" @click="sureToForget = true">Begin anew</ElButton>
        <template v-else-if="sureToForget">
          <span>All that was played and said in this browser is forgotten.</span>
          <ElButton type="danger" @click="(practice.forget(), (sureToForget = false))">Forget it</ElButton>
          <ElButton @click="sureToForget = false">Keep it</ElButton>
        </template>
      </div>
    </section>
    <section v-if="practice.played.length" class="card stack wide">
      <h2>Lessons played</h2>
      <div class="figures-wide">
        <table class="figures in-words">
          <thead>
            <tr>
              <th scope="col">Lesson</th>
              <th scope="col">Kitchen</th>
              <th scope="col">You</th>
              <th scope="col">Best</th>
              <th scope="col">Lost</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="item in [...practice.played].reverse()" :key="item.at">
              <th scope="row">{{ item.title }}</th>
              <td>
                <NuxtLink :to="`/practice/play/${item.key}?kitchen=${item.seed}`">{{ item.seed }}</NuxtLink>
              </td>
              <td>{{ item.cost.toFixed(0) }}</td>
              <td>{{ item.best?.toFixed(0) ?? '–' }}</td>
              <td>{{ Math.round(100 * item.spoiledShare) }} %</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="quiet small">In points: a hundred is the whole load lost; less is better. Kept in this browser alone.</p>
    </section>
  </div>
</template>

<style scoped>
.desk {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(320px, 100%), 1fr));
  gap: 1rem;
  align-items: start;
}
.wide {
  grid-column: 1 / -1;
}
.figure {
  font: 700 1.6rem var(--display);
}
.figures a {
  display: inline-block;
  min-height: 44px;
  min-width: 44px;
  align-content: center;
}
</style>
