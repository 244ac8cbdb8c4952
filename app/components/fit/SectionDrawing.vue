<script setup lang="ts">
import type { Layer, MountReport } from '#core/mount'

/** The stack from the outside in, drawn to scale from its thicknesses, with what is left of the depth. */
const props = defineProps<{ mount: MountReport; depthM: number | null }>()
const { show } = useUnits()
const WIDTH = 520
const TOP = 26
const HEIGHT = 96
const LEAST = 2
const tints: Record<Layer['key'] | 'free', string> = {
  guard: 'guard',
  panel: 'panel',
  gasket: 'soft',
  spacer: 'soft',
  pad: 'soft',
  fan: 'fan',
  'far-pad': 'soft',
  filter: 'filter',
  free: 'free',
}
interface Drawn {
  key: string
  tint: string
  name: string
  words: string
  x: number
  width: number
}
const drawn = computed((): Drawn[] => {
  const { layers, leftM } = props.mount
  const left = leftM !== null && leftM > 0 ? [{ key: 'free' as const, name: 'free', thicknessM: leftM }] : []
  const all = [...layers, ...left]
  const total = all.reduce((s, l) => s + l.thicknessM, 0)
  const scale = (WIDTH - 2) / total
  let x = 1
  return all.map((l, i) => {
    const width = Math.max(LEAST, l.thicknessM * scale)
    const at = {
      key: `${l.key}-${i}`,
      tint: tints[l.key],
      name: l.name,
      words: show(l.thicknessM, 'length'),
      x,
      width,
    }
    x += width
    return at
  })
})
/** Names that would not fit beside each other stand upright. */
const upright = (d: Drawn) => d.name.length * 7 > d.width - 6
const roomy = (d: Drawn) => d.width > 13
const CHAR = 7
/** Where a thickness is written: below its layer, whole at the edges. */
const middleOf = (d: Drawn) => {
  const half = (d.words.length * CHAR) / 2
  return Math.min(WIDTH - half, Math.max(half, d.x + d.width / 2))
}
/** Thicknesses below: where two would touch, the thinner one is left out. */
const labelled = computed(() => {
  const placed: { from: number; to: number }[] = []
  return drawn.value
    .toSorted((a, b) => b.width - a.width)
    .filter((d) => {
      const half = (d.words.length * CHAR) / 2 + 2
      const [from, to] = [middleOf(d) - half, middleOf(d) + half]
      if (placed.some((p) => from < p.to && to > p.from)) return false
      placed.push({ from, to })
      return true
    })
})
const words = computed(() => drawn.value.map((d) => `${d.name} ${d.words}`).join(', '))
</script>

<template>
  <svg :viewBox="`0 0 ${WIDTH} ${TOP + HEIGHT + 26}`" role="img" :aria-label="`From the outside in: ${words}`">
    <text x="1" y="15" class="small">outside</text>
    <text :x="WIDTH - 1" y="15" class="small" text-anchor="end">inside</text>
    <g v-for="d in drawn" :key="d.key">
      <rect :class="d.tint" :x="d.x" :y="TOP" :width="d.width" :height="HEIGHT" />
      <text
        v-if="roomy(d)"
        :class="{ name: true }"
        :transform="upright(d) ? `rotate(-90 ${d.x + d.width / 2 + 4} ${TOP + HEIGHT / 2})` : undefined"
        :x="d.x + d.width / 2 + (upright(d) ? 4 : 0)"
        :y="TOP + HEIGHT / 2 + (upright(d) ? 0 : 4)"
        text-anchor="middle"
      >
        {{ d.name }}
      </text>
    </g>
    <text
      v-for="d in labelled"
      :key="`w-${d.key}`"
      class="mono"
      :x="middleOf(d)"
      :y="TOP + HEIGHT + 18"
      text-anchor="middle"
    >
      {{ d.words }}
    </text>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  height: auto;
  display: block;
}
rect {
  stroke: var(--line-strong);
}
.guard {
  fill: var(--line-strong);
}
.panel {
  fill: color-mix(in srgb, var(--bark) 30%, var(--sheet));
}
.soft {
  fill: color-mix(in srgb, var(--cap) 22%, var(--sheet));
}
.fan {
  fill: var(--cap-soft);
}
.filter {
  fill: var(--teal-soft);
}
.free {
  fill: var(--sheet-soft);
  stroke-dasharray: 4 3;
}
text {
  font-family: var(--sans);
  font-size: 12.5px;
  fill: var(--ink);
}
.small {
  font-size: 11.5px;
  fill: var(--ink-soft);
}
.mono {
  font-family: var(--mono);
  font-size: 11.5px;
}
</style>
