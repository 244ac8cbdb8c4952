<script setup lang="ts">
import type { LossPoint } from '../../../core/plan/document'
import { limits } from '../../../shared/schemas/fan'

/** Flow and pressure pairs, measured or off a data sheet. A row joins when both can be read. */
const props = defineProps<{ points: LossPoint[], what: string }>()
const emit = defineEmits<{ update: [points: LossPoint[]] }>()
interface Row { flow: number | null, pressure: number | null }
const rowsOf = (points: LossPoint[]): Row[] => points.map(p => ({ flow: p.flowM3s, pressure: p.pressurePa }))
const rows = ref<Row[]>(rowsOf(props.points))
const full = computed(() => rows.value.filter(r => r.flow !== null && r.flow > 0 && r.pressure !== null).map(r => ({ flowM3s: r.flow!, pressurePa: r.pressure! })))
watch(() => props.points, (points) => {
  if (JSON.stringify(points) !== JSON.stringify(full.value)) rows.value = rowsOf(points)
})
const tell = () => emit('update', full.value)
function remove(i: number) {
  rows.value.splice(i, 1)
  tell()
}
</script>

<template>
  <div class="stack">
    <div
      v-for="(row, i) in rows"
      :key="i"
      class="line"
    >
      <QuantityField
        v-model="row.flow"
        :label="`At a flow of (${i + 1})`"
        quantity="flow"
        :schema="limits.flow"
        @update:model-value="tell"
      />
      <QuantityField
        v-model="row.pressure"
        :label="`${what} loses (${i + 1})`"
        quantity="pressure"
        :schema="limits.pressure"
        @update:model-value="tell"
      />
      <button
        type="button"
        class="button quiet icon"
        :aria-label="`Remove pair ${i + 1}`"
        @click="remove(i)"
      >
        ×
      </button>
    </div>
    <div>
      <button
        type="button"
        class="button small"
        @click="rows.push({ flow: null, pressure: null })"
      >
        + Flow and pressure
      </button>
    </div>
  </div>
</template>

<style scoped>
.line { display: grid; grid-template-columns: 1fr 1fr auto; gap: 8px; align-items: end; }
</style>
