<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { HEARD_DBA, type DayView, type DoubtedDay, type Lane } from '#core/day'
import type { Control } from '#core/document'
import { areaPath, laneAt, linePath, niceScale, yOf, type Scale } from '~/charts/day-layout'

/**
 * A day in lanes: temperatures with their limits, fans, sound, charge and load. A cursor reads all of them: by pointer,
 * or with the arrow keys.
 */
const props = defineProps<{
  view: DayView
  control: Control
  nightLimit: number | null
  drawn: DoubtedDay | null
}>()
const { show } = useUnits()
const box = useTemplateRef<HTMLElement>('box')
const { width: boxWidth } = useElementSize(box)
const LEFT = 46
const RIGHT = 8
const FOOT = 20
const width = computed(() => Math.max(280, Math.round(boxWidth.value) || 640))
const inner = computed(() => width.value - LEFT - RIGHT)

const kept = (lanes: Lane[]) => lanes.flatMap((l) => [...l.low, ...l.high])
const limits = computed(() => props.view.parts.flatMap((p) => (p.limitC === null ? [] : [p.limitC])))
const thresholds = computed(() => {
  const { school, sense, onC, offC } = props.control
  if (school !== 'thermostat' || sense !== 'temperature') return []
  return [
    { label: 'on', value: onC },
    { label: 'off', value: offC },
  ].flatMap(({ label, value }) => (value === null ? [] : [{ label, value }]))
})

const HEAT = 118
/** Lanes from the top: temperatures, one for each group of fans, sound, charge, load. */
const layout = computed(() => {
  const { view } = props
  let top = 12
  const next = (height: number, gap = 14) => {
    const at = top
    top += height + gap
    return { top: at, height }
  }
  const warm = next(HEAT)
  const heat = niceScale(
    [
      ...kept([view.ambient, ...view.parts.map((p) => p.lane)]),
      ...limits.value,
      ...thresholds.value.map((t) => t.value),
    ],
    warm.top,
    warm.height,
  )
  const groups = view.groups.map(() => ({ from: 0, to: 1, ...next(24, 10) }))
  const loud = next(36)
  const levels = kept([view.level]).filter(Number.isFinite)
  const level = niceScale(
    levels.length ? [...levels, Math.min(...levels) - 3] : [20, 30],
    loud.top,
    loud.height,
  )
  const charge = view.charge
    ? {
        from: Math.max(0, Math.floor(10 * Math.min(...kept([view.charge]))) / 10 - 0.05),
        to: 1,
        ...next(26, 10),
      }
    : null
  const load = { from: 0, to: Math.max(1, ...kept([view.load])), ...next(20, 4) }
  return { heat, groups, level, charge, load, height: top + FOOT }
})
const line = (lane: Lane, scale: Scale) => linePath(lane, LEFT, inner.value, scale)
const area = (lane: Lane, scale: Scale) => areaPath(lane, LEFT, inner.value, scale)
const days = computed(() => props.view.seconds / 86_400)
const kindWords = { cold: 'cold', usual: 'usual', hot: 'hottest' }
const dayName = (i: number) =>
  props.view.together === 'kinds' ? `${kindWords[props.view.kinds[i]!]} day` : `day ${i + 1}`
const ticks = computed(() =>
  days.value > 1
    ? Array.from({ length: Math.round(days.value) }, (_, i) => ({
        share: i / days.value,
        label: dayName(i),
      }))
    : (width.value < 460 ? [0, 6, 12, 18, 24] : [0, 4, 8, 12, 16, 20, 24]).map((h) => ({
        share: h / 24,
        label: `${String(h).padStart(2, '0')}:00`,
      })),
)
const x = (share: number) => LEFT + share * inner.value

