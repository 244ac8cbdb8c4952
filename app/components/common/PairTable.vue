<script setup lang="ts">
import type { z } from 'zod'
import type { Quantity } from '#core/units'

/** Pairs of measured values, one row each: a row joins when both can be read. */
type Pair = [number, number]
interface Half {
  label: string
  quantity: Quantity
  schema: z.ZodType
}
const props = defineProps<{
  pairs: Pair[]
  first: Half
  second: Half
  add: string
  what: string
  /** an empty row to begin with */ begin?: boolean
}>()
const emit = defineEmits<{ update: [pairs: Pair[]] }>()
interface Row {
  a: number | null
  b: number | null
}
const rowsOf = (pairs: Pair[]): Row[] => pairs.map(([a, b]) => ({ a, b }))
const rows = ref<Row[]>(props.pairs.length || !props.begin ? rowsOf(props.pairs) : [{ a: null, b: null }])
const full = computed(() =>
  rows.value.filter((r) => r.a !== null && r.a > 0 && r.b !== null).map((r): Pair => [r.a!, r.b!]),
)
// a change from elsewhere (undo) is taken over; what is being typed here is not
watch(
  () => props.pairs,
  (pairs) => {
    if (JSON.stringify(pairs) !== JSON.stringify(full.value)) rows.value = rowsOf(pairs)
  },
)
const tell = () => emit('update', full.value)
function remove(i: number) {
  rows.value.splice(i, 1)
  tell()
}
const label = (half: Half, i: number) => half.label.replace('#', String(i + 1))
</script>

<template>
  <div class="stack">
    <div v-for="(row, i) in rows" :key="i" class="line">
      <QuantityField
        v-model="row.a"
        :label="label(first, i)"
        :quantity="first.quantity"
        :schema="first.schema"
        @update:model-value="tell"
      />
      <QuantityField
        v-model="row.b"
        :label="label(second, i)"
        :quantity="second.quantity"
        :schema="second.schema"
        @update:model-value="tell"
      />
      <el-button text class="icon" :aria-label="`Remove ${what} ${i + 1}`" @click="remove(i)"> × </el-button>
    </div>
    <slot />
    <div>
      <el-button size="small" @click="rows.push({ a: null, b: null })">
        {{ add }}
      </el-button>
    </div>
  </div>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 8px;
  align-items: end;
}
</style>
