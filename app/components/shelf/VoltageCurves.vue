<script setup lang="ts">
import type { Fan, FanPoint, VoltageCurve } from '#core/document'
import { within } from '#core/document'

/** Curves that the sheet shows at other voltages: they teach how speed follows voltage, and how the shape changes. */
const props = defineProps<{ fan: Fan }>()
const emit = defineEmits<{ update: [curves: VoltageCurve[]] }>()
const volts = ref<number | null>(null)
const { show } = useUnits()
const curves = computed(() => props.fan.curves)
function add() {
  if (
    volts.value === null ||
    volts.value === props.fan.ratedV ||
    curves.value.some((c) => c.volts === volts.value)
  )
    return
  emit(
    'update',
    [...curves.value, { volts: volts.value, basis: 'curve' as const, points: [] }].sort(
      (a, b) => a.volts - b.volts,
    ),
  )
  volts.value = null
}
const change = (i: number, points: FanPoint[]) =>
  emit(
    'update',
    curves.value.map((c, k) => (k === i ? { ...c, points } : c)),
  )
</script>

<template>
  <section class="sheet stack">
    <h2>Curves at other voltages</h2>
    <FoldBox v-for="(c, i) in curves" :key="c.volts" :open="c.points.length === 0">
      <template #title>
        {{ show(c.volts, 'voltage') }}<span class="aside">{{ c.points.length }} points</span>
      </template>
      <PointTable :points="c.points" @update="change(i, $event)" />
      <el-button
        text
        size="small"
        @click="
          emit(
            'update',
            curves.filter((_, k) => k !== i),
          )
        "
      >
        Take the {{ show(c.volts, 'voltage') }} curve away
      </el-button>
    </FoldBox>
    <div class="row end">
      <QuantityField v-model="volts" label="Another curve at" quantity="voltage" :schema="within(0.5, 60)" />
      <el-button size="small" :disabled="volts === null || volts === fan.ratedV" @click="add">
        Add it
      </el-button>
      <span class="small soft">{{
        volts !== null && volts === fan.ratedV ? 'The curve at rated voltage is the one above.' : ''
      }}</span>
    </div>
  </section>
</template>

<style scoped>
.end {
  align-items: end;
}
</style>
