<script setup lang="ts">
import { useMediaQuery, useResizeObserver } from '@vueuse/core'
import type { ElementReport, RibbonSegment } from '#core/plan'
import { layoutRibbon, nameLines, RIBBON, wordsWidth, type Piece } from '~/charts/ribbon-layout'

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
const { show } = useUnits()
const { pressed, valueOf, laneWords, wordsOf } = useRibbonWords()
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
const tint = (share: number) => `color-mix(in oklab, var(--warm) ${Math.round(share * 100)}%, var(--teal-soft))`
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
          <RibbonPiece
            v-for="(piece, i) in layout.pieces"
            :key="piece.segment.id"
            :piece="piece"
            :selected="piece.segment.id === selected"
            :label="wordsOf(piece.segment)"
            :fill="warming(i) ? `url(#${shadeId}-${i})` : tint(piece.segment.tint)"
            :hit="{ top: 0, height: HEIGHT }"
            @open="open(piece.segment)"
            @show="shownId = $event ? piece.segment.id : null"
          >
            <path v-if="pressed(piece.segment)" class="pressed" :d="pressedMarks(piece)" />
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
          </RibbonPiece>
          <g v-for="lane in layout.lanes" :key="lane.id">
            <rect
              class="lane"
              :class="{ leak: lane.leak }"
              :x="lane.x"
              :y="lane.top"
              :width="lane.width"
              :height="lane.height"
            />
            <RibbonPiece
              v-for="piece in lane.pieces"
              :key="piece.segment.id"
              :piece="piece"
              :selected="piece.segment.id === selected"
              :label="`${lane.name}: ${wordsOf(piece.segment)}`"
              :fill="tint(piece.segment.tint)"
              :hit="lane"
              @open="open(piece.segment)"
              @show="shownId = $event ? piece.segment.id : null"
            />
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
      <RibbonTools
        :furthest="zoom === (crowded ? 0 : 1)"
        :closest="zoom === zooms.length - 1"
        :as-text="asText"
        @zoom="zoom += $event"
        @save="save"
        @text="asText = !asText"
      />
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
