<script setup lang="ts">
import type { FanPoint } from '#core/document'
import { limits } from '#core/document'

/** Points of a curve, editable; a row is kept while it is being typed, and the message stands beside the wrong one. */
const props = defineProps<{ points: FanPoint[] }>()
const emit = defineEmits<{ update: [points: FanPoint[]] }>()
const { symbol } = useUnits()

interface Row {
  id: number
  flow: number | null
  pressure: number | null
}
let next = 1
const rowOf = (p?: FanPoint): Row => ({ id: next++, flow: p?.flowM3s ?? null, pressure: p?.pressurePa ?? null })
const rows = ref<Row[]>(props.points.length ? props.points.map(rowOf) : [])

const issue = (row: Row, i: number): string => {
  const before = rows.value.slice(0, i).findLast((r) => r.flow !== null)
  if (row.flow !== null && before && row.flow <= before.flow!)
    return 'Each flow must be larger than the one before.'
  if (row.flow !== null && row.pressure === null) return 'Its pressure is missing.'
  if (row.flow === null && row.pressure !== null) return 'Its flow is missing.'
  const earlier = rows.value.slice(0, i).findLast((r) => r.pressure !== null)
  if (row.pressure !== null && earlier && row.pressure > earlier.pressure!)
    return 'Rises here: true of a dip, else check the value.'
  return ''
}
const issues = computed(() =>
  rows.value.map((row, i) => issue(row, i) && `Point ${i + 1}: ${issue(row, i)}`).filter(Boolean),
)
function tell() {
  emit(
    'update',
    rows.value
      .filter((r) => r.flow !== null && r.pressure !== null)
      .map((r) => ({ flowM3s: r.flow!, pressurePa: r.pressure! })),
  )
}
function change(row: Row, part: 'flow' | 'pressure', value: number | null) {
  row[part] = value
  tell()
}
const table = ref<HTMLElement>()
async function add() {
  rows.value.push(rowOf())
  await nextTick()
  const inputs = table.value?.querySelectorAll('input')
  inputs?.[inputs.length - 2]?.focus()
}
function remove(row: Row) {
  const at = rows.value.indexOf(row)
  rows.value.splice(at, 1)
  tell()
  useToast().show('Point removed.', {
    action: {
      label: 'Undo',
      run: () => {
        rows.value.splice(at, 0, row)
        tell()
      },
    },
  })
}
</script>

<template>
  <div class="stack">
    <div v-if="rows.length" ref="table" class="points" role="table" aria-label="Points of the curve">
      <div class="head small soft" role="row">
        <span role="columnheader">flow, {{ symbol('flow') }}</span
        ><span role="columnheader">static pressure, {{ symbol('pressure') }}</span
        ><span role="columnheader"><span class="visually-hidden">Remove</span></span>
      </div>
      <div v-for="(row, i) in rows" :key="row.id" class="point" role="row">
        <span role="cell"
          ><QuantityField
            :label="`Flow of point ${i + 1}`"
            hide-label
            quantity="flow"
            :schema="limits.flow"
            :model-value="row.flow"
            @update:model-value="change(row, 'flow', $event)"
        /></span>
        <span role="cell"
          ><QuantityField
            :label="`Pressure of point ${i + 1}`"
            hide-label
            quantity="pressure"
            :schema="limits.pressure"
            :model-value="row.pressure"
            @update:model-value="change(row, 'pressure', $event)"
            @keydown.enter.prevent="add"
        /></span>
        <span role="cell"
          ><el-button text class="icon" :aria-label="`Remove point ${i + 1}`" @click="remove(row)">
            ×
          </el-button></span
        >
      </div>
    </div>
    <div v-if="issues.length" class="issues" role="alert">
      <p v-for="text in issues" :key="text">
        {{ text }}
      </p>
    </div>
    <div>
      <el-button size="small" @click="add">+ Point</el-button>
    </div>
  </div>
</template>

<style scoped>
.points {
  display: grid;
  gap: 4px;
  max-height: 226px;
  overflow-y: auto;
  padding: 2px;
}
.head,
.point {
  display: grid;
  grid-template-columns: 1fr 1fr 32px;
  gap: 8px;
  align-items: center;
}
.issues {
  color: var(--amber);
  font-size: 13px;
  font-weight: 500;
}
</style>
