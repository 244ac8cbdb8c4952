<script setup lang="ts">
import { Chart, type ChartData, type ChartOptions } from 'chart.js'
import annotation from 'chartjs-plugin-annotation'
import { Scatter } from 'vue-chartjs'
import { paretoFront, type Candidate } from '#core/selection'
import { fromSi, preferredUnit } from '#core/units'

Chart.register(annotation)

/** Noise against airflow, price in the size: what no other group beats in both is drawn full. */
const props = defineProps<{
  rows: Candidate[]
  picked: Candidate | null
  need: number | null
  limit: number | null
  height: number
}>()
const emit = defineEmits<{ pick: [candidate: Candidate] }>()
const settings = useSettingsStore()
const { colours, axis, mark, still } = useChart()
const unit = computed(() => preferredUnit('flow', settings.units))
const usable = computed(() => props.rows.filter((c) => c.flow !== null && c.level !== null))
const front = computed(() => new Set(paretoFront(usable.value)))
/** The pick is seen whatever it costs, px. */
const PICKED = 7
/** Size by the root of the price, so that the area tells it. */
const radius = (c: Candidate) =>
  Math.max(c === props.picked ? PICKED : 0, 3 + Math.min(7, Math.sqrt(c.cost ?? 0)))
const colour = (c: Candidate) =>
  c === props.picked ? colours.value.cap : front.value.has(c) ? colours.value.teal : colours.value.other
const data = computed((): ChartData<'scatter'> => ({
  datasets: [
    {
      data: usable.value.map((c) => ({ x: fromSi(c.flow!, unit.value), y: c.level!.value })),
      pointRadius: usable.value.map(radius),
      pointHoverRadius: usable.value.map((c) => radius(c) + 2),
      pointHitRadius: 4,
      pointStyle: usable.value.map((c) => (c === props.picked ? 'rectRot' : 'circle')),
      backgroundColor: usable.value.map((c) =>
        front.value.has(c) || c === props.picked ? colour(c) : 'transparent',
      ),
      borderColor: usable.value.map(colour),
      borderWidth: 1.5,
    },
  ],
}))
function wordsOf(index: number): string {
  const c = usable.value[index]!
  return (
    `${c.count} × ${c.model} at ${c.driveV} V: ${fromSi(c.flow!, unit.value).toPrecision(3)} ` +
    `${unit.value.symbol}, ${c.level!.value.toFixed(1)} dB(A)${c.cost === null ? '' : `, € ${c.cost}`}`
  )
}
const options = computed((): ChartOptions<'scatter'> => ({
  ...still,
  onClick: (_, items) => {
    const c = items[0] && usable.value[items[0].index]
    if (c) emit('pick', c)
  },
  scales: {
    x: axis(`airflow on this path, ${unit.value.symbol}`),
    y: axis('level at the listener, dB(A)', { grid: true, most: 7 }),
  },
  plugins: {
    legend: { display: false },
    tooltip: {
      callbacks: {
        label: (item) => wordsOf(item.dataIndex),
      },
    },
    annotation: {
      annotations: {
        ...(props.need === null ? {} : { need: mark('x', fromSi(props.need, unit.value), colours.value.teal) }),
        ...(props.limit === null ? {} : { limit: mark('y', props.limit, colours.value.teal) }),
      },
    },
  },
}))
const pickWords = computed(() => {
  const at = usable.value.indexOf(props.picked!)
  return at < 0 ? '' : `; your pick: ${wordsOf(at)}`
})
const words = computed(
  () =>
    `Level against airflow of ${usable.value.length} groups; ${front.value.size} of them are beaten ` +
    `by none in both${pickWords.value}. The table beside it holds the same data.`,
)
const due = useAfterFirstFrame()
const drawn = useDrawn(() => ({ data: data.value, options: options.value }))
</script>

<template>
  <div>
    <p class="small soft legend">
      Diamond: your pick. Full: no group is quieter with as much air. Size: price. Dashed: need and noise limit.
      A click picks.
    </p>
    <div :style="{ height: `${height}px` }">
      <Scatter v-if="due" :aria-label="words" :data="drawn.data" :options="drawn.options" />
    </div>
  </div>
</template>

<style scoped>
.legend {
  margin-bottom: 6px;
}
</style>
