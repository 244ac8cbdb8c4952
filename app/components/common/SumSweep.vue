<script setup lang="ts">
import type { ChartData, ChartOptions } from 'chart.js'
import { Scatter } from 'vue-chartjs'
import { sweep, type Sum } from '#core/sums'
import type { Figure } from '#core/figure'
import { fromSi, preferredUnit, type Quantity } from '#core/units'
import type { Inputs } from '#core/verification'

/** How the answer of a sum follows one of its fields: a curve around what was typed, and the same as a table. */
const props = defineProps<{ sum: Sum; inputs: Inputs; figure: Figure }>()
const settings = useSettingsStore()
const { show, bare, symbol } = useUnits()
const { colours, axis, line, still } = useChart()
/** Fields that have a value and change the answer, the first of them shown. */
const fields = computed(() =>
  props.sum.fields.filter((f) => {
    const values = f.list ? [] : sweep(props.sum, props.inputs, f.key).map((p) => p.value)
    return values.some((v) => v !== null && Math.abs(v - props.figure.value!) > 1e-9 * Math.abs(v))
  }),
)
const key = ref('')
watch(
  () => fields.value.map((f) => f.key),
  (keys) => {
    if (!keys.includes(key.value)) key.value = keys[0] ?? ''
  },
  { immediate: true },
)
const field = computed(() => fields.value.find((f) => f.key === key.value))
const points = computed(() => (field.value ? sweep(props.sum, props.inputs, field.value.key) : []))
const inUnit = (value: number | null, quantity: Quantity) =>
  value === null ? null : fromSi(value, preferredUnit(quantity, settings.units))
const titleOf = (label: string, quantity: Quantity) =>
  symbol(quantity) ? `${label.toLowerCase()}, ${symbol(quantity)}` : label.toLowerCase()
const data = computed((): ChartData<'scatter'> => ({
  datasets: [
    {
      ...line(colours.value.teal, 2, { hit: 8 }),
      data: points.value.map((p) => ({
        x: inUnit(p.at, field.value!.quantity)!,
        // a gap where there is no answer
        y: inUnit(p.value, props.figure.quantity) ?? Number.NaN,
      })),
    },
    {
      pointRadius: 6,
      pointHoverRadius: 7,
      pointStyle: 'rectRot',
      borderColor: colours.value.cap,
      backgroundColor: colours.value.cap,
      data: field.value
        ? [
            {
              x: inUnit(props.inputs.n[field.value.key]!, field.value.quantity)!,
              y: inUnit(props.figure.value, props.figure.quantity)!,
            },
          ]
        : [],
    },
  ],
}))
/** An axis whose numbers are written as those of the table. */
function plain(text: string, grid: boolean) {
  const made = axis(text, { grid })
  return { ...made, ticks: { ...made.ticks, format: { useGrouping: false } } }
}
const options = computed((): ChartOptions<'scatter'> => ({
  ...still,
  interaction: { mode: 'nearest', axis: 'x', intersect: false },
  scales: {
    x: plain(titleOf(field.value?.label ?? '', field.value?.quantity ?? 'number'), false),
    y: plain(titleOf(props.figure.label, props.figure.quantity), true),
  },
  plugins: {
    legend: { display: false },
    tooltip: {
      displayColors: false,
      callbacks: {
        label: (item) => {
          if (!field.value) return ''
          const { key: at, quantity } = field.value
          // the second set is what was typed
          const p = item.datasetIndex
            ? { at: props.inputs.n[at], value: props.figure.value }
            : points.value[item.dataIndex]
          return p ? `${show(p.value, props.figure.quantity)} at ${show(p.at, quantity)}` : ''
        },
      },
    },
  },
}))
/** Every fifth point as a table. */
const rows = computed(() => points.value.filter((_, i) => i % 5 === 0))
const words = computed(() => {
  const [first, last] = [rows.value[0], rows.value.at(-1)]
  if (!field.value || !first || !last) return ''
  const { label, quantity } = field.value
  return (
    `${props.figure.label} from ${show(first.value, props.figure.quantity)} to ` +
    `${show(last.value, props.figure.quantity)} as ${label} goes from ${show(first.at, quantity)} ` +
    `to ${show(last.at, quantity)}`
  )
})
const due = useAfterFirstFrame()
const drawn = useDrawn(() => ({ data: data.value, options: options.value }))
</script>

<template>
  <section v-if="field" class="stack" aria-label="How the answer follows">
    <ChoiceField
      v-model="key"
      class="choice"
      label="How it follows"
      :options="fields.map((f) => ({ value: f.key, label: f.label }))"
    />
    <div class="curve">
      <Scatter v-if="due" :aria-label="words" :data="drawn.data" :options="drawn.options" />
    </div>
    <FoldBox title="The same as a table">
      <table class="data">
        <thead>
          <tr>
            <th scope="col">
              {{ field.label }}{{ symbol(field.quantity) ? `, ${symbol(field.quantity)}` : '' }}
            </th>
            <th scope="col">
              {{ figure.label }}{{ symbol(figure.quantity) ? `, ${symbol(figure.quantity)}` : '' }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="p in rows" :key="p.at">
            <td class="mono num">{{ bare(p.at, field.quantity) }}</td>
            <td class="mono num">{{ p.value === null ? 'no answer' : bare(p.value, figure.quantity) }}</td>
          </tr>
        </tbody>
      </table>
    </FoldBox>
  </section>
</template>

<style scoped>
.choice {
  max-width: 320px;
}
.curve {
  height: 300px;
  min-width: 0;
}
.num {
  text-align: right;
}
</style>
