<script setup lang="ts">
import { Chart, type ChartData, type ChartOptions } from 'chart.js'
import annotation from 'chartjs-plugin-annotation'
import { Scatter } from 'vue-chartjs'
import type { SoakReport } from '#core/heat'
import type { Channel, WindowSummary } from '#core/measure'
import { fromSi, preferredUnit } from '#core/units'
import type { LogFacts, LogView } from '~/workers/log.worker'

Chart.register(annotation)

/** A log's channels over time, one panel for each kind, with silences, losses of the tach and the predicted end of the soak. */
const props = defineProps<{
  channels: Channel[]
  view: LogView
  summary: (WindowSummary | null)[]
  facts: LogFacts
  soak: SoakReport | null
  soakChannel: number | null
  from: number
  to: number
}>()
const emit = defineEmits<{ range: [from: number, to: number]; whole: [] }>()
const settings = useSettingsStore()
const { colours, axis, line, mark, words: wordsAt, still } = useChart()
const { show } = useUnits()
/** Kinds that are drawn at first: the others are a press away. */
const FIRST = new Set(['temperature', 'rotation', 'level', 'flow', 'power', 'speed'])
const hidden = ref(new Set<number>())
watch(
  () => props.channels.length,
  (n, before = 0) => {
    const kinds = new Set(props.channels.map((c) => c.quantity))
    if (kinds.size > 4)
      for (let i = before; i < n; i++) if (!FIRST.has(props.channels[i]!.quantity)) hidden.value.add(i)
  },
  { immediate: true },
)
const asTable = ref(false)
function toggle(i: number) {
  const next = new Set(hidden.value)
  if (!next.delete(i)) next.add(i)
  hidden.value = next
}
/** Times in the unit that suits the window. */
const clock = computed(() => {
  const span = props.to - props.from
  return span > 3 * 3600
    ? { symbol: 'h', factor: 3600 }
    : span > 180
      ? { symbol: 'min', factor: 60 }
      : { symbol: 's', factor: 1 }
})
const dashes = [[], [7, 3], [2, 3], [7, 3, 2, 3]]
const panels = computed(() => {
  const kinds = [...new Set(props.channels.map((c) => c.quantity))]
  return kinds
    .map((quantity) => ({
      quantity,
      unit: preferredUnit(quantity, settings.units),
      members: props.channels.map((c, i) => ({ ...c, i })).filter((c) => c.quantity === quantity),
    }))
    .filter((p) => p.members.some((m) => !hidden.value.has(m.i)))
})
const colourOf = (order: number) => colours.value.series[order % colours.value.series.length]!
type Panel = (typeof panels.value)[number]
function dataOf(p: Panel): ChartData<'scatter'> {
  const x = (t: number) => t / clock.value.factor
  const soak = props.soak
  const watched = props.soakChannel !== null && p.members.some((m) => m.i === props.soakChannel)
  return {
    datasets: [
      ...p.members
        .filter((m) => !hidden.value.has(m.i) && props.view.channels[m.i])
        .map((m) => {
          const v = props.view.channels[m.i]!
          return {
            label: m.name,
            data: v.x.map((t, k) => ({ x: x(t), y: Number.isNaN(v.y[k]!) ? NaN : fromSi(v.y[k]!, p.unit) })),
            spanGaps: false,
            ...line(colourOf(p.members.indexOf(m)), 1.6, {
              hit: 4,
              dash: dashes[p.members.indexOf(m) % dashes.length]!,
            }),
            pointRadius: v.x.length < 60 ? 2 : 0,
            // a line along the edge keeps its whole width
            clip: 3,
          }
        }),
      ...(watched && soak?.fit?.trusted
        ? [
            {
              label: 'predicted',
              ...line(colours.value.cap, 1.6, { dash: [3, 3] }),
              data: Array.from({ length: 60 }, (_, k) => {
                const t = soak.from + (k / 59) * (props.to + 0.6 * (props.to - props.from) - soak.from)
                return {
                  x: x(t),
                  y: fromSi(
                    soak.fit!.final + soak.fit!.amplitude * Math.exp(-(t - soak.from) / soak.fit!.tau),
                    p.unit,
                  ),
                }
              }),
            },
          ]
        : []),
    ],
  }
}
const right = computed(() =>
  props.soak?.state === 'predicted' ? props.to + 0.35 * (props.to - props.from) : props.to,
)
const allNought = (p: Panel) =>
  p.members.every((m) => hidden.value.has(m.i) || props.view.channels[m.i]?.y.every((y) => !y))
