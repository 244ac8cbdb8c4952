<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { diagramOf, type DiagramEdge, type DiagramNode } from '#core/supply'
import type { Box, Size } from '~/composables/useDiagramLayout'

/**
 * The wiring, drawn from the plan: nothing is placed by hand. Both conductors of each lead, what it is labelled with,
 * warnings where they belong.
 */
defineProps<{ /** node whose form is open beside it */ chosen?: string | null }>()
const emit = defineEmits<{ choose: [id: string] }>()
const job = useJobStore()
const { say } = useUnits()
const frame = ref<HTMLElement>()
const { width: room } = useElementSize(frame)
const diagram = computed(() => diagramOf(job.plan!, job.report!.power.feed))
const upright = computed(() => room.value > 0 && room.value < 640)

const LINE = 17
const CHAR = 7.5
const PAD = 12
const LABEL_CHAR = 6.9
const textOf = (n: DiagramNode) => n.lines.map((l) => say(l))
const pinText = (p: DiagramNode['pins'][number]) => `${p.pin} ${p.use}: ${p.connect}`
const WIDEST = 250
const clip = (text: string, most = WIDEST) =>
  text.length * CHAR > most ? `${text.slice(0, Math.floor(most / CHAR) - 1)}…` : text
const rowsOf = (n: DiagramNode) => [...textOf(n), ...n.pins.map(pinText), ...(n.warning ? [n.warning] : [])]
const sizes = computed((): Size[] =>
  diagram.value.nodes.map((n) => {
    const longest = Math.max(n.title.length * 1.08, ...rowsOf(n).map((r) => r.length))
    return {
      id: n.id,
      width: Math.round(Math.min(WIDEST, Math.max(120, longest * CHAR)) + 2 * PAD),
      height: Math.round(30 + LINE * rowsOf(n).length + (n.share === null ? 0 : 12) + 6),
    }
  }),
)
const labelOf = (e: DiagramEdge) => say(e.label)
const labelRoom = computed(() =>
  Math.max(44, ...diagram.value.edges.map((e) => labelOf(e).length * LABEL_CHAR + 26)),
)
const { layout, problem } = useDiagramLayout(diagram, sizes, upright, labelRoom)
const placed = computed(() =>
  diagram.value.nodes.flatMap((n) => {
    const box = layout.value?.boxes.get(n.id)
    return box ? [{ n, box }] : []
  }),
)
/** The two conductors: from the right edge of one box to the left edge of the next (or downwards). */
function conductor(from: Box, to: Box, offset: number): string {
  if (upright.value) {
    const [x1, y1, x2, y2] = [
      from.x + from.width / 2 + offset,
      from.y + from.height,
      to.x + to.width / 2 + offset,
      to.y,
    ]
    const m = (y1 + y2) / 2
    return `M${x1} ${y1} C${x1} ${m} ${x2} ${m} ${x2} ${y2}`
  }
  const [x1, y1, x2, y2] = [
    from.x + from.width,
    from.y + from.height / 2 + offset,
    to.x,
    to.y + to.height / 2 + offset,
  ]
  const m = (x1 + x2) / 2
  return `M${x1} ${y1} C${m} ${y1} ${m} ${y2} ${x2} ${y2}`
}
const leads = computed(() =>
  diagram.value.edges.flatMap((e) => {
    const [from, to] = [layout.value?.boxes.get(e.from), layout.value?.boxes.get(e.to)]
    if (!from || !to) return []
    const label = labelOf(e)
    const width = label.length * LABEL_CHAR + 16
    const near = upright.value
      ? { x: to.x + to.width / 2, y: (from.y + from.height + to.y) / 2 }
      : { x: (from.x + from.width + to.x) / 2, y: (from.y + from.height / 2 + to.y + to.height / 2) / 2 }
    // a label stays whole at the edge of the drawing
    const x = Math.max(width / 2, Math.min(layout.value!.width - width / 2, near.x))
    const at = { x, y: near.y }
    const [plus, middle, minus] = [-3, 0, 3].map((offset) => conductor(from, to, offset))
    return [{ e, plus, middle, minus, label, width, at }]
  }),
)
const tone: Record<DiagramNode['kind'], string> = {
  source: 'source',
  converter: 'converter',
  branch: 'branch',
  switch: 'branch',
  load: 'load',
  selection: 'pick',
}
const svg = ref<SVGSVGElement>()
const name = computed(() => `${job.plan!.job.name} wiring`)
const describe = computed(() =>
  diagram.value.nodes
    .map((n) => `${n.title}: ${[...textOf(n), n.warning].filter(Boolean).join(', ')}`)
    .join('. '),
)
</script>

