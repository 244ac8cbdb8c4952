<script setup lang="ts">
import { arrangementOf, candidateFigures, defaultRank, modelFan, type Candidate, type Objective } from '../../../../core/plan'
import type { CurveSeries } from '../../../components/lineup/CurveChart.vue'

const CurveChart = defineAsyncComponent(() => import('../../../components/lineup/CurveChart.vue'))

const { store, plan, report, findings } = useJob('line-up')
const shelf = useShelfStore()
const { show, bare, say, symbol } = useUnits()
const objective = ref<Objective>('quietest')
const onlyOwned = ref(false)
const onlyFits = ref(true)
const all = ref(false)
const lit = ref<string | null>(null)
const SHORT = 7
const ON_CHART = 8

const options = computed(() => ({ ...defaultRank, objective: objective.value }))
const fans = computed(() => shelf.fans)
const { ranking, busy, problem } = useRanking(plan, fans, options)

/** The four that are asked most stand as buttons, the others in a list. */
const BUTTONS = 4
const objectives: { value: Objective, label: string }[] = [{ value: 'quietest', label: 'Quietest' }, { value: 'margin', label: 'Most margin' }, { value: 'cheapest', label: 'Cheapest' }, { value: 'power', label: 'Least power' }, { value: 'thinnest', label: 'Thinnest' }, { value: 'loudness', label: 'Air per loudness' }, { value: 'value', label: 'Air per money' }]
const keyOf = (c: { fanId: string, count: number, arrangement: string }) => `${c.fanId}|${c.count}|${c.arrangement}`
const pickKey = computed(() => plan.value.pick ? keyOf({ ...plan.value.pick, arrangement: arrangementOf(plan.value.pick.count, plan.value.pick.arrangement) }) : '')

const wires = ref<number | null>(null)
const bearing = ref<'ball' | 'fluid' | 'sleeve' | null>(null)
const priceMost = ref<number | null>(null)
const filtered = computed(() => [wires.value, bearing.value, priceMost.value].filter(x => x !== null).length)
/** The ranking that is not one of the buttons. */
const further = computed({ get: () => objectives.slice(BUTTONS).find(o => o.value === objective.value)?.value ?? null, set: (value) => {
  objective.value = value ?? 'quietest'
} })
const rows = computed(() => {
  let list = ranking.value?.rows ?? []
  if (onlyOwned.value) list = list.filter(c => c.owned)
  if (onlyFits.value) {
    const { fitDepthM, fitWidthM } = plan.value.job
    const ids = new Set(fans.value.filter(f => (fitDepthM === null || f.thicknessM <= fitDepthM) && (fitWidthM === null || f.frameM <= fitWidthM)).map(f => f.id))
    list = list.filter(c => ids.has(c.fanId))
  }
  const of = new Map(fans.value.map(f => [f.id, f]))
  return list.filter((c) => {
    const fan = of.get(c.fanId)
    return (wires.value === null || fan?.wires === wires.value) && (bearing.value === null || fan?.bearing === bearing.value) && (priceMost.value === null || (c.cost !== null && c.cost <= priceMost.value))
  })
})
const picked = computed(() => report.value.pick?.candidate ?? null)
const shown = computed(() => {
  const list = all.value ? rows.value : rows.value.slice(0, SHORT)
  const others = list.filter(c => keyOf(c) !== pickKey.value)
  return picked.value ? [picked.value, ...others] : others
})
const usable = computed(() => rows.value.filter(c => c.verdict !== 'fail').length)

/** The weightiest two; the findings tell the rest once it is picked. */
const whyOf = (c: Candidate) => [...c.reasons].sort((a, b) => Number(b.verdict === 'fail') - Number(a.verdict === 'fail')).slice(0, 2).map(r => say(r.text)).join('; ')
/** Each row's figures, so that they open to their working. */
const figures = computed(() => new Map(shown.value.map((c) => {
  const fan = shelf.known.find(f => f.id === c.fanId)
  const made = fan ? modelFan(fan) : null
  const list = made?.ok ? candidateFigures(report.value.context, c, made.model) : []
  return [c, Object.fromEntries(list.map(f => [f.key, f]))]
})))
const cells = ['pick.flow', 'pick.pressure', 'pick.level', 'pick.margin'] as const
const drive = (c: Candidate) => `${show(c.driveV, 'voltage')}${c.arrangement === 'series' ? ', in series' : ''}`

const series = computed((): CurveSeries[] => shown.value.slice(0, ON_CHART).map(c => ({
  id: keyOf(c), label: `${c.count} × ${c.model} at ${show(c.driveV, 'voltage')}`, points: candidateCurve(c, shelf.known, report.value),
  tone: c === picked.value ? 'pick' as const : lit.value === keyOf(c) ? 'lit' as const : 'other' as const,
  operating: c.flow !== null && c.pressure !== null ? { flow: c.flow, pressure: c.pressure } : null,
})).reverse())
const widest = computed(() => Math.max(...series.value.map(s => s.points.at(-1)?.flow ?? 0), (report.value.context.designFlow ?? 0.01) * 1.3))
const view = ref<'curves' | 'pareto'>('curves')
const doubt = useDoubtReport()
const path = computed(() => bandedPath(report.value, doubt.value, widest.value))

