<script setup lang="ts">
import { EXPORT_TABLES } from '#shared/choices'

/** Everything that leaves, and what comes in. */
useHead({ title: 'Data in and out · Dulse' })
const { settings } = storeToRefs(useHouseholdStore())
const TABLE_WORDS = {
  batches: 'Batches',
  weighIns: 'Weigh-ins',
  checks: 'Checks',
  jars: 'Jars',
  uses: 'What was eaten',
  temperatures: 'Heat and air',
} as const
const origin = window.location.origin
const feed = `${origin}/api/calendar.ics`
const copied = ref(false)
async function copy() {
  await navigator.clipboard?.writeText(feed)
  copied.value = true
}
const example = `curl -X POST ${origin}/api/batches/BATCH/entries -H 'content-type: application/json' -d '{"id": "'$(uuidgen)'", "at": '$(date +%s000)', "body": {"kind": "weigh", "totalG": 412}}'`
</script>

<template>
  <div class="stack">
    <header class="page-head">
      <h1>Data in and out</h1>
      <WorkshopTabs />
    </header>
    <div class="two">
      <div class="stack">
        <section class="card stack" aria-label="Out">
          <h2>Out</h2>
          <div class="item">
            <div>
              <h3>The whole logbook, JSON</h3>
              <p class="quiet small">
                Everything that was ever written, corrections too; an empty Dulse takes it in and is the same.
                <a href="/api/schema/logbook.json">Its schema</a> says what each field is.
              </p>
            </div>
            <a class="el-button el-button--large el-button--primary" href="/api/export/logbook.json" download>Save it</a>
          </div>
          <div class="item">
            <div>
              <h3>Spreadsheet</h3>
              <p class="quiet small">
                The tables below, a sheet each, in {{ settings.weightUnit === 'g' ? 'grams' : 'ounces' }} and °{{
                  settings.temperatureUnit
                }}.
              </p>
            </div>
            <a class="el-button el-button--large" href="/api/export/logbook.xlsx" download>Save it</a>
          </div>
          <div class="item">
            <div>
              <h3>Tables, CSV</h3>
              <p class="quiet small">A line a fact, the unit in the heading.</p>
            </div>
          </div>
          <div class="row">
            <a
              v-for="table in EXPORT_TABLES"
              :key="table"
              class="el-button el-button--large"
              :href="`/api/export/tables/${table}.csv`"
              download
              >{{ TABLE_WORDS[table] }}</a><a class="el-button el-button--large" href="/api/export.csv" download>The log as it stands</a>
          </div>
          <p class="quiet small">
            Labels and batch cards are PDF and SVG, on the pages of <NuxtLink to="/labels">labels</NuxtLink>, jars and batches.
          </p>
        </section>
        <section class="card stack" aria-label="Calendar">
          <h2>Calendar</h2>
          <p class="quiet small">What there is to do, in the calendar of phone or desk: add this address there as a subscription.</p>
          <div class="row">
            <code>{{ feed }}</code><ElButton @click="copy">{{ copied ? 'Copied' : 'Copy' }}</ElButton>
          </div>
        </section>
      </div>
      <div class="stack">
        <section class="card stack" aria-label="In">
          <h2>In</h2>
          <div class="item">
            <div>
              <h3>Weigh-ins, CSV</h3>
              <p class="quiet small">Of a scale that keeps its own list, or from paper.</p>
            </div>
            <ElButton @click="navigateTo('/data/import?kind=weighIns')">Choose</ElButton>
          </div>
          <div class="item">
            <div>
              <h3>What stands on a shelf, CSV</h3>
              <p class="quiet small">Jars from before the log, spices that were bought.</p>
            </div>
            <ElButton @click="navigateTo('/data/import?kind=inventory')">Choose</ElButton>
          </div>
          <div class="item">
            <div>
              <h3>A logger’s file</h3>
              <p class="quiet small">Temperature and humidity over time.</p>
            </div>
            <ElButton @click="navigateTo('/logger')">Choose</ElButton>
          </div>
          <LogbookIn />
        </section>
        <section class="card stack" aria-label="Backup">
          <h2>Backup</h2>
          <div class="item">
            <div>
              <h3>A copy of the logbook, SQLite</h3>
              <p class="quiet small">Made while Dulse runs, whole and as of one instant. Keep it on another disk.</p>
            </div>
            <a class="el-button el-button--large" href="/api/backup.sqlite" download>Save it</a>
          </div>
          <CopiesCard />
        </section>
        <section class="card stack" aria-label="For scripts">
          <h2>For scripts</h2>
          <p class="quiet small">
            All that the pages do goes by HTTP: <a href="/api/openapi.json">OpenAPI 3.1</a> tells every address. Ids are made by whoever
            writes, so that sending twice is harmless. A weigh-in, for one:
          </p>
          <pre>{{ example }}</pre>
        </section>
      </div>
    </div>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 440px), 1fr));
  gap: 1rem;
  align-items: start;
}
.item {
  display: flex;
  gap: 1rem;
  justify-content: space-between;
  align-items: center;
}
.item > div {
  min-width: 0;
}
.item > .el-button {
  flex: none;
}
a.el-button {
  text-decoration: none;
  display: inline-flex;
  align-items: center;
}
a.el-button--primary {
  color: var(--on-dulse);
}
code,
pre {
  font:
    0.9rem/1.5 ui-monospace,
    monospace;
  background: var(--sunk);
  border-radius: 8px;
  padding: 0.6rem 0.8rem;
  margin: 0;
}
code {
  overflow-wrap: anywhere;
  min-width: 0;
}
pre {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.card > h2 + .item {
  padding-top: 0;
}
</style>
