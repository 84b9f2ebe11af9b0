<script setup lang="ts">
import type { HomeAnswer, HomeDevice, Role } from '#shared/contracts'

/** Devices that were let in: named, last seen, changed and taken off one by one. */
const props = defineProps<{ home: HomeAnswer }>()
const emit = defineEmits<{ changed: [home: HomeAnswer] }>()
const format = useFormat()
const { now } = useClock()
const chosen = ref<{ device: HomeDevice; name: string; role: Role }>()
const problems = ref<Record<string, string>>({})
const off = ref<HomeDevice>()
const ROLE_WORDS = { cook: 'logs and reads', keeper: 'everything' }

async function work(what: () => Promise<HomeAnswer>) {
  problems.value = {}
  try {
    emit('changed', await what())
    chosen.value = off.value = undefined
  } catch (error) {
    problems.value = fieldsOf(error)
  }
}
const save = () =>
  work(() =>
    call('changeHomeDevice', {
      params: { homeDeviceId: chosen.value!.device.id },
      body: { name: chosen.value!.name, role: chosen.value!.role },
    }),
  )
const takeOff = (device: HomeDevice) => work(() => call('removeHomeDevice', { params: { homeDeviceId: device.id } }))
const isOwn = (device: HomeDevice) => device.id === props.home.own
</script>

<template>
  <section class="card" aria-label="Devices let in">
    <h2>Devices let in</h2>
    <p v-if="home.devices.length === 0" class="quiet">None yet. This computer itself needs no code.</p>
    <ul class="plain-list">
      <li v-for="device in home.devices" :key="device.id" class="item">
        <form v-if="chosen?.device.id === device.id" class="form" @submit.prevent="save">
          <TextField v-model="chosen.name" label="Name" :problem="problems.name" />
          <ChoiceField
            v-model="chosen.role"
            label="What it may"
            :choices="[
              { value: 'cook', words: 'Log and read' },
              { value: 'keeper', words: 'Everything' },
            ]"
          />
          <div class="row">
            <ElButton type="primary" native-type="submit">Save</ElButton><ElButton @click="chosen = undefined">Cancel</ElButton>
          </div>
        </form>
        <div v-else class="row between">
          <div>
            <strong>{{ device.name }}</strong> <span v-if="isOwn(device)" class="tag">this one</span>
            <p class="quiet small">
              {{ ROLE_WORDS[device.role] }}; seen {{ format.moment(device.seenAt, now) }}; let in {{ format.date(device.addedAt) }} by
              {{ device.cameBy === 'code' ? 'a code' : 'the passphrase' }}
            </p>
          </div>
          <div v-if="off?.id === device.id" class="row" role="alertdialog" :aria-label="`Take ${device.name} off`">
            <span>{{ isOwn(device) ? 'You are signed out at once.' : 'It is signed out at once.' }}</span>
            <ElButton type="danger" plain @click="takeOff(device)">Take it off</ElButton
            ><ElButton @click="off = undefined">Cancel</ElButton>
          </div>
          <div v-else class="row">
            <ElButton :aria-label="`Change ${device.name}`" @click="chosen = { device, name: device.name, role: device.role }"
              >Change</ElButton
            >
            <ElButton :aria-label="`Take ${device.name} off`" @click="off = device">Take off</ElButton>
          </div>
        </div>
      </li>
    </ul>
    <p v-if="problems.all" class="problem" role="alert">{{ problems.all }}</p>
  </section>
</template>

<style scoped>
.item {
  padding: 0.6rem 0;
  border-top: 1px solid var(--rule);
}
.item:first-child {
  border: 0;
}
</style>
