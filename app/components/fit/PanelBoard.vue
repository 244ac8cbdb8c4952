<script setup lang="ts">
import { BETWEEN_M, layoutGaps } from '#core/fit'
import type { MountReport } from '#core/mount'

/**
 * The panel to scale with its fans, which are dragged, moved by the arrow keys, or typed. What stands wrong is drawn in
 * amber, and the findings say why.
 */
const props = defineProps<{ mount: MountReport }>()
const { plan, fit, change } = useFit()
const { show } = useUnits()
const widthM = computed(() => fit.value.panelWidthM)
const heightM = computed(() => fit.value.panelHeightM)
const holeM = computed(() => plan.value.place.holeM ?? props.mount.wantedM)
const frameM = computed(() => props.mount.fan.frameM)
/** Where they stand, from the lower left corner. */
const spots = computed(() =>
  (props.mount.layout?.centres ?? []).map(({ xM, yM }) => ({
    xM: xM + widthM.value! / 2,
    yM: yM + heightM.value! / 2,
  })),
)
const chosen = ref(0)
const at = computed(() => spots.value[chosen.value])
watch(
  () => spots.value.length,
  (n) => {
    if (chosen.value >= n) chosen.value = 0
  },
)
const MM = 0.001
const toMm = (m: number) => Math.round(m / MM) * MM
const within = (x: number, most: number) => toMm(Math.min(most, Math.max(0, x)))
/** Moves a fan; the others are taken as they stand. */
function move(index: number, xM: number, yM: number) {
  const next = spots.value.map((s) => ({ xM: toMm(s.xM), yM: toMm(s.yM) }))
  next[index] = { xM: within(xM, widthM.value!), yM: within(yM, heightM.value!) }
  change((f) => (f.positions = next), 'fit.positions', 'where the fans stand')
}
const board = useTemplateRef<SVGSVGElement>('board')
const dragged = ref<{ index: number; dx: number; dy: number } | null>(null)
/** A point of the page on the panel, m from its lower left corner. */
function pointOf(event: PointerEvent): { xM: number; yM: number } {
  const matrix = board.value!.getScreenCTM()!.inverse()
  const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix)
  return { xM: p.x / 1000, yM: heightM.value! - p.y / 1000 }
}
function grab(index: number, event: PointerEvent) {
  chosen.value = index
  const p = pointOf(event)
  dragged.value = { index, dx: spots.value[index]!.xM - p.xM, dy: spots.value[index]!.yM - p.yM }
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}
function drag(event: PointerEvent) {
  if (!dragged.value) return
  const p = pointOf(event)
  move(dragged.value.index, p.xM + dragged.value.dx, p.yM + dragged.value.dy)
}
const steps: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
}
function key(index: number, event: KeyboardEvent) {
  const step = steps[event.key]
  if (!step) return
  event.preventDefault()
  const by = (event.shiftKey ? 10 : 1) * MM
  const { xM, yM } = spots.value[index]!
  move(index, xM + by * step[0], yM + by * step[1])
}
const mean = (list: number[]) => list.reduce((s, x) => s + x, 0) / list.length
function align(axis: 'xM' | 'yM') {
  const middle = toMm(mean(spots.value.map((s) => s[axis])))
  const next = spots.value.map((s) => ({ xM: toMm(s.xM), yM: toMm(s.yM), [axis]: middle }))
  change((f) => (f.positions = next), 'fit.align', 'where the fans stand')
}
const spread = () => change((f) => (f.positions = []), 'fit.spread', 'where the fans stand')

const half = computed(() => frameM.value / 2)
/** Whether a fan stands over the edge, on another one, or on what is to be kept clear. */
function wrong(i: number): boolean {
  const gapsOf = (list: { xM: number; yM: number }[]) =>
    layoutGaps(list, widthM.value!, heightM.value!, frameM.value, fit.value.keepClear)
  const s = spots.value[i]!
  const { edgeM, zoneM } = gapsOf([s])
  if (edgeM < 0 || (zoneM !== null && zoneM < 0)) return true
  return spots.value.some((o, j) => j !== i && gapsOf([s, o]).frameM! < 0)
}
function nameOf(i: number): string {
  const { xM, yM } = spots.value[i]!
  const where = `${show(xM, 'length')} from the left, ${show(yM, 'length')} from below`
  return `Fan ${i + 1}, ${where}${wrong(i) ? ', does not fit there' : ''}`
}
const mm = (m: number) => 1000 * m
const byHand = computed(() => fit.value.positions.length > 0)
/** Middle to middle with the next one to the right in the same row, and above. */
const pitchWords = computed(() => {
  if (!at.value) return ''
  const others = spots.value.filter((_, i) => i !== chosen.value)
  if (!others.length) return ''
  const near = others.toSorted(
    (a, b) =>
      Math.hypot(a.xM - at.value!.xM, a.yM - at.value!.yM) -
      Math.hypot(b.xM - at.value!.xM, b.yM - at.value!.yM),
  )[0]!
  const d = Math.hypot(near.xM - at.value.xM, near.yM - at.value.yM)
  return `${show(d, 'length')} to the middle of the next one`
})
const type = (axis: 'xM' | 'yM', value: number | null) => {
  if (value === null || !at.value) return
  move(chosen.value, axis === 'xM' ? value : at.value.xM, axis === 'yM' ? value : at.value.yM)
}
</script>

