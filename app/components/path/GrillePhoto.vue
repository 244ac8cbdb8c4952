<script setup lang="ts">
import { within, type PathElement } from '#core/document'
import type { Pixel } from '#core/trace'

/** A grille or mesh from a photo: the corners of a known rectangle, the straightened picture to mend, the open share. */
const emit = defineEmits<{ take: [values: Partial<PathElement>] }>()
const {
  picture,
  problem,
  busy,
  known,
  size,
  openIs,
  corners,
  counted,
  read,
  mask,
  mended,
  result,
  areaM2,
  between,
  open,
  tryMadeUp,
  mend,
} = useGrille()
const { show, bare } = useUnits()
const SIDE = within(0.005, 3)
const names = ['top left', 'top right', 'bottom right', 'bottom left']
const handles = computed(() => [
  ...corners.value.map((at, i) => ({ at, list: corners.value, i, name: `Corner ${names[i]}`, kind: 'corner' })),
  ...(known.value === 'card'
    ? counted.value.map((at, i) => ({
        at,
        list: counted.value,
        i,
        name: `Counted, corner ${i + 1}`,
        kind: 'counted',
      }))
    : []),
])
const svg = ref<SVGSVGElement>()
const grabbed = ref<{ list: Pixel[]; i: number } | null>(null)
function drag(event: PointerEvent) {
  if (!grabbed.value || !picture.value || !svg.value) return
  grabbed.value.list[grabbed.value.i] = pointOn(svg.value, picture.value, event)
}
function grab(list: Pixel[], i: number, event: PointerEvent) {
  grabbed.value = { list, i }
  ;(event.target as Element).setPointerCapture(event.pointerId)
}
function nudge(list: Pixel[], i: number, event: KeyboardEvent) {
  const move = arrowStep(event)
  if (!move) return
  event.preventDefault()
  list[i] = { x: list[i]!.x + move.x, y: list[i]!.y + move.y }
}
const chose = (event: Event) => {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (file) void open(file)
}
const radius = computed(() => (picture.value ? picture.value.width / 90 : 5))
const outline = (list: Pixel[]) => list.map((p) => `${p.x},${p.y}`).join(' ')

const holeWords = computed(() => {
  const holes = result.value?.holes
  if (!holes) return 'No whole holes stand alone: only the open share is told.'
  return (
    `${holes.count} whole holes, as large as a circle of ${show(holes.diameterM, 'length')} ` +
    `(a square of ${show(holes.squareM, 'length')}), ${show(holes.pitchM, 'length')} from middle to middle; ` +
    `as a mesh its wire would be ${show(Math.max(0, holes.pitchM - holes.squareM), 'length')}.`
  )
})
/** what is counted may be all of the grille, or a part that stands for it */
const withArea = ref(false)
function take() {
  if (!result.value) return
  emit('take', {
    freeAreaRatio: Math.round(result.value.ratio * 1000) / 1000,
    pattern: null,
    basis: 'measured',
    ...(withArea.value && areaM2.value !== null ? { areaM2: areaM2.value } : {}),
  })
}
</script>

<template>
  <div class="stack photo">
    <div class="row">
      <label class="button"
        >Choose a photo<input
          class="visually-hidden"
          type="file"
          accept="image/png,image/jpeg,image/webp"
          aria-label="Choose a photo of the grille"
          @change="chose"
      /></label>
      <el-button @click="tryMadeUp">Try it with a made-up photo</el-button>
      <span class="small soft"
        >It stays in this browser. Something dark behind the grille, light from the front.</span
      >
    </div>
    <p v-if="problem" class="bad" role="alert">{{ problem }}</p>
    <template v-if="picture">
      <div class="sides">
        <div class="stack">
          <svg
            ref="svg"
            :viewBox="`0 0 ${picture.width} ${picture.height}`"
            role="group"
            aria-label="Photo of the grille"
            @pointermove="drag"
            @pointerup="grabbed = null"
          >
            <image :href="picture.url" :width="picture.width" :height="picture.height" />
            <polygon class="frame" :points="outline(corners)" />
            <polygon
              v-if="known === 'card'"
              class="counted"
              :points="
                outline([
                  counted[0]!,
                  { x: counted[1]!.x, y: counted[0]!.y },
                  counted[1]!,
                  { x: counted[0]!.x, y: counted[1]!.y },
                ])
              "
            />
            <circle
              v-for="h in handles"
              :key="h.name"
              :class="h.kind"
              :cx="h.at.x"
              :cy="h.at.y"
              :r="radius"
              tabindex="0"
              role="button"
              :aria-label="`${h.name}: arrows move it`"
              @pointerdown="grab(h.list, h.i, $event)"
              @keydown="nudge(h.list, h.i, $event)"
            />
          </svg>
          <p class="small soft">
            Drag the red corners onto a rectangle whose size you know; with the keyboard, Tab and the arrows.
          </p>
        </div>
        <GrilleMask v-if="read && mask" :straight="read.straight" :mask="mask" :mended="mended" @mend="mend" />
        <p v-else-if="!problem" class="soft">
          {{
            busy
              ? 'Straightening…'
              : 'Type the size of the rectangle: then it is straightened and counted here.'
          }}
        </p>
      </div>
      <div class="fields tight">
        <ChoiceField
          v-model="known"
          label="The rectangle is"
          :options="[
            { value: 'frame', label: 'what is counted: the grille’s frame' },
            { value: 'card', label: 'a card beside it' },
          ]"
        />
        <QuantityField v-model="size.widthM" label="Its width" quantity="length" :schema="SIDE" />
        <QuantityField v-model="size.heightM" label="Its height" quantity="length" :schema="SIDE" />
        <ChoiceField
          v-model="openIs"
          label="Open is"
          :options="[
            { value: 'dark', label: 'what is dark' },
            { value: 'bright', label: 'what is bright' },
          ]"
        />
      </div>
      <div v-if="result" class="stack" role="status">
        <p>
          <strong class="mono big">{{ show(result.ratio, 'ratio') }}</strong> open,
          <span class="mono">{{ bare(result.low, 'ratio') }} to {{ show(result.high, 'ratio') }}</span
          >. <span class="small soft">{{ holeWords }}</span>
        </p>
        <p v-if="known === 'card' && between !== null" class="small soft">
          From mark to mark of what is counted: {{ show(between, 'length') }}.
        </p>
      </div>
      <div class="row">
        <el-button type="primary" :disabled="!result" @click="take">Into the element</el-button>
        <el-checkbox v-if="result && areaM2 !== null" v-model="withArea"
          >what is counted is all of it: take its {{ show(areaM2, 'area') }} as well</el-checkbox
        >
      </div>
    </template>
  </div>
</template>

<style scoped>
.sides {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: start;
}
svg {
  display: block;
  width: 100%;
  max-height: 46vh;
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  touch-action: none;
}
polygon {
  fill: none;
  stroke-width: 0.4%;
}
.frame {
  stroke: #b3202c;
}
.counted {
  stroke: #1d6f82;
  stroke-dasharray: 8 5;
}
circle {
  fill: #ffffffb0;
  stroke: #b3202c;
  stroke-width: 0.5%;
  cursor: move;
}
circle.counted {
  stroke: #1d6f82;
}
.big {
  font-size: 20px;
}
.bad {
  color: var(--stop);
  font-weight: 600;
}
@media (max-width: 700px) {
  .sides {
    grid-template-columns: 1fr;
  }
}
</style>
