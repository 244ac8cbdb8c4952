<script setup lang="ts">
import { useMediaQuery, useResizeObserver } from '@vueuse/core'
import type { ElementReport, RibbonSegment } from '#core/plan'
import { layoutRibbon, nameLines, RIBBON, wordsWidth, type Lane, type Piece } from '~/charts/ribbon-layout'

/**
 * The living cross-section of the air path: height follows free area, tint follows temperature, each piece shows its
 * pressure drop, the fan its gain; ways side by side run in lanes. It is navigation too: a piece opens its element, a gap
 * takes a new one. Hover and focus show the working.
 */
const props = defineProps<{
  segments: RibbonSegment[]
  elements: ElementReport[]
  jobId: string
  jobName: string
  selected?: string
}>()
const { show, symbol, bare } = useUnits()
const { height: HEIGHT, middle: MIDDLE } = RIBBON
const boxWidth = ref(1000)
const box = ref<HTMLElement>()
const svg = ref<SVGSVGElement>()
useResizeObserver(box, ([entry]) => {
  boxWidth.value = Math.max(320, entry?.contentRect.width ?? 1000)
})
/** 1: words fit; less: the whole path in sight; more: closer */
const zooms = [0, 1, 1.6, 2.4]
const zoom = ref(1)
const width = computed(() => Math.max(boxWidth.value, wordsWidth(props.segments) * zooms[zoom.value]!))
const layout = computed(() => layoutRibbon(props.segments, width.value))
const crowded = computed(() => wordsWidth(props.segments) > boxWidth.value)

/** Below this a chamber is as good as level with the room, Pa. */
const LEVEL_PA = 0.05
const pressed = (s: RibbonSegment) =>
  s.kind !== 'chamber' || s.gaugePa === null || Math.abs(s.gaugePa) < LEVEL_PA ? 0 : Math.sign(s.gaugePa)
const gaugeWords = (s: RibbonSegment) =>
  pressed(s)
    ? `${bare(Math.abs(s.gaugePa!), 'pressure')} ${symbol('pressure')} ${pressed(s) < 0 ? 'under' : 'over'}`
    : ''
const valueOf = (s: RibbonSegment) =>
  s.kind.startsWith('room')
    ? show(s.temperatureC, 'temperature')
    : s.missing
      ? 'size?'
      : s.kind === 'chamber'
        ? gaugeWords(s)
        : s.deltaPa === null
          ? ''
          : `${s.deltaPa > 0 ? '+' : ''}${bare(s.deltaPa, 'pressure')} ${symbol('pressure')}`
/** Of a way its name with its flow, or what of it fits whole. */
const laneWords = ({ name, flow, width: room }: Lane) =>
  [flow === null ? name : `${name} ${show(flow, 'flow')}`, name].find((w) => nameLines(w, room).length === 1) ??
  ''
/** A piece in which the air becomes warmer fades from the one before. */
const shadeId = useId()
const warming = (i: number) =>
  i > 0 && layout.value.pieces[i]!.segment.tint !== layout.value.pieces[i - 1]!.segment.tint
/** Air that wants out shows arrow heads outwards on the walls, air that is sucked in inwards. */
function pressedMarks({ segment, x, width: w, top, height }: Piece): string {
  const dir = pressed(segment)
  return [0.2, 0.8]
    .flatMap((share) => {
      const at = x + w * share
      return [
        `M${at - 4} ${top + (dir > 0 ? 5 : 1)} l4 ${-4 * dir} l4 ${4 * dir}`,
        `M${at - 4} ${top + height - (dir > 0 ? 5 : 1)} l4 ${4 * dir} l4 ${-4 * dir}`,
      ]
    })
    .join(' ')
}
/** What the tint means: the coolest and the warmest air of the path. */
const legend = computed(() => {
  const known = props.segments.flatMap((s) => (s.temperatureC === null ? [] : [s]))
  const warmest = known.toSorted((a, b) => b.tint - a.tint)[0]
  const coolest = known.toSorted((a, b) => a.tint - b.tint)[0]
  return warmest && coolest && warmest.tint > 0.02
    ? {
        warm: show(warmest.temperatureC, 'temperature'),
        cool: show(coolest.temperatureC, 'temperature'),
        tint: warmest.tint,
      }
    : null
})
/** Places of up to four fan signs beside each other. */
const fanShifts = (count: number) =>
  Array.from({ length: Math.min(4, count) }, (_, i) => (i - (Math.min(4, count) - 1) / 2) * 24)
