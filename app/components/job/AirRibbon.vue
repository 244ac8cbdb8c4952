<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import type { RibbonSegment } from '../../../core/plan/ribbon'

/**
 * The living cross-section of the air path: height follows free area, tint follows temperature, each piece shows its
 * pressure drop, the fan its gain. It is navigation too: a piece opens its element, a gap takes a new one.
 */
const props = defineProps<{ segments: RibbonSegment[], flow: number | null, jobId: string, selected?: string }>()
const { show, symbol, bare } = useUnits()

const HEIGHT = 102
const MIDDLE = 53
const BAND = 56
/** Narrower than this a piece's words would meet its neighbour's; the ribbon then scrolls. */
const LEAST_PIECE = 92
const boxWidth = ref(1000)
const box = ref<HTMLElement>()
useResizeObserver(box, ([entry]) => {
  boxWidth.value = Math.max(320, entry?.contentRect.width ?? 1000)
})

const weight = (s: RibbonSegment) => s.kind === 'chamber' ? 1.7 : s.kind === 'room-in' || s.kind === 'room-out' ? 1.15 : 1
const total = computed(() => props.segments.reduce((sum, s) => sum + weight(s), 0))
const width = computed(() => Math.max(boxWidth.value, LEAST_PIECE * total.value))
const pieces = computed(() => {
  let x = 0
  return props.segments.map((s, index) => {
    const w = width.value * weight(s) / total.value
    const h = BAND * s.height
    const piece = {
      ...s, x, w, h, top: MIDDLE - h / 2, index, room: s.kind.startsWith('room'),
      value: s.kind.startsWith('room') ? show(s.temperatureC, 'temperature') : s.missing ? 'size?' : s.deltaPa === null ? '' : `${s.deltaPa > 0 ? '+' : ''}${bare(s.deltaPa, 'pressure')} ${symbol('pressure')}`,
      label: shorten(s.name, w),
    }
    x += w
    return piece
  })
})
function shorten(name: string, w: number): string {
  const fits = Math.floor(w / 7.1)
  return name.length <= fits ? name : `${name.slice(0, Math.max(3, fits - 1))}…`
}
/** Places of up to four fan signs beside each other. */
const fanShifts = (count: number) => Array.from({ length: Math.min(4, count) }, (_, i) => (i - (Math.min(4, count) - 1) / 2) * 24)
const tint = (share: number) => `color-mix(in oklab, var(--warm) ${Math.round(share * 100)}%, var(--teal-soft))`
const words = computed(() => props.segments.map((s) => {
  const parts = [s.name]
  if (s.areaM2) parts.push(`free area ${show(s.areaM2, 'area')}`)
  if (s.missing) parts.push('size missing')
  if (s.deltaPa !== null) parts.push(`${s.deltaPa > 0 ? 'gains' : 'loses'} ${show(Math.abs(s.deltaPa), 'pressure')}`)
  if (s.temperatureC !== null) parts.push(`air at ${show(s.temperatureC, 'temperature')}`)
  return parts.join(', ')
}))
const target = (s: RibbonSegment) => s.kind === 'fan' ? `/job/${props.jobId}/line-up` : s.kind.startsWith('room') ? `/job/${props.jobId}/brief` : { path: `/job/${props.jobId}/air-path`, query: { element: s.id } }
const open = (s: RibbonSegment) => navigateTo(target(s))
const insertAt = (index: number) => navigateTo({ path: `/job/${props.jobId}/air-path`, query: { insert: String(index) } })
</script>