/** Whether it stands and runs within one column of the drawing. */
function switches({ low, high }: Lane, share: number): boolean {
  const i = Math.floor(share * low.length)
  return low[i] === 0 && high[i]! > 0
}
/** Where the cursor stands, 0..1. */
const cursor = ref(0.6)
const STEP = 1 / 96
const keys: Record<string, number> = {
  ArrowLeft: -STEP,
  ArrowRight: STEP,
  PageDown: -4 * STEP,
  PageUp: 4 * STEP,
}
function moved(event: PointerEvent) {
  const { left, width: wide } = (event.currentTarget as Element).getBoundingClientRect()
  const px = ((event.clientX - left) / wide) * width.value
  cursor.value = Math.min(1, Math.max(0, (px - LEFT) / inner.value))
}
function keyed(event: KeyboardEvent) {
  const by = event.key === 'Home' ? -1 : event.key === 'End' ? 1 : keys[event.key]
  if (by === undefined) return
  event.preventDefault()
  cursor.value = Math.min(1, Math.max(0, cursor.value + by))
}
const reading = computed(() => {
  const { view } = props
  const share = Math.min(0.999, cursor.value)
  const seconds = share * view.seconds
  const clock = printClock(seconds % 86_400)
  const of = (lane: Lane) => laneAt(lane, share)
  const level = of(view.level)
  return {
    when: days.value > 1 ? `${dayName(Math.floor(seconds / 86_400))}, ${clock}` : clock,
    rows: [
      ...view.parts.map((p) => `${p.name} ${show(of(p.lane), 'temperature')}`),
      ...view.groups.map((g) => {
        const duty = of(g.duty) ?? 0
        const name = view.groups.length > 1 ? g.name : 'Fans'
        if (switches(g.duty, share)) return `${name} on and off`
        return duty > 0 ? `${name} ${show(duty, 'ratio')}, ${show(of(g.flow), 'flow')}` : `${name} off`
      }),
      level === null ? 'silent' : level < HEARD_DBA ? 'not heard' : show(level, 'level'),
      ...(view.charge ? [`Charge ${show(of(view.charge), 'ratio')}`] : []),
      `Air around ${show(of(view.ambient), 'temperature')}, load ${show(of(view.load), 'power')}`,
    ],
  }
})
const nightSpan = computed(() => props.nightLimit)
/** Between what the peak lies in 95 of 100 drawn days. */
const peakRange = (i: number) => props.drawn?.peakC[i] ?? null
const tone = (i: number) => `tone-${i % 4}`
</script>

<template>
  <div ref="box" class="chart">
    <svg
      :viewBox="`0 0 ${width} ${layout.height}`"
      :width="width"
      :height="layout.height"
      role="slider"
      tabindex="0"
      aria-label="Time of the day"
      aria-valuemin="0"
      :aria-valuemax="Math.round(view.seconds / 60)"
      :aria-valuenow="Math.round((cursor * view.seconds) / 60)"
      :aria-valuetext="`${reading.when}: ${reading.rows.join('; ')}`"
      @pointermove="moved"
      @pointerdown="moved"
      @keydown="keyed"
    >
      <g class="ticks">
        <template v-for="t in layout.heat.ticks" :key="t">
          <line :x1="LEFT" :x2="width - RIGHT" :y1="yOf(layout.heat, t)" :y2="yOf(layout.heat, t)" />
          <text :x="LEFT - 6" :y="yOf(layout.heat, t) + 4" text-anchor="end">
            {{ show(t, 'temperature').replace(/\s?°.*/, '°') }}
          </text>
        </template>
        <template v-for="t in ticks" :key="t.label">
          <line class="hour" :x1="x(t.share)" :x2="x(t.share)" y1="12" :y2="layout.height - FOOT" />
          <text
            :x="x(t.share)"
            :y="layout.height - 5"
            :text-anchor="t.share >= 1 ? 'end' : t.share <= 0 ? 'start' : 'middle'"
          >
            {{ t.label }}
          </text>
        </template>
      </g>
      <path class="ambient" :d="line(view.ambient, layout.heat)" />
      <template v-for="(p, i) in view.parts" :key="p.id">
        <template v-if="p.limitC !== null">
          <line
            class="limit"
            :class="tone(i)"
            :x1="LEFT"
            :x2="width - RIGHT"
            :y1="yOf(layout.heat, p.limitC)"
            :y2="yOf(layout.heat, p.limitC)"
          />
          <text class="limit-name" :class="tone(i)" :x="LEFT + 6" :y="yOf(layout.heat, p.limitC) - 3">
            {{ view.parts.length > 1 ? `limit of ${p.name}` : 'limit' }} {{ show(p.limitC, 'temperature') }}
          </text>
        </template>
        <rect
          v-if="peakRange(i)"
          class="drawn"
          :class="tone(i)"
          :x="width - RIGHT - 7"
          width="6"
          :y="yOf(layout.heat, peakRange(i)!.high)"
          :height="Math.max(2, yOf(layout.heat, peakRange(i)!.low) - yOf(layout.heat, peakRange(i)!.high))"
        />
        <path class="part" :class="tone(i)" :d="line(p.lane, layout.heat)" />
        <text
          v-if="view.parts.length > 1"
          class="part-name"
          :class="tone(i)"
          :x="LEFT + 6 + 90 * i"
          :y="yOf(layout.heat, p.lane.high[4]!) - 5"
        >
          {{ p.name }}
        </text>
      </template>
      <g v-for="t in thresholds" :key="t.label" class="threshold">
        <line :x1="LEFT" :x2="width - RIGHT" :y1="yOf(layout.heat, t.value)" :y2="yOf(layout.heat, t.value)" />
        <text
          :x="width - RIGHT - 12"
          :y="yOf(layout.heat, t.value) + (t.label === 'on' ? -4 : 13)"
          text-anchor="end"
        >
          {{ t.label }} {{ show(t.value, 'temperature') }}
        </text>
      </g>
      <g v-for="(g, i) in view.groups" :key="i">
        <text class="name" x="2" :y="layout.groups[i]!.top + 16">
          {{ view.groups.length > 1 ? g.name.slice(0, 6) : 'fans' }}
        </text>
        <path class="fans some" :d="area(g.duty, layout.groups[i]!)" />
        <path
          class="fans"
          :d="areaPath({ low: g.duty.low, high: g.duty.low }, LEFT, inner, layout.groups[i]!)"
        />
        <line
          class="foot"
          :x1="LEFT"
          :x2="width - RIGHT"
          :y1="layout.groups[i]!.top + layout.groups[i]!.height"
          :y2="layout.groups[i]!.top + layout.groups[i]!.height"
        />
      </g>
      <text class="name" x="2" :y="layout.level.top + 14">dB(A)</text>
      <text class="name" :x="LEFT - 6" :y="layout.level.top + 36" text-anchor="end">{{ layout.level.to }}</text>
      <path class="sound" :d="line(view.level, layout.level)" />
      <line
        class="foot"
        :x1="LEFT"
        :x2="width - RIGHT"
        :y1="layout.level.top + layout.level.height"
        :y2="layout.level.top + layout.level.height"
      />
      <line
        v-if="nightSpan !== null"
        class="limit"
        :x1="LEFT"
        :x2="width - RIGHT"
        :y1="yOf(layout.level, nightSpan)"
        :y2="yOf(layout.level, nightSpan)"
      />
      <text v-if="nightSpan !== null" class="limit-name" :x="LEFT + 6" :y="yOf(layout.level, nightSpan) - 3">
        night ≤ {{ show(nightSpan, 'level') }}
      </text>
      <template v-if="layout.charge && view.charge">
        <text class="name" x="2" :y="layout.charge.top + 16">battery</text>
        <text class="name" :x="LEFT - 6" :y="layout.charge.top + 30" text-anchor="end">
          {{ Math.round(100 * layout.charge.from) }} %
        </text>
        <path class="charge" :d="line(view.charge, layout.charge)" />
        <line
          class="foot"
          :x1="LEFT"
          :x2="width - RIGHT"
          :y1="layout.charge.top + layout.charge.height"
          :y2="layout.charge.top + layout.charge.height"
        />
      </template>
      <text class="name" x="2" :y="layout.load.top + 14">load</text>
      <path class="load" :d="line(view.load, layout.load)" />
      <line class="cursor" :x1="x(cursor)" :x2="x(cursor)" y1="8" :y2="layout.height - FOOT" />
    </svg>
    <p class="reading small mono" aria-hidden="true">
      <strong>{{ reading.when }}</strong> {{ reading.rows.join(' · ') }}
      <span class="soft">(every {{ view.stepS }} s)</span>
    </p>
  </div>