const tint = (share: number) => `color-mix(in oklab, var(--warm) ${Math.round(share * 100)}%, var(--teal-soft))`
function wordsOf(s: RibbonSegment): string {
  const parts = [s.name]
  if (s.areaM2) parts.push(`free area ${show(s.areaM2, 'area')}`)
  if (s.missing) parts.push('size missing')
  if (s.deltaPa !== null && s.kind !== 'chamber')
    parts.push(`${s.deltaPa > 0 ? 'gains' : 'loses'} ${show(Math.abs(s.deltaPa), 'pressure')}`)
  if (s.kind === 'chamber' && s.gaugePa !== null)
    parts.push(
      `${show(Math.abs(s.gaugePa), 'pressure')} ${s.gaugePa < 0 ? 'under' : 'over'} the room’s pressure`,
    )
  if (s.temperatureC !== null) parts.push(`air at ${show(s.temperatureC, 'temperature')}`)
  for (const b of s.branches)
    parts.push(`${b.leak ? 'leak ' : ''}${b.name}${b.flow === null ? '' : ` ${show(b.flow, 'flow')}`}`)
  return parts.join(', ')
}
const all = computed(() =>
  props.segments.flatMap((s) => [
    { way: '', segment: s },
    ...s.branches.flatMap((b) => b.segments.map((x) => ({ way: b.name, segment: x }))),
  ]),
)
const target = (s: RibbonSegment) =>
  s.kind === 'fan'
    ? `/job/${props.jobId}/line-up`
    : s.kind.startsWith('room')
      ? `/job/${props.jobId}/brief`
      : { path: `/job/${props.jobId}/air-path`, query: { element: s.id } }
const open = (s: RibbonSegment) => navigateTo(target(s))
const insertAt = (index: number) =>
  navigateTo({ path: `/job/${props.jobId}/air-path`, query: { insert: String(index) } })

// the working of the piece under the pointer or the focus
const shownId = ref<string | null>(null)
const working = computed(() => {
  const found = all.value.find((x) => x.segment.id === shownId.value)
  if (!found) return null
  return { words: wordsOf(found.segment), report: props.elements.find((e) => e.id === shownId.value) ?? null }
})
/** At a phone's width the ribbon is a line until it is asked for. */
const narrow = useMediaQuery('(max-width: 760px)')
const unfolded = ref(false)
const shown = computed(() => !narrow.value || unfolded.value)
const line = computed(() => {
  const fan = props.segments.find((s) => s.kind === 'fan')
  const ends = [props.segments[0]!.name, ...(fan ? [fan.name] : []), props.segments.at(-1)!.name]
  return ends.join(' → ')
})
const asText = ref(false)
const save = () => svg.value && saveSvg(svg.value, `${props.jobName} air path`)
</script>

