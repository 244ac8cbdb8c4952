<script setup lang="ts">
import { airChangeGuide } from '../../../../core/need'
import { jobSchema } from '../../../../shared/schemas/plan'

const { plan, report, set, findings } = useJob('need')
const shelf = useShelfStore()
const { show } = useUnits()
const job = computed(() => plan.value.job)
const need = computed(() => report.value.need)
const s = jobSchema.shape
const heatBases = [{ value: 'measured' as const, label: 'measured (wall meter, V × I)' }, { value: 'nameplate' as const, label: 'from the label' }, { value: 'estimate' as const, label: 'my guess' }]
const keepBases = [{ value: 'existing-fan' as const, label: 'the fan that is in it' }, { value: 'temperature' as const, label: 'heat and measured rise' }, { value: 'typed' as const, label: 'a flow I know' }]
const fanOptions = computed(() => [{ value: null as string | null, label: 'not chosen' }, ...shelf.known.map(f => ({ value: f.id as string | null, label: `${f.maker} ${f.model}` }))])
const riseNow = computed(() => report.value.pick?.figures.find(f => f.key === 'pick.rise') ?? null)
const flowNow = computed(() => report.value.pick?.figures.find(f => f.key === 'pick.flow') ?? null)
const titles = { cool: 'How much air carries the heat off?', ventilate: 'How much air changes the space?', quieten: 'How much air must stay?' }
</script>

<template>
  <div class="two">
    <section class="sheet stack">
      <h2>{{ titles[job.goal] }}</h2>
      <div
        v-if="job.goal === 'cool'"
        class="fields"
      >
        <QuantityField
          label="Heat released inside"
          quantity="power"
          placeholder="60 W"
          :schema="s.heatW"
          :model-value="job.heatW"
          @update:model-value="set('heatW')($event)"
        />
        <ChoiceField
          label="Where this heat figure comes from"
          :model-value="job.heatBasis"
          :options="heatBases"
          @update:model-value="set('heatBasis')($event)"
        />
        <QuantityField
          label="Highest temperature inside"
          quantity="temperature"
          placeholder="40 °C"
          :schema="s.insideMaxC"
          :model-value="job.insideMaxC"
          :hint="job.insideMaxC === null && need.insideMaxC !== null ? `taken from the target: ${show(need.insideMaxC, 'temperature')}` : `air at the intake: ${show(job.ambientC, 'temperature')}`"
          @update:model-value="set('insideMaxC')($event)"
        />
        <QuantityField
          label="Lost through the walls"
          quantity="thermalConductance"
          hint="leave empty to count none"
          :schema="s.wallLossWK"
          :model-value="job.wallLossWK"
          @update:model-value="set('wallLossWK')($event)"
        />
      </div>
      <div
        v-else-if="job.goal === 'ventilate'"
        class="fields"
      >
        <QuantityField
          label="Free air volume"
          quantity="volume"
          placeholder="0.46 m³"
          :schema="s.volumeM3"
          :model-value="job.volumeM3"
          @update:model-value="set('volumeM3')($event)"
        />
        <QuantityField
          label="Air changes per hour"
          quantity="perHour"
          placeholder="20"
          :schema="s.airChangesPerH"
          :model-value="job.airChangesPerH"
          @update:model-value="set('airChangesPerH')($event)"
        />
      </div>
      <div
        v-else
        class="fields"
      >
        <ChoiceField
          label="Keep the air that comes from"
          :model-value="job.keepBasis"
          :options="keepBases"
          @update:model-value="set('keepBasis')($event)"
        />
        <template v-if="job.keepBasis === 'existing-fan'">
          <ChoiceField
            label="Fan in it now"
            :model-value="job.existingFanId"
            :options="fanOptions"
            hint="not listed? add it on the shelf"
            @update:model-value="set('existingFanId')($event)"
          />
          <QuantityField
            label="How many"
            quantity="number"
            required
            :schema="s.existingCount"
            :model-value="job.existingCount"
            @update:model-value="set('existingCount')($event!)"
          />
          <QuantityField
            label="Voltage at it"
            quantity="voltage"
            hint="empty: its rated voltage"
            :schema="s.existingV"
            :model-value="job.existingV"
            @update:model-value="set('existingV')($event)"
          />
        </template>
        <template v-else-if="job.keepBasis === 'temperature'">
          <QuantityField
            label="Heat released inside"
            quantity="power"
            :schema="s.heatW"
            :model-value="job.heatW"
            @update:model-value="set('heatW')($event)"
          />
          <ChoiceField
            label="Where this heat figure comes from"
            :model-value="job.heatBasis"
            :options="heatBases"
            @update:model-value="set('heatBasis')($event)"
          />
          <QuantityField
            label="Measured rise, intake to exhaust"
            quantity="temperatureDifference"
            :schema="s.measuredRiseK"
            :model-value="job.measuredRiseK"
            @update:model-value="set('measuredRiseK')($event)"
          />
        </template>
        <QuantityField
          v-else
          label="Airflow now"
          quantity="flow"
          :schema="s.typedFlowM3s"
          :model-value="job.typedFlowM3s"
          @update:model-value="set('typedFlowM3s')($event)"
        />
      </div>
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
      <QuantityField
        class="margin"
        label="Margin on the need"
        quantity="ratio"
        :hint="job.margin === null ? `empty: ${Math.round(need.margin * 100)} %, ${job.goal === 'cool' && job.heatBasis !== 'measured' ? 'as the heat is not measured' : 'the usual'} (common practice)` : 'your own'"
        :schema="s.margin"
        :model-value="job.margin"
        @update:model-value="set('margin')($event)"
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
.margin { max-width: 300px; }
.results { margin: 0; display: grid; gap: 10px; }
.results > div { display: flex; justify-content: space-between; gap: 16px; align-items: baseline; border-bottom: 1px solid var(--line); padding-bottom: 8px; }
.results > div:last-child { border-bottom: 0; padding-bottom: 0; }
.results dd { margin: 0; text-align: right; }
</style>
