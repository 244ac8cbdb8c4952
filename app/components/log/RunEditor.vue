<script setup lang="ts">
import { testOf, withTest } from '#core/advice'
import { usualStages, type Fan, type Run } from '#core/document'
import { runSchema } from '#core/document'

/** A run: what it is, what was read, under which conditions. */
const props = defineProps<{ run: Run }>()
const store = useJobStore()
const shelf = useShelfStore()
const toast = useToast()
const change = (key: keyof Run, value: unknown) =>
  store.change(
    (d) =>
      assign(
        d.runs.find((r) => r.id === props.run.id),
        key,
        value,
      ),
    `run.${props.run.id}.${key}`,
  )
function set(key: keyof Run, value: unknown) {
  if (key !== 'kind') return change(key, value)
  store.change((d) => {
    const run = d.runs.find((r) => r.id === props.run.id)
    if (run)
      Object.assign(run, {
        kind: value,
        changeNo: value === 'after' ? (run.changeNo ?? 1) : null,
        changes: value === 'after' ? (run.changes ?? 1) : null,
      })
  })
}
const after = computed(() => props.run.kind === 'after')
const heading = computed((): Field<keyof Run>[] => [
  { key: 'name', label: 'Name of the run', text: true },
  {
    key: 'kind',
    label: 'Kind',
    options: optionsOf({ baseline: 'baseline', after: 'after a change', bench: 'bench test of the fan' }),
  },
  ...(after.value
    ? [
        {
          key: 'changeNo',
          label: 'After change number',
          quantity: 'number',
          hint: 'runs after the same change are replicates',
        } as const,
        {
          key: 'changed',
          label: 'What was changed',
          options: optionsOf(
            {
              fan: 'the fan',
              voltage: 'its voltage or speed',
              path: 'the air path',
              mount: 'the mounting',
              other: 'something else',
            },
            'not said',
          ),
        } as const,
      ]
    : []),
])
const conditions = computed((): Field<keyof Run>[] => [
  { key: 'ambientC', label: 'Ambient, at the intake', quantity: 'temperature' },
  { key: 'heatW', label: 'Load of the equipment', quantity: 'power' },
  { key: 'soakS', label: 'Soaked for', quantity: 'duration', hint: 'warm-up before the reading' },
  { key: 'steady', label: 'No longer changing', yesNo: true },
  { key: 'fanV', label: 'Voltage of the fan', quantity: 'voltage' },
  {
    key: 'voltageAt',
    label: 'Voltage read',
    options: optionsOf({ fan: 'at the fan', supply: 'at the supply' }, 'not said'),
  },
  { key: 'lid', label: 'Lid or door', options: optionsOf({ open: 'open', closed: 'closed' }, 'not said') },
  ...(after.value
    ? [
        { key: 'otherOpenings', label: 'Other openings as before', yesNo: true } as const,
        { key: 'changes', label: 'Things changed at once', quantity: 'number' } as const,
      ]
    : []),
  {
    key: 'distanceM',
    label: 'Microphone distance',
    quantity: 'distance',
    hint: props.run.distanceM === null ? 'mark the spot' : '',
  },
  { key: 'backgroundDbA', label: 'Background, fan off', quantity: 'level' },
  {
    key: 'instrument',
    label: 'Sound meter',
    options: optionsOf({ phone: 'phone', class2: 'class 2 meter', class1: 'class 1 meter' }, 'not said'),
  },
  { key: 'calibrated', label: 'Meter checked', yesNo: true },
  { key: 'floorDbA', label: 'Its floor', quantity: 'level', hint: 'lowest it can show' },
])
const notes: Field<keyof Run>[] = [
  { key: 'who', label: 'Who measured', text: true },
  {
    key: 'stoodAt',
    label: 'Where the instruments stood',
    text: true,
    placeholder: 'probe taped to the sink, phone on the marked spot',
  },
]
const words: Field<keyof Run>[] = [{ key: 'notes', label: 'Notes', text: true, lines: 2 }]
/** ISO to what the browser's date field wants, in local time, and back. */
const local = computed(() => {
  const d = new Date(props.run.takenAt)
  return new Date(d.getTime() - d.getTimezoneOffset() * 60000).toISOString().slice(0, 16)
})
function setTime(text: string) {
  const date = new Date(text)
  if (!Number.isNaN(date.getTime())) change('takenAt', date.toISOString())
}
const timeId = useId()
const readings = ref<{ focus: () => void }>()
defineExpose({ addReading: () => readings.value?.focus() })

