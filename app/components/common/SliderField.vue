<script setup lang="ts">
/**
 * A slider that only ever tells what a person moved it to. The bare part corrects a value that lies out of its range
 * by itself and tells the correction as if somebody had dragged it: looking at a plan would change it. Here the value
 * is held within the range before it is shown.
 */
const props = defineProps<{
  label: string
  min: number
  max: number
  step: number
  /** value in words, for who hears it */
  text?: (value: number) => string
}>()
const value = defineModel<number>({ required: true })
const shown = computed(() => Math.min(props.max, Math.max(props.min, value.value)))
/** One knob gives one number. */
function moved(to: number | number[]) {
  const next = Array.isArray(to) ? to[0]! : to
  if (Math.abs(next - shown.value) >= props.step / 2) value.value = next
}
</script>

<template>
  <el-slider
    :min="min"
    :max="max"
    :step="step"
    :model-value="shown"
    :show-tooltip="false"
    :format-value-text="(v: number) => text?.(v) ?? String(v)"
    :aria-label="label"
    @input="moved"
  />
</template>
