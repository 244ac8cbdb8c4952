<script setup lang="ts">
import {
  newReading,
  parseReadingLine,
  readingNames,
  type ReadingQuantity,
  type Run,
  type Spoken,
} from '#core/document'

/** A reading in one line, as it is said; what was understood stands below before it is taken. */
const props = defineProps<{
  run: Run
  sources: readonly string[]
  placeOf: (quantity: ReadingQuantity) => string
}>()
const store = useJobStore()
const { units, show } = useUnits()
const text = ref('')
const refused = ref('')
const read = computed(() =>
  parseReadingLine(text.value, {
    units: units.value,
    stages: store.plan!.runs.flatMap((r) => [r.stage, ...r.readings.map((x) => x.stage)]).filter(Boolean),
    sources: props.sources,
    last: props.run.readings.at(-1)?.quantity ?? null,
    placeOf: props.placeOf,
  }),
)
const conditionNames = { ambientC: 'ambient', backgroundDbA: 'background, fan off', soakS: 'soaked for' }
const conditionQuantities = { ambientC: 'temperature', backgroundDbA: 'level', soakS: 'duration' } as const
function wordsOf(part: Spoken): string {
  if (part.kind === 'condition')
    return `condition: ${conditionNames[part.key]} ${show(part.value, conditionQuantities[part.key])}`
  return [
    `${readingNames[part.quantity]} ${part.values.map((v) => show(v, part.quantity)).join(', ')}`,
    part.place ? `at ${part.place}` : 'no place said',
    part.stage ? `stage ${part.stage}` : '',
    part.source ? `only ${part.source} running` : '',
  ]
    .filter(Boolean)
    .join(', ')
}
const understood = computed(() => (read.value.ok ? read.value.parts.map(wordsOf) : []))
function add() {
  const line = read.value
  if (!line.ok) {
    refused.value = line.message
    return
  }
  refused.value = store.change((d) => {
    const run = d.runs.find((r) => r.id === props.run.id)
    if (!run) return
    for (const part of line.parts) {
      if (part.kind === 'condition') {
        run[part.key] = part.value
        continue
      }
      const [value, ...repeats] = part.values
      run.readings.push({
        ...newReading(newId('reading'), part.quantity, part.place, value!),
        repeats,
        stage: part.stage,
        source: part.source,
      })
    }
  })
  if (!refused.value) text.value = ''
}
const id = useId()
const box = ref<HTMLElement>()
defineExpose({ focus: () => box.value?.querySelector('input')?.focus() })
</script>

<template>
  <form ref="box" class="line" @submit.prevent="add">
    <FieldShell :id="id" label="Reading in one line" :error="refused">
      <el-input
        :id="id"
        v-model="text"
        class="mono"
        autocomplete="off"
        spellcheck="false"
        placeholder="31.8 31.3 dB(A) chair, working"
        :aria-describedby="`${id}-understood`"
        @input="refused = ''"
      />
    </FieldShell>
    <el-button type="primary" native-type="submit">Add</el-button>
    <p :id="`${id}-understood`" class="small soft understood" aria-live="polite">
      <template v-if="!text.trim()"
        >Value, unit, where, stage; several apart by “;”. Conditions too: ambient 21 °C; fan off 26
        dB(A).</template
      >
      <template v-else-if="read.ok">
        <span v-for="(words, i) in understood" :key="i" class="part">{{ words }}</span>
      </template>
      <template v-else>{{ read.message }}</template>
    </p>
  </form>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px 10px;
  align-items: end;
}
.line .el-button {
  min-height: 34px;
}
.understood {
  grid-column: 1 / -1;
  min-height: 1.4em;
}
.part + .part::before {
  content: ' · ';
}
</style>