<template>
  <div ref="frame" class="frame">
    <p v-if="!diagram.nodes.length" class="empty">
      Choose what feeds it, below: the wiring is drawn from there.
    </p>
    <p v-else-if="problem" class="bad" role="alert">
      {{ problem }}
    </p>
    <div v-else-if="layout" class="scroll-x" tabindex="0" role="region" aria-label="Wiring diagram">
      <svg
        ref="svg"
        :viewBox="`0 0 ${layout.width} ${layout.height}`"
        :style="{ width: `${Math.min(layout.width, Math.max(room, layout.width * 0.72))}px` }"
        role="img"
        :aria-label="`Wiring. ${describe}`"
      >
        <g v-for="l in leads" :key="l.e.id">
          <path v-if="l.e.signal" class="signal" :d="l.middle" />
          <template v-else>
            <path class="plus" :class="l.e.state" :d="l.plus" />
            <path class="minus" :d="l.minus" />
          </template>
        </g>
        <g v-for="l in leads.filter((x) => x.label)" :key="`label-${l.e.id}`">
          <rect
            class="pill"
            :class="l.e.state"
            :x="l.at.x - l.width / 2"
            :y="l.at.y - 10"
            :width="l.width"
            height="20"
            rx="10"
          />
          <text class="mono small" :x="l.at.x" :y="l.at.y + 4" text-anchor="middle">{{ l.label }}</text>
        </g>
        <g
          v-for="{ n, box } in placed"
          :key="n.id"
          class="node"
          :class="[tone[n.kind], n.state, { chosen: n.id === chosen }]"
          @click="emit('choose', n.id)"
        >
          <rect class="box" :x="box.x" :y="box.y" :width="box.width" :height="box.height" rx="5" />
          <rect class="edge" :x="box.x" :y="box.y" width="5" :height="box.height" rx="2" />
          <text class="title" :x="box.x + PAD + 2" :y="box.y + 20">{{ clip(n.title) }}</text>
          <text
            v-for="(row, i) in textOf(n)"
            :key="i"
            class="mono"
            :x="box.x + PAD + 2"
            :y="box.y + 20 + LINE * (i + 1)"
          >
            {{ clip(row) }}
          </text>
          <g v-for="(p, i) in n.pins" :key="`pin${p.pin}`">
            <rect
              class="pin"
              :class="`pin-${p.colour}`"
              :x="box.x + PAD"
              :y="box.y + 9 + LINE * (textOf(n).length + i + 1)"
              width="14"
              height="14"
              rx="3"
            />
            <text
              class="mono pin-number"
              :class="`pin-${p.colour}`"
              :x="box.x + PAD + 7"
              :y="box.y + 20 + LINE * (textOf(n).length + i + 1)"
              text-anchor="middle"
            >
              {{ p.pin }}
            </text>
            <text class="mono" :x="box.x + PAD + 20" :y="box.y + 20 + LINE * (textOf(n).length + i + 1)">
              {{ clip(`${p.use}: ${p.connect}`, WIDEST - 20) }}
            </text>
          </g>
          <text
            v-if="n.warning"
            class="warning"
            :class="n.state"
            :x="box.x + PAD + 2"
            :y="box.y + 20 + LINE * (textOf(n).length + n.pins.length + 1)"
          >
            {{ n.state === 'stop' ? '■' : n.state === 'fix' ? '◆' : '•' }} {{ clip(n.warning, WIDEST - 10) }}
          </text>
          <g v-if="n.share !== null">
            <rect
              class="track"
              :x="box.x + PAD + 2"
              :y="box.y + box.height - 14"
              :width="box.width - 2 * PAD - 4"
              height="5"
              rx="2.500"
            />
            <rect
              class="used"
              :class="n.share > 1 ? 'stop' : n.share > 0.8 ? 'fix' : 'ok'"
              :x="box.x + PAD + 2"
              :y="box.y + box.height - 14"
              :width="(box.width - 2 * PAD - 4) * Math.min(1, n.share)"
              height="5"
              rx="2.500"
            />
          </g>
        </g>
      </svg>
    </div>
    <p v-else class="soft small">Laying out…</p>
    <div v-if="layout && diagram.nodes.length" class="row tools no-print">
      <el-button size="small" @click="svg && saveSvg(svg, name)">Save SVG</el-button>
      <el-button size="small" @click="svg && savePng(svg, name)">Save PNG</el-button>
      <span class="small soft"
        >two strokes a lead: the {{ upright ? 'left' : 'upper' }} one is +, the
        {{ upright ? 'right' : 'lower' }} −{{
          diagram.edges.some((e) => e.signal) ? '; dotted: signals and ground only' : ''
        }}</span
      >
    </div>
  </div>
