<script setup lang="ts">
import type { RibbonSegment } from '#core/plan'

/** The sign of one element in the ribbon: our own strokes, drawn in the middle of its band. */
const props = defineProps<{
  kind: RibbonSegment['kind']
  x: number
  top: number
  height: number
  width: number
}>()
const cx = computed(() => props.x + props.width / 2)
const cy = computed(() => props.top + props.height / 2)
const foot = computed(() => props.top + props.height)
const d = computed(() => {
  const { x, top, height, width } = props
  const c = cx.value
  const m = cy.value
  const f = foot.value
  switch (props.kind) {
    case 'duct':
      return `M${x + 4} ${top} h${width - 8} M${x + 4} ${f} h${width - 8}`
    case 'bend':
      return `M${c - 12} ${m + 9} q12 0 12 -10 q0 -8 12 -8`
    case 'reducer':
      return `M${c - 12} ${top} L${c + 12} ${top + height * 0.25} M${c - 12} ${f} L${c + 12} ${f - height * 0.25}`
    case 'wye':
      return `M${c - 12} ${m} h12 l10 -${height * 0.35} M${c} ${m} l10 ${height * 0.35}`
    case 'damper':
      return `M${c - 7} ${f - 3} L${c + 7} ${top + 3} M${c} ${m} m-2 0 a2 2 0 1 0 4 0 a2 2 0 1 0 -4 0`
    case 'flap':
      return `M${c - 4} ${top} v3 L${c + 10} ${m + 4}`
    case 'fins':
      return [0.2, 0.4, 0.6, 0.8].map((s) => `M${c - 14} ${top + height * s} h28`).join(' ')
    case 'adapter':
      return `M${c - 12} ${top + 3} h24 v${height - 6} h-24 z`
    case 'hood':
      return `M${c - 10} ${top - 4} L${c + 4} ${top} M${c - 10} ${f + 4} L${c + 4} ${f}`
    case 'outlet':
      return `M${c - 4} ${top} L${c + 10} ${top - 4} M${c - 4} ${f} L${c + 10} ${f + 4}`
    case 'custom':
      return `M${c - 12} ${m - 6} h24 M${c - 12} ${m} h24 M${c - 12} ${m + 6} h24`
    case 'filter':
      return Array.from(
        { length: 6 },
        (_, k) => `M${c - 18 + k * 6} ${top + 2} l5 ${height / 2 - 2} l-5 ${height / 2 - 2}`,
      ).join(' ')
    default:
      return ''
  }
})
</script>

<template>
  <path v-if="d" class="stroke" :d="d" />
  <path
    v-else-if="kind === 'grille'"
    class="stroke thick"
    stroke-dasharray="3 3"
    :d="`M${cx} ${top} V${foot}`"
  />
  <path
    v-else-if="kind === 'opening' || kind === 'slot'"
    class="stroke thick"
    :d="`M${cx} ${top} v5 M${cx} ${foot} v-5`"
  />
</template>

<style scoped>
.stroke {
  fill: none;
  stroke: var(--bark);
  stroke-width: 1.5;
}
.thick {
  stroke-width: 3;
}
</style>
