<script setup lang="ts">
import { Chart, Filler, type ChartData, type ChartOptions } from 'chart.js'
import annotation from 'chartjs-plugin-annotation'
import { Scatter } from 'vue-chartjs'
import type { Spanned } from '#core/lab'
import { fromSi, preferredUnit } from '#core/units'

Chart.register(Filler, annotation)

export interface CurveSeries {
  id: string
  label: string
  points: { flow: number; pressure: number }[]
  tone: 'pick' | 'other' | 'lit' | 'member'
  /** its place among those compared by hand */ order?: number
  operating: { flow: number; pressure: number; low?: number | null; high?: number | null } | null
  /** where else curve and path meet: it may settle there, or only passes */
  others?: { flow: number; pressure: number; stable: boolean }[]
}
const otherWords = (stable: boolean) => (stable ? 'may settle here too' : 'does not stay here')

/** Pressure over flow: fan curves as driven, the path with its band, the need, the operating points. The same data stand in a table. */
const props = defineProps<{
  series: CurveSeries[]
  path: { flow: number; drop: number; low: number; high: number }[]
  need: number | null
  design: number | null
  height: number
  /** a fan alone: no path, no need */
  plain?: boolean
  /** what its curves are called where it is alone */
  names?: { pick: string; other: string }
  /** points that were read, with what they are worth in both directions */
  measured?: { label: string; flow: Spanned; pressure: Spanned; odd: boolean }[]
}>()
const settings = useSettingsStore()
const asTable = ref(false)
const flowUnit = computed(() => preferredUnit('flow', settings.units))
const pressureUnit = computed(() => preferredUnit('pressure', settings.units))
const x = (si: number) => fromSi(si, flowUnit.value)
const y = (si: number) => fromSi(si, pressureUnit.value)

const { colours, axis, line, mark, words: wordsAt, still } = useChart()
const tone = (s: CurveSeries) =>
  s.tone === 'pick' || s.tone === 'member'
    ? colours.value.cap
    : s.order !== undefined
      ? colours.value.series[s.order % colours.value.series.length]!
      : s.tone === 'lit'
        ? colours.value.lit
        : colours.value.other
/** What is compared by hand keeps a colour and a dash of its own, so that it is told apart without colour as well. */
const compared = computed(() =>
  props.series.filter((s) => s.order !== undefined).sort((a, b) => a.order! - b.order!),
)
const dashes = [[], [8, 3], [2, 3], [8, 3, 2, 3], [14, 4], [4, 2]]
const dash = (s: CurveSeries) =>
  s.order !== undefined
    ? dashes[s.order % dashes.length]!
    : s.tone === 'lit'
      ? [7, 4]
      : s.tone === 'member'
        ? [3, 3]
        : []

const top = computed(() => {
  const shown = props.series.flatMap((s) => (s.operating ? [s.operating.pressure] : []))
  const highest = Math.max(
    ...props.series.flatMap((s) => s.points.map((p) => p.pressure)),
    ...(props.measured ?? []).map((m) => m.pressure.high),
    1,
  )
  if (props.plain) return highest * 1.05
  const useful = Math.max(...shown, props.path.find((p) => p.flow >= (props.design ?? 0))?.drop ?? 0, 1)
  return Math.min(highest * 1.05, useful * 4)
})
const right = computed(() =>
  Math.max(
    ...props.series.map((s) => s.points.at(-1)?.flow ?? 0),
    ...(props.measured ?? []).map((m) => m.flow.high),
    (props.design ?? 0) * 1.3,
    1e-4,
  ),
)

/** Bars of the readings: pairs of ends, parted by gaps. */
const bars = computed(() =>
  (props.measured ?? []).flatMap(({ flow, pressure }) => [
    { x: x(flow.low), y: y(pressure.value) },
    { x: x(flow.high), y: y(pressure.value) },
    { x: Number.NaN, y: Number.NaN },
    { x: x(flow.value), y: y(pressure.low) },
    { x: x(flow.value), y: y(pressure.high) },
    { x: Number.NaN, y: Number.NaN },
  ]),
)
const measuredSets = computed((): ChartData<'scatter'>['datasets'] => [
  {
    label: 'range of readings',
    data: bars.value,
    ...line(colours.value.ink, 1.5),
  },
  ...(props.measured ?? []).map((m) => ({
    label: m.label,
    data: [{ x: x(m.flow.value), y: y(m.pressure.value) }],
    pointStyle: m.odd ? ('rectRot' as const) : ('circle' as const),
    pointRadius: m.odd ? 7 : 5,
    pointHoverRadius: 8,
    pointHitRadius: 10,
    backgroundColor: m.odd ? colours.value.lit : colours.value.ink,
    borderColor: colours.value.sheet,
    borderWidth: 1.5,
  })),
])

