<script setup lang="ts">
import type { Reading, ReadingQuantity, Run } from '../../../core/plan'
import { quantityInfo } from '../../../core/units'
import { readingSchema, runSchema } from '../../../shared/schemas/plan'

/** A run: its conditions, and what was read. */
const props = defineProps<{ run: Run, listenerM: number }>()
const store = useJobStore()
const rs = runSchema.shape

const set = <K extends keyof Run>(key: K) => (value: Run[K]) => store.change((d) => {
  const run = d.runs.find(r => r.id === props.run.id)
  if (run) run[key] = value
}, `run.${props.run.id}.${key}`)

const quantities: { value: ReadingQuantity, label: string, place: string, start: number }[] = [
  { value: 'temperature', label: 'Temperature', place: 'inside', start: 25 }, { value: 'level', label: 'Sound level', place: 'listener', start: 35 }, { value: 'flow', label: 'Airflow', place: 'outlet', start: 0.01 },
  { value: 'pressure', label: 'Pressure', place: 'before the fan', start: 5 }, { value: 'rotation', label: 'Speed', place: 'fan', start: 1500 }, { value: 'voltage', label: 'Voltage', place: 'fan', start: 12 },
  { value: 'current', label: 'Current', place: 'fan', start: 0.1 }, { value: 'power', label: 'Power', place: 'wall', start: 50 },
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
const instruments = [{ value: null, label: 'not said' }, { value: 'phone' as const, label: 'phone' }, { value: 'class2' as const, label: 'class 2 meter' }, { value: 'class1' as const, label: 'class 1 meter' }]
const lids = [{ value: null, label: 'not said' }, { value: 'open' as const, label: 'open' }, { value: 'closed' as const, label: 'closed' }]
const ends = [{ value: null, label: 'not said' }, { value: 'fan' as const, label: 'at the fan' }, { value: 'supply' as const, label: 'at the supply' }]
const kinds = [{ value: 'baseline' as const, label: 'baseline' }, { value: 'after' as const, label: 'after the change' }]
const valueSchema = readingSchema.shape.value
/** ISO to what the browser's date field wants, in local time, and back. */
const local = computed(() => {
  const d = new Date(props.run.takenAt)
  return new Date(d.getTime() - d.getTimezoneOffset() * 60000).toISOString().slice(0, 16)
})
function setTime(text: string) {
  const date = new Date(text)
  if (!Number.isNaN(date.getTime())) set('takenAt')(date.toISOString())
}
const timeId = useId()
</script>

<template>
  <section
    class="sheet stack"
    :aria-label="`Run ${run.name}`"
  >
    <div class="fields">
      <TextField
        label="Name of the run"
        :model-value="run.name"
        @update:model-value="set('name')($event)"
      />
      <ChoiceField
        label="Kind"
        :model-value="run.kind"
        :options="kinds"
        @update:model-value="set('kind')($event)"
      />
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
    </div>
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
    <div class="fields tight">
      <QuantityField
        label="Ambient, at the intake"
        quantity="temperature"
        :schema="rs.ambientC"
        :model-value="run.ambientC"
        @update:model-value="set('ambientC')($event)"
      />
      <QuantityField
        label="Load of the equipment"
        quantity="power"
        :schema="rs.heatW"
        :model-value="run.heatW"
        @update:model-value="set('heatW')($event)"
      />
      <QuantityField
        label="Soaked for"
        quantity="duration"
        :schema="rs.soakS"
        :model-value="run.soakS"
        @update:model-value="set('soakS')($event)"
      />
      <YesNoField
        label="No longer changing"
        :model-value="run.steady"
        @update:model-value="set('steady')($event)"
      />
      <QuantityField
        label="Voltage of the fan"
        quantity="voltage"
        :schema="rs.fanV"
        :model-value="run.fanV"
        @update:model-value="set('fanV')($event)"
      />
      <ChoiceField
        label="Voltage read"
        :model-value="run.voltageAt"
        :options="ends"
        @update:model-value="set('voltageAt')($event)"
      />
      <ChoiceField
        label="Lid or door"
        :model-value="run.lid"
        :options="lids"
        @update:model-value="set('lid')($event)"
      />
      <QuantityField
        label="Microphone distance"
        quantity="distance"
        :hint="run.distanceM === null ? 'mark the spot' : undefined"
        :schema="rs.distanceM"
        :model-value="run.distanceM"
        @update:model-value="set('distanceM')($event)"
      />
      <QuantityField
        label="Background, fan off"
        quantity="level"
        :schema="rs.backgroundDbA"
        :model-value="run.backgroundDbA"
        @update:model-value="set('backgroundDbA')($event)"
      />
      <ChoiceField
        label="Sound meter"
        :model-value="run.instrument"
        :options="instruments"
        @update:model-value="set('instrument')($event)"
      />
      <QuantityField
        label="Its floor"
        hint="lowest it can show"
        quantity="level"
        :schema="rs.floorDbA"
        :model-value="run.floorDbA"
        @update:model-value="set('floorDbA')($event)"
      />
      <QuantityField
        v-if="run.kind === 'after'"
        label="Things changed at once"
        quantity="number"
        :schema="rs.changes"
        :model-value="run.changes"
        @update:model-value="set('changes')($event)"
      />
    </div>
    <TextField
      label="Notes"
      :lines="2"
      :model-value="run.notes"
      @update:model-value="set('notes')($event)"
    />
  </section>
</template>

<style scoped>
.entry { display: grid; grid-template-columns: 1fr 1fr 1fr auto; gap: 10px; align-items: end; background: var(--sheet-soft); padding: 10px; border-radius: 6px; }
.entry .button { min-height: 34px; }
.readings td { padding: 3px 6px; }
.bad { color: var(--stop); font-weight: 500; }
@media (max-width: 600px) { .entry { grid-template-columns: 1fr 1fr; } }
</style>
