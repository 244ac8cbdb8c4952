<script setup lang="ts">
import type { Pixel, Straight } from '#core/trace'

/** The straightened picture with what counts as open tinted; a brush mends it. */
const props = defineProps<{
  straight: Straight
  /** 1 where open, row by row */
  mask: Uint8Array
  /** counts up with every stroke: the mask is mended in place */
  mended: number
}>()
const emit = defineEmits<{ mend: [at: Pixel, radius: number, to: 0 | 1] }>()
/** Width of the brush, share of the picture's. */
const BRUSH = 1 / 60
const canvas = ref<HTMLCanvasElement>()
const brush = ref<'open' | 'closed'>('closed')
const painting = ref(false)
function draw() {
  const at = canvas.value
  if (!at) return
  const { width, height, light } = props.straight
  at.width = width
  at.height = height
  const image = new ImageData(width, height)
  for (let i = 0; i < light.length; i++) {
    const l = light[i]!
    image.data.set(props.mask[i] ? [0.25 * l, 90 + 0.45 * l, 110 + 0.45 * l, 255] : [l, l, l, 255], 4 * i)
  }
  at.getContext('2d')!.putImageData(image, 0, 0)
}
onMounted(draw)
watch([() => props.straight, () => props.mask, () => props.mended], draw)
function paint(event: PointerEvent) {
  if (!painting.value || !canvas.value) return
  const at = pointOn(canvas.value, props.straight, event)
  emit('mend', at, props.straight.width * BRUSH, brush.value === 'open' ? 1 : 0)
}
function begin(event: PointerEvent) {
  painting.value = true
  paint(event)
}
</script>

<template>
  <div class="stack">
    <canvas
      ref="canvas"
      role="img"
      aria-label="The grille straightened; what counts as open is tinted"
      @pointerdown="begin"
      @pointermove="paint"
      @pointerup="painting = false"
      @pointerleave="painting = false"
    />
    <div class="row">
      <SegmentChoice
        v-model="brush"
        label="The brush makes it"
        :options="[
          { value: 'closed', label: 'closed' },
          { value: 'open', label: 'open' },
        ]"
      />
      <span class="small soft">Paint where it is wrong.</span>
    </div>
  </div>
</template>

<style scoped>
canvas {
  display: block;
  width: 100%;
  max-height: 46vh;
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  touch-action: none;
  object-fit: contain;
  cursor: crosshair;
}
</style>
