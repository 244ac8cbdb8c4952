<script setup lang="ts">
import { useElementSize, useThrottleFn } from '@vueuse/core'
import { curveProblem, type CurvePoint } from '#core/control'
import { HEARD_DBA, heardSteps, type DayModel, type Quietest } from '#core/day'
import { curvePointSchema } from '#core/document'
import { curvePointFields } from '~/forms/control-fields'

/**
 * Duty over temperature: points dragged, moved by the arrow keys, or typed. What is drawn follows at once; the plan, and
 * with it the day, a few times a second.
 */
const props = defineProps<{
  model: DayModel | null
  quietest: Quietest | null
  searching: number | null
}>()
const emit = defineEmits<{ search: []; stop: [] }>()
const { plan, control, index, set, change } = useControl()
const store = useJobStore()
const { show } = useUnits()

const group = computed(() => props.model?.groups[index.value] ?? null)
const sensed = computed(() => (group.value ? (props.model!.parts[group.value.sensed] ?? null) : null))
const draft = ref<CurvePoint[] | null>(null)
const points = computed(() => draft.value ?? control.value.points)
const problem = computed(() => (points.value.length ? curveProblem(points.value) : ''))

/** What the fans do at a duty, by the table of the plan. */
function at(duty: number) {
  const table = group.value?.table
  if (!table) return null
  const i = Math.round(duty * (table.flowM3s.length - 1))
  return { flow: table.flowM3s[i]!, level: table.levelDbA[i]! }
}
const heard = computed(() => heardSteps(points.value, (d) => at(d)?.level ?? -Infinity))

const box = useTemplateRef<HTMLElement>('box')
const { width: boxWidth } = useElementSize(box)
const HEIGHT = 250
const [LEFT, RIGHT, TOP, FOOT] = [40, 12, 12, 24]
const width = computed(() => Math.max(280, Math.round(boxWidth.value) || 600))
const PAD_K = 8
const range = computed(() => {
  const warm = [
    ...points.value.map((p) => p.temperatureC),
    props.model?.weather.usual.lowC ?? 20,
    sensed.value?.limitC ?? props.model?.weather.hot.highC ?? 40,
  ]
  const low = Math.floor((Math.min(...warm) - PAD_K) / 5) * 5
  return { low, high: Math.max(low + 20, Math.ceil((Math.max(...warm) + PAD_K) / 5) * 5) }
})
const x = (c: number) =>
  LEFT + ((c - range.value.low) / (range.value.high - range.value.low)) * (width.value - LEFT - RIGHT)
const y = (duty: number) => TOP + (1 - duty) * (HEIGHT - TOP - FOOT)
const ticks = computed(() => {
  const step = range.value.high - range.value.low > 60 ? 20 : 10
  const first = Math.ceil(range.value.low / step) * step
  return Array.from({ length: Math.floor((range.value.high - first) / step) + 1 }, (_, i) => first + i * step)
})
const path = computed(() => {
  const list = points.value
  if (!list.length) return ''
  const [first, last] = [list[0]!, list.at(-1)!]
  const inside = list.map((p) => `L${x(p.temperatureC)} ${y(p.duty)}`).join('')
  return `M${LEFT} ${y(first.duty)}${inside}L${width.value - RIGHT} ${y(last.duty)}`
})

const chosen = ref(0)
const LEAST_K = 0.5
const toHalf = (c: number) => Math.round(2 * c) / 2
const toPercent = (d: number) => Math.round(100 * d) / 100
/** A point moved, never past its neighbours: what is dragged stays a curve. */
function moved(i: number, temperatureC: number, duty: number): CurvePoint[] {
  const list = points.value.map((p) => ({ ...p }))
  const [before, after] = [list[i - 1], list[i + 1]]
  const warm = Math.min(
    after ? after.temperatureC - LEAST_K : 250,
    Math.max(before ? before.temperatureC + LEAST_K : -40, toHalf(temperatureC)),
  )
  const share = Math.min(after?.duty ?? 1, Math.max(before?.duty ?? 0, toPercent(duty)))
  list[i] = { temperatureC: warm, duty: share }
  return list
}
const keep = (list: CurvePoint[]) => set('points', list, 'the curve')
const keepSometimes = useThrottleFn((list: CurvePoint[]) => {
  if (draft.value) keep(list)
}, 180)

