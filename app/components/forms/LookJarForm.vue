<script setup lang="ts">
import { JAR_SAW_WORDS } from '~/utils/logWords'
import type { EntryBody } from '#core/log'
import type { JarAnswer } from '#shared/contracts'
import type { FormReading } from '~/composables/useBatch'

/** What a closed jar shows, and what a spoon says of its clumps. */
type Look = Extract<EntryBody, { kind: 'lookJar' }>
const props = defineProps<{ initial?: Look; jar: JarAnswer }>()
const format = useFormat()
const saw = ref<Look['saw'] | undefined>(props.initial?.saw)
const note = ref(props.initial?.note ?? '')
const THEN: Record<Look['saw'], { words: string; bad: boolean }> = {
  loose: { words: 'It is as it should be.', bad: false },
  packed: { words: 'Only packed, or pressed together while warm: shake it loose, nothing else is needed.', bad: false },
  clumps: {
    words:
      'A spoon does not break them: that is moisture. Begin it again from the jar today, dry the powder in a thin layer, and find out where the damp came in: the lid, a wet spoon, or powder closed in too soon.',
    bad: true,
  },
  moisture: { words: 'Dry it again the same day, and watch it: begin it again from this jar.', bad: true },
  mould: { words: 'Discard the whole jar, untasted. What is not seen has grown through it too.', bad: true },
  insects: { words: 'Discard it, or freeze it at −18 °C for 48 hours where it is only a guest. Look at the jars beside it.', bad: true },
}
const read = (): FormReading =>
  saw.value === undefined
    ? { problem: 'Say what was seen.' }
    : { bodies: [{ kind: 'lookJar', jarId: props.jar.jarId, saw: saw.value, note: note.value.trim() || undefined }] }
defineExpose({ read })
</script>

<template>
  <p class="quiet">
    Turn the closed jar, then knock it. Where something hangs together, open it and press a lump with a spoon: packed powder gives way at
    once, moist powder does not.
  </p>
  <ChoiceField
    v-model="saw"
    label="It is"
    :choices="
      (['loose', 'packed', 'clumps', 'moisture', 'mould', 'insects'] as const).map(value => ({ value, words: JAR_SAW_WORDS[value] }))
    "
  />
  <p v-if="saw" :class="THEN[saw].bad ? 'caution' : 'quiet'">{{ format.sentence(THEN[saw].words) }}</p>
  <TextField v-model="note" label="Note" optional />
</template>
