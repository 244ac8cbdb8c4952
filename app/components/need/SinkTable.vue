<script setup lang="ts">
import { sinkProblem } from '../../../core/heat'
import type { SinkPoint } from '../../../core/plan/document'
import { sinkPointSchema } from '../../../shared/schemas/plan'

/** Thermal resistance of the part over airflow: one point, two, or a whole curve. */
const props = defineProps<{ points: SinkPoint[] }>()
const emit = defineEmits<{ update: [points: SinkPoint[]] }>()
interface Row { flow: number | null, kPerW: number | null }
const rows = ref<Row[]>(props.points.length ? props.points.map(p => ({ flow: p.flowM3s, kPerW: p.kPerW })) : [{ flow: null, kPerW: null }])
const full = computed(() => rows.value.filter(r => r.flow !== null && r.kPerW !== null).map(r => ({ flowM3s: r.flow!, kPerW: r.kPerW! })))
watch(() => props.points, (points) => {
  if (JSON.stringify(points) !== JSON.stringify(full.value)) rows.value = points.map(p => ({ flow: p.flowM3s, kPerW: p.kPerW }))
})
const problem = computed(() => full.value.length ? sinkProblem(full.value.map(p => ({ flow: p.flowM3s, kPerW: p.kPerW }))) : null)
const tell = () => emit('update', full.value)
function remove(i: number) {
  rows.value.splice(i, 1)
  tell()
}
</script>

<template>
  <fieldset class="sink">
    <legend class="field-label">
      Resistance of the part to the air, from its sheet or your own test
    </legend>
    <div
      v-for="(row, i) in rows"
      :key="i"
      class="line"
    >
      <QuantityField
        v-model="row.flow"
        :label="`Airflow ${i + 1}`"
        quantity="flow"
        :schema="sinkPointSchema.shape.flowM3s"
        @update:model-value="tell"
      />
      <QuantityField
        v-model="row.kPerW"
        :label="`Resistance ${i + 1}`"
        quantity="thermalResistance"
        :schema="sinkPointSchema.shape.kPerW"
        @update:model-value="tell"
      />
      <button
        type="button"
        class="button quiet icon"
        :aria-label="`Remove point ${i + 1}`"
        @click="remove(i)"
      >
        ×
      </button>
    </div>
    <p
      v-if="problem"
      class="bad small"
      role="alert"
    >
      The part asks for {{ problem }}.
    </p>
    <button
      type="button"
      class="button small"
      @click="rows.push({ flow: null, kPerW: null })"
    >
      + Point
    </button>
  </fieldset>
</template>

<style scoped>
.sink { border: 0; margin: 0; padding: 0; display: grid; gap: 8px; justify-items: start; }
.sink legend { padding: 0; margin-bottom: 3px; }
.line { display: grid; grid-template-columns: 1fr 1fr auto; gap: 8px; align-items: end; width: 100%; }
.bad { color: var(--stop); font-weight: 500; }
</style>