const board = useTemplateRef<SVGSVGElement>('board')
const dragged = ref<number | null>(null)
function valueAt(event: PointerEvent) {
  const matrix = board.value!.getScreenCTM()!.inverse()
  const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix)
  return {
    temperatureC:
      range.value.low + ((p.x - LEFT) / (width.value - LEFT - RIGHT)) * (range.value.high - range.value.low),
    duty: 1 - (p.y - TOP) / (HEIGHT - TOP - FOOT),
  }
}
function grab(i: number, event: PointerEvent) {
  chosen.value = i
  dragged.value = i
  draft.value = points.value.map((p) => ({ ...p }))
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}
function drag(event: PointerEvent) {
  if (dragged.value === null) return
  const to = valueAt(event)
  draft.value = moved(dragged.value, to.temperatureC, to.duty)
  void keepSometimes(draft.value)
}
function drop() {
  if (draft.value) keep(draft.value)
  draft.value = null
  dragged.value = null
}
const steps: Record<string, [number, number]> = {
  ArrowLeft: [-0.5, 0],
  ArrowRight: [0.5, 0],
  ArrowUp: [0, 0.01],
  ArrowDown: [0, -0.01],
}
function key(i: number, event: KeyboardEvent) {
  if (event.key === 'Delete' || event.key === 'Backspace') {
    event.preventDefault()
    return remove(i)
  }
  const step = steps[event.key]
  if (!step) return
  event.preventDefault()
  const by = event.shiftKey ? 10 : 1
  const { temperatureC, duty } = points.value[i]!
  keep(moved(i, temperatureC + by * step[0], duty + by * step[1]))
}
const loud = (level: number) => (level < HEARD_DBA ? 'not heard' : show(level, 'level'))
const nameOf = (p: CurvePoint, i: number) => {
  const what = at(p.duty)
  const air = what && what.flow > 0 ? `, ${show(what.flow, 'flow')}, ${loud(what.level)}` : ''
  const step = heard.value.includes(i) ? ', the step to it is heard' : ''
  return `Point ${i + 1}: ${show(p.temperatureC, 'temperature')}, ${show(p.duty, 'ratio')}${air}${step}`
}
/** Before the first point there is a curve to begin with; then in the middle of the widest piece. */
function add() {
  const list = points.value.map((p) => ({ ...p }))
  const limit = sensed.value?.limitC ?? 60
  if (!list.length)
    return keep([
      { temperatureC: limit - 25, duty: Math.max(0.3, group.value?.settings?.minDuty ?? 0) },
      { temperatureC: limit - 5, duty: 1 },
    ])
  if (list.length === 1) return keep([list[0]!, { temperatureC: list[0]!.temperatureC + 10, duty: 1 }])
  const gaps = list.slice(1).map((p, i) => p.temperatureC - list[i]!.temperatureC)
  const i = gaps.indexOf(Math.max(...gaps))
  const [a, b] = [list[i]!, list[i + 1]!]
  list.splice(i + 1, 0, {
    temperatureC: toHalf((a.temperatureC + b.temperatureC) / 2),
    duty: toPercent((a.duty + b.duty) / 2),
  })
  keep(list)
}
const remove = (i: number) =>
  store.removeWithUndo(`Point ${i + 1} removed.`, (d) => d.controls[index.value]?.points.splice(i, 1))
const setPoint = (i: number, field: string, value: unknown) =>
  change((c) => assign(c.points[i]!, field as keyof CurvePoint, value), `points.${i}.${field}`, 'the curve')
const takeQuietest = () => {
  if (props.quietest?.ok) keep(props.quietest.points)
}
const peaks = computed(() => {
  const { day } = store.report!
  const i = group.value?.sensed ?? -1
  return day && i >= 0 ? { usual: day.usual.peakC[i]!, hot: day.hot.peakC[i]! } : null
})
</script>