/** Takes a fan: the feed follows, so that the chain stays one. */
function pick(c: Candidate) {
  const fanV = Number(c.driveV.toFixed(2))
  store.change((d) => {
    d.pick = { id: d.pick?.id ?? newId('pick'), fanId: c.fanId, count: c.count, arrangement: c.arrangement, driveV: fanV }
    driveAt(d, fanV)
  })
}
const unpick = () => store.removeWithUndo('Nothing is picked now.', (d) => {
  d.pick = null
})
const waitsFor = computed(() => !plan.value.path.length ? 'the air path' : !report.value.path.complete ? 'the sizes of the air path' : report.value.need.design.value === null ? `the need: ${report.value.need.missing}` : '')
const waitsAt = computed(() => `/job/${plan.value.job.id}/${report.value.path.complete ? 'need' : 'air-path'}`)
usePageKeys([{ key: 'o', what: 'Next order of ranking', run: () => {
  const i = objectives.findIndex(o => o.value === objective.value)
  objective.value = objectives[(i + 1) % objectives.length]!.value
} }])
</script>

<template>
  <div class="layout">
    <div class="stack">
      <section class="sheet">
        <div class="sheet-head">
          <h2>{{ view === 'curves' ? 'Where each fan would run' : 'Quiet against air' }}</h2>
          <div
            v-if="report.path.complete"
            class="segments"
            role="group"
            aria-label="Chart"
          >
            <button
              type="button"
              :aria-pressed="view === 'curves'"
              @click="view = 'curves'"
            >
              Curves
            </button>
            <button
              type="button"
              :aria-pressed="view === 'pareto'"
              @click="view = 'pareto'"
            >
              Noise and flow
            </button>
          </div>
        </div>
        <p
          v-if="!report.path.complete"
          class="empty"
        >
          The chart waits for {{ waitsFor }}. <NuxtLink :to="waitsAt">Go there</NuxtLink>
        </p>
        <ParetoChart
          v-else-if="view === 'pareto'"
          :rows="rows"
          :picked="picked"
          :need="report.context.needFlow"
          :limit="report.context.levelLimit"
          :height="300"
          @pick="pick"
        />
        <CurveChart
          v-else
          :series="series"
          :path="path"
          :need="report.context.needFlow"
          :design="report.context.designFlow"
          :height="300"
        />
        <DriveSlider v-if="report.pick" />
        <dl
          v-if="report.pick"
          class="figures"
        >
          <div
            v-for="figure in report.pick.figures.filter(f => f.value !== null)"
            :key="figure.key"
          >
            <dt>{{ figure.label }}</dt>
            <dd>
              <FigureValue
                :figure="figure"
                :signed="figure.key === 'pick.margin'"
                range
              />
            </dd>
          </div>
        </dl>
        <ChanceLine v-if="report.pick" />
        <p
          v-if="report.pickProblem"
          class="bad"
        >
          {{ report.pickProblem }}
        </p>
      </section>
      <SwapNotes v-if="plan.job.goal === 'quieten'" />
      <VariantPanel />
    </div>
    <div class="stack">
      <section class="sheet">
        <div class="sheet-head">
          <h2>Line-up</h2>
          <div
            class="segments"
            role="group"
            aria-label="Rank by"
          >
            <button
              v-for="o in objectives.slice(0, BUTTONS)"
              :key="o.value"
              type="button"
              :aria-pressed="objective === o.value"
              @click="objective = o.value"
            >
              {{ o.label }}
            </button>
          </div>
        </div>
        <p
          v-if="waitsFor"
          class="empty"
        >
          The line-up waits for {{ waitsFor }}. <NuxtLink :to="waitsAt">Go there</NuxtLink>
        </p>
        <template v-else>
          <div class="row filters small">
            <label><input
              v-model="onlyFits"
              type="checkbox"
            > fits the space</label>
            <label><input
              v-model="onlyOwned"
              type="checkbox"
            > I own it</label>
            <ChoiceField
              v-model="further"
              class="further"
              hide-label
              label="Rank by something else"
              :options="[{ value: null, label: 'rank by …' }, ...objectives.slice(BUTTONS)]"
            />
            <span class="soft">{{ busy ? 'searching…' : `${usable} of ${rows.length} groups meet the need` }}</span>
          </div>
          <details class="fold small">
            <summary>
              More filters<span
                v-if="filtered"
                class="aside"
              >{{ filtered }} set</span>
            </summary>
            <div class="fields tight">
              <ChoiceField
                v-model="wires"
                label="Wires"
                :options="[{ value: null, label: 'any' }, { value: 2, label: '2' }, { value: 3, label: '3, tach' }, { value: 4, label: '4, PWM' }]"
              />
              <ChoiceField
                v-model="bearing"
                label="Bearing"
                :options="[{ value: null, label: 'any' }, { value: 'ball', label: 'ball' }, { value: 'fluid', label: 'fluid' }, { value: 'sleeve', label: 'sleeve' }]"
              />
              <QuantityField
                v-model="priceMost"
                label="Price, at most"
                quantity="money"
              />
            </div>
          </details>
          <p
            v-if="problem"
            class="bad"
            role="alert"
          >
            {{ problem }}
          </p>
          <div class="scroll-x">
            <table class="data ranks">
              <thead>
                <tr>
                  <th>Fan and drive</th>
                  <th class="num">
                    {{ symbol('flow') }}
                  </th>
                  <th class="num">
                    {{ symbol('pressure') }}
                  </th>
                  <th class="num">
                    dB(A)
                  </th>
                  <th class="num">
                    vs need
                  </th>
                  <th class="num">
                    cost, €
                  </th>
                  <th><span class="visually-hidden">Pick</span></th>
                </tr>
              </thead>
              <tbody>
                <tr
                  v-for="c in shown"
                  :key="keyOf(c) + (c === picked ? '-pick' : '')"
                  :class="[c.verdict, { picked: c === picked }]"
                  @mouseenter="lit = keyOf(c)"
                  @mouseleave="lit = null"
                  @focusin="lit = keyOf(c)"
                  @focusout="lit = null"
                >
                  <td>
                    <strong>{{ c.count }} × {{ c.model }}</strong>
                    <span class="drive mono">{{ drive(c) }}</span>
                    <span class="drive"> · {{ c.maker }}<template v-if="c.owned">, owned</template></span>
                    <span
                      v-if="c.reasons.length"
                      class="why small"
                      :class="c.verdict"
                    >{{ whyOf(c) }}</span>
                  </td>
                  <td
                    v-for="key in cells"
                    :key="key"
                    class="num"
                  >
                    <FigureValue
                      v-if="figures.get(c)?.[key]"
                      :figure="figures.get(c)![key]!"
                      :signed="key === 'pick.margin'"
                      bare
                    />
                  </td>
                  <td class="num">
                    {{ bare(c.cost, 'money') }}
                  </td>
                  <td>
                    <button
                      v-if="c !== picked"
                      type="button"
                      class="button small"
                      :aria-label="`Pick ${c.count} × ${c.maker} ${c.model} at ${show(c.driveV, 'voltage')}`"
                      @click="pick(c)"
                    >
                      Pick
                    </button>
                    <button
                      v-else
                      type="button"
                      class="button small quiet"
                      aria-label="Give up the pick"
                      @click="unpick"
                    >
                      picked
                    </button>
                  </td>
                </tr>
              </tbody>
            </table>
          </div>
          <div class="row foot">
            <button
              v-if="rows.length > SHORT"
              type="button"
              class="button small"
              @click="all = !all"
            >
              {{ all ? 'Only the first' : `All ${rows.length}, with why they fail` }}
            </button>
            <NuxtLink
              to="/shelf/new"
              class="button small quiet"
            >
              Add a fan to the shelf
            </NuxtLink>
            <span
              v-if="ranking?.skipped.length"
              class="small soft"
            >{{ ranking.skipped.length }} fans lack a curve: {{ ranking.skipped.map(s => s.name).join(', ') }}</span>
          </div>
        </template>
        <FindingList
          class="after"
          :findings="findings"
        />
      </section>
      <LeverPanel />
    </div>
  </div>