<template>
  <div class="stack" data-field="positions">
    <p v-if="widthM === null || heightM === null" class="soft">
      Tell width and height of the panel, under “Panel”: the fans are spread over it.
    </p>
    <p v-else-if="!spots.length" class="soft">
      They do not go on this panel: it has room for {{ mount.room }}. A larger panel, fewer or smaller fans, or
      place them by hand.
    </p>
    <template v-else>
      <svg
        ref="board"
        :viewBox="`-4 -4 ${mm(widthM) + 8} ${mm(heightM) + 8}`"
        role="group"
        aria-label="Panel to scale; each fan is moved by the arrow keys"
        @pointermove="drag"
        @pointerup="dragged = null"
        @pointercancel="dragged = null"
      >
        <rect class="panel" x="0" y="0" :width="mm(widthM)" :height="mm(heightM)" />
        <g v-for="z in fit.keepClear" :key="z.id">
          <rect
            class="zone"
            :x="mm(z.leftM)"
            :y="mm(heightM - z.bottomM - z.heightM)"
            :width="mm(z.widthM)"
            :height="mm(z.heightM)"
          />
          <text
            class="zone-name"
            :x="mm(z.leftM + z.widthM / 2)"
            :y="mm(heightM - z.bottomM - z.heightM / 2)"
            text-anchor="middle"
          >
            {{ z.name }}
          </text>
        </g>
        <g
          v-for="(s, i) in spots"
          :key="i"
          class="fan"
          :class="{ wrong: wrong(i), chosen: i === chosen }"
          tabindex="0"
          role="button"
          :aria-label="nameOf(i)"
          :aria-pressed="i === chosen"
          @pointerdown="grab(i, $event)"
          @focus="chosen = i"
          @keydown="key(i, $event)"
        >
          <rect
            :x="mm(s.xM - half)"
            :y="mm(heightM - s.yM - half)"
            :width="mm(frameM)"
            :height="mm(frameM)"
            class="frame"
          />
          <circle :cx="mm(s.xM)" :cy="mm(heightM - s.yM)" :r="mm(holeM / 2)" class="hole" />
          <line
            class="middle"
            :x1="mm(s.xM - half)"
            :x2="mm(s.xM + half)"
            :y1="mm(heightM - s.yM)"
            :y2="mm(heightM - s.yM)"
          />
          <line
            class="middle"
            :x1="mm(s.xM)"
            :x2="mm(s.xM)"
            :y1="mm(heightM - s.yM - half)"
            :y2="mm(heightM - s.yM + half)"
          />
        </g>
      </svg>
      <div v-if="at" class="row">
        <strong class="small">Fan {{ chosen + 1 }}</strong>
        <QuantityField
          label="Its middle, from the left"
          quantity="length"
          :model-value="at.xM"
          @update:model-value="type('xM', $event)"
        />
        <QuantityField
          label="From below, its middle"
          quantity="length"
          :model-value="at.yM"
          @update:model-value="type('yM', $event)"
        />
      </div>
      <div class="row">
        <el-button size="small" :disabled="!byHand" @click="spread">Spread evenly</el-button>
        <el-button size="small" :disabled="spots.length < 2" @click="align('yM')">Align in a row</el-button>
        <el-button size="small" :disabled="spots.length < 2" @click="align('xM')">Align in a column</el-button>
        <span class="small soft">{{ pitchWords }}</span>
      </div>
      <p class="small soft">
        {{ byHand ? 'Placed by hand' : 'Spread evenly' }}; {{ show(BETWEEN_M, 'length') }} between frames and to
        the edge. Drag a fan, or choose it and use the arrow keys: a millimetre, with Shift ten.
      </p>
    </template>
  </div>
</template>

<style scoped>
svg {
  width: 100%;
  height: auto;
  max-height: 320px;
  display: block;
  touch-action: none;
}
.panel {
  fill: color-mix(in srgb, var(--bark) 14%, var(--sheet));
  stroke: var(--line-strong);
}
.zone {
  fill: color-mix(in srgb, var(--bark) 34%, var(--sheet));
  stroke: var(--line-strong);
  stroke-dasharray: 4 3;
}
.zone-name {
  font-family: var(--sans);
  font-size: 11px;
  fill: var(--ink);
}
.fan {
  cursor: grab;
}
.frame {
  fill: var(--sheet);
  fill-opacity: 0.5;
  stroke: var(--line-strong);
}
.hole {
  fill: var(--sheet);
  stroke: var(--cap);
  stroke-width: 1.6;
}
.middle {
  stroke: var(--teal);
  stroke-dasharray: 6 3;
}
.chosen .frame {
  stroke: var(--ink);
  stroke-width: 1.6;
}
.wrong .frame {
  stroke: var(--amber);
  stroke-width: 2.4;
}
.fan:focus-visible {
  outline: 2px solid var(--cap);
  outline-offset: 2px;
}
.panel,
.zone,
.frame,
.hole,
.middle {
  vector-effect: non-scaling-stroke;
}
</style>
