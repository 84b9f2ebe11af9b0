<script setup lang="ts">
import type { EntryBody } from '#core/log'
import type { JarAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'

/** What is left of another jar goes onto this one. */
const props = defineProps<{ initial?: Extract<EntryBody, { kind: 'pour' }>; jar: JarAnswer }>()
const format = useFormat()
const from = ref(props.initial?.from.jarId ?? props.jar.others[0]?.jarId)
const source = computed(() => props.jar.others.find(other => other.jarId === from.value))
const weightG = ref<number | undefined>(props.initial?.from.weightG ?? (source.value && Math.round(source.value.leftG * 10) / 10))
const older = computed(() => source.value !== undefined && source.value.oldestAt < props.jar.oldestAt)
function read(): FormReading {
  if (!from.value) return { problem: 'There is no other jar of the same.' }
  if (weightG.value === undefined) return { problem: 'Weigh what goes over.' }
  return { bodies: [{ kind: 'pour', jarId: props.initial?.jarId ?? props.jar.jarId, from: { jarId: from.value, weightG: weightG.value } }] }
}
defineExpose({ read })
</script>

<template>
  <WeightField v-if="initial" v-model="weightG" label="Poured over" required />
  <p v-else-if="jar.others.length === 0">
    There is no other jar of the same on the shelf. What a batch gives is poured on when it is packed.
  </p>
  <template v-else>
    <ChoiceField
      v-model="from"
      label="Out of"
      :choices="
        jar.others.slice(0, 12).map(other => ({
          value: other.jarId,
          words: `Jar ${other.number}`,
          note: `${format.weight(other.leftG)}, ${format.month(other.oldestAt)}`,
        }))
      "
    />
    <WeightField :key="from" v-model="weightG" label="Poured over" :hint="source && `${format.weight(source.leftG)} are in it`" required />
    <p class="quiet small">
      A topped-up jar is as old as its oldest part{{ older ? ': this makes it older than it was' : '' }}, and what comes in must be as dry
      as the jar.
    </p>
  </template>
</template>
