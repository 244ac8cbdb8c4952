<script setup lang="ts">
import type { Reading, ReadingQuantity, Run } from '../../../core/plan'
import { quantityInfo } from '../../../core/units'
import { readingSchema, runSchema } from '../../../shared/schemas/plan'

/** A run: its conditions, and what was read. */
const props = defineProps<{ run: Run, listenerM: number }>()
const store = useJobStore()
const change = (key: keyof Run, value: unknown) => store.change(d => assign(d.runs.find(r => r.id === props.run.id), key, value), `run.${props.run.id}.${key}`)
const heading: Field<keyof Run>[] = [
  { key: 'name', label: 'Name of the run', text: true },
  { key: 'kind', label: 'Kind', options: optionsOf({ baseline: 'baseline', after: 'after the change' }) },
]
const conditions = computed((): Field<keyof Run>[] => [
  { key: 'ambientC', label: 'Ambient, at the intake', quantity: 'temperature' },
  { key: 'heatW', label: 'Load of the equipment', quantity: 'power' },
  { key: 'soakS', label: 'Soaked for', quantity: 'duration' },
  { key: 'steady', label: 'No longer changing', yesNo: true },
  { key: 'fanV', label: 'Voltage of the fan', quantity: 'voltage' },
  { key: 'voltageAt', label: 'Voltage read', options: optionsOf({ fan: 'at the fan', supply: 'at the supply' }, 'not said') },
  { key: 'lid', label: 'Lid or door', options: optionsOf({ open: 'open', closed: 'closed' }, 'not said') },
  { key: 'distanceM', label: 'Microphone distance', quantity: 'distance', hint: props.run.distanceM === null ? 'mark the spot' : '' },
  { key: 'backgroundDbA', label: 'Background, fan off', quantity: 'level' },
  { key: 'instrument', label: 'Sound meter', options: optionsOf({ phone: 'phone', class2: 'class 2 meter', class1: 'class 1 meter' }, 'not said') },
  { key: 'floorDbA', label: 'Its floor', quantity: 'level', hint: 'lowest it can show' },
  ...(props.run.kind === 'after' ? [{ key: 'changes', label: 'Things changed at once', quantity: 'number' } as const] : []),
])
const notes: Field<keyof Run>[] = [{ key: 'notes', label: 'Notes', text: true, lines: 2 }]

const quantities: { value: ReadingQuantity, label: string, place: string, start: number }[] = [
  { value: 'temperature', label: 'Temperature', place: 'inside', start: 25 }, { value: 'level', label: 'Sound level', place: 'listener', start: 35 }, { value: 'flow', label: 'Airflow', place: 'outlet', start: 0.01 },
  { value: 'pressure', label: 'Pressure', place: 'before the fan', start: 5 }, { value: 'rotation', label: 'Speed', place: 'fan', start: 1500 }, { value: 'voltage', label: 'Voltage', place: 'fan', start: 12 },
  { value: 'current', label: 'Current', place: 'fan', start: 0.1 }, { value: 'power', label: 'Power', place: 'wall', start: 50 }, { value: 'duration', label: 'Running time', place: 'on one charge', start: 3600 },
]
const info = (q: ReadingQuantity) => quantities.find(x => x.value === q)!
// the reading being typed: it joins the run when it can be read
const newQuantity = ref<ReadingQuantity>('temperature')
const newPlace = ref('inside')
const newValue = ref<number | null>(null)
const valueBox = ref<HTMLElement>()
const problem = ref('')
const entry = ref(0)
watch(newQuantity, (q) => {
  newPlace.value = info(q).place
  newValue.value = null
  problem.value = ''
})
async function addReading() {
  if (newValue.value === null) {
    problem.value = `Type ${quantityInfo(newQuantity.value).article} first, such as ${quantityInfo(newQuantity.value).example}.`
    valueBox.value?.querySelector('input')?.focus()
    return
  }
  const reading: Reading = { id: newId('reading'), quantity: newQuantity.value, place: newPlace.value, value: newValue.value }
  problem.value = store.change(d => d.runs.find(r => r.id === props.run.id)?.readings.push(reading))
  if (problem.value) return
  newValue.value = null
  entry.value++
  await nextTick()
  valueBox.value?.querySelector('input')?.focus()
}
defineExpose({ addReading: () => valueBox.value?.querySelector('input')?.focus() })

