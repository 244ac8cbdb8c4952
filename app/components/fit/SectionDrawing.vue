<script setup lang="ts">
import type { Layer, MountReport } from '#core/mount'

/** The stack from the outside in, drawn to scale from its thicknesses, with what is left of the depth. */
const props = defineProps<{ mount: MountReport }>()
const { show } = useUnits()
const WIDTH = 520
const TOP = 34
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
/** Things in the way whose place is known, from the panel's face on their side. */
const things = computed(() => props.mount.things.filter((t) => t.thing.fromPanelM !== null))
const outsideM = computed(() =>
  props.mount.layers.reduce((s, l) => s + (l.outside && l.key !== 'panel' ? l.thicknessM : 0), 0),
)
const panelM = computed(() => props.mount.layers.find((l) => l.key === 'panel')?.thicknessM ?? 0)
/** What is drawn, in m from the panel's outer face: outwards below 0. */
const reach = computed(() => {
  const { layers, leftM } = props.mount
  const inside = layers.reduce((s, l) => s + (l.outside ? 0 : l.thicknessM), 0) + Math.max(0, leftM ?? 0)
  const at = (side: 'inside' | 'outside') =>
    things.value.filter((t) => t.thing.side === side).map((t) => t.thing.fromPanelM!)
  return {
    from: -Math.max(outsideM.value, ...at('outside')),
    to: panelM.value + Math.max(inside, ...at('inside')),
  }
})
const scale = computed(() => (WIDTH - 2) / (reach.value.to - reach.value.from))
const xOf = (m: number) => 1 + (m - reach.value.from) * scale.value
/** Where a thing rests, and where it is at its nearest. */
const marks = computed(() =>
  things.value.map(({ thing, nearestM, roomM }) => {
    const place = (m: number) => xOf(thing.side === 'inside' ? panelM.value + m : -m)
    const [rest, near] = [place(thing.fromPanelM!), place(nearestM ?? thing.fromPanelM!)]
    return { id: thing.id, name: thing.name, rest, near, strikes: roomM !== null && roomM < 0 }
  }),
)
const drawn = computed((): Drawn[] => {
  const { layers, leftM } = props.mount
  const left = leftM !== null && leftM > 0 ? [{ key: 'free' as const, name: 'free', thicknessM: leftM }] : []
  const all = [...layers, ...left]
  let x = xOf(-outsideM.value)
  return all.map((l, i) => {
    const width = Math.max(LEAST, l.thicknessM * scale.value)
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
const words = computed(() => {
  const layers = drawn.value.map((d) => `${d.name} ${d.words}`)
  return [...layers, ...marks.value.map((m) => (m.strikes ? `${m.name} strikes` : m.name))].join(', ')
})
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
    <g v-for="m in marks" :key="m.id" :class="{ strikes: m.strikes }">
      <rect
        class="way"
        :x="Math.min(m.rest, m.near)"
        :y="TOP"
        :width="Math.abs(m.rest - m.near)"
        :height="HEIGHT"
      />
      <line class="thing" :x1="m.near" :x2="m.near" :y1="TOP - 6" :y2="TOP + HEIGHT + 4" />
      <text
        class="thing-name"
        :x="Math.min(WIDTH - 4, Math.max(4, m.near))"
        :y="TOP - 10"
        :text-anchor="m.near > WIDTH / 2 ? 'end' : 'start'"
      >
        {{ m.name }}
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
.way {
  fill: var(--bark);
  fill-opacity: 0.16;
  stroke: none;
}
.thing {
  stroke: var(--bark);
  stroke-width: 3;
}
.strikes .thing {
  stroke: var(--stop);
}
.strikes .way {
  fill: var(--stop);
}
text {
  font-family: var(--sans);
  font-size: 12.5px;
  fill: var(--ink);
}
.thing-name {
  font-size: 11.5px;
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
