<script setup lang="ts">
import { approachFactor, flowThrough, holeArea, SHARP } from '#core/lab'
import { cartonSchema, limits } from '#core/document'

/** A flow and pressure pair of the real path, the flow from a carton with holes in the way of its air. */
const emit = defineEmits<{ add: [point: { flowM3s: number; pressurePa: number }] }>()
const job = useJobStore()
const { show } = useUnits()
const holes = ref<number[]>([])
const boxM2 = ref<number | null>(null)
const cartonPa = ref<number | null>(null)
const pathPa = ref<number | null>(null)
const area = computed(() => holes.value.reduce((s, d) => s + holeArea(d), 0))
const tooLarge = computed(() => boxM2.value !== null && area.value > boxM2.value / 2)
const flow = computed(() => {
  if (!area.value || cartonPa.value === null || tooLarge.value) return null
  const factor = boxM2.value === null ? 1 : approachFactor(area.value, boxM2.value)
  return flowThrough(SHARP * area.value * factor, cartonPa.value, job.report!.air.density)
})
function add() {
  if (!flow.value || pathPa.value === null) return
  emit('add', { flowM3s: flow.value, pressurePa: pathPa.value })
  cartonPa.value = null
  pathPa.value = null
}
</script>

<template>
  <form class="stack" @submit.prevent="add">
    <p class="small soft">
      Any fan blows (or draws) through the real path with the carton taped in front of it: the holes tell the
      flow, a second tube tells the pressure over the path alone. A few speeds or holes give a few pairs.
    </p>
    <div class="fields tight">
      <QuantityListField
        v-model="holes"
        label="Holes that are open"
        quantity="length"
        :schema="cartonSchema.shape.holesM.unwrap().element"
      />
      <QuantityField
        v-model="cartonPa"
        label="Carton against the room"
        quantity="pressure"
        :schema="limits.pressure"
      />
      <QuantityField
        v-model="pathPa"
        label="Pressure over the path"
        quantity="pressure"
        :schema="limits.pressure"
      />
      <QuantityField v-model="boxM2" label="Carton, cross-section" quantity="area" />
    </div>
    <p v-if="tooLarge" class="error" role="alert">
      The holes take more than half of the carton: its air is not still.
    </p>
    <div class="row">
      <el-button native-type="submit" size="small" :disabled="!flow || pathPa === null">Add the pair</el-button>
      <span v-if="flow" class="small mono">{{ show(flow, 'flow') }}</span>
    </div>
  </form>
</template>