function optionsOf_(p: Panel, last: boolean): ChartOptions<'scatter'> {
  const x = (t: number) => t / clock.value.factor
  const watched = props.soakChannel !== null && p.members.some((m) => m.i === props.soakChannel)
  const time = axis(last ? `time, ${clock.value.symbol}` : '', { grid: true, most: 9 })
  const value = axis(p.unit.symbol || 'value', { grid: true, most: 4 })
  return {
    ...still,
    normalized: true,
    interaction: { mode: 'nearest', intersect: false, axis: 'x' },
    scales: {
      x: {
        ...time,
        min: x(props.from),
        max: x(right.value),
        ticks: { ...time.ticks, display: last, maxRotation: 0, includeBounds: false },
      },
      y: {
        ...value,
        // what stays at nought has no room below it
        ...(allNought(p) ? { min: 0 } : {}),
        title: { ...value.title, align: 'center' },
        afterFit: (scale) => {
          scale.width = 74
        },
      },
    },
    plugins: {
      legend: { display: false },
      tooltip: {
        callbacks: {
          title: (items) => `${items[0]?.parsed.x?.toFixed(2)} ${clock.value.symbol}`,
          label: (item) => `${item.dataset.label}: ${item.parsed.y?.toPrecision(4)} ${p.unit.symbol}`,
        },
      },
      annotation: {
        annotations: {
          ...Object.fromEntries(
            props.facts.gaps.slice(0, 12).map((g, k) => [
              `gap${k}`,
              {
                type: 'box' as const,
                xMin: x(g.from),
                xMax: x(g.to),
                backgroundColor: `color-mix(in srgb, ${colours.value.other} 22%, transparent)`,
                borderWidth: 0,
              },
            ]),
          ),
          ...(p.quantity === 'rotation'
            ? Object.fromEntries(
                props.facts.tachLosses.slice(0, 12).map((l, k) => [
                  `loss${k}`,
                  {
                    ...mark('x', x(l.at), colours.value.cap, { width: 2, dash: [] }),
                    label: wordsAt('stands', colours.value.cap),
                  },
                ]),
              )
            : {}),
          ...(watched && props.soak?.final != null && props.soak.state !== 'rising'
            ? {
                band: {
                  type: 'box' as const,
                  yMin: fromSi(props.soak.low!, p.unit),
                  yMax: fromSi(props.soak.high!, p.unit),
                  backgroundColor: `color-mix(in srgb, ${colours.value.cap} 12%, transparent)`,
                  borderWidth: 0,
                },
                end: mark('y', fromSi(props.soak.final, p.unit), colours.value.cap, { width: 1, dash: [2, 3] }),
              }
            : {}),
        },
      },
    },
  }
}
/** A drag over a panel chooses the window. */
const dragging = ref<{ left: number; width: number; from: number; startX: number } | null>(null)
const LEFT = 74
const timeAt = (element: HTMLElement, clientX: number) => {
  const box = element.getBoundingClientRect()
  const share = Math.max(0, Math.min(1, (clientX - box.left - LEFT) / (box.width - LEFT - 8)))
  return props.from + share * (right.value - props.from)
}
function down(event: PointerEvent) {
  const element = event.currentTarget as HTMLElement
  dragging.value = {
    left: event.clientX - element.getBoundingClientRect().left,
    width: 0,
    from: timeAt(element, event.clientX),
    startX: event.clientX,
  }
  element.setPointerCapture(event.pointerId)
}
function move(event: PointerEvent) {
  if (dragging.value) dragging.value = { ...dragging.value, width: event.clientX - dragging.value.startX }
}
function up(event: PointerEvent) {
  const d = dragging.value
  dragging.value = null
  if (!d || Math.abs(d.width) < 8) return
  const to = timeAt(event.currentTarget as HTMLElement, event.clientX)
  emit('range', Math.min(d.from, to), Math.max(d.from, to))
}
const words = (p: Panel) =>
  `${p.members.map((m) => m.name).join(', ')} over time. The table holds lowest, mean and highest of the window.`
</script>

<template>
  <div class="stack">
    <div class="row chips">
      <button
        v-for="(c, i) in channels"
        :key="c.name + c.quantity"
        type="button"
        class="tag chip"
        :aria-pressed="!hidden.has(i)"
        @click="toggle(i)"
      >
        {{ c.name }} <span class="mono">{{ show(summary[i]?.last ?? null, c.quantity) }}</span>
      </button>
      <el-button text size="small" :aria-pressed="asTable" @click="asTable = !asTable">
        {{ asTable ? 'Chart' : 'Table' }}
      </el-button>
    </div>
    <div v-if="asTable" class="scroll-x" tabindex="0" role="region" aria-label="The window in numbers">
      <table class="data">
        <thead>
          <tr>
            <th>Channel</th>
            <th class="num">lowest</th>
            <th class="num">mean</th>
            <th class="num">highest</th>
            <th class="num">last</th>
            <th class="num">values</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(c, i) in channels" :key="c.name + c.quantity">
            <td>{{ c.name }}</td>
            <td class="num">
              {{ show(summary[i]?.low ?? null, c.quantity) }}
            </td>
            <td class="num">
              {{ show(summary[i]?.mean ?? null, c.quantity) }}
            </td>
            <td class="num">
              {{ show(summary[i]?.high ?? null, c.quantity) }}
            </td>
            <td class="num">
              {{ show(summary[i]?.last ?? null, c.quantity) }}
            </td>
            <td class="num">
              {{ summary[i]?.n ?? 0 }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <div
      v-else
      class="panels"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @dblclick="emit('whole')"
    >
      <div
        v-if="dragging && Math.abs(dragging.width) > 4"
        class="drag"
        :style="{
          left: `${Math.min(dragging.left, dragging.left + dragging.width)}px`,
          width: `${Math.abs(dragging.width)}px`,
        }"
      />
      <div
        v-for="(p, k) in panels"
        :key="p.quantity"
        class="panel"
        :style="{ height: `${k === panels.length - 1 ? 108 : p.quantity === 'temperature' ? 128 : 76}px` }"
      >
        <Scatter :aria-label="words(p)" :data="dataOf(p)" :options="optionsOf_(p, k === panels.length - 1)" />
      </div>
    </div>
  </div>
</template>

<style scoped>
.chips {
  gap: 6px;
}
.chip {
  cursor: pointer;
  color: inherit;
}
.chip[aria-pressed='false'] {
  opacity: 0.62;
  text-decoration: line-through;
}
.panels {
  position: relative;
  touch-action: pan-y;
  cursor: crosshair;
  display: grid;
  gap: 2px;
}
.panel {
  min-width: 0;
  position: relative;
}
.drag {
  position: absolute;
  top: 0;
  bottom: 0;
  background: color-mix(in srgb, var(--teal) 22%, transparent);
  pointer-events: none;
  z-index: 2;
}
</style>
