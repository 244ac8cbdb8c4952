<script setup lang="ts">
import { plannedFans, driveVolts, newCalibration, calibrationSchema } from '#core/document'
import type { Calibration } from '#core/document'

/** Scale the guessed path by what was measured on the real one. */
const job = useJobStore()
const { show, bare } = useUnits()
const calibration = computed(() => job.plan!.calibration)
const report = computed(() => job.report!.path.calibration)
const path = computed(() => job.report!.path)
function begin() {
  job.change((d) => {
    const planned = plannedFans(d)
    d.calibration = {
      ...newCalibration(newId('calibration')),
      fanId: planned?.groups[0]!.fanId ?? d.job.existingFanId,
      count: planned?.count ?? d.job.existingCount,
      volts: job.report?.power.fanV ?? driveVolts(d) ?? d.job.existingV,
    }
  })
}
const set = (key: keyof Calibration, value: unknown) =>
  job.change((d) => assign(d.calibration, key, value), `calibration.${key}`)
const addPair = (point: Calibration['points'][number]) =>
  set(
    'points',
    [...calibration.value!.points, point].sort((a, b) => a.flowM3s - b.flowM3s),
  )
const remove = () =>
  job.removeWithUndo('The measurement is removed: the guess counts again.', (d) => {
    d.calibration = null
  })
const fans = useFanOptions('not chosen')
const ran: () => Field<keyof Calibration>[] = () => [
  { key: 'fanId', label: 'Fan that ran', options: fans.value },
  { key: 'count', label: 'How many', quantity: 'number', required: true },
  { key: 'volts', label: 'Voltage at it', quantity: 'voltage', hint: 'empty: its rated voltage' },
]
const fields = computed((): Field<keyof Calibration>[] => {
  const kind = calibration.value?.kind
  return [
    {
      key: 'kind',
      label: 'I measured',
      options: optionsOf({
        flow: 'the delivered airflow',
        pairs: 'airflow and pressure over the path',
        rise: 'a rise at a known heat',
      }),
    },
    ...(kind === 'pairs' ? [] : ran()),
    ...(kind === 'flow' ? [{ key: 'flowM3s' as const, label: 'Delivered', quantity: 'flow' as const }] : []),
    ...(kind === 'rise'
      ? [
          { key: 'heatW' as const, label: 'Heat', quantity: 'power' as const },
          {
            key: 'riseK' as const,
            label: 'Rise, intake to exhaust',
            quantity: 'temperatureDifference' as const,
          },
        ]
      : []),
  ]
})
const fit = computed(() => report.value?.ownFit ?? null)
</script>

<template>
  <div class="stack">
    <template v-if="!calibration">
      <p class="soft small">
        One measured flow with a known fan, a few flow and pressure pairs, or a rise at a known heat: the whole
        path is scaled to it, and the guess is kept to compare.
      </p>
      <div>
        <el-button @click="begin">Type a measurement</el-button>
      </div>
    </template>
    <template v-else>
      <FieldGrid tight :record="calibration" :fields="fields" :shape="calibrationSchema.shape" @set="set" />
      <LossPoints
        v-if="calibration.kind === 'pairs'"
        :points="calibration.points"
        what="the path"
        @update="set('points', $event)"
      />
      <FoldBox v-if="calibration.kind === 'pairs'" title="A pair from a carton with holes">
        <CartonPair @add="addPair" />
      </FoldBox>
      <p v-if="report?.problem" class="soft">
        {{ report.problem }}
      </p>
      <template v-else-if="report">
        <p>Real path over the guess: <FigureValue :figure="report.figure" range /></p>
        <table class="data">
          <thead>
            <tr>
              <th class="num">at</th>
              <th class="num">measured</th>
              <th class="num">guess</th>
              <th class="num">scaled</th>
              <th class="num">left over</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(r, i) in report.residuals" :key="i">
              <td class="num">
                {{ show(r.flow, 'flow') }}
              </td>
              <td class="num">
                {{ show(r.measured, 'pressure') }}
              </td>
              <td class="num">
                {{ show(r.guess, 'pressure') }}
              </td>
              <td class="num">
                {{ show(r.scaled, 'pressure') }}
              </td>
              <td class="num">
                {{ show(r.measured - r.scaled, 'pressure') }}
              </td>
            </tr>
          </tbody>
        </table>
        <p v-if="fit" class="small soft">
          The points’ own curve:
          <span class="mono">{{ show(fit.a, 'linearDrag') }}, {{ show(fit.b, 'quadraticDrag') }}</span
          ><template v-if="report.ownRange">
            ({{ bare(report.ownRange.a.low, 'linearDrag') }} to
            {{ bare(report.ownRange.a.high, 'linearDrag') }},
            {{ bare(report.ownRange.b.low, 'quadraticDrag') }} to
            {{ bare(report.ownRange.b.high, 'quadraticDrag') }})</template
          ><template v-if="report.exponent !== null">
            ; exponent {{ report.exponent.toFixed(2)
            }}{{
              report.exponent < 0.9 || report.exponent > 2.1
                ? ': outside 0.9 to 2.1, a reading is off or a flap moves'
                : ''
            }}
          </template>
        </p>
        <p v-if="path.guessDrop !== null" class="small soft">
          Whole path as guessed: {{ show(path.guessDrop, 'pressure') }}; as measured:
          {{ show(path.drop.value, 'pressure') }}.
        </p>
      </template>
      <div class="row">
        <el-checkbox :model-value="calibration.used" @change="set('used', Boolean($event))"
          >the plan uses it</el-checkbox
        >
        <el-button text size="small" @click="remove">Remove the measurement</el-button>
      </div>
    </template>
  </div>
</template>

<style scoped>
.check {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  min-height: 28px;
}
.check input {
  accent-color: var(--cap);
  width: 18px;
  height: 18px;
}
</style>
