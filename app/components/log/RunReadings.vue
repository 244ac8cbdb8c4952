<script setup lang="ts">
import {
  newReading,
  readingMean,
  readingNames,
  usualStages,
  type FlowMethod,
  type Reading,
  type ReadingQuantity,
  type Run,
} from '#core/document'
import { quantityInfo } from '#core/units'
import { readingLimit } from '#core/document'
import { plausible, type PlausibleQuantity } from '#core/measure'
import type { TakenHow } from './ConvertPanel.vue'

/** What was read in a run: kind, place, stage, the source that ran alone, one or several values. */
const props = defineProps<{ run: Run }>()
const store = useJobStore()
const { show } = useUnits()
const places: Record<ReadingQuantity, string> = {
  temperature: 'inside',
  level: 'listener',
  flow: 'outlet',
  pressure: 'before the fan',
  rotation: 'fan',
  voltage: 'fan',
  current: 'fan',
  power: 'wall',
  duration: 'on one charge',
  speed: 'at the source',
  distance: 'before the opening',
  ratio: 'inside',
  waterPerDay: 'tank',
  number: '',
}
const quantities = Object.entries(readingNames).map(([value, label]) => ({
  value: value as ReadingQuantity,
  label,
}))
const methods: { value: FlowMethod | null; label: string }[] = [
  { value: null, label: 'not said' },
  { value: 'traverse', label: 'points over the opening' },
  { value: 'hood', label: 'through a hood' },
  { value: 'vane-centre', label: 'middle of the opening only' },
  { value: 'jet', label: 'in the free jet' },
]
const knownPlaces = computed(() => [
  ...new Set(
    [
      ...store.plan!.targets.map((t) => t.place),
      ...store.plan!.runs.flatMap((r) => r.readings.map((x) => x.place)),
    ].filter(Boolean),
  ),
])
const knownSources = computed(() => [
  ...new Set(store.plan!.runs.flatMap((r) => r.readings.map((x) => x.source)).filter(Boolean)),
])

// the reading being typed: it joins the run when it can be read
/** Where it was read last, else where the target is judged, else where it is usually read. */
const placeFor = (q: ReadingQuantity) =>
  store
    .plan!.runs.toReversed()
    .flatMap((r) => r.readings.toReversed())
    .find((r) => r.quantity === q && r.place)?.place ??
  store.plan!.targets.find((t) => t.kind === q && t.place)?.place ??
  places[q]
const entry = reactive({
  quantity: 'temperature' as ReadingQuantity,
  place: placeFor('temperature'),
  stage: '',
  source: '',
  method: null as FlowMethod | null,
  points: null as number | null,
  halfWidth: null as number | null,
  values: [] as number[],
})
const turn = ref(0)
const converting = ref(false)
const problem = ref('')
const valueBox = ref<HTMLElement>()
const focusValue = () => valueBox.value?.querySelector('input')?.focus()
watch(
  () => entry.quantity,
  (q) => {
    Object.assign(entry, {
      place: placeFor(q),
      values: [],
      method: null,
      points: null,
      halfWidth: null,
      source: q === 'level' ? entry.source : '',
    })
    problem.value = ''
  },
)
async function add() {
  const [value, ...repeats] = entry.values
  if (value === undefined) {
    problem.value = `Type ${quantityInfo(entry.quantity).article} first, such as ${quantityInfo(entry.quantity).example}.`
    focusValue()
    return
  }
  const reading: Reading = {
    ...newReading(newId('reading'), entry.quantity, entry.place, value),
    repeats,
    stage: entry.stage,
    source: entry.source,
    method: entry.quantity === 'flow' ? entry.method : null,
    points: entry.quantity === 'flow' ? entry.points : null,
    halfWidth: entry.halfWidth,
  }
  problem.value = store.change((d) => d.runs.find((r) => r.id === props.run.id)?.readings.push(reading))
  if (problem.value) return
  Object.assign(entry, { values: [], halfWidth: null })
  turn.value++
  await nextTick()
  focusValue()
}
async function take(quantity: ReadingQuantity, value: number, how: TakenHow) {
  entry.quantity = quantity
  // the change of kind clears the entry first; the field shows the value before it is stepped into
  await nextTick()
  Object.assign(entry, { values: [value], ...how })
  await nextTick()
  focusValue()
}
const line = ref<{ focus: () => void }>()
defineExpose({ focus: () => line.value?.focus() })

const asked = new Set<string>(['rotation', 'flow', 'pressure', 'level', 'voltage', 'current', 'temperature'])
/** Asks about a reading that is rare for its kind: a slipped unit or decimal point looks like that. */
const isUnusual = ({ quantity, value }: Reading) =>
  asked.has(quantity) && plausible(quantity as PlausibleQuantity, value) === 'ask'
const readingHint = (reading: Reading): string =>
  [
    reading.repeats.length ? `mean ${show(readingMean(reading), reading.quantity)}` : '',
    reading.halfWidth === null ? '' : `worth ± ${show(reading.halfWidth, halfWidthUnit(reading.quantity))}`,
    isUnusual(reading) ? 'unusual for its kind: is unit and point right?' : '',
  ]
    .filter(Boolean)
    .join('; ')
const halfWidthUnit = (quantity: ReadingQuantity) =>
  quantity === 'temperature' ? 'temperatureDifference' : quantity === 'level' ? 'levelDifference' : quantity

const edit = (id: string, field: string, mutate: (r: Reading) => void) =>
  store.change((d) => {
    const reading = d.runs.find((r) => r.id === props.run.id)?.readings.find((r) => r.id === id)
    if (reading) mutate(reading)
  }, `reading.${id}.${field}`)