const test = computed(() => testOf(props.run, `test-${props.run.id}`))
const fan = computed(
  () => shelf.known.find((f) => f.id === store.report?.selection?.fanArray.model.fan.id) ?? null,
)
async function write(id: string, change: (fan: Fan) => Fan): Promise<string> {
  const one = await shelf.fetchOne(id)
  if (!one) return 'The fan is no longer on the shelf.'
  const result = await shelf.save(change(structuredClone(toRaw(one.fan))), one.revision)
  return result.ok ? '' : result.message
}
async function correctFan() {
  const added = test.value
  if (!fan.value || !added) return
  const { id, model } = fan.value
  const problem = await write(id, (f) => withTest(f, added))
  if (problem) return toast.show(problem, { tone: 'bad' })
  toast.show(`The test stands in the record of ${model}; plans that believe own tests use it.`, {
    action: {
      label: 'Undo',
      run: () => write(id, (f) => ({ ...f, tests: f.tests.filter((t) => t.id !== added.id) })),
    },
  })
}
</script>

<template>
  <section class="sheet stack" :aria-label="`Run ${run.name}`">
    <RunReadings ref="readings" :run="run" />
    <InTurn>
      <h3>What was measured, and when</h3>
      <FieldGrid tight :record="run" :fields="heading" :shape="runSchema.shape" @set="set">
        <FieldShell :id="timeId" label="When">
          <input
            :id="timeId"
            class="text-input"
            type="datetime-local"
            :value="local"
            @change="setTime(($event.target as HTMLInputElement).value)"
          />
        </FieldShell>
        <TextField
          label="Operating stage"
          placeholder="working"
          :suggest="usualStages"
          :model-value="run.stage"
          @update:model-value="change('stage', $event)"
        />
      </FieldGrid>
      <p v-if="run.kind === 'bench'" class="row small">
        <el-button size="small" :disabled="!test || !fan" @click="correctFan">
          Write this into the fan’s own record
        </el-button>
        <span class="soft">{{
          !fan
            ? 'Pick the fan on the Line-up first.'
            : !test
              ? 'It takes the voltage and a flow, pressure, speed, current or level.'
              : 'Flow counts as free delivery, pressure as shut-off pressure, at this voltage.'
        }}</span>
      </p>
    </InTurn>
    <InTurn>
      <h3>Under what conditions</h3>
      <FieldGrid tight :record="run" :fields="conditions" :shape="runSchema.shape" @set="set" />
      <p v-if="run.slopeKS !== null || run.tauS !== null" class="small soft">
        From its log: still changing by {{ ((run.slopeKS ?? 0) * 60).toFixed(3) }} K a minute{{
          run.tauS === null ? '' : `, time constant ${(run.tauS / 60).toFixed(1)} min`
        }}.
      </p>
      <FoldBox title="Stage by stage: load, soak, what each fan did">
        <RunStages :run="run" />
      </FoldBox>
    </InTurn>
    <InTurn>
      <FieldGrid :record="run" :fields="notes" :shape="runSchema.shape" @set="set" />
      <FieldGrid class="wide" :record="run" :fields="words" :shape="runSchema.shape" @set="set" />
      <PhotoField
        :photo-id="run.photoId"
        :job-id="store.plan!.job.id"
        :label="`Set-up of ${run.name}`"
        of="this run"
        @set="change('photoId', $event)"
      />
    </InTurn>
  </section>
</template>

<style scoped>
.wide {
  grid-template-columns: 1fr;
}
</style>
