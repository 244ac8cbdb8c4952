<script setup lang="ts">
import { lastFlow, pressureAt } from '#core/fan'
import { modelFan } from '#core/system'
import type { Fan } from '#core/document'
import CurveChart, { type CurveSeries } from '~/components/lineup/CurveChart.vue'

/** The fan's curve as it is being typed, with its band. */
const props = defineProps<{ fan: Fan }>()
const model = computed(() => modelFan(props.fan))
const sample = (curve: Parameters<typeof lastFlow>[0]) => {
  const last = lastFlow(curve)
  const first = curve.q[0]!
  return Array.from({ length: 61 }, (_, i) => {
    const flow = i === 60 ? last : first + ((last - first) * i) / 60
    return { flow, pressure: pressureAt(curve, flow) ?? 0 }
  })
}
const series = computed((): CurveSeries[] => {
  if (!model.value.ok) return []
  const { curves } = model.value.model
  return [
    { id: 'low', label: 'low', points: sample(curves.low), tone: 'other', operating: null },
    { id: 'high', label: 'high', points: sample(curves.high), tone: 'other', operating: null },
    {
      id: 'middle',
      label: curves.basis === 'estimated' ? 'estimated curve' : 'curve',
      points: sample(curves.middle),
      tone: 'pick',
      operating: null,
    },
  ]
})
</script>

<template>
  <p v-if="!model.ok" class="small" role="alert">
    {{ model.reason }}
  </p>
  <CurveChart v-else :series="series" :path="[]" :need="null" :design="null" :height="230" plain />
</template>
