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
    <details v-for="(c, i) in curves" :key="c.volts" class="fold" :open="c.points.length === 0">
      <summary>
        {{ show(c.volts, 'voltage') }}<span class="aside">{{ c.points.length }} points</span>
      </summary>
      <PointTable :points="c.points" @update="change(i, $event)" />
      <button
        type="button"
        class="button quiet small"
        @click="
          emit(
            'update',
            curves.filter((_, k) => k !== i),
          )
        "
      >
        Take the {{ show(c.volts, 'voltage') }} curve away
      </button>
    </details>
    <div class="row end">
      <QuantityField v-model="volts" label="Another curve at" quantity="voltage" :schema="within(0.5, 60)" />
      <button
        type="button"
        class="button small"
        :disabled="volts === null || volts === fan.ratedV"
        @click="add"
      >
        Add it
      </button>
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
