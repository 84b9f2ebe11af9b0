<script setup lang="ts">
import type { HomeAnswer } from '#shared/contracts'

/** Chooses or changes the household's passphrase. */
const props = defineProps<{ has: boolean }>()
const emit = defineEmits<{ done: [home: HomeAnswer]; leave: [] }>()
const passphrase = ref('')
const before = ref('')
const signOut = ref(false)
const problems = ref<Record<string, string>>({})
const busy = ref(false)

async function save() {
  busy.value = true
  problems.value = {}
  try {
    emit(
      'done',
      await call('setPassphrase', {
        body: { passphrase: passphrase.value, before: props.has ? before.value : undefined, signOut: signOut.value },
      }),
    )
  } catch (error) {
    problems.value = fieldsOf(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <form class="form" @submit.prevent="save">
    <SecretField v-if="has" v-model="before" label="Passphrase until now" autocomplete="current-password" :problem="problems.before" />
    <SecretField
      v-model="passphrase"
      :label="has ? 'New passphrase' : 'Passphrase of the household'"
      autocomplete="new-password"
      hint="12 letters or more; four words that do not belong together do well. Spaces count, capitals need not be."
      :problem="problems.passphrase"
    />
    <label v-if="has" class="row"><input v-model="signOut" type="checkbox" /> Sign all other devices out</label>
    <p v-if="problems.all" class="problem">{{ problems.all }}</p>
    <div class="row">
      <ElButton type="primary" native-type="submit" :loading="busy">{{ has ? 'Change it' : 'Keep this passphrase' }}</ElButton><ElButton
        v-if="has"
        @click="emit('leave')"
        >Cancel</ElButton
      >
    </div>
  </form>
</template>
