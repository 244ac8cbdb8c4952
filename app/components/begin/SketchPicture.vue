<script setup lang="ts">
import type { Goal } from '#core/document'
import type { Shape } from '#core/begin'

/** Small pictures of what must become better, and of the way that the air takes. Decoration: the words stand beside them. */
const props = defineProps<{ of: Goal | Shape }>()
/** Strokes in a field of 56 by 40: of things, of air, of heat and what the air takes along. */
interface Sketch {
  ink: string
  air?: string
  warm?: string
}
const box = 'M12 8h32v26H12z'
const openBox = 'M12 14V8h32v6M12 26v8h32v-8'
const sketches: Record<Goal | Shape, Sketch> = {
  cool: {
    ink: box,
    warm: 'M22 30c-3-4 3-6 0-10M28 30c-3-4 3-6 0-10M34 30c-3-4 3-6 0-10',
    air: 'M28 14V3m-4 4 4-4 4 4',
  },
  part: {
    ink: 'M14 34h28M16 34V16m6 18V16m6 18V16m6 18V16m6 18V16',
    warm: 'M22 38h12',
    air: 'M20 4v7m-3-3 3 3 3-3M36 4v7m-3-3 3 3 3-3',
  },
  ventilate: {
    ink: openBox,
    air: 'M3 20h12m-4-4 4 4-4 4M41 20h12m-4-4 4 4-4 4',
    warm: 'M22 17c2 3 3 4 3 6a3 3 0 0 1-6 0c0-2 1-3 3-6M33 15c2 3 3 4 3 6a3 3 0 0 1-6 0c0-2 1-3 3-6',
  },
  fume: {
    ink: 'M30 14 44 6v28L30 26zM44 14h9M44 26h9',
    warm: 'M8 34c-2-5 4-6 2-11M14 34c-2-5 4-6 2-11',
    air: 'M18 20h9m-4-4 4 4-4 4',
  },
  stir: { ink: box, air: 'M20 25a9 7 0 1 0 1-9m-5 1 5-1 1 5' },
  chill: {
    ink: 'M8 16v18h40V16',
    warm: 'M12 24c4-3 6 3 10 0s6 3 10 0 6 3 12 0',
    air: 'M10 10h32m-5-4 5 4-5 4',
  },
  quieten: {
    ink: 'M8 20a9 9 0 1 0 18 0 9 9 0 1 0-18 0M17 20V12m0 8 7 4m-7-4-7 4',
    air: 'M32 14c3 4 3 8 0 12M38 10c5 6 5 14 0 20',
    warm: 'M46 34 30 6',
  },
  box: { ink: openBox, air: 'M3 20h50m-5-4 5 4-5 4' },
  hose: { ink: 'M6 8h22v26H6zM28 16h6c4 0 4-8 8-8h11M28 24h8c5 0 5-8 8-8h9', air: 'M12 21h20m-4-4 4 4-4 4' },
  heatsink: {
    ink: 'M12 34h32M14 34V20m7 14V20m7 14V20m7 14V20m7 14V20M16 14h24V8H16z',
    air: 'M22 2v4M34 2v4M24 17v6m8-6v6',
  },
  open: {
    ink: 'M20 20a8 12 0 1 0 16 0 8 12 0 1 0-16 0M28 8v24',
    air: 'M4 14h12M4 20h12M4 26h12M40 14h12m-3-3 3 3-3 3M40 26h12m-3-3 3 3-3 3',
  },
  like: { ink: 'M8 6h24v18H8zM24 16h24v18H24z', air: 'M12 15h12M30 25h13m-4-4 4 4-4 4' },
}
const sketch = computed(() => sketches[props.of])
</script>

<template>
  <svg viewBox="0 0 56 40" width="56" height="40" aria-hidden="true">
    <path class="ink" :d="sketch.ink" />
    <path v-if="sketch.warm" class="warm" :d="sketch.warm" />
    <path v-if="sketch.air" class="air" :d="sketch.air" />
  </svg>
</template>

<style scoped>
path {
  fill: none;
  stroke-width: 2;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.ink {
  stroke: var(--ink);
}
.air {
  stroke: var(--teal);
}
.warm {
  stroke: var(--cap);
}
</style>
