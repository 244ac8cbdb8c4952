<script setup lang="ts">
import { placeName } from '#core/document'
import type { CurveSeries } from '~/components/lineup/CurveChart.vue'

definePageMeta({ station: 'line-up' })

const CurveChart = defineAsyncComponent(() => import('../../../components/lineup/CurveChart.vue'))

const { store: job, plan, report, findings } = useJob('line-up')
const shelf = useShelfStore()
const believed = useBelievedFans()
const { show } = useUnits()
const {
  choice,
  places,
  onePlace,
  loosen,
  ranking,
  rows,
  busy,
  problem,
  picked,
  usable,
  compared,
  compare,
  selection,
  takeNew,
  unpick,
} = useLineUp()
/** With fans at two places: whose are sought. */
const placeOptions = computed(() => [
  { value: 'both', label: 'Both places alike' },
  ...places.value.flatMap(({ place }) =>
    place ? [{ value: place.id, label: placeName(plan.value, place) }] : [],
  ),
])
const placeShown = computed({
  get: () => (onePlace.value ? plan.value.place.id : 'both'),
  set: (value) => {
    onePlace.value = value !== 'both'
    if (onePlace.value) job.chosenPlace = value
  },
})
const lit = ref<string | null>(null)
const SHORT = 6
const MORE = 40
const ON_CHART = 8
const many = ref(SHORT)
/** the ones that fail instead, the nearest miss first */
const failing = ref(false)

const pickKey = computed(() => (picked.value ? candidateKey(picked.value) : ''))
/** Every choice but the pick as it is listed, and the pick as it stands, last: it is drawn on top. */
const others = computed(() => rows.value.filter((c) => candidateKey(c) !== pickKey.value))
const cloud = computed(() => [...others.value, ...(picked.value ? [picked.value] : [])])
const shown = computed(() => {
  const first = compared.value.filter((c) => candidateKey(c) !== pickKey.value)
  const rest = others.value
    .filter((c) => !first.includes(c) && (!failing.value || c.verdict === 'fail'))
    .slice(0, many.value)
  return [...(picked.value ? [picked.value] : []), ...first, ...rest]
})
const status = computed(() => {
  if (shelf.progress !== null) return `fetching the shelf, ${Math.round(100 * shelf.progress)} %`
  if (busy.value) return 'searching…'
  const all = ranking.value?.arrays ?? 0
  const best = all > rows.value.length ? `; the best ${rows.value.length} are worked out` : ''
  // of a long shelf the others may do as well
  const least = best && usable.value === rows.value.length ? 'at least ' : ''
  return `${least}${usable.value} of ${all} choices would do the job${best}`
})

/** the pick's construction from its members */
const construction = ref(false)
const onChart = computed(() =>
  compared.value.length
    ? shown.value.filter((c) => c === picked.value || compared.value.includes(c))
    : shown.value.slice(0, ON_CHART),
)
const series = computed((): CurveSeries[] => [
  ...onChart.value
    .map((c) => ({ c, points: candidateCurve(c, believed.value, report.value) }))
    .map(({ c, points }): CurveSeries => ({
      id: candidateKey(c),
      label: `${candidateName(c)} at ${driveWords(c, show)}`,
      points,
      others: otherCrossings(c, points),
      tone: c === picked.value ? 'pick' : lit.value === candidateKey(c) ? 'lit' : 'other',
      ...(c !== picked.value && compared.value.includes(c) ? { order: compared.value.indexOf(c) } : {}),
      operating:
        c.flow !== null && c.pressure !== null
          ? { flow: c.flow, pressure: c.pressure, low: c.flowLow, high: c.flowHigh }
          : null,
    }))
    .reverse(),
  ...(construction.value && picked.value ? memberCurves(picked.value, believed.value, report.value) : []),
])
const widest = computed(() =>
  Math.max(
    ...series.value.map((s) => s.points.at(-1)?.flow ?? 0),
    (report.value.selectionContext.designFlow ?? 0.01) * 1.3,
  ),
)
const charts = [
  { value: 'curves' as const, label: 'Curves' },
  { value: 'pareto' as const, label: 'Noise and flow' },
]
const view = ref<'curves' | 'pareto'>('curves')
const uncertainty = useUncertaintyReport()
const path = computed(() => bandedPath(report.value, uncertainty.value, widest.value))
const selectionFigures = computed(() =>
  report.value.selection
    ? [
        ...report.value.selection.figures,
        ...(report.value.selection.life ? [report.value.selection.life] : []),
      ].filter((f) => f.value !== null)
    : [],
)