<template>
  <section
    class="ribbon sheet"
    :class="{ folded: !shown }"
    aria-label="Air path from where it is drawn in to where it leaves"
  >
    <el-button v-if="narrow" text class="fold" :aria-expanded="shown" @click="unfolded = !unfolded">
      {{ shown ? 'Air path: fold it away' : line }}
    </el-button>
    <template v-if="shown">
      <div
        v-if="legend"
        class="legend mono"
        role="img"
        :aria-label="`The tint tells the air’s temperature, from ${legend.cool} to ${legend.warm}`"
      >
        <span>{{ legend.warm }}</span>
        <span class="scale" :style="{ background: `linear-gradient(${tint(legend.tint)}, ${tint(0)})` }" />
        <span>{{ legend.cool }}</span>
      </div>
      <div ref="box" class="scroller">
        <svg
          ref="svg"
          :viewBox="`0 0 ${width} ${HEIGHT}`"
          :height="HEIGHT"
          :width="width"
          role="group"
          aria-label="Cross-section of the air path"
        >
          <defs>
            <template v-for="(piece, i) in layout.pieces" :key="piece.segment.id">
              <linearGradient v-if="warming(i)" :id="`${shadeId}-${i}`">
                <stop offset="0" :style="{ stopColor: tint(layout.pieces[i - 1]!.segment.tint) }" />
                <stop offset="1" :style="{ stopColor: tint(piece.segment.tint) }" />
              </linearGradient>
            </template>
          </defs>
          <g
            v-for="(piece, i) in layout.pieces"
            :key="piece.segment.id"
            class="piece"
            :class="{ selected: piece.segment.id === selected }"
            role="link"
            tabindex="0"
            :aria-label="wordsOf(piece.segment)"
            @click="open(piece.segment)"
            @keydown.enter.prevent="open(piece.segment)"
            @mouseenter="shownId = piece.segment.id"
            @mouseleave="shownId = null"
            @focus="shownId = piece.segment.id"
            @blur="shownId = null"
          >
            <rect class="hit" :x="piece.x" y="0" :width="piece.width" :height="HEIGHT" />
            <rect
              v-if="piece.segment.kind !== 'split'"
              :x="piece.x - 0.5"
              :y="piece.top"
              :width="piece.width + 1"
              :height="piece.height"
              :fill="warming(i) ? `url(#${shadeId}-${i})` : tint(piece.segment.tint)"
            />
            <path v-if="pressed(piece.segment)" class="pressed" :d="pressedMarks(piece)" />
            <g
              v-if="piece.segment.kind === 'fan'"
              class="fan"
              :transform="`translate(${piece.x + piece.width / 2} ${MIDDLE})`"
            >
              <g
                v-for="shift in fanShifts(piece.segment.fans?.count ?? 1)"
                :key="shift"
                :transform="`translate(${shift} 0)`"
              >
                <rect x="-9" y="-23" width="18" height="46" rx="4" />
                <path d="M0 -17 q8 8 0 17 q-8 9 0 17" />
              </g>
            </g>
            <RibbonSign
              v-else
              :kind="piece.segment.kind"
              :x="piece.x"
              :top="piece.top"
              :height="piece.height"
              :width="piece.width"
            />
            <path
              v-if="piece.segment.kind.startsWith('room') || piece.segment.kind === 'chamber'"
              class="arrow"
              :d="`M${piece.x + piece.width / 2 - 9} ${MIDDLE} h17 m-5 -5 l5 5 l-5 5`"
            />
            <text v-if="piece.width > 60" class="value" :x="piece.x + piece.width / 2" y="14">
              {{ valueOf(piece.segment) }}
            </text>
            <text
              v-for="(words, k) in nameLines(piece.segment.name, piece.width)"
              :key="k"
              class="name"
              :x="piece.x + piece.width / 2"
              :y="RIBBON.names[k]"
            >
              {{ words }}
            </text>
          </g>
          <g v-for="lane in layout.lanes" :key="lane.id">
            <rect
              class="lane"
              :class="{ leak: lane.leak }"
              :x="lane.x"
              :y="lane.top"
              :width="lane.width"
              :height="lane.height"
            />
            <g
              v-for="piece in lane.pieces"
              :key="piece.segment.id"
              class="piece"
              :class="{ selected: piece.segment.id === selected }"
              role="link"
              tabindex="0"
              :aria-label="`${lane.name}: ${wordsOf(piece.segment)}`"
              @click="open(piece.segment)"
              @keydown.enter.prevent="open(piece.segment)"
              @mouseenter="shownId = piece.segment.id"
              @mouseleave="shownId = null"
              @focus="shownId = piece.segment.id"
              @blur="shownId = null"
            >
              <rect class="hit" :x="piece.x" :y="lane.top" :width="piece.width" :height="lane.height" />
              <rect
                :x="piece.x"
                :y="piece.top"
                :width="piece.width"
                :height="piece.height"
                :fill="tint(piece.segment.tint)"
              />
              <RibbonSign
                :kind="piece.segment.kind"
                :x="piece.x"
                :top="piece.top"
                :height="piece.height"
                :width="piece.width"
              />
            </g>
            <text v-if="lane.height > 13" class="lane-name" :x="lane.x + 4" :y="lane.top + 11">
              {{ laneWords(lane) }}
            </text>
          </g>
          <g
            v-for="piece in layout.pieces.slice(1)"
            :key="`gap-${piece.segment.id}`"
            class="gap"
            data-screen-only
            role="button"
            tabindex="0"
            :aria-label="`Insert an element before ${piece.segment.name}`"
            @click.stop="insertAt(piece.index! - 1)"
            @keydown.enter.prevent="insertAt(piece.index! - 1)"
          >
            <title>Insert an element here</title>
            <rect :x="piece.x - 12" :y="MIDDLE - 12" width="24" height="24" rx="12" />
            <path :d="`M${piece.x - 5} ${MIDDLE} h10 M${piece.x} ${MIDDLE - 5} v10`" />
          </g>
        </svg>
        <RibbonDrift :pieces="layout.pieces" />
      </div>
      <div class="tools">
        <button
          type="button"
          class="tool"
          :disabled="zoom === (crowded ? 0 : 1)"
          aria-label="Ribbon: further away"
          title="Further away"
          @click="zoom--"
        >
          −
        </button>
        <button
          type="button"
          class="tool"
          :disabled="zoom === zooms.length - 1"
          aria-label="Ribbon: closer"
          title="Closer"
          @click="zoom++"
        >
          +
        </button>
        <button type="button" class="tool" aria-label="Ribbon: save as SVG" title="Save as SVG" @click="save">
          ⤓
        </button>
        <button
          type="button"
          class="tool"
          :aria-pressed="asText"
          aria-label="Ribbon: read as text"
          title="Read as text"
          @click="asText = !asText"
        >
          ≡
        </button>
      </div>
      <div v-if="working && !asText" class="working small" aria-hidden="true">
        <strong>{{ working.words }}</strong>
        <template v-if="working.report?.figure.formula">
          <span class="mono">{{ working.report.figure.formula }}</span>
          <span v-if="working.report.flow !== null" class="soft"
            >{{ show(working.report.flow, 'flow') }} through it<template v-if="working.report.share !== null"
              >, {{ Math.round(working.report.share * 100) }} % of what the path takes</template
            >. {{ working.report.figure.source }}</span
          >
        </template>
      </div>
      <ol v-if="asText" class="text">
        <li v-for="item in all" :key="item.segment.id">
          <template v-if="item.way"> {{ item.way }}: </template>{{ wordsOf(item.segment) }}
        </li>
      </ol>
    </template>
  </section>
