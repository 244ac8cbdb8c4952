<script setup lang="ts">
import type { CartonCurve, NextStep } from '#core/lab'
import { cartonReadingSchema, cartonSchema, type Carton, type CartonReading } from '#core/document'

/** Readings one by one: what to do next, what was read, what is odd about it. */
const props = defineProps<{ carton: Carton; curve: CartonCurve; next: NextStep | null; ratedV: number }>()
const emit = defineEmits<{
  take: [reading: Omit<CartonReading, 'id'>]
  remove: [id: string]
  set: [part: Partial<Carton>]
  /** misCut: of a stand-in with one hole cut wrong */
  standIn: [open: number | 'leak', volts: number, misCut: boolean]
  open: [open: number]
}>()
const { show, bare } = useUnits()
const open = ref(0)
const pressurePa = ref<number | null>(null)
const volts = ref<number | null>(props.carton.readings.at(-1)?.volts ?? props.ratedV)
const rpm = ref<number | null>(null)
const misCut = ref(false)
const refused = ref('')
const field = ref<HTMLElement>()
/** the proposal is taken over; whoever wants another number of holes chooses it */
watch(
  () => props.next,
  (next) => {
    if (next?.do === 'read') open.value = next.open
  },
  { immediate: true },
)
watch(open, (now) => emit('open', now), { immediate: true })
const holeWords = (n: number) =>
  n === 0 ? 'card over the fan' : n === 1 ? 'hole 1 open' : `holes 1 to ${n} open`
const choices = computed(() =>
  Array.from({ length: props.carton.holesM.length + 1 }, (_, n) => ({ value: n, label: holeWords(n) })),
)
function take() {
  if (pressurePa.value === null || volts.value === null) {
    refused.value = pressurePa.value === null ? 'What does the gauge show?' : 'What is the voltage at the fan?'
    return
  }
  refused.value = ''
  emit('take', { open: open.value, pressurePa: pressurePa.value, volts: volts.value, rpm: rpm.value })
  pressurePa.value = null
  rpm.value = null
  void nextTick(() => field.value?.querySelector('input')?.focus())
}
const rows = computed(() =>
  props.carton.readings.map((r) => ({
    r,
    point: props.curve.points.find((p) => p.reading.open === r.open) ?? null,
  })),
)
const leakWords = computed(() => {
  const { leakRead, leakM2 } = props.curve
  if (!leakRead) return 'Not read: assumed.'
  return leakM2 > 0 ? `Leaks: ${show(leakM2, 'area')}, counted with the airflow.` : 'No leak to be seen.'
})
</script>

<template>
  <section class="sheet stack">
    <h2>Readings</h2>
    <p v-if="next" class="next" role="status">
      <template v-if="next.do === 'read'">
        <strong>Next: {{ holeWords(next.open) }}.</strong> {{ next.why }}
      </template>
      <template v-else-if="next.do === 'leak'">
        <strong>Next: the leak card.</strong> {{ next.why }} Tape a card with one small hole over the fan, close
        all holes of the wall, and read the carton’s pressure.
      </template>
      <template v-else> <StateMark state="settled" /> <strong>Enough.</strong> {{ next.why }} </template>
    </p>
    <form class="take" @submit.prevent="take">
      <ChoiceField v-model="open" label="Open are" :options="choices" />
      <div ref="field">
        <QuantityField
          v-model="pressurePa"
          label="Pressure in the carton"
          quantity="pressure"
          :schema="cartonReadingSchema.shape.pressurePa"
        />
      </div>
      <QuantityField
        v-model="volts"
        label="Voltage at the fan"
        quantity="voltage"
        :schema="cartonReadingSchema.shape.volts"
      />
      <QuantityField v-model="rpm" label="Speed, if read" quantity="rotation" />
      <el-button type="primary" native-type="submit">Take the reading</el-button>
      <el-button @click="emit('standIn', open, volts ?? ratedV, misCut)">Read the stand-in</el-button>
    </form>
    <p v-if="refused" class="bad small" role="alert">{{ refused }}</p>
    <div v-if="rows.length" class="scroll-x" tabindex="0" role="region" aria-label="Readings on the carton">
      <table class="data blocks small">
        <caption class="visually-hidden">
          Readings on the carton
        </caption>
        <thead>
          <tr>
            <th>Open</th>
            <th class="num">read</th>
            <th class="num">at</th>
            <th class="num">airflow, at rated voltage</th>
            <th class="num">pressure</th>
            <th><span class="visually-hidden">Take away</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="{ r, point } in rows" :key="r.id">
            <td class="wide">
              {{ holeWords(r.open) }}
              <span v-if="point?.odd" class="odd"><StateMark state="fix" /> {{ point.odd }}</span>
            </td>
            <td class="num" data-label="read">{{ show(r.pressurePa, 'pressure') }}</td>
            <td class="num" data-label="at">{{ show(r.volts, 'voltage') }}</td>
            <td class="num" data-label="airflow">
              <template v-if="point"
                >{{ show(point.flow.value, 'flow')
                }}<span v-if="r.open" class="soft range"
                  >{{ bare(point.flow.low, 'flow') }} to {{ bare(point.flow.high, 'flow') }}</span
                ></template
              >
              <template v-else>–</template>
            </td>
            <td class="num" data-label="pressure">
              {{ point ? show(point.pressure.value, 'pressure') : '–' }}
            </td>
            <td>
              <el-button
                text
                size="small"
                class="icon"
                :aria-label="`Take away: ${holeWords(r.open)}, ${show(r.pressurePa, 'pressure')}`"
                @click="emit('remove', r.id)"
              >
                ×
              </el-button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <div class="take leak">
      <QuantityField
        label="Hole of the leak card"
        quantity="length"
        :schema="cartonSchema.shape.leakHoleM"
        :model-value="carton.leakHoleM"
        @update:model-value="emit('set', { leakHoleM: $event })"
      />
      <QuantityField
        label="Pressure with it, same voltage"
        quantity="pressure"
        :schema="cartonSchema.shape.leakPressurePa"
        :model-value="carton.leakPressurePa"
        @update:model-value="emit('set', { leakPressurePa: $event })"
      />
      <el-button @click="emit('standIn', 'leak', volts ?? ratedV, misCut)">Read the stand-in’s leak</el-button>
      <span class="small soft words">{{ leakWords }}</span>
      <el-checkbox v-model="misCut" class="words small"
        >the stand-in has one hole that was cut wrong</el-checkbox
      >
    </div>
  </section>
</template>

<style scoped>
.next {
  background: var(--sheet-soft);
  border-radius: 6px;
  padding: 8px 10px;
}
.take {
  display: grid;
  grid-template-columns: minmax(150px, 1.3fr) repeat(3, minmax(110px, 1fr));
  gap: 8px;
  align-items: end;
}
.take > .el-button {
  margin: 0;
  grid-column: span 2;
}
.leak {
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
.words {
  grid-column: 1 / -1;
}
.odd {
  display: block;
  color: var(--fix-ink, var(--ink));
}
.range {
  display: block;
}
.bad {
  color: var(--stop);
  font-weight: 600;
}
@media (max-width: 620px) {
  .take {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