</template>

<style scoped>
.frame {
  min-height: 120px;
}
svg {
  display: block;
  height: auto;
  max-width: none;
  margin: 0 auto;
}
.plus,
.minus {
  fill: none;
  stroke-width: 2.2;
}
.plus {
  stroke: var(--cap);
}
.minus {
  stroke: var(--ink);
}
.signal {
  fill: none;
  stroke: #2b6cb0;
  stroke-width: 1.6;
  stroke-dasharray: 2 4;
}
.plus.fix {
  stroke-dasharray: 6 3;
}
.plus.stop {
  stroke-dasharray: 3 3;
  stroke-width: 3.2;
}
.box {
  fill: var(--sheet);
  stroke: var(--line-strong);
  stroke-width: 1;
}
.node {
  cursor: pointer;
}
.edge {
  fill: var(--bark);
}
.source .edge {
  fill: var(--ink);
}
.converter .edge {
  fill: var(--teal);
}
.pick .edge {
  fill: var(--cap);
}
.load .edge {
  fill: var(--line-strong);
}
.node.chosen .box {
  fill: var(--cap-soft);
}
.node.stop .box {
  stroke: var(--stop);
  stroke-width: 2;
}
.node.fix .box {
  stroke: var(--amber-mark);
  stroke-width: 2;
}
text {
  font-size: 12.5px;
  fill: var(--ink);
  font-family: var(--sans);
}
text.mono {
  font-family: var(--mono);
  font-size: 11.8px;
  fill: var(--ink-soft);
}
text.small {
  font-size: 10.8px;
  fill: var(--ink);
}
.title {
  font-weight: 700;
  font-size: 13.5px;
}
.warning {
  font-weight: 600;
  fill: var(--amber);
}
.warning.stop {
  fill: var(--stop);
}
.pill {
  fill: var(--sheet-soft);
  stroke: var(--line-strong);
}
.pill.stop {
  stroke: var(--stop);
  stroke-width: 2;
}
.pill.fix {
  stroke: var(--amber-mark);
  stroke-width: 2;
}
.pin {
  stroke: var(--line-strong);
  stroke-width: 1;
  fill: var(--sheet-soft);
}
.pin.pin-minus {
  fill: #1b2126;
  stroke: var(--line-strong);
  stroke-width: 1;
}
.pin.pin-plus {
  fill: #b3202c;
}
.pin.pin-tach {
  fill: #c59a12;
}
.pin.pin-pwm {
  fill: #2b6cb0;
}
.pin-number.mono {
  fill: #ffffff;
  font-size: 10.5px;
}
.pin-number.mono.pin-tach {
  fill: #1b2126;
}
.track {
  fill: var(--line);
}
.used.ok {
  fill: var(--moss-mark);
}
.used.fix {
  fill: var(--amber-mark);
}
.used.stop {
  fill: var(--stop);
}
.tools {
  margin-top: 6px;
}
.bad {
  color: var(--stop);
  font-weight: 600;
}
</style>
