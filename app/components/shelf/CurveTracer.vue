<script setup lang="ts">
import type { FanPoint } from '#core/document'
import { limits, within } from '#core/document'
import type { MarkKey } from '~/composables/useTrace'

/** Read a curve off a picture of a data sheet: mark the axes, click on the curve, mend its points, take it. */
const props = defineProps<{ rated: number }>()
const emit = defineEmits<{ take: [points: FanPoint[], error: number, volts: number] }>()
/** the voltage that the curve was drawn at; several are taken from one picture, the axes stay */
const volts = ref<number | null>(props.rated)
const { picture, marks, logs, places, tolerance, count, problem, busy, open, follow, read } = useTrace()
const { show } = useUnits()

const order: { key: MarkKey; label: string; quantity: 'flow' | 'pressure' }[] = [
  { key: 'flow1', label: 'Flow axis, first mark', quantity: 'flow' },
  { key: 'flow2', label: 'Flow axis, second mark', quantity: 'flow' },
  { key: 'pressure1', label: 'Pressure axis, first mark', quantity: 'pressure' },
  { key: 'pressure2', label: 'Pressure axis, second mark', quantity: 'pressure' },
]
/** What the next click sets: a mark, the curve, or one more point. */
const mode = ref<MarkKey | 'curve' | 'point'>('flow1')
const hints: Record<string, string> = { curve: 'Click on the curve.', point: 'Click where a point is missing.' }
const hint = computed(
  () =>
    hints[mode.value] ??
    `Click on the picture: ${order.find((o) => o.key === mode.value)!.label.toLowerCase()}.`,
)
const chosen = ref<number | null>(null)
const svg = ref<SVGSVGElement>()

const placeOf = (event: MouseEvent) => pointOn(svg.value!, picture.value!, event)
async function clicked(event: MouseEvent) {
  if (dragging.value !== null) return
  const at = placeOf(event)
  if (mode.value === 'curve') return follow(at)
  if (mode.value === 'point') {
    places.value = [...places.value, at].sort((a, b) => a.x - b.x)
    return
  }
  marks[mode.value].at = at
  const next = order.find((o) => marks[o.key].at === null)
  mode.value = next ? next.key : 'curve'
}
const dragging = ref<number | null>(null)
function grab(i: number, event: PointerEvent) {
  dragging.value = i
  chosen.value = i
  ;(event.target as Element).setPointerCapture(event.pointerId)
}
function drag(event: PointerEvent) {
  if (dragging.value === null) return
  places.value = places.value.map((p, i) => (i === dragging.value ? placeOf(event) : p))
}
// the click that ends a drag is no click on the picture
const drop = () =>
  setTimeout(() => {
    dragging.value = null
  })
function nudge(i: number, event: KeyboardEvent) {
  const move = arrowStep(event)
  if (move) places.value = places.value.map((p, k) => (k === i ? { x: p.x + move.x, y: p.y + move.y } : p))
  else if (event.key === 'Delete' || event.key === 'Backspace')
    places.value = places.value.filter((_, k) => k !== i)
  else return
  event.preventDefault()
}
const chose = (event: Event) => {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (file) void open(file)
}
function pasted(event: ClipboardEvent) {
  const file = [...(event.clipboardData?.files ?? [])][0]
  if (file) void open(file)
}
const radius = computed(() => (picture.value ? picture.value.width / 150 : 4))
function take() {
  emit(
    'take',
    read.value.points.map((p) => ({ flowM3s: p.flow, pressurePa: p.pressure })),
    read.value.error ?? 0,
    volts.value ?? props.rated,
  )
  places.value = []
  mode.value = 'curve'
}
/** A cross through a mark. */
function crossAt({ x, y }: { x: number; y: number }): string {
  const arm = 2 * radius.value
  return `M${x - arm} ${y} h${2 * arm} M${x} ${y - arm} v${2 * arm}`
}
</script>

