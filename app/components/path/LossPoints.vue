<script setup lang="ts">
import type { LossPoint } from '#core/document'
import { limits } from '#core/document'

/** Flow and pressure pairs, measured or off a data sheet. */
const props = defineProps<{ points: LossPoint[]; what: string }>()
const emit = defineEmits<{ update: [points: LossPoint[]] }>()
const pairs = computed(() => props.points.map((p): [number, number] => [p.flowM3s, p.pressurePa]))
const taken = (list: [number, number][]) =>
  emit(
    'update',
    list.map(([flowM3s, pressurePa]) => ({ flowM3s, pressurePa })),
  )
</script>

<template>
  <PairTable
    :pairs="pairs"
    :first="{ label: 'At a flow of (#)', quantity: 'flow', schema: limits.flow }"
    :second="{ label: `${what} loses (#)`, quantity: 'pressure', schema: limits.pressure }"
    add="+ Flow and pressure"
    what="pair"
    @update="taken"
  />
</template>
