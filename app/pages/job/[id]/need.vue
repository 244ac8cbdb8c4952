<script setup lang="ts">
import { airChangeGuide, captureGuide, mixingGuide } from '#core/need'
import type { Uncertainty, UncertainInput, HeatBasis, Job } from '#core/document'
import { jobSchema } from '#core/document'

definePageMeta({ station: 'need' })

const { store, plan, report, put, findings } = useJob('need')
const { show, bare } = useUnits()
const uncertainty = useUncertaintyReport()
const job = computed(() => plan.value.job)
const need = computed(() => report.value.need)
const insideFromTarget = computed(() =>
  job.value.insideMaxC === null && need.value.insideMaxC !== null
    ? `taken from the target: ${show(need.value.insideMaxC, 'temperature')}`
    : '',
)
const form = useGoalFields(job, insideFromTarget)
const margin = computed((): Field<keyof Job>[] => [
  {
    key: 'margin',
    label: 'Margin on the need',
    quantity: 'ratio',
    hint:
      job.value.margin === null
        ? `empty: ${Math.round(need.value.margin * 100)} % (common practice)`
        : 'your own',
  },
])
const goal = computed(() => job.value.goal)
const usesVolume = computed(() => ['ventilate', 'stir', 'fume'].includes(goal.value))
const usesHeat = computed(() => form.value.fields.some((f) => f.key === 'heatW'))
const usesWall = computed(() => goal.value === 'cool' || goal.value === 'stir')

/** Grades an input, or takes its range; the value goes with a range. */
function setUncertainty(entry: Uncertainty | null, key: UncertainInput, value?: number) {
  store.change((d) => {
    d.uncertainties = d.uncertainties.filter((x) => x.id !== key)
    if (entry) d.uncertainties.push(entry)
    if (value !== undefined) assign(d.job, key, value)
  }, `doubt.${key}`)
}
type Helped = 'heatW' | 'volumeM3' | 'wallLossWK' | 'airChangesPerH' | 'captureSpeedMs' | 'mixing'
/** Takes a helper's value, with its doubt if it has one, and keeps how it came about. */
function takeHelp(key: Helped, value: number, working: string, range?: Uncertainty | null, basis?: HeatBasis) {
  store.change((d) => {
    d.job[key] = value
    if (basis) d.job.heatBasis = basis
    // what was assumed or typed as a range does not speak of the new value
    const stays = (x: Uncertainty) => x.id !== key || (range === undefined && x.grade !== 'assumed')
    d.uncertainties = [...d.uncertainties.filter(stays), ...(range ? [range] : [])]
    d.job.workings = [...d.job.workings.filter((w) => w.key !== key), { key, value, text: working }]
  })
}
const setSink = (points: typeof plan.value.sink) =>
  store.change((d) => {
    d.sink = points
  }, 'sink')
const results = computed(() => [
  need.value.flow,
  need.value.design,
  ...(report.value.selection?.served.value ? [report.value.selection.served] : []),
])
const extras = computed(() => need.value.extras.filter((f) => f.value !== null || f.note))
const shut = (fields: Field<keyof Job>[]) => fields.every((f) => job.value[f.key] === null)
</script>

