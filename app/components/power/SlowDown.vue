<script setup lang="ts">
import { slowDownWays, voltageForShare, type SlowRow } from '#core/supply'
import { dutyOf, plannedFans, converterOf, driveVolts, setDrive, within } from '#core/document'

/** Ways to bring the pick to a voltage, side by side, for this fan on this source. */
const job = useJobStore()
const { show } = useUnits()
const fanArray = computed(() => job.report!.selection?.fanArray ?? null)
/** the speed wished, as a share of rated; null: what the pick is driven at */
const wished = ref<number | null>(null)
const target = computed(() =>
  wished.value !== null && fanArray.value
    ? Math.round(10 * voltageForShare(fanArray.value, wished.value)) / 10
    : (job.report!.selection?.candidate.driveV ?? driveVolts(job.plan!)),
)
const nowShare = computed(() => job.report!.selection?.candidate.speed ?? null)
const rows = computed(() =>
  fanArray.value && target.value !== null ? slowDownWays(job.plan!, fanArray.value, target.value) : [],
)
const current = computed(
  () => converterOf(job.plan!)?.converterKind ?? (dutyOf(job.plan!) === null ? 'straight' : 'pwm-wire'),
)
function take(row: SlowRow) {
  const volts = target.value
  job.change((d) => {
    const now = driveVolts(d)
    const wanted = row.take ? (volts ?? now) : (row.fanV ?? now)
    if (!plannedFans(d) || wanted === null) return
    const converterId = newId('converter')
    if (row.take) setDrive(d, { volts: wanted, duty: null, by: row.take, converterId })
    else setDrive(d, { volts: wanted, duty: row.duty, by: 'straight', converterId })
  })
  wished.value = null
}
const takes = (row: SlowRow) => row.take !== null || row.way === 'straight' || row.way === 'pwm-wire'
const starts = (row: SlowRow) =>
  row.starts === null
    ? ''
    : row.starts
      ? `${row.startMarginV! >= 0 ? '+' : ''}${show(row.startMarginV, 'voltage')}`
      : 'does not start'
</script>

<template>
  <section v-if="rows.length" class="sheet">
    <div class="sheet-head">
      <h2>{{ show(target, 'voltage') }} at the fan: the ways, for this fan on this source</h2>
      <QuantityField
        v-model="wished"
        class="wish"
        label="Speed wished, of full"
        quantity="ratio"
        :placeholder="show(nowShare, 'ratio')"
        :schema="within(0.1, 1.1)"
      />
    </div>
    <div class="scroll-x" tabindex="0" role="region" aria-label="Ways to slow it down">
      <table class="data ways blocks">
        <thead>
          <tr>
            <th>way</th>
            <th class="num">at the fan</th>
            <th class="num">above start</th>
            <th class="num">heat</th>
            <th class="num">parts</th>
            <th>how it is set</th>
            <th><span class="visually-hidden">Take</span></th>
          </tr>
        </thead>
        <tbody
          v-for="row in rows"
          :key="row.way + row.name"
          :class="{ picked: row.way === current, never: row.hazard?.severity === 'stop' }"
        >
          <tr>
            <td class="wide">
              <strong>{{ row.name }}</strong>
              <span class="small soft">{{
                [row.adjustable ? 'adjustable' : 'fixed', row.noise === 'none' ? '' : row.noise]
                  .filter(Boolean)
                  .join(', ')
              }}</span>
            </td>
            <td class="num" data-label="at the fan">
              {{ row.fanV === null ? '' : show(row.fanV, 'voltage') }}
              <span
                v-if="row.peakV !== null && row.fanV !== null && row.peakV > 1.1 * row.fanV"
                class="small soft"
                >peak {{ show(row.peakV, 'voltage') }}</span
              >
            </td>
            <td class="num" data-label="above start">{{ starts(row) }}</td>
            <td class="num" data-label="heat">{{ row.heatW === null ? '' : show(row.heatW, 'power') }}</td>
            <td class="num" data-label="parts">{{ row.parts === null ? '' : show(row.parts, 'money') }}</td>
            <td class="do small wide">
              <span v-if="row.hazard" class="hazard" :class="row.hazard.severity"
                ><StateMark :state="row.hazard.severity" /> {{ row.hazard.text }}</span
              >
              {{ row.setting }}
            </td>
            <td>
              <el-button
                v-if="takes(row) && row.way !== current"
                size="small"
                :aria-label="`Take ${row.name}`"
                @click="take(row)"
              >
                Take
              </el-button>
              <span v-else-if="row.way === current" class="small soft">taken</span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.wish {
  width: 150px;
}
.ways td {
  padding: 5px 6px;
  vertical-align: top;
}
.ways strong,
.ways .soft {
  display: block;
}
.ways .num {
  white-space: nowrap;
}
.hazard {
  display: block;
  font-weight: 600;
  color: var(--ink-soft);
}
.hazard.stop {
  color: var(--stop);
}
.hazard.fix {
  color: var(--amber);
}
tbody.picked td {
  background: var(--cap-soft);
}
tbody.picked td:first-child {
  box-shadow: inset 4px 0 0 var(--cap);
}
tbody.never td:not(.do) {
  color: var(--ink-soft);
}
</style>
