<script setup lang="ts">
import { conversions, type Converted } from '#core/verification'
import type { FlowMethod, ReadingQuantity } from '#core/document'

export interface TakenHow {
  method: FlowMethod | null
  points: number | null
  /** 95 % half-width, in the reading's SI unit */
  halfWidth: number | null
}

/** From what the instrument shows to the reading, with its working. */
const emit = defineEmits<{
  take: [quantity: ReadingQuantity, value: number, how: TakenHow]
}>()
const job = useJobStore()
const { show } = useUnits()
const key = ref(conversions[0]!.key)
const options = conversions.map((c) => ({ value: c.key, label: c.title }))
const conversion = computed(() => conversions.find((c) => c.key === key.value)!)
function take(r: Extract<Converted, { ok: true }>) {
  if (!conversion.value.gives) return
  const { value, low, high } = r.figures[0]!
  if (value === null) return
  emit('take', conversion.value.gives, value, {
    method: r.method ?? null,
    points: r.points ?? null,
    halfWidth: low === null || high === null ? null : Math.max(high - value, value - low),
  })
}
</script>

<template>
  <div class="stack convert">
    <ChoiceField v-model="key" label="Work out" :options="options" />
    <SumForm v-slot="{ result }" :sum="conversion" :density="job.report?.air.density ?? 1.2">
      <el-button v-if="conversion.gives" type="primary" size="small" @click="take(result)">
        Use {{ show(result.figures[0]!.value, result.figures[0]!.quantity) }} as the reading
      </el-button>
    </SumForm>
  </div>
</template>

<style scoped>
.convert {
  background: var(--sheet-soft);
  border-radius: 6px;
  padding: 10px;
}
</style>