const remove = (reading: Reading) =>
  store.removeWithUndo(`${readingNames[reading.quantity]} removed.`, (d) => {
    const run = d.runs.find((r) => r.id === props.run.id)
    if (run) run.readings = run.readings.filter((r) => r.id !== reading.id)
  })
const setValues = (reading: Reading, values: number[]) => {
  const [value, ...repeats] = values
  if (value !== undefined) edit(reading.id, 'value', (r) => Object.assign(r, { value, repeats }))
}
</script>

<template>
  <ReadingLine ref="line" :run="run" :sources="knownSources" :place-of="placeFor" />
  <div v-if="run.readings.length" class="scroll-x" tabindex="0" role="region" aria-label="Readings of this run">
    <table class="data readings blocks">
      <thead>
        <tr>
          <th>What</th>
          <th>Where</th>
          <th>Stage</th>
          <th>Running alone</th>
          <th>Values read</th>
          <th><span class="visually-hidden">Remove</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="reading in run.readings" :key="reading.id">
          <td class="wide">
            {{ readingNames[reading.quantity] }}
            <span v-if="reading.method" class="small soft block"
              >{{ methods.find((m) => m.value === reading.method)?.label
              }}{{ reading.points ? `, ${reading.points} points` : '' }}</span
            >
          </td>
          <td data-label="Where">
            <TextField
              label="Where"
              hide-label
              :suggest="knownPlaces"
              :model-value="reading.place"
              @update:model-value="
                edit(reading.id, 'place', (r) => {
                  r.place = $event
                })
              "
            />
          </td>
          <td data-label="Stage">
            <TextField
              label="Stage"
              hide-label
              :placeholder="run.stage || 'as the run'"
              :suggest="usualStages"
              :model-value="reading.stage"
              @update:model-value="
                edit(reading.id, 'stage', (r) => {
                  r.stage = $event
                })
              "
            />
          </td>
          <td v-if="reading.quantity !== 'level'" class="no-source" />
          <td v-else data-label="Only source running">
            <TextField
              label="Only source running"
              hide-label
              placeholder="all together"
              :suggest="knownSources"
              :model-value="reading.source"
              @update:model-value="
                edit(reading.id, 'source', (r) => {
                  r.source = $event
                })
              "
            />
          </td>
          <td data-label="Values read" class="values">
            <QuantityListField
              :label="`${readingNames[reading.quantity]} at ${reading.place}`"
              hide-label
              required
              :quantity="reading.quantity"
              :schema="readingLimit(reading.quantity)"
              :hint="readingHint(reading)"
              :model-value="[reading.value, ...reading.repeats]"
              @update:model-value="setValues(reading, $event)"
            />
          </td>
          <td class="last">
            <el-button
              text
              class="icon"
              :aria-label="`Remove ${readingNames[reading.quantity]} at ${reading.place}`"
              @click="remove(reading)"
            >
              ×
            </el-button>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
  <FoldBox title="By fields, or worked out from an instrument">
    <form class="entry" @submit.prevent="add">
      <ChoiceField v-model="entry.quantity" label="Reading" :options="quantities" />
      <TextField v-model="entry.place" label="At" :suggest="knownPlaces" />
      <TextField v-model="entry.stage" label="In stage" placeholder="as the run" :suggest="usualStages" />
      <TextField
        v-if="entry.quantity === 'level'"
        v-model="entry.source"
        label="Only source running"
        placeholder="all together"
        :suggest="knownSources"
      />
      <ChoiceField
        v-if="entry.quantity === 'flow'"
        v-model="entry.method"
        label="Read how"
        :options="methods"
      />
      <div ref="valueBox" class="value">
        <QuantityListField
          :key="`${entry.quantity}-${turn}`"
          v-model="entry.values"
          label="Values read"
          :quantity="entry.quantity"
          :placeholder="quantityInfo(entry.quantity).example"
          :schema="readingLimit(entry.quantity)"
          hint="several where it was read again: 33.8 34.1 33.6"
        />
      </div>
      <div class="row buttons">
        <el-button type="primary" native-type="submit">Add reading</el-button>
        <el-button text :aria-expanded="converting" @click="converting = !converting"> Work it out </el-button>
      </div>
    </form>
    <p v-if="problem" class="bad" role="alert">
      {{ problem }}
    </p>
    <ConvertPanel v-if="converting" @take="take" />
  </FoldBox>
</template>

<style scoped>
.entry {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(130px, 1fr));
  gap: 10px;
  align-items: start;
  background: var(--sheet-soft);
  padding: 10px;
  border-radius: 6px;
}
.value {
  grid-column: span 2;
}
.buttons {
  align-self: start;
  padding-top: 21px;
  grid-column: span 2;
  flex-wrap: nowrap;
}
.entry .el-button {
  min-height: 34px;
}
.readings td {
  padding: 3px 5px;
  min-width: 84px;
  vertical-align: top;
}
.readings td:first-child {
  padding-top: 9px;
}
.readings td:nth-child(2) {
  min-width: 124px;
}
.readings td:last-child {
  min-width: 0;
}
.readings td:nth-child(5) {
  min-width: 170px;
}
.block {
  display: block;
}
.bad {
  color: var(--stop);
  font-weight: 500;
}
@media (max-width: 760px) {
  .no-source {
    display: none;
  }
  .readings .values {
    flex: 1 1 60%;
  }
}
@media (max-width: 600px) {
  .value,
  .buttons {
    grid-column: 1 / -1;
  }
  .buttons {
    padding-top: 0;
  }
}
</style>