</template>

<style scoped>
.ribbon {
  padding: 4px 0 0;
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) 30px;
  position: relative;
}
.fold {
  grid-column: 1 / -1;
  justify-content: start;
  white-space: normal;
  text-align: left;
}
.ribbon.folded {
  padding: 0;
  border-left: 4px solid var(--teal);
}
/* the bar's place is always kept: one height, however close one looks */
.scroller {
  position: relative;
  grid-column: 2;
  overflow-x: auto;
  overflow-y: hidden;
  scrollbar-width: thin;
  height: 123px;
}
.legend {
  display: grid;
  align-content: center;
  justify-items: center;
  gap: 3px;
  padding: 0 8px 10px;
  border-right: 1px solid var(--line);
  font-size: 11.5px;
  letter-spacing: -0.3px;
  color: var(--ink-soft);
}
.scale {
  width: 12px;
  height: 34px;
  border-radius: 3px;
  border: 1px solid var(--line);
}
.pressed {
  fill: none;
  stroke: var(--teal);
  stroke-width: 1.5;
}
svg {
  display: block;
}
.tools {
  display: grid;
  align-content: center;
  justify-items: center;
  border-left: 1px solid var(--line);
}
.tool {
  border: 0;
  background: none;
  color: var(--ink-soft);
  width: 28px;
  height: 26px;
  cursor: pointer;
  border-radius: 4px;
  line-height: 1;
}
.tool:hover:not([disabled]) {
  background: var(--sheet-soft);
  color: var(--ink);
}
.tool[disabled] {
  opacity: 0.4;
  cursor: default;
}
.hit {
  fill: transparent;
}
.piece {
  cursor: pointer;
}
.piece:hover .name,
.piece.selected .name {
  text-decoration: underline;
  font-weight: 700;
}
.piece:focus-visible {
  outline: none;
}
.piece:focus-visible .hit {
  stroke: var(--focus);
  stroke-width: 2;
}
.lane {
  fill: var(--sheet-soft);
  stroke: var(--line);
  stroke-width: 1;
  pointer-events: none;
}
.lane.leak {
  stroke: var(--amber-mark);
  stroke-dasharray: 3 3;
}
text {
  text-anchor: middle;
  fill: var(--ink);
}
.value {
  font: 13px var(--mono);
  fill: var(--ink-soft);
}
.name {
  font: 13px var(--sans);
}
.lane-name {
  font: 12px var(--sans);
  text-anchor: start;
  pointer-events: none;
  paint-order: stroke;
  stroke: var(--sheet);
  stroke-width: 4px;
  stroke-linejoin: round;
}
.arrow {
  fill: none;
  stroke: var(--teal);
  stroke-width: 1.5;
}
.fan rect {
  fill: var(--sheet);
  stroke: var(--cap);
  stroke-width: 2;
}
.fan path {
  fill: none;
  stroke: var(--cap);
  stroke-width: 2;
}
.gap {
  cursor: pointer;
  opacity: 0;
}
.gap:hover,
.gap:focus-visible {
  opacity: 1;
  outline: none;
}
.gap rect {
  fill: var(--ink);
}
.gap path {
  stroke: var(--sheet);
  stroke-width: 2;
}
.working {
  position: absolute;
  left: 12px;
  top: 100%;
  z-index: 20;
  display: grid;
  gap: 3px;
  max-width: min(640px, 90%);
  background: var(--sheet);
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  padding: 8px 10px;
  box-shadow: 0 4px 14px rgb(0 0 0 / 14%);
  pointer-events: none;
}
.text {
  grid-column: 1 / -1;
  margin: 4px 16px;
  padding-left: 20px;
  font-size: 14px;
}
</style>
