<script setup lang="ts">
import type { Carton, Fan } from '#core/document'
import { holePlaces } from '#core/drawing'

/** The rig from the side and its wall from the front, in proportion. Open holes are filled. */
const props = defineProps<{ carton: Carton; fan: Fan; open: number }>()
const { show } = useUnits()
const SIDE = 150
const scale = computed(() => SIDE / Math.max(props.carton.heightM, props.carton.depthM * 0.8))
const box = computed(() => ({ w: props.carton.depthM * scale.value, h: props.carton.heightM * scale.value }))
const fanH = computed(() => Math.min(box.value.h * 0.9, props.fan.frameM * scale.value))
const fanW = computed(() => Math.max(6, props.fan.thicknessM * scale.value))
const front = computed(() => {
  const k = SIDE / Math.max(props.carton.widthM, props.carton.heightM)
  return {
    w: props.carton.widthM * k,
    h: props.carton.heightM * k,
    holes: holePlaces(props.carton).map((p) => ({
      ...p,
      x: (p.xM + props.carton.widthM / 2) * k,
      y: (props.carton.heightM / 2 - p.yM) * k,
      r: (p.diameterM / 2) * k,
    })),
  }
})
const LEFT = 46
const TOP = 12
const RIGHT = computed(() => LEFT + box.value.w + 60)
const into = computed(() => props.carton.way === 'into')
const words = computed(
  () =>
    `A fan ${into.value ? 'blowing into' : 'drawing out of'} a carton ${show(props.carton.widthM, 'length')} by ` +
    `${show(props.carton.heightM, 'length')}, ${show(props.carton.depthM, 'length')} long; ${props.open} of ` +
    `${props.carton.holesM.length} holes in the other wall are open`,
)
</script>

<template>
  <svg
    :viewBox="`0 0 ${RIGHT + front.w + 16} ${Math.max(box.h, front.h) + 46}`"
    role="img"
    :aria-label="words"
    class="rig"
  >
    <rect :x="LEFT" :y="TOP" :width="box.w" :height="box.h" class="box" />
    <rect :x="LEFT - fanW" :y="TOP + (box.h - fanH) / 2" :width="fanW" :height="fanH" class="fan" />
    <path
      :d="into ? `M4 ${TOP + box.h / 2}h22m-6-4l6 4l-6 4` : `M26 ${TOP + box.h / 2}h-22m6-4l-6 4l6 4`"
      class="air"
    />
    <line
      v-for="k in 2"
      :key="k"
      :x1="LEFT + box.w * 0.5 + 4 * k"
      :x2="LEFT + box.w * 0.5 + 4 * k"
      :y1="TOP"
      :y2="TOP + box.h"
      class="mesh"
    />
    <path :d="`M${LEFT + box.w * 0.82} ${TOP + box.h}v14`" class="tube" />
    <circle :cx="LEFT + box.w * 0.82" :cy="TOP + box.h + 20" r="7" class="gauge" />
    <text :x="LEFT + box.w * 0.82 + 12" :y="TOP + box.h + 25">gauge</text>
    <text :x="LEFT" :y="TOP + box.h + 25">mesh in the middle</text>
    <line :x1="LEFT + box.w" :x2="LEFT + box.w" :y1="TOP" :y2="TOP + box.h" class="card" />
    <rect :x="RIGHT" :y="TOP" :width="front.w" :height="front.h" class="box" />
    <g v-for="h in front.holes" :key="h.hole">
      <circle :cx="RIGHT + h.x" :cy="TOP + h.y" :r="h.r" :class="h.hole <= open ? 'hole open' : 'hole'" />
      <text :x="RIGHT + h.x" :y="TOP + h.y + 4" text-anchor="middle" :class="{ on: h.hole <= open }">
        {{ h.hole }}
      </text>
    </g>
    <text :x="RIGHT" :y="TOP + front.h + 25">the wall with the holes</text>
  </svg>
</template>

<style scoped>
.rig {
  width: 100%;
  max-height: 220px;
}
text {
  font-size: 12px;
  fill: var(--ink-soft);
}
.on {
  fill: var(--sheet);
  font-weight: 700;
}
.box {
  fill: var(--sheet-soft);
  stroke: var(--bark);
  stroke-width: 2;
}
.fan {
  fill: var(--cap);
}
.air,
.tube {
  fill: none;
  stroke: var(--teal);
  stroke-width: 2;
}
.mesh {
  stroke: var(--ink-soft);
  stroke-dasharray: 2 3;
}
.card {
  stroke: var(--bark);
  stroke-width: 4;
  stroke-dasharray: 12 6;
}
.gauge {
  fill: var(--sheet);
  stroke: var(--teal);
  stroke-width: 2;
}
.hole {
  fill: var(--sheet);
  stroke: var(--bark);
}
.hole.open {
  fill: var(--teal);
}
</style>
