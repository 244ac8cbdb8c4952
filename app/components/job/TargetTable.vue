<script setup lang="ts">
import type { Target, TargetKind } from '../../../core/plan/document'
import type { Quantity } from '../../../core/units'

import { limits as within } from '../../../shared/schemas/fan'
import { targetSchema } from '../../../shared/schemas/plan'

/** The targets that the verdict is judged by. */
const job = useJobStore()
const targets = computed(() => job.plan?.targets ?? [])
const kinds: { value: TargetKind, label: string, quantity: Quantity, sense: string, start: number, place: string }[] = [
  { value: 'temperature', label: 'Temperature', quantity: 'temperature', sense: 'at most', start: 40, place: 'inside' },
  { value: 'level', label: 'Sound level', quantity: 'level', sense: 'at most', start: 32, place: 'listener' },
  { value: 'flow', label: 'Airflow', quantity: 'flow', sense: 'at least', start: 0.01, place: 'outlet' },
  { value: 'money', label: 'Money', quantity: 'money', sense: 'at most', start: 30, place: '' },
]
const limits = { temperature: within.temperature, level: within.level, flow: within.flow, money: targetSchema.shape.limit }
const kindOf = (t: Target) => kinds.find(k => k.value === t.kind)!
const free = computed(() => kinds.filter(k => !targets.value.some(t => t.kind === k.value)))
function add(kind: typeof kinds[number]) {
  job.change((d) => {
    d.targets.push({ id: newId('target'), kind: kind.value, limit: kind.start, place: kind.place, why: '' })
  })
}
const edit = (id: string, field: string, mutate: (t: Target) => void) => job.change((d) => {
  const target = d.targets.find(t => t.id === id)
  if (target) mutate(target)
}, `target.${id}.${field}`)
const remove = (id: string) => job.removeWithUndo('Target removed.', (d) => {
  d.targets = d.targets.filter(t => t.id !== id)
})
</script>

<template>
  <section class="sheet stack">
    <div class="sheet-head">
      <h2>Targets: what the verdict is judged by</h2>
      <div class="row">
        <button
          v-for="kind in free"
          :key="kind.value"
          type="button"
          class="button small"
          @click="add(kind)"
        >
          + {{ kind.label }}
        </button>
      </div>
    </div>
    <p
      v-if="!targets.length"
      class="soft"
    >
      Without a number no verdict is possible: add a temperature, a level, a flow or a sum of money.
    </p>
    <div
      v-for="target in targets"
      :key="target.id"
      class="target"
    >
      <QuantityField
        :label="`${kindOf(target).label}, ${kindOf(target).sense}`"
        :quantity="kindOf(target).quantity"
        required
        :schema="limits[target.kind]"
        :model-value="target.limit"
        @update:model-value="edit(target.id, 'limit', t => { t.limit = $event! })"
      />
      <TextField
        v-if="target.kind !== 'money'"
        label="Where"
        :model-value="target.place"
        @update:model-value="edit(target.id, 'place', t => { t.place = $event })"
      />
      <span v-else />
      <TextField
        label="Why"
        :model-value="target.why"
        @update:model-value="edit(target.id, 'why', t => { t.why = $event })"
      />
      <button
        type="button"
        class="button quiet icon"
        :aria-label="`Remove the ${kindOf(target).label.toLowerCase()} target`"
        @click="remove(target.id)"
      >
        ×
      </button>
    </div>
  </section>
</template>

<style scoped>
.target { display: grid; grid-template-columns: minmax(130px, 1fr) minmax(90px, 1fr) minmax(110px, 1.600fr) auto; gap: 8px; align-items: end; }
@media (max-width: 760px) { .target { grid-template-columns: 1fr 1fr; } }
</style>
