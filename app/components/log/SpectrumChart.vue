<script setup lang="ts">
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  LogarithmicScale,
  type ChartData,
  type ChartOptions,
} from 'chart.js'
import annotation from 'chartjs-plugin-annotation'
import { Bar, Scatter } from 'vue-chartjs'
import type { Traced } from '#core/noise'
import type { Heard } from '~/workers/listen.worker'

Chart.register(BarController, BarElement, CategoryScale, LogarithmicScale, annotation)

/** Two recordings against each other: third-octave bands, and the fine spectrum with the lines that belong to a fan. */
const props = defineProps<{
  before: Heard | null
  after: Heard | null
  traced: Traced[]
  view: 'bands' | 'fine'
}>()
const { colours, axis, line, mark, words: wordsAt, still } = useChart()
const sides = computed(() =>
  [
    { name: 'before', heard: props.before, colour: colours.value.other, dash: [6, 3] },
    { name: 'after', heard: props.after, colour: colours.value.cap, dash: [] as number[] },
  ].filter((s) => s.heard),
)
const bands = computed((): ChartData<'bar'> => ({
  labels: sides.value[0]?.heard?.bands.map((b) => String(b.nominal)) ?? [],
  datasets: sides.value.map((s) => ({
    label: s.name,
    data: s.heard!.bands.map((b) => b.level),
    backgroundColor: s.colour,
    base: floor.value,
  })),
}))
const floor = computed(
  () =>
    Math.floor(Math.min(-60, ...sides.value.flatMap((s) => s.heard!.bands.map((b) => b.level ?? 0))) / 10) * 10,
)
const fine = computed((): ChartData<'scatter'> => ({
  datasets: sides.value.map((s) => ({
    label: s.name,
    ...line(s.colour, 1.3, { hit: 3, dash: s.dash }),
    data: s.heard!.hz.map((hz, i) => ({ x: hz, y: s.heard!.db[i]! })),
  })),
}))
const scaleY = computed(() => axis('dB below full scale', { grid: true, most: 7 }))
const bandOptions = computed((): ChartOptions<'bar'> => ({
  ...still,
  plugins: {
    legend: { display: false },
    tooltip: { callbacks: { label: (i) => `${i.dataset.label}: ${i.parsed.y?.toFixed(1)} dB(A)` } },
  },
  scales: {
    x: axis('third-octave band, Hz, A-weighted', { most: 31 }),
    y: { ...scaleY.value, min: floor.value },
  },
}))
const frequency = computed(() => axis('frequency, Hz', { grid: true, most: 40 }))
const fineOptions = computed((): ChartOptions<'scatter'> => ({
  ...still,
  interaction: { mode: 'nearest', axis: 'x', intersect: false },
  plugins: {
    legend: { display: false },
    tooltip: {
      callbacks: {
        label: (i) => `${i.dataset.label}: ${i.parsed.x?.toFixed(1)} Hz, ${i.parsed.y?.toFixed(1)} dB`,
      },
    },
    annotation: {
      annotations: Object.fromEntries(
        props.traced.slice(0, 6).map((t, k) => [
          `line${k}`,
          {
            ...mark('x', t.line.hz, colours.value.teal, { width: 1, dash: [3, 3] }),
            label: {
              ...wordsAt(`${t.fan}, ${t.what}`, colours.value.teal, k % 2 ? 'start' : 'end'),
              yAdjust: 14 * Math.floor(k / 2),
            },
          },
        ]),
      ),
    },
  },
  scales: {
    x: {
      ...frequency.value,
      type: 'logarithmic',
      min: 20,
      max: 16000,
      ticks: {
        ...frequency.value.ticks,
        maxRotation: 0,
        callback: (v) =>
          [20, 50, 100, 200, 500, 1000, 2000, 5000, 10000].includes(Number(v)) ? String(v) : '',
      },
    },
    y: scaleY.value,
  },
}))
const words = computed(() =>
  sides.value
    .map(
      (s) => `${s.name}: loudest line ${s.heard!.lines[0] ? `${s.heard!.lines[0].hz.toFixed(0)} Hz` : 'none'}`,
    )
    .join('; '),
)
</script>

<template>
  <div class="chart">
    <Bar
      v-if="view === 'bands'"
      :aria-label="`Third-octave bands. ${words}`"
      :data="bands"
      :options="bandOptions"
    />
    <Scatter v-else :aria-label="`Fine spectrum. ${words}`" :data="fine" :options="fineOptions" />
  </div>
</template>

<style scoped>
.chart {
  height: 290px;
  min-width: 0;
}
</style>