<template>
  <div class="stack" data-field="points">
    <div ref="box">
      <svg
        ref="board"
        :viewBox="`0 0 ${width} ${HEIGHT}`"
        :width="width"
        :height="HEIGHT"
        role="group"
        aria-label="Duty over temperature; each point is moved by the arrow keys, Delete takes it out"
        @pointermove="drag"
        @pointerup="drop"
        @pointercancel="drop"
      >
        <g class="ticks">
          <template v-for="d in [0, 0.25, 0.5, 0.75, 1]" :key="d">
            <line :x1="LEFT" :x2="width - RIGHT" :y1="y(d)" :y2="y(d)" />
            <text :x="LEFT - 5" :y="y(d) + 4" text-anchor="end">{{ 100 * d }} %</text>
          </template>
          <text
            v-for="t in ticks"
            :key="t"
            :x="x(t)"
            :y="HEIGHT - 7"
            :text-anchor="x(t) > width - 30 ? 'end' : 'middle'"
          >
            {{ show(t, 'temperature') }}
          </text>
        </g>
        <template v-if="sensed?.limitC !== null && sensed">
          <line class="limit" :x1="x(sensed.limitC)" :x2="x(sensed.limitC)" :y1="TOP" :y2="HEIGHT - FOOT" />
          <text class="limit-name" :x="x(sensed.limitC) - 4" :y="HEIGHT - FOOT - 6" text-anchor="end">
            limit
          </text>
        </template>
        <template v-if="peaks">
          <path class="peak" :d="`M${x(peaks.usual)} ${HEIGHT - FOOT}l-5 8h10z`" />
          <path class="peak hot" :d="`M${x(peaks.hot)} ${HEIGHT - FOOT}l-5 8h10z`" />
        </template>
        <path class="curve" :class="{ wrong: problem }" :d="path" />
        <g
          v-for="(p, i) in points"
          :key="i"
          class="point"
          :class="{ chosen: i === chosen, heard: heard.includes(i) }"
          tabindex="0"
          role="button"
          :aria-label="nameOf(p, i)"
          :aria-pressed="i === chosen"
          @pointerdown="grab(i, $event)"
          @focus="chosen = i"
          @keydown="key(i, $event)"
        >
          <circle class="area" :cx="x(p.temperatureC)" :cy="y(p.duty)" r="14" />
          <rect
            v-if="heard.includes(i)"
            :x="x(p.temperatureC) - 5"
            :y="y(p.duty) - 5"
            width="10"
            height="10"
            :transform="`rotate(45 ${x(p.temperatureC)} ${y(p.duty)})`"
          />
          <circle v-else :cx="x(p.temperatureC)" :cy="y(p.duty)" r="6" />
        </g>
      </svg>
    </div>
    <p v-if="problem" class="error" role="alert">{{ problem }} The fans run as planned until it is mended.</p>
    <p v-else-if="points[chosen]" class="small mono">
      {{ nameOf(points[chosen]!, chosen) }}
    </p>
    <p v-if="!points.length" class="soft">
      No point yet: add one, and it begins with a curve that ends below the limit; or let the quietest one be
      found.
    </p>
    <p v-if="peaks && points.length" class="small soft">
      Triangles: how warm it gets on the usual (grey) and on the hottest day (red).
    </p>
    <p v-if="heard.length" class="small soft">A diamond: 3 dB or more within 3 K are heard as a step.</p>
    <div class="row">
      <el-button v-if="searching === null" size="small" @click="emit('search')">
        Find the quietest that holds
      </el-button>
      <template v-else>
        <el-progress
          :percentage="Math.round(100 * searching)"
          :stroke-width="8"
          class="bar"
          aria-label="Search"
        />
        <el-button size="small" @click="emit('stop')">Stop</el-button>
      </template>
      <CurveFiles
        :plan="plan"
        :control="control"
        @read="(c) => change((own) => Object.assign(own, c), '', 'the curve from a file')"
      />
    </div>
    <template v-if="quietest">
      <p v-if="quietest.ok" class="small" role="status">
        From {{ show(quietest.points[0]!.duty, 'ratio') }} at
        {{ show(quietest.points[0]!.temperatureC, 'temperature') }} to
        {{ show(quietest.points.at(-1)!.duty, 'ratio') }} at
        {{ show(quietest.points.at(-1)!.temperatureC, 'temperature') }}: stays
        {{ show(quietest.marginK, 'temperatureDifference') }} below every limit on the hottest day,
        {{ show(quietest.hotDbA, 'level') }} over that day, {{ show(quietest.usualDbA, 'level') }} over a usual
        one ({{ quietest.tried }} tried).
        <el-button size="small" @click="takeQuietest">Take this curve</el-button>
      </p>
      <p v-else class="small" role="status"><StateMark state="fix" /> {{ quietest.reason }}</p>
    </template>
    <RecordList
      class="points"
      :records="points"
      :fields="() => curvePointFields"
      :shape="curvePointSchema.shape"
      add="+ Point"
      :name-of="(_, i) => `point ${i + 1}`"
      :most="20"
      @add="add"
      @set="setPoint"
      @remove="remove"
    />
    <FieldGrid tight :record="control" :fields="smoothFields" @set="set" />
  </div>
</template>

<style scoped>
svg {
  display: block;
  max-width: 100%;
  touch-action: none;
}
text {
  font: 11px var(--mono);
  fill: var(--ink-soft);
}
.ticks line {
  stroke: var(--line);
}
.curve {
  fill: none;
  stroke: var(--teal);
  stroke-width: 2.5;
}
.curve.wrong {
  stroke: var(--amber-mark);
  stroke-dasharray: 5 4;
}
.limit {
  stroke: var(--stop);
  stroke-dasharray: 6 4;
}
.limit-name {
  fill: var(--stop);
}
.peak {
  fill: var(--line-strong);
}
.peak.hot {
  fill: var(--cap);
}
.point {
  cursor: grab;
  fill: var(--sheet);
  stroke: var(--teal);
  stroke-width: 2;
}
.point .area {
  fill: transparent;
  stroke: none;
}
.point.chosen circle:not(.area),
.point.chosen rect {
  fill: var(--cap);
  stroke: var(--cap);
}
.point.heard rect {
  stroke: var(--amber-mark);
}
.bar {
  width: 160px;
}
.points {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(280px, 1fr));
}
.points :deep(.fields) {
  grid-template-columns: 1fr 1fr;
}
</style>
