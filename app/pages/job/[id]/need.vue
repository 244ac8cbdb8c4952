<script setup lang="ts">
import { airChangeGuide } from '../../../../core/need'
import type { Job, KeepBasis } from '../../../../core/plan/document'
import { jobSchema } from '../../../../shared/schemas/plan'

const { plan, report, set, put, findings } = useJob('need')
const shelf = useShelfStore()
const { show } = useUnits()
const job = computed(() => plan.value.job)
const need = computed(() => report.value.need)
const heat = computed((): Field<keyof Job>[] => [
  { key: 'heatW', label: 'Heat released inside', quantity: 'power', placeholder: '60 W' },
  { key: 'heatBasis', label: 'Where this heat figure comes from', options: optionsOf({ measured: 'measured (wall meter, V × I)', nameplate: 'from the label', estimate: 'my guess' }) },
])
const keepers = computed((): Record<KeepBasis, Field<keyof Job>[]> => ({
  'existing-fan': [
    { key: 'existingFanId', label: 'Fan in it now', hint: 'not listed? add it on the shelf', options: [{ value: null, label: 'not chosen' }, ...shelf.known.map(f => ({ value: f.id, label: `${f.maker} ${f.model}` }))] },
    { key: 'existingCount', label: 'How many', quantity: 'number', required: true },
    { key: 'existingV', label: 'Voltage at it', quantity: 'voltage', hint: 'empty: its rated voltage' },
  ],
  'temperature': [...heat.value, { key: 'measuredRiseK', label: 'Measured rise, intake to exhaust', quantity: 'temperatureDifference' }],
  'typed': [{ key: 'typedFlowM3s', label: 'Airflow now', quantity: 'flow' }],
}))
const fields = computed((): Field<keyof Job>[] => {
  const { goal, insideMaxC, ambientC, keepBasis } = job.value
  if (goal === 'ventilate') {
    return [{ key: 'volumeM3', label: 'Free air volume', quantity: 'volume', placeholder: '0.46 m³' }, { key: 'airChangesPerH', label: 'Air changes per hour', quantity: 'perHour', placeholder: '20' }]
  }
  if (goal === 'quieten') {
    return [{ key: 'keepBasis', label: 'Keep the air that comes from', options: optionsOf({ 'existing-fan': 'the fan that is in it', 'temperature': 'heat and measured rise', 'typed': 'a flow I know' }) }, ...keepers.value[keepBasis]]
  }
  const fromTarget = insideMaxC === null && need.value.insideMaxC !== null
  return [
    ...heat.value,
    { key: 'insideMaxC', label: 'Highest temperature inside', quantity: 'temperature', placeholder: '40 °C', hint: fromTarget ? `taken from the target: ${show(need.value.insideMaxC, 'temperature')}` : `air at the intake: ${show(ambientC, 'temperature')}` },
    { key: 'wallLossWK', label: 'Lost through the walls', quantity: 'thermalConductance', hint: 'leave empty to count none' },
  ]
})
const margin = computed((): Field<keyof Job>[] => [{
  key: 'margin', label: 'Margin on the need', quantity: 'ratio',
  hint: job.value.margin === null ? `empty: ${Math.round(need.value.margin * 100)} %, ${job.value.goal === 'cool' && job.value.heatBasis !== 'measured' ? 'as the heat is not measured' : 'the usual'} (common practice)` : 'your own',
}])
const riseNow = computed(() => report.value.pick?.figures.find(f => f.key === 'pick.rise') ?? null)
const flowNow = computed(() => report.value.pick?.figures.find(f => f.key === 'pick.flow') ?? null)
const titles = { cool: 'How much air carries the heat off?', ventilate: 'How much air changes the space?', quieten: 'How much air must stay?' }
</script>

<template>
  <div class="two">
    <section class="sheet stack">
      <h2>{{ titles[job.goal] }}</h2>
      <FieldGrid
        :record="job"
        :fields="fields"
        :shape="jobSchema.shape"
        @set="put"
      />
      <details
        v-if="job.goal === 'ventilate'"
        class="fold"
      >
        <summary>What is usual (common practice, no source)</summary>
        <table class="data">
          <tbody>
            <tr
              v-for="row in airChangeGuide"
              :key="row.place"
            >
              <td>{{ row.place }}</td>
              <td class="num">
                {{ row.low === row.high ? row.low : `${row.low} to ${row.high}` }} /h
              </td>
              <td>
                <button
                  type="button"
                  class="button small"
                  :aria-label="`Use ${(row.low + row.high) / 2} air changes per hour for a ${row.place}`"
                  @click="set('airChangesPerH')((row.low + row.high) / 2)"
                >
                  Use {{ (row.low + row.high) / 2 }}
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </details>
      <FieldGrid
        :record="job"
        :fields="margin"
        :shape="jobSchema.shape"
        @set="put"
      />
      <FindingList :findings="findings" />
    </section>
    <div class="stack">
      <section class="sheet stack">
        <h2>The need</h2>
        <p
          v-if="need.missing"
          class="soft"
        >
          Still asks for {{ need.missing }}.
        </p>
        <dl class="results">
          <div>
            <dt>{{ need.flow.label }}</dt>
            <dd>
              <FigureValue
                :figure="need.flow"
                big
                range
              />
            </dd>
          </div>
          <div>
            <dt>{{ need.design.label }}</dt>
            <dd>
              <FigureValue
                :figure="need.design"
                big
                range
              />
            </dd>
          </div>
          <div>
            <dt>Air density here</dt>
            <dd><FigureValue :figure="report.density" /></dd>
          </div>
          <div v-if="flowNow?.value">
            <dt>The picked fan gives</dt>
            <dd>
              <FigureValue
                :figure="flowNow"
                range
              />
            </dd>
          </div>
          <div v-if="riseNow?.value">
            <dt>So the air rises by</dt>
            <dd>
              <FigureValue
                :figure="riseNow"
                range
              />
            </dd>
          </div>
        </dl>
      </section>
      <TargetTable />
    </div>
  </div>
</template>

<style scoped>
.results { margin: 0; display: grid; gap: 10px; }
.results > div { display: flex; justify-content: space-between; gap: 16px; align-items: baseline; border-bottom: 1px solid var(--line); padding-bottom: 8px; }
.results > div:last-child { border-bottom: 0; padding-bottom: 0; }
.results dd { margin: 0; text-align: right; }
</style>