const edit = (id: string, field: string, mutate: (r: Reading) => void) => store.change((d) => {
  const reading = d.runs.find(r => r.id === props.run.id)?.readings.find(r => r.id === id)
  if (reading) mutate(reading)
}, `reading.${id}.${field}`)
const remove = (reading: Reading) => store.removeWithUndo(`${info(reading.quantity).label} removed.`, (d) => {
  const run = d.runs.find(r => r.id === props.run.id)
  if (run) run.readings = run.readings.filter(r => r.id !== reading.id)
})
const valueSchema = readingSchema.shape.value
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
</script>

<template>
  <section
    class="sheet stack"
    :aria-label="`Run ${run.name}`"
  >
    <FieldGrid
      :record="run"
      :fields="heading"
      :shape="runSchema.shape"
      @set="change"
    >
      <div class="field">
        <label :for="timeId">When</label>
        <input
          :id="timeId"
          class="text-input"
          type="datetime-local"
          :value="local"
          @change="setTime(($event.target as HTMLInputElement).value)"
        >
      </div>
    </FieldGrid>
    <h3>Readings</h3>
    <table
      v-if="run.readings.length"
      class="data readings"
    >
      <thead>
        <tr>
          <th>What</th>
          <th>Where</th>
          <th>Value</th>
          <th><span class="visually-hidden">Remove</span></th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="reading in run.readings"
          :key="reading.id"
        >
          <td>{{ info(reading.quantity).label }}</td>
          <td>
            <TextField
              label="Where"
              hide-label
              :model-value="reading.place"
              @update:model-value="edit(reading.id, 'place', r => { r.place = $event })"
            />
          </td>
          <td>
            <QuantityField
              :label="`${info(reading.quantity).label} at ${reading.place}`"
              hide-label
              :quantity="reading.quantity"
              required
              :schema="valueSchema"
              :model-value="reading.value"
              @update:model-value="edit(reading.id, 'value', r => { r.value = $event! })"
            />
          </td>
          <td>
            <button
              type="button"
              class="button quiet icon"
              :aria-label="`Remove ${info(reading.quantity).label} at ${reading.place}`"
              @click="remove(reading)"
            >
              ×
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <form
      class="entry"
      @submit.prevent="addReading"
    >
      <ChoiceField
        v-model="newQuantity"
        label="Reading"
        :options="quantities"
      />
      <TextField
        v-model="newPlace"
        label="At"
      />
      <div ref="valueBox">
        <QuantityField
          :key="`${newQuantity}-${entry}`"
          v-model="newValue"
          label="Value read"
          :quantity="newQuantity"
          :placeholder="quantityInfo(newQuantity).example"
          :schema="valueSchema"
        />
      </div>
      <button
        type="submit"
        class="button primary"
      >
        Add reading
      </button>
    </form>
    <p
      v-if="problem"
      class="bad"
      role="alert"
    >
      {{ problem }}
    </p>
    <h3>Under what conditions</h3>
    <FieldGrid
      tight
      :record="run"
      :fields="conditions"
      :shape="runSchema.shape"
      @set="change"
    />
    <FieldGrid
      class="wide"
      :record="run"
      :fields="notes"
      :shape="runSchema.shape"
      @set="change"
    />
  </section>
</template>

<style scoped>
.entry { display: grid; grid-template-columns: 1fr 1fr 1fr auto; gap: 10px; align-items: end; background: var(--sheet-soft); padding: 10px; border-radius: 6px; }
.entry .button { min-height: 34px; }
.readings td { padding: 3px 6px; }
.wide { grid-template-columns: 1fr; }
.bad { color: var(--stop); font-weight: 500; }
@media (max-width: 600px) { .entry { grid-template-columns: 1fr 1fr; } }
</style>