<template>
  <div class="two">
    <section class="sheet stack">
      <h2>{{ form.title }}</h2>
      <FieldGrid
        :record="job"
        :fields="form.fields"
        :shape="jobSchema.shape"
        :uncertainties="plan.uncertainties"
        :workings="job.workings"
        @set="put"
        @uncertainty="setUncertainty"
      />
      <SinkTable v-if="goal === 'part'" :points="plan.sink" :workings="job.workings" @update="setSink" />
      <div v-if="usesHeat || usesVolume || usesWall" class="row">
        <HeatHelper
          v-if="usesHeat"
          @use="(watts, basis, range, working) => takeHelp('heatW', watts, working, range, basis)"
        />
        <VolumeHelper v-if="usesVolume" @use="(value, working) => takeHelp('volumeM3', value, working)" />
        <WallHelper
          v-if="usesWall"
          @use="(value, range, working) => takeHelp('wallLossWK', value, working, range)"
        />
        <GuideTable
          v-if="goal === 'ventilate'"
          label="Usual air changes"
          title="Air changes that are usual (common practice, no source)"
          :rows="airChangeGuide.map((g) => ({ name: g.place, low: g.low, high: g.high }))"
          unit="/h"
          what="air changes per hour"
          @use="(value, working) => takeHelp('airChangesPerH', value, working)"
        />
        <GuideTable
          v-if="goal === 'fume' && job.fumeWay !== 'enclosure'"
          label="Capture speeds"
          title="Capture speeds (industrial-ventilation practice, from memory)"
          :rows="captureGuide.map((g) => ({ name: g.how, low: g.low, high: g.high }))"
          unit="m/s"
          what="metres per second"
          @use="(value, working) => takeHelp('captureSpeedMs', value, working)"
        />
        <GuideTable
          v-if="goal === 'ventilate' || goal === 'fume'"
          label="How well the air mixes"
          title="How well the air mixes (common practice, no source)"
          :rows="mixingGuide.map((g) => ({ name: g.how, low: g.low, high: g.high }))"
          unit=""
          what="as mixing factor"
          @use="(value, working) => takeHelp('mixing', value, working)"
        />
      </div>
      <div class="helpers">
        <UncertaintyFold
          :job="job"
          :fields="[...form.fields, ...form.more.flatMap((m) => m.fields)]"
          :uncertainties="plan.uncertainties"
          @set="setUncertainty"
        />
        <FoldBox v-for="part in form.more" :key="part.title" :open="!shut(part.fields)">
          <template #title>{{ part.title }}</template>
          <FieldGrid
            :record="job"
            :fields="part.fields"
            :shape="jobSchema.shape"
            :uncertainties="plan.uncertainties"
            :workings="job.workings"
            @set="put"
            @uncertainty="setUncertainty"
          />
        </FoldBox>
      </div>
      <FieldGrid :record="job" :fields="margin" :shape="jobSchema.shape" @set="put" />
      <FindingList :findings="findings" />
    </section>
    <InTurn>
      <div class="stack">
        <section class="sheet stack">
          <h2>The need</h2>
          <p v-if="need.missing" class="soft">
            To work this out, give {{ need.missing }}.
            {{ need.refusal }}
          </p>
          <dl class="results">
            <div v-for="(figure, i) in results" :key="figure.key">
              <dt>{{ figure.label }}</dt>
              <dd>
                <FigureValue :figure="figure" :big="i < 2" range />
              </dd>
            </div>
            <div v-for="figure in extras" :key="figure.key" class="minor">
              <dt>
                {{ figure.label
                }}<span v-if="figure.value === null" class="small soft block">{{ figure.note }}</span>
              </dt>
              <dd>
                <FigureValue :figure="figure" range />
              </dd>
            </div>
            <div class="minor">
              <dt>Air density here</dt>
              <dd><FigureValue :figure="report.density" /></dd>
            </div>
          </dl>
          <p v-if="uncertainty?.need && uncertainty.need.high > uncertainty.need.low" class="small soft">
            Likely need (9 in 10): {{ bare(uncertainty.need.low, 'flow') }} to
            {{ show(uncertainty.need.high, 'flow') }}.
          </p>
          <ChanceLine />
        </section>
        <TargetTable />
      </div>
    </InTurn>
  </div>
</template>

<style scoped>
.helpers {
  display: grid;
  gap: 2px;
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
.results {
  margin: 0;
  display: grid;
  gap: 8px;
}
.results > div {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  align-items: center;
  border-bottom: 1px solid var(--line);
  padding-bottom: 6px;
}
.results > div:last-child {
  border-bottom: 0;
  padding-bottom: 0;
}
.results dd {
  margin: 0;
  text-align: right;
}
.minor {
  font-size: 14px;
}
.block {
  display: block;
}
</style>