<template>
  <section
    ref="box"
    class="ribbon sheet"
    aria-label="Air path from where it is drawn in to where it leaves"
  >
    <svg
      :viewBox="`0 0 ${width} ${HEIGHT}`"
      :height="HEIGHT"
      :width="width"
      role="group"
      aria-label="Cross-section of the air path"
    >
      <g
        v-for="(piece, i) in pieces"
        :key="piece.id"
        class="piece"
        :class="{ selected: piece.id === selected }"
        role="link"
        tabindex="0"
        :aria-label="words[i]"
        @click="open(piece)"
        @keydown.enter.prevent="open(piece)"
      >
        <title>{{ words[i] }}</title>
        <rect
          class="hit"
          :x="piece.x"
          y="0"
          :width="piece.w"
          :height="HEIGHT"
        />
        <rect
          :x="piece.x - 0.5"
          :y="piece.top"
          :width="piece.w + 1"
          :height="piece.h"
          :fill="tint(piece.tint)"
        />
        <template v-if="piece.kind === 'filter'">
          <path
            v-for="k in 7"
            :key="k"
            class="stroke"
            :d="`M${piece.x + piece.w / 2 - 24 + k * 6} ${piece.top + 2} l5 ${piece.h / 2 - 2} l-5 ${piece.h / 2 - 2}`"
          />
        </template>
        <path
          v-else-if="piece.kind === 'grille'"
          class="stroke thick"
          stroke-dasharray="3 3"
          :d="`M${piece.x + piece.w / 2} ${piece.top} V${piece.top + piece.h}`"
        />
        <template v-else-if="piece.kind === 'opening'">
          <path
            class="stroke thick"
            :d="`M${piece.x + piece.w / 2} ${MIDDLE - BAND / 2 - 2} V${piece.top} M${piece.x + piece.w / 2} ${piece.top + piece.h} V${MIDDLE + BAND / 2 + 2}`"
          />
        </template>
        <path
          v-else-if="piece.kind === 'duct'"
          class="stroke"
          :d="`M${piece.x + 4} ${piece.top} h${piece.w - 8} M${piece.x + 4} ${piece.top + piece.h} h${piece.w - 8}`"
        />
        <path
          v-else-if="piece.kind === 'bend'"
          class="stroke"
          :d="`M${piece.x + piece.w / 2 - 12} ${MIDDLE + 9} q12 0 12 -10 q0 -8 12 -8`"
        />
        <g
          v-else-if="piece.kind === 'fan'"
          class="fan"
          :transform="`translate(${piece.x + piece.w / 2} ${MIDDLE})`"
        >
          <g
            v-for="shift in fanShifts(piece.fans?.count ?? 1)"
            :key="shift"
            :transform="`translate(${shift} 0)`"
          >
            <rect
              x="-9"
              y="-23"
              width="18"
              height="46"
              rx="4"
            />
            <path d="M0 -17 q8 8 0 17 q-8 9 0 17" />
          </g>
        </g>
        <path
          v-else-if="piece.kind === 'custom'"
          class="stroke"
          :d="`M${piece.x + piece.w / 2 - 12} ${MIDDLE - 8} h24 M${piece.x + piece.w / 2 - 12} ${MIDDLE} h24 M${piece.x + piece.w / 2 - 12} ${MIDDLE + 8} h24`"
        />
        <path
          v-if="piece.room || piece.kind === 'chamber'"
          class="arrow"
          :d="`M${piece.x + piece.w / 2 - 9} ${MIDDLE} h17 m-5 -5 l5 5 l-5 5`"
        />
        <text
          class="value"
          :x="piece.x + piece.w / 2"
          y="15"
        >{{ piece.value }}</text>
        <text
          class="name"
          :class="{ 'fan-name': piece.kind === 'fan' }"
          :x="piece.x + piece.w / 2"
          :y="HEIGHT - 6"
        >{{ piece.label }}</text>
      </g>
      <g
        v-for="piece in pieces.slice(1)"
        :key="`gap-${piece.id}`"
        class="gap"
        role="button"
        tabindex="0"
        :aria-label="`Insert an element before ${piece.name}`"
        @click.stop="insertAt(piece.index - 1)"
        @keydown.enter.prevent="insertAt(piece.index - 1)"
      >
        <title>Insert an element here</title>
        <rect
          :x="piece.x - 12"
          :y="MIDDLE - 12"
          width="24"
          height="24"
          rx="12"
        />
        <path :d="`M${piece.x - 5} ${MIDDLE} h10 M${piece.x} ${MIDDLE - 5} v10`" />
      </g>
    </svg>
  </section>
</template>

<style scoped>
.ribbon { padding: 8px 0 8px; overflow-x: auto; overflow-y: hidden; }
svg { display: block; }
.hit { fill: transparent; }
.piece { cursor: pointer; }
.piece:hover .name, .piece.selected .name { text-decoration: underline; font-weight: 700; }
.piece:focus-visible { outline: none; }
.piece:focus-visible .hit { stroke: var(--focus); stroke-width: 2; }
text { text-anchor: middle; fill: var(--ink); }
.value { font: 13px var(--mono); fill: var(--ink-soft); }
.name { font: 13px var(--sans); }
.stroke { fill: none; stroke: var(--bark); stroke-width: 1.500; }
.thick { stroke-width: 3; }
.arrow { fill: none; stroke: var(--teal); stroke-width: 1.500; }
.fan rect { fill: var(--sheet); stroke: var(--cap); stroke-width: 2; }
.fan path { fill: none; stroke: var(--cap); stroke-width: 2; }
.gap { cursor: pointer; opacity: 0; }
.gap:hover, .gap:focus-visible { opacity: 1; outline: none; }
.gap rect { fill: var(--ink); }
.gap path { stroke: var(--sheet); stroke-width: 2; }
</style>