/** A fan made from here comes back, chosen. */
const route = useRoute()
const newFanLink = computed(() => ({
  path: '/shelf/new',
  query: { for: plan.value.job.id, stream: plan.value.stream, place: plan.value.place.id },
}))
watch(
  () => route.query.take,
  async (fanId) => {
    if (typeof fanId !== 'string') return
    await shelf.ensure([fanId])
    takeNew(fanId)
    await navigateTo({ path: route.path, replace: true })
  },
  { immediate: true },
)

const waitsFor = computed(() =>
  !plan.value.path.length
    ? 'the air path'
    : !report.value.path.complete
      ? 'the sizes of the air path'
      : report.value.need.design.value === null
        ? `the need: ${report.value.need.missing}`
        : '',
)
const waitsAt = computed(() => `/job/${plan.value.job.id}/${report.value.path.complete ? 'need' : 'air-path'}`)
usePageKeys([
  {
    key: 'o',
    what: 'Next order of ranking',
    run: () => {
      const i = objectives.findIndex((o) => o.value === choice.objective)
      choice.objective = objectives[(i + 1) % objectives.length]!.value
    },
  },
])
</script>

<template>
  <div class="layout">
    <div class="stack">
      <section class="sheet">
        <div class="sheet-head">
          <h2>{{ view === 'curves' ? 'Where each fan would run' : 'Quiet against air' }}</h2>
          <SegmentChoice v-if="report.path.complete" v-model="view" label="Chart" :options="charts" />
        </div>
        <p v-if="!report.path.complete" class="empty">
          The chart waits for {{ waitsFor }}. <NuxtLink :to="waitsAt">Go there</NuxtLink>
        </p>
        <InTurn v-else
          ><ParetoChart
            v-if="view === 'pareto'"
            :rows="cloud"
            :picked="picked"
            :need="report.selectionContext.needFlow"
            :limit="report.selectionContext.levelLimit"
            :height="236"
            @pick="selection"
          />
          <CurveChart
            v-else
            :series="series"
            :path="path"
            :need="report.selectionContext.needFlow"
            :design="report.selectionContext.designFlow"
            :height="236"
          />
        </InTurn>
        <el-checkbox
          v-if="view === 'curves' && picked && picked.count > 1"
          v-model="construction"
          class="small construction"
          >show how the pick’s curve comes about:
          {{
            picked.arrangement === 'parallel' ? 'flows add at each pressure' : 'pressures add at each flow'
          }}</el-checkbox
        >
        <DriveSlider v-if="report.selection" />
        <dl v-if="report.selection" class="figures">
          <div v-for="figure in selectionFigures" :key="figure.key">
            <dt>{{ figure.label }}</dt>
            <dd>
              <FigureValue :figure="figure" :signed="figure.key === 'selection.margin'" range />
            </dd>
          </div>
        </dl>
        <ChanceLine v-if="report.selection" />
        <SurerList v-if="report.selection" />
        <p v-if="report.selectionProblem" class="bad">
          {{ report.selectionProblem }}
        </p>
      </section>
      <InTurn>
        <ReplacementNotes v-if="plan.job.goal === 'quieten'" />
        <TrustPanel />
        <VariantPanel />
      </InTurn>
    </div>
    <InTurn>
      <div class="stack">
        <section class="sheet">
          <h2 v-if="waitsFor">Line-up</h2>
          <p v-if="waitsFor" class="empty">
            The line-up waits for {{ waitsFor }}. <NuxtLink :to="waitsAt">Go there</NuxtLink>
          </p>
          <template v-else>
            <div v-if="places.length > 1" class="row places">
              <span class="small soft">Fans for</span>
              <SegmentChoice v-model="placeShown" label="Fans for" :options="placeOptions" />
            </div>
            <RankControls v-model="choice" :status="status" />
            <p v-if="problem" class="bad" role="alert">
              {{ problem }}
            </p>
            <p v-if="compared.length" class="small soft">
              Comparing {{ compared.length }} of at most {{ COMPARE_MOST }}: the chart shows these and your
              pick.
              <el-button text size="small" @click="compared.forEach((c) => compare(c, false))">
                Show the best again
              </el-button>
            </p>
            <RankTable
              :rows="shown"
              :picked="picked"
              :compared="compared"
              :columns="choice.columns"
              @pick="selection"
              @unpick="unpick"
              @compare="compare"
              @light="lit = $event"
            />
            <p v-if="!rows.length && !busy && shelf.loaded && !shelf.names.length" class="empty">
              The shelf is empty: one fan is enough to begin with, and its label is enough of it.
              <NuxtLink :to="newFanLink" class="button small">A fan from its label</NuxtLink>
              <NuxtLink to="/shelf/import" class="button small quiet">Import a list</NuxtLink>
            </p>
            <p v-else-if="!rows.length && !busy" class="empty">
              No fan of the shelf passes these filters{{
                choice.drive === 'pwm' ? ': PWM wants fans with four wires' : ''
              }}.
              <el-button size="small" @click="loosen">Drop the filters</el-button>
            </p>
            <div class="row foot">
              <el-button v-if="rows.length > many" size="small" @click="many += MORE">
                {{ `${Math.min(MORE, rows.length - many)} more of ${rows.length}` }}
              </el-button>
              <el-button
                v-if="usable < rows.length"
                size="small"
                :aria-pressed="failing"
                @click="failing = !failing"
              >
                {{ failing ? 'The ones that meet the need' : `Why ${rows.length - usable} fail` }}
              </el-button>
              <el-button v-if="many > SHORT" size="small" text @click="many = SHORT">
                Only the first
              </el-button>
              <NuxtLink :to="newFanLink" class="button small quiet"> Add a fan for this job </NuxtLink>
              <span v-if="ranking?.skipped.length" class="small soft"
                >{{ ranking.skipped.length }} fans have a curve that cannot be used:
                {{
                  ranking.skipped
                    .slice(0, 5)
                    .map((s) => s.name)
                    .join(', ')
                }}{{ ranking.skipped.length > 5 ? ', …' : '' }}</span
              >
            </div>
          </template>
          <FindingList class="after" :findings="findings" />
        </section>
        <InTurn><ImprovementPanel /></InTurn>
      </div>
    </InTurn>
  </div>
</template>

<style scoped>
.places {
  margin-bottom: 8px;
}
.layout {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.12fr);
  gap: 12px;
  align-items: start;
}
.figures {
  margin: 12px 0 0;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 8px 16px;
  border-top: 1px solid var(--line);
  padding-top: 10px;
}
.figures dt {
  font-size: 12.5px;
  color: var(--ink-soft);
}
.figures dd {
  margin: 0;
}
.figures :deep(.figure) {
  text-align: left;
}
.construction {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  min-height: 26px;
}
.foot {
  margin-top: 8px;
}
.after {
  margin-top: 12px;
  border-top: 1px solid var(--line);
  padding-top: 10px;
}
.bad {
  color: var(--stop);
  font-weight: 600;
}
@media (max-width: 1000px) {
  .layout {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