</template>

<style scoped>
.chart {
  min-width: 0;
}
svg {
  display: block;
  max-width: 100%;
  touch-action: pan-y;
  cursor: crosshair;
}
text {
  font: 11px var(--mono);
  fill: var(--ink-soft);
}
path,
line {
  fill: none;
  vector-effect: non-scaling-stroke;
}
.ticks line,
.foot {
  stroke: var(--line);
}
.ticks .hour {
  stroke-dasharray: 1 4;
}
.ambient {
  stroke: var(--line-strong);
  stroke-width: 1.5;
}
.part {
  stroke: var(--cap);
  stroke-width: 2;
  stroke-linejoin: round;
}
.part.tone-1 {
  stroke: var(--bark);
}
.part.tone-2 {
  stroke: var(--teal);
}
.part.tone-3 {
  stroke: var(--moss);
}
.limit {
  stroke: var(--stop);
  stroke-dasharray: 6 4;
}
.limit-name {
  fill: var(--stop);
}
.part-name {
  fill: var(--cap);
}
.part-name.tone-1 {
  fill: var(--bark);
}
.part-name.tone-2 {
  fill: var(--teal);
}
.part-name.tone-3 {
  fill: var(--moss);
}
.drawn {
  fill: var(--line-strong);
  opacity: 0.6;
}
.threshold line {
  stroke: var(--ink-soft);
  stroke-dasharray: 2 3;
}
.fans {
  fill: var(--teal);
}
.fans.some {
  opacity: 0.4;
}
.sound {
  stroke: var(--bark);
  stroke-width: 1.5;
}
.charge {
  stroke: var(--moss);
  stroke-width: 2;
}
.load {
  stroke: var(--ink-soft);
}
.cursor {
  stroke: var(--ink);
}
.reading {
  min-height: 2.9em;
  padding-left: 46px;
}
@media (max-width: 560px) {
  .reading {
    padding-left: 0;
  }
}
</style>