const data = computed((): ChartData<'scatter'> => ({
  datasets: [
    ...(props.measured ? measuredSets.value : []),
    ...props.series.map((s) => ({
      label: s.label,
      data: s.points.map((p) => ({ x: x(p.flow), y: y(p.pressure) })),
      ...line(tone(s), s.tone === 'pick' || s.tone === 'lit' ? 3 : s.order !== undefined ? 2 : 1.4, {
        dash: dash(s),
      }),
    })),
    {
      label: 'path, low',
      data: props.path.map((p) => ({ x: x(p.flow), y: y(p.low) })),
      ...line(colours.value.bark, 0),
      fill: false,
    },
    {
      label: 'path, high',
      data: props.path.map((p) => ({ x: x(p.flow), y: y(p.high) })),
      ...line(colours.value.bark, 0),
      fill: '-1',
      backgroundColor: `color-mix(in srgb, ${colours.value.bark} 18%, transparent)`,
    },
    {
      label: 'your air path',
      data: props.path.map((p) => ({ x: x(p.flow), y: y(p.drop) })),
      ...line(colours.value.bark, 2.2),
    },
    // the range of each operating point, along its flow
    ...props.series
      .filter((s) => s.operating?.low && s.operating.high && s.tone !== 'other')
      .map((s) => ({
        label: `${s.label}, range`,
        data: [s.operating!.low!, s.operating!.high!].map((q) => ({ x: x(q), y: y(s.operating!.pressure) })),
        ...line(tone(s), 1.5),
      })),
    ...props.series.flatMap((s) =>
      (s.others ?? []).map((other) => ({
        label: `${s.label}, ${otherWords(other.stable)}`,
        data: [{ x: x(other.flow), y: y(other.pressure) }],
        pointRadius: other.stable ? 6 : 3.5,
        pointHoverRadius: 8,
        pointHitRadius: 10,
        backgroundColor: colours.value.sheet,
        borderColor: tone(s),
        borderWidth: 2,
      })),
    ),
    ...props.series
      .filter((s) => s.operating)
      .map((s) => ({
        label: `${s.label}, operating point`,
        data: [{ x: x(s.operating!.flow), y: y(s.operating!.pressure) }],
        pointRadius: s.tone === 'other' ? 4 : 6.5,
        pointHoverRadius: 8,
        pointHitRadius: 10,
        backgroundColor: tone(s),
        borderColor: colours.value.sheet,
        borderWidth: 1.5,
      })),
  ],
}))
/** An axis from nought to its end, where no number stands unless it is a round one. */
const fromNought = (of: ReturnType<typeof axis>, max: number) => ({
  ...of,
  min: 0,
  max,
  ticks: { ...of.ticks, includeBounds: false },
})
const options = computed((): ChartOptions<'scatter'> => ({
  ...still,
  interaction: { mode: 'nearest', intersect: true },
  scales: {
    x: fromNought(axis(`airflow, ${flowUnit.value.symbol}`), x(right.value)),
    y: fromNought(axis(`static pressure, ${pressureUnit.value.symbol}`, { grid: true, most: 7 }), y(top.value)),
  },
  plugins: {
    legend: { display: false },
    tooltip: {
      filter: (item) => (item.dataset.pointRadius as number) > 0,
      callbacks: {
        label: (item) =>
          `${item.dataset.label?.replace(', operating point', '')}: ${item.parsed.x?.toPrecision(3)} ` +
          `${flowUnit.value.symbol} at ${item.parsed.y?.toPrecision(3)} ${pressureUnit.value.symbol}`,
      },
    },
    annotation: {
      annotations:
        props.need === null
          ? {}
          : {
              band: {
                type: 'box',
                xMin: x(props.need),
                backgroundColor: `color-mix(in srgb, ${colours.value.teal} 9%, transparent)`,
                borderWidth: 0,
                drawTime: 'beforeDatasetsDraw',
              },
              line: {
                ...mark('x', x(props.need), colours.value.teal),
                label: {
                  ...wordsAt(`need ${x(props.need).toPrecision(3)}`, colours.value.teal),
                  xAdjust: 40,
                },
              },
              ...(props.design !== null && props.design > props.need
                ? { design: mark('x', x(props.design), colours.value.teal, { width: 1, dash: [1, 4] }) }
                : {}),
            },
    },
  },
}))
const words = computed(() =>
  props.plain
    ? 'The fan’s curve, pressure over airflow'
    : `Fan curves against your air path. ${props.series
        .filter((s) => s.operating)
        .map(
          (s) =>
            `${s.label}: ${format(x(s.operating!.flow))} ${flowUnit.value.symbol} at ` +
            `${format(y(s.operating!.pressure))} ${pressureUnit.value.symbol}`,
        )
        .join('; ')}`,
)
const format = (value: number) => Number(value.toPrecision(3))
const due = useAfterFirstFrame()
const drawn = useDrawn(() => ({ data: data.value, options: options.value }))
</script>

