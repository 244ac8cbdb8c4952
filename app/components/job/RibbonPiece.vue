<script setup lang="ts">
import type { Piece } from '~/charts/ribbon-layout'
import { RIBBON } from '~/charts/ribbon-layout'

/** A piece of the ribbon, in the main row or in a lane: its tint and sign; pointer and keys open what it stands for. */
defineProps<{
  piece: Piece
  selected: boolean
  label: string
  fill: string
  /** the height in which it can be pressed */
  hit: { top: number; height: number }
}>()
const emit = defineEmits<{ open: []; show: [shown: boolean] }>()
const { middle: MIDDLE } = RIBBON
/** Places of up to four fan signs beside each other. */
const fanShifts = (count: number) =>
  Array.from({ length: Math.min(4, count) }, (_, i) => (i - (Math.min(4, count) - 1) / 2) * 24)
</script>

<template>
  <g
    class="piece"
    :class="{ selected }"
    role="link"
    tabindex="0"
    :aria-label="label"
    @click="emit('open')"
    @keydown.enter.prevent="emit('open')"
    @mouseenter="emit('show', true)"
    @mouseleave="emit('show', false)"
    @focus="emit('show', true)"
    @blur="emit('show', false)"
  >
    <rect class="hit" :x="piece.x" :y="hit.top" :width="piece.width" :height="hit.height" />
    <rect
      v-if="piece.segment.kind !== 'split'"
      :x="piece.x - 0.5"
      :y="piece.top"
      :width="piece.width + 1"
      :height="piece.height"
      :fill="fill"
    />
    <g
      v-if="piece.segment.kind === 'fan'"
      class="fan"
      :transform="`translate(${piece.x + piece.width / 2} ${MIDDLE})`"
    >
      <g
        v-for="shift in fanShifts(piece.segment.fans?.count ?? 0)"
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
    <slot />
  </g>
</template>

<style scoped>
.hit {
  fill: transparent;
}
.piece {
  cursor: pointer;
}
.piece:hover :slotted(.name),
.piece.selected :slotted(.name) {
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
</style>