</template>

<style scoped>
.layout { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1.120fr); gap: 12px; align-items: start; }
.figures { margin: 12px 0 0; display: grid; grid-template-columns: repeat(auto-fit, minmax(150px, 1fr)); gap: 8px 16px; border-top: 1px solid var(--line); padding-top: 10px; }
.figures dt { font-size: 12.5px; color: var(--ink-soft); }
.figures dd { margin: 0; }
.figures :deep(.figure) { text-align: left; }
.filters { gap: 14px; margin-bottom: 4px; }
.further { width: 128px; }
.further :deep(select) { min-height: 28px; padding: 2px 4px; font-size: 13px; }
.filters label { display: inline-flex; align-items: center; gap: 6px; min-height: 26px; }
.ranks td:first-child { line-height: 1.250; }
.ranks td, .ranks th { padding: 4px 5px; }
.ranks strong { display: block; }
.drive { font-size: 12.5px; color: var(--ink-soft); }
.why { display: block; color: var(--ink-soft); }
.why.fail { color: var(--stop); }
.why.warn { color: var(--amber); }
tr.picked td { background: var(--cap-soft); }
tr.picked td:first-child { box-shadow: inset 4px 0 0 var(--cap); }
.foot { margin-top: 8px; }
.after { margin-top: 12px; border-top: 1px solid var(--line); padding-top: 10px; }
.bad { color: var(--stop); font-weight: 600; }
@media (max-width: 1000px) { .layout { grid-template-columns: minmax(0, 1fr); } }
</style>