<template>
  <div>
    <div class="legend small">
      <template v-if="plain">
        <span><i class="pick" />{{ names?.pick ?? 'curve' }}</span>
        <span><i class="other" />{{ names?.other ?? 'its doubt' }}</span>
      </template>
      <template v-else>
        <span><i class="pick" />your pick</span>
        <template v-if="compared.length">
          <span v-for="s in compared" :key="s.id"
            ><svg width="26" height="6" aria-hidden="true">
              <line
                x1="0"
                x2="26"
                y1="3"
                y2="3"
                :stroke="tone(s)"
                stroke-width="2.500"
                :stroke-dasharray="dash(s).join(' ')"
              /></svg
            >{{ s.label }}</span
          >
        </template>
        <span v-else-if="series.some((s) => s.tone === 'other')"><i class="other" />others</span>
        <span v-if="series.some((s) => s.tone === 'member')"><i class="member" />members alone</span>
        <span><i class="path" />your air path, with its doubt</span>
        <span><i class="need" />need<template v-if="design !== null">; with margin dotted</template></span>
      </template>
      <el-button text size="small" :aria-pressed="asTable" @click="asTable = !asTable">
        {{ asTable ? 'Chart' : 'Table' }}
      </el-button>
    </div>
    <div v-if="!asTable" :style="{ height: `${height}px` }">
      <Scatter v-if="due" :aria-label="words" :data="drawn.data" :options="drawn.options" />
    </div>
    <div v-else class="scroll" :style="{ maxHeight: `${height}px` }" tabindex="0">
      <table class="data">
        <thead>
          <tr>
            <th>Curve</th>
            <th class="num">flow, {{ flowUnit.symbol }}</th>
            <th class="num">pressure, {{ pressureUnit.symbol }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="m in measured ?? []" :key="m.label">
            <td>{{ m.label }}</td>
            <td class="num">{{ format(x(m.flow.value)) }}</td>
            <td class="num">{{ format(y(m.pressure.value)) }}</td>
          </tr>
          <template v-for="s in series" :key="s.id">
            <tr v-if="s.operating">
              <td>
                <strong>{{ s.label }}, operating point</strong>
              </td>
              <td class="num">
                {{ format(x(s.operating.flow)) }}
              </td>
              <td class="num">
                {{ format(y(s.operating.pressure)) }}
              </td>
            </tr>
            <tr v-for="other in s.others ?? []" :key="`${s.id}-other-${other.flow}`">
              <td>{{ s.label }}, {{ otherWords(other.stable) }}</td>
              <td class="num">
                {{ format(x(other.flow)) }}
              </td>
              <td class="num">
                {{ format(y(other.pressure)) }}
              </td>
            </tr>
            <tr v-for="p in s.points.filter((_, i) => i % 4 === 0)" :key="`${s.id}-${p.flow}`">
              <td>{{ s.label }}</td>
              <td class="num">
                {{ format(x(p.flow)) }}
              </td>
              <td class="num">
                {{ format(y(p.pressure)) }}
              </td>
            </tr>
          </template>
          <tr v-for="p in path.filter((_, i) => i % 4 === 0)" :key="`path-${p.flow}`">
            <td>your air path</td>
            <td class="num">
              {{ format(x(p.flow)) }}
            </td>
            <td class="num">
              {{ format(y(p.drop)) }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
  margin-bottom: 6px;
  color: var(--ink-soft);
}
.legend span {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}
.legend .el-button {
  margin-left: auto;
}
i {
  display: inline-block;
  width: 18px;
  height: 0;
  border-top: 3px solid;
}
i.pick {
  border-color: var(--cap);
}
i.member {
  border-top: 2px dashed var(--cap);
}
i.other {
  border-top-width: 2px;
  border-color: var(--line-strong);
}
i.path {
  border-color: var(--bark);
}
i.need {
  border-top: 2px dashed var(--teal);
}
.scroll {
  overflow: auto;
}
</style>
