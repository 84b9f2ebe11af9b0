<script setup lang="ts">
import { TODO_KINDS, TOLD_UNASKED, WAKING, type TodoKind } from '#core/planning'
import type { MailForm } from '~/components/workshop/AlarmMailbox.vue'

/** Who is told of what is due, and how: on this device, by a message to an address of the web, by mail. */
useHead({ title: 'Alarms · Dulse' })
const format = useFormat()
const { now } = useClock()
const { choice: here } = usePageAlarms()
const { answer, problem, ready, load } = useServer('alarms')
await ready()
const { settings } = storeToRefs(useHouseholdStore())

const chosen = answer.value?.choice ?? { quiet: true }
const quiet = ref(chosen.quiet)
const webhook = ref({ on: chosen.webhook !== undefined, url: chosen.webhook?.url ?? '' })
const mail = ref<MailForm>({
  on: chosen.mail !== undefined,
  host: chosen.mail?.host ?? '',
  port: chosen.mail?.port ?? 587,
  secure: chosen.mail?.secure ?? false,
  user: chosen.mail?.user ?? '',
  password: '',
  from: chosen.mail?.from ?? '',
  to: chosen.mail?.to ?? '',
})
const kinds = reactive({
  webhook: [...(chosen.webhook?.kinds ?? TOLD_UNASKED)],
  mail: [...(chosen.mail?.kinds ?? TOLD_UNASKED)],
})
const problems = ref<Record<string, string>>({})
const problemOf = (field: string) => problems.value[field] ?? problems.value[field.split('.')[1]!]
const told = ref('')
const busy = ref(false)
const checkFields = useFieldChecks()

async function save(): Promise<boolean> {
  problems.value = {}
  told.value = ''
  if (checkFields() !== undefined) return false
  try {
    const { on: mailOn, host, port, secure, user, password, from, to } = mail.value
    await call('saveAlarms', {
      body: {
        quiet: quiet.value,
        ...(webhook.value.on && { webhook: { url: webhook.value.url.trim(), kinds: kinds.webhook } }),
        ...(mailOn && {
          mail: {
            host: host.trim(),
            port: port ?? 0,
            secure,
            user: user.trim() || undefined,
            password: password || undefined,
            from: from.trim(),
            to: to.trim(),
            kinds: kinds.mail,
          },
        }),
      },
    })
    mail.value.password = ''
    await load()
    told.value = 'Saved.'
    return true
  } catch (error) {
    problems.value = fieldsOf(error)
    return false
  }
}
async function tryIt(way: 'webhook' | 'mail') {
  busy.value = true
  try {
    if (!(await save())) return
    await call('tryAlarm', { body: { way } })
    told.value = way === 'mail' ? `Sent to ${mail.value.to}.` : 'It was taken there.'
  } catch (error) {
    problems.value = { [`${way}Trial`]: (error as Error).message }
  } finally {
    busy.value = false
  }
}
const COLUMNS = [
  { key: 'page', words: 'Here' },
  { key: 'webhook', words: 'Message' },
  { key: 'mail', words: 'Mail' },
] as const
const listOf = (way: (typeof COLUMNS)[number]['key']) => (way === 'page' ? here.value.kinds : kinds[way])
function turn(way: (typeof COLUMNS)[number]['key'], kind: TodoKind, on: boolean) {
  const chosen = on ? [...listOf(way), kind] : listOf(way).filter(other => other !== kind)
  if (way === 'page') here.value.kinds = chosen
  else kinds[way] = chosen
}
const shown = computed(() => COLUMNS.filter(({ key }) => key === 'page' || (key === 'mail' ? mail.value.on : webhook.value.on)))
</script>

<template>
  <form class="alarms" @submit.prevent="save">
    <div class="stack">
      <AlarmsHere />
      <AlarmAddress v-model="webhook" :problem-of="problemOf" :busy="busy" @try="tryIt('webhook')" />
      <AlarmMailbox v-model="mail" :problem-of="problemOf" :busy="busy" :has-password="answer?.hasPassword ?? false" @try="tryIt('mail')" />
      <section v-if="answer?.told.length" class="card" aria-label="What was told">
        <h2>What was told</h2>
        <ul class="plain-list">
          <li v-for="(line, i) in answer.told" :key="i" class="told">
            <time>{{ format.moment(line.at, now) }}</time>
            <div>
              <strong>{{ line.title }}</strong>, batch {{ line.number }}, by {{ line.way === 'mail' ? 'mail' : 'message' }}
              <p class="quiet small">{{ line.why }}</p>
              <p v-if="line.failed" class="problem small">{{ line.failed }}</p>
            </div>
          </li>
        </ul>
      </section>
    </div>
    <section class="card stack" aria-label="Of what">
      <h2>Of what</h2>
      <ElCheckbox v-model="quiet" size="large"
        >Messages and mail: quiet from {{ format.clock(settings.sleepFrom) }} to {{ format.clock(settings.sleepTo) }}, except where food
        spoils</ElCheckbox
      >
      <table class="figures kinds">
        <thead>
          <tr>
            <th scope="col">When</th>
            <th v-for="column in shown" :key="column.key" scope="col">{{ column.words }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="kind in TODO_KINDS" :key="kind">
            <th scope="row">{{ TODO_WORDS[kind] }}<span v-if="WAKING.has(kind)" class="tag attention">at night too</span></th>
            <td v-for="column in shown" :key="column.key">
              <ElCheckbox
                :model-value="listOf(column.key).includes(kind)"
                size="large"
                :aria-label="`${TODO_WORDS[kind]}: ${column.words}`"
                @update:model-value="on => turn(column.key, kind, Boolean(on))"
              />
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="problem || problems.all" class="problem" role="alert">{{ problems.all ?? problem }}</p>
      <div class="row">
        <ElButton type="primary" native-type="submit">Save the alarms</ElButton><span class="good" role="status">{{ told }}</span>
      </div>
      <p class="quiet small">
        A calendar with alarms of its own is under <NuxtLink to="/data">Data and copies</NuxtLink>. The same thing is told once; what comes
        up at night is told in the morning, if it still stands.
      </p>
    </section>
  </form>
</template>

<style scoped>
.alarms {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 420px), 1fr));
  gap: 1rem;
  align-items: start;
}
.kinds th[scope='row'] {
  text-align: left;
  font: inherit;
}
.kinds {
  min-width: 0;
}
.kinds th[scope='row'],
.kinds td {
  padding-block: 0;
  white-space: normal;
}
.kinds .tag {
  margin-left: 0.6rem;
}
.alarms :deep(.el-checkbox__label) {
  white-space: normal;
}
.alarms :deep(.el-checkbox) {
  height: auto;
  min-height: 44px;
}
.told {
  display: grid;
  grid-template-columns: 6rem 1fr;
  gap: 0.7rem;
  padding: 0.4rem 0;
  border-top: 1px solid var(--rule);
}
.good {
  color: var(--kelp);
  font-weight: 650;
}
</style>
