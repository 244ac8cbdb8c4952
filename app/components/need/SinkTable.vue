<script setup lang="ts">
import { sinkProblem } from '#core/heat'
import type { Job, SinkPoint } from '#core/document'
import { sinkPointSchema } from '#core/document'

/** Thermal resistance of the part over airflow: one point, two, or a whole curve. */
const props = defineProps<{ points: SinkPoint[]; workings: Job['workings'] }>()
const emit = defineEmits<{ update: [points: SinkPoint[]] }>()
/** How its point came about, while it is that point. */
const working = computed(
  () =>
    props.workings.find(
      (w) => w.key === 'sink' && props.points.length === 1 && w.value === props.points[0]!.kPerW,
    )?.text,
)
const pairs = computed(() => props.points.map((p): [number, number] => [p.flowM3s, p.kPerW]))
const problem = computed(() =>
  props.points.length ? sinkProblem(props.points.map((p) => ({ flow: p.flowM3s, kPerW: p.kPerW }))) : null,
)
const taken = (list: [number, number][]) =>
  emit(
    'update',
    list.map(([flowM3s, kPerW]) => ({ flowM3s, kPerW })),
  )
</script>

<template>
  <fieldset class="sink">
    <legend class="field-label">Resistance of the part to the air, from its sheet or your own test</legend>
    <PairTable
      :pairs="pairs"
      :first="{ label: 'Airflow #', quantity: 'flow', schema: sinkPointSchema.shape.flowM3s }"
      :second="{ label: 'Resistance #', quantity: 'thermalResistance', schema: sinkPointSchema.shape.kPerW }"
      add="+ Point"
      what="point"
      begin
      @update="taken"
    >
      <p v-if="working" class="small soft">{{ working }}</p>
      <p v-if="problem" class="bad small" role="alert">The part asks for {{ problem }}.</p>
    </PairTable>
  </fieldset>
</template>

<style scoped>
.sink {
  border: 0;
  margin: 0;
  padding: 0;
}
.sink legend {
  padding: 0;
  margin-bottom: 3px;
}
.bad {
  color: var(--stop);
  font-weight: 500;
}
</style>