<template>
  <div class="tracer stack" @paste="pasted">
    <div class="row">
      <label class="button"
        >Choose a picture<input
          class="visually-hidden"
          type="file"
          accept="image/png,image/jpeg,image/webp"
          @change="chose"
      /></label>
      <span class="small soft">PNG or JPEG of the chart, or paste one. It stays in this browser.</span>
    </div>
    <p v-if="problem" class="bad" role="alert">
      {{ problem }}
    </p>
    <template v-if="picture">
      <p class="small" role="status">
        {{ busy ? 'Following…' : hint }}
      </p>
      <div class="frame">
        <svg
          ref="svg"
          :viewBox="`0 0 ${picture.width} ${picture.height}`"
          :style="{
            aspectRatio: `${picture.width} / ${picture.height}`,
            width: `min(100%, ${(52 * picture.width) / picture.height}vh)`,
          }"
          role="group"
          aria-label="Picture of the chart"
          @click="clicked"
          @pointermove="drag"
          @pointerup="drop"
        >
          <image :href="picture.url" :width="picture.width" :height="picture.height" />
          <polyline class="line" :points="places.map((p) => `${p.x},${p.y}`).join(' ')" />
          <circle
            v-for="(p, i) in places"
            :key="i"
            class="place"
            :class="{ chosen: chosen === i }"
            :cx="p.x"
            :cy="p.y"
            :r="radius"
            tabindex="0"
            role="button"
            :aria-label="`Point ${i + 1}: arrows move it, Delete takes it away`"
            @pointerdown.stop="grab(i, $event)"
            @click.stop
            @focus="chosen = i"
            @keydown="nudge(i, $event)"
          />
          <g v-for="o in order" :key="o.key">
            <path v-if="marks[o.key].at" class="mark" :class="o.quantity" :d="crossAt(marks[o.key].at!)" />
          </g>
        </svg>
      </div>
      <div class="row" role="group" aria-label="What a click sets">
        <el-button
          v-for="o in order"
          :key="o.key"
          size="small"
          :aria-pressed="mode === o.key"
          @click="mode = o.key"
        >
          {{ o.label }}{{ marks[o.key].at ? ' ✓' : '' }}
        </el-button>
        <el-button size="small" :aria-pressed="mode === 'curve'" @click="mode = 'curve'">
          Follow the curve
        </el-button>
        <el-button size="small" :aria-pressed="mode === 'point'" @click="mode = 'point'">
          Add a point
        </el-button>
      </div>
      <div class="fields tight">
        <QuantityField
          v-for="o in order"
          :key="o.key"
          v-model="marks[o.key].value"
          :label="o.label"
          :quantity="o.quantity"
          :schema="limits[o.quantity]"
        />
        <ChoiceField
          v-model="logs.flow"
          label="Flow axis"
          :options="[
            { value: false, label: 'linear' },
            { value: true, label: 'logarithmic' },
          ]"
        />
        <ChoiceField
          v-model="logs.pressure"
          label="Pressure axis"
          :options="[
            { value: false, label: 'linear' },
            { value: true, label: 'logarithmic' },
          ]"
        />
        <QuantityField
          v-model="volts"
          label="This curve is drawn at"
          quantity="voltage"
          :schema="within(0.5, 60)"
          required
        />
        <ChoiceField
          v-model="tolerance"
          label="Colour may differ"
          :options="[
            { value: 40, label: 'little' },
            { value: 90, label: 'usual' },
            { value: 150, label: 'much' },
          ]"
        />
        <ChoiceField
          v-model="count"
          label="Points kept"
          :options="[8, 12, 16, 24].map((n) => ({ value: n, label: String(n) }))"
        />
      </div>
      <div class="row">
        <el-button type="primary" :disabled="!read.points.length" @click="take">
          {{ read.points.length ? `Take these ${read.points.length} points` : 'Take these points' }}
        </el-button>
        <span class="small soft">
          <template v-if="read.message">{{ read.message }}</template>
          <template v-else
            >from {{ show(read.points[0]!.pressure, 'pressure') }} at
            {{ show(read.points[0]!.flow, 'flow') }} to {{ show(read.points.at(-1)!.pressure, 'pressure') }} at
            {{ show(read.points.at(-1)!.flow, 'flow') }}; reading error ±{{
              (100 * (read.error ?? 0)).toFixed(1)
            }}
            % of the highest pressure</template
          >
        </span>
      </div>
    </template>
  </div>
</template>

<style scoped>
.bad {
  color: var(--stop);
  font-weight: 600;
}
.frame {
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  overflow: hidden;
  background: #fff;
  display: grid;
  justify-items: center;
}
.frame > svg {
  display: block;
  max-width: 100%;
  max-height: 52vh;
  cursor: crosshair;
  touch-action: none;
}
.line {
  fill: none;
  stroke: #1d6f82;
  stroke-width: 0.25%;
  vector-effect: none;
  opacity: 0.8;
  pointer-events: none;
}
.place {
  fill: #fff;
  stroke: #b3202c;
  stroke-width: 0.2%;
  cursor: move;
}
.place.chosen {
  fill: #b3202c;
}
.mark {
  fill: none;
  stroke-width: 0.3%;
  pointer-events: none;
}
.mark.flow {
  stroke: #1d6f82;
}
.mark.pressure {
  stroke: #5d4a3c;
}
.el-button[aria-pressed='true'] {
  background: var(--ink);
  color: var(--sheet);
}
</style>
