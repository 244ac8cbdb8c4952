<script setup lang="ts">
import { afterReduction, loudnessRatio } from '#core/noise'
import { RANKING_GAP_DB, rankNoiseSources, upgradeRungs, type RankedStage } from '#core/verification'
import { soundByStage } from '#core/plan'
import {
  newReading,
  runStates,
  samePlace,
  stateTitle,
  upperLimit,
  usualStages,
  readingLimit,
  isOneOfSeveral,
} from '#core/document'
import { drawChart } from '~/charts/print-chart'

definePageMeta({ station: 'verdict' })

const { store, plan, report } = useJob('verdict')
const { show } = useUnits()
const states = computed(() => runStates(plan.value.runs).filter((s) => s.kind !== 'bench'))
const places = computed(() => [
  ...new Set(
    plan.value.runs
      .flatMap((r) => r.readings)
      .filter((r) => r.quantity === 'level')
      .map((r) => r.place),
  ),
])
const limit = computed(() => upperLimit(plan.value.targets, 'level'))
const targetPlace = computed(() => plan.value.targets.find((t) => t.kind === 'level')?.place ?? '')
const place = ref(places.value.find((p) => p === targetPlace.value) ?? places.value[0] ?? '')
const stateKey = ref(report.value.verdict.afterState?.key ?? report.value.verdict.beforeState?.key ?? '')
// the state that holds the most sources is the one a ladder is read off
const bySources = states.value.toSorted((a, b) => sourcesOf(b.key) - sourcesOf(a.key))[0]
if (bySources && sourcesOf(bySources.key) > 0) stateKey.value = bySources.key
function sourcesOf(key: string) {
  return (
    states.value
      .find((s) => s.key === key)
      ?.runs.flatMap((r) => r.readings)
      .filter((r) => r.quantity === 'level' && r.source).length ?? 0
  )
}
const state = computed(() => states.value.find((s) => s.key === stateKey.value) ?? states.value[0] ?? null)
const ranking = computed(() => rankNoiseSources(state.value?.runs ?? [], place.value, limit.value))
/** What the planned fans make in each stage, beside what was read. */
const predicted = computed(() => soundByStage(report.value, state.value?.runs ?? [], ranking.value.stages))
/** Every source that was read, and of a machine with several air streams the fans that were not. */
const sources = computed(() => {
  const { sources: read } = ranking.value
  const streams = isOneOfSeveral(plan.value) ? report.value.streams.map((s) => s.name) : []
  return [...read, ...streams.filter((name) => !read.some((source) => samePlace(source, name)))]
})
/** The prediction for a source that is an air stream's fans, in words; '' for any other. */
function predictedWords(stage: string, source: string): string {
  const fans = predicted.value.find((p) => p.stage === stage)?.fans.find((f) => samePlace(f.name, source))
  if (!fans) return ''
  if (fans.off) return 'off'
  return fans.level === null ? 'prediction not known' : `predicted ~${show(fans.level, 'level')}`
}
function totalWords(stage: string): string {
  const all = predicted.value.find((p) => p.stage === stage)
  if (!all || all.total === null) return ''
  const without = all.unknown.length ? `, without ${all.unknown.join(', ')}` : ''
  return `predicted ~${show(all.total, 'level')}${without}`
}
const rungs = computed(() =>
  upgradeRungs(
    states.value.map((s) => ({ name: stateTitle(s), runs: s.runs })),
    place.value,
  ),
)
const chart = computed(() =>
  rungs.value.length
    ? drawChart(
        {
          type: 'rungs',
          title: 'Sound level step by step, with loudness against the first',
          limit: limit.value,
          rungs: rungs.value.map((r, i) => ({
            name: r.name,
            level: r.level,
            words: `${r.upperBound ? '≤ ' : ''}${show(r.level, 'level')}${i ? `, ×\u00a0${r.ratio.toFixed(2)}` : ''}`,
          })),
        },
        440,
      )
    : '',
)
/** What fixing the next source by an amount would give. */
const cut = ref(6)
const after = (s: RankedStage) => {
  const levels = s.cells.filter((c) => c.level !== null)
  const i = levels.findIndex((c) => c.source === s.next)
  return i < 0
    ? null
    : afterReduction(
        levels.map((c) => c.level!),
        i,
        cut.value,
      )
}
const cell = (s: RankedStage, source: string) => s.cells.find((c) => c.source === source) ?? null

// a new row or cell of the matrix joins the state's latest run
const entry = reactive({ source: '', stage: 'working', value: null as number | null })
const problem = ref('')
const turn = ref(0)
function add() {
  const run = state.value?.runs.at(-1)
  if (!run) {
    problem.value = 'Log a run first: the matrix belongs to it.'
    return
  }
  if (entry.value === null) {
    problem.value = 'Type the level that was read, such as 34 dB(A).'
    return
  }
  const reading = {
    ...newReading(newId('reading'), 'level' as const, place.value || targetPlace.value || 'spot', entry.value),
    source: entry.source.trim(),
    stage: entry.stage.trim(),
  }
  problem.value = store.change((d) => {
    const r = d.runs.find((x) => x.id === run.id)!
    r.readings = [
      ...r.readings.filter(
        (x) =>
          !(
            x.quantity === 'level' &&
            x.source === reading.source &&
            (x.stage || r.stage || 'working') === reading.stage &&
            x.place === reading.place
          ),
      ),
      reading,
    ]
  })
  if (problem.value) return
  if (!place.value) place.value = reading.place
  entry.value = null
  turn.value++
}
const valueSchema = readingLimit('level')
/** Where the descent ends: at the target, in the room itself, or with the last source. */
const endWords = (s: RankedStage) =>
  s.ends === 'target'
    ? s.steps.length
      ? 'that is enough'
      : 'the target is met'
    : s.ends === 'room'
      ? `then the room itself, ${show(s.room, 'level')}`
      : ''
const gapWords = (s: RankedStage) =>
  s.gap === null
    ? ''
    : s.gap > RANKING_GAP_DB
      ? `${show(s.gap, 'levelDifference')} more than its sources: one is missing from the list`
      : s.gap < -RANKING_GAP_DB
        ? `${show(-s.gap, 'levelDifference')} less than its sources: was one read nearer, or with others running?`
        : 'they agree'
</script>

<template>
  <div class="stack">
    <VerdictTabs />
    <div class="layout">
      <section class="sheet stack">
        <div class="sheet-head">
          <h2>Source by source, stage by stage</h2>
          <div class="row">
            <ChoiceField
              v-if="states.length > 1"
              v-model="stateKey"
              label="State"
              hide-label
              :options="states.map((s) => ({ value: s.key, label: s.name }))"
            />
            <ChoiceField
              v-if="places.length > 1"
              v-model="place"
              label="Place"
              hide-label
              :options="places.map((p) => ({ value: p, label: p || 'place not said' }))"
            />
          </div>
        </div>
        <p v-if="!ranking.sources.length" class="soft">
          Read each source alone at one marked spot, the others off, then everything together. The ladder then
          says which one to fix, and how far the whole can fall by it.
        </p>
        <div
          v-if="sources.length && ranking.stages.length"
          class="scroll-x"
          tabindex="0"
          role="region"
          aria-label="Levels of the sources by stage"
        >
          <table class="data">
            <thead>
              <tr>
                <th>Only this running</th>
                <th v-for="s in ranking.stages" :key="s.stage" class="num">
                  {{ s.stage }}
                </th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="source in sources" :key="source">
                <td>{{ source }}</td>
                <td
                  v-for="s in ranking.stages"
                  :key="s.stage"
                  class="num"
                  :class="{ next: s.next === source && s.cells.length > 1 }"
                >
                  <template v-if="cell(s, source)">
                    {{
                      cell(s, source)!.level === null
                        ? `≤ ${show(cell(s, source)!.read, 'level')}`
                        : show(cell(s, source)!.level, 'level')
                    }}
                    <span class="small soft block">{{
                      cell(s, source)!.share === null
                        ? 'hidden in the background'
                        : `${Math.round(100 * cell(s, source)!.share!)} %`
                    }}</span>
                  </template>
                  <template v-else-if="!predictedWords(s.stage, source)"> – </template>
                  <span v-if="predictedWords(s.stage, source)" class="small block predicted">{{
                    predictedWords(s.stage, source)
                  }}</span>
                </td>
              </tr>
              <tr>
                <th scope="row">Sum of the sources</th>
                <td v-for="s in ranking.stages" :key="s.stage" class="num">
                  {{ show(s.sum, 'level') }}
                </td>
              </tr>
              <tr>
                <th scope="row">All together, as read</th>
                <td v-for="s in ranking.stages" :key="s.stage" class="num">
                  {{ show(s.whole ?? s.wholeRead, 'level') }}
                  <span class="small soft block">{{ gapWords(s) }}</span>
                  <span class="small block predicted">{{ totalWords(s.stage) }}</span>
                </td>
              </tr>
              <tr>
                <th scope="row">Fix next</th>
                <td v-for="s in ranking.stages" :key="s.stage" class="num words">
                  <strong v-if="s.next">{{ s.next }}</strong><span
                    v-if="s.drop !== null"
                    class="small soft block"
                    >at most {{ show(s.drop, 'levelDifference') }} to gain<template v-if="s.drop < 1"
                      >: hardly worth it</template
                    ></span
                  >
                  <span v-if="limit !== null && s.next" class="small soft block">{{
                    s.wanted === null
                      ? `the others alone exceed ${show(limit, 'level')}`
                      : s.wanted <= 0
                        ? 'target met'
                        : `${show(s.wanted, 'levelDifference')} less of it meets the target`
                  }}</span>
                </td>
              </tr>
              <tr>
                <th scope="row">One after another</th>
                <td v-for="s in ranking.stages" :key="s.stage" class="num words">
                  <span v-for="step in s.steps" :key="step.source" class="small soft block"
                    >without {{ step.source }}
                    {{ step.total === null ? 'silence' : show(step.total, 'level') }}</span
                  >
                  <span class="small block">{{ endWords(s) }}</span>
                </td>
              </tr>
              <tr>
                <th scope="row">With {{ cut }} dB less of it</th>
                <td v-for="s in ranking.stages" :key="s.stage" class="num">
                  {{ show(after(s), 'level') }}
                  <span v-if="after(s) !== null && s.sum !== null" class="small soft block"
                    >{{ (1 / loudnessRatio(after(s)! - s.sum)).toFixed(1) }} times quieter</span
                  >
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-if="sources.length && ranking.stages.length" class="small soft">
          Predicted: the planned fans at what the stage notes of them, else as planned{{
            state?.kind === 'baseline' ? '; the readings are of what was found' : ''
          }}. Together with every other source as it was read.
        </p>
        <div v-if="ranking.sources.length" class="row small cut">
          <span aria-hidden="true">Try a reduction of</span>
          <SliderField v-model="cut" label="Reduction of the next source, dB" :min="1" :max="20" :step="1" />
          <span class="mono">{{ cut }} dB</span>
        </div>
        <form class="entry" @submit.prevent="add">
          <TextField
            v-model="entry.source"
            label="Only source running"
            placeholder="empty: everything; or all except supply"
            :suggest="ranking.sources"
          />
          <TextField v-model="entry.stage" label="In stage" :suggest="usualStages" />
          <QuantityField
            :key="turn"
            v-model="entry.value"
            label="Level read"
            quantity="level"
            placeholder="34 dB(A)"
            :schema="valueSchema"
          />
          <el-button type="primary" native-type="submit">Put it in</el-button>
        </form>
        <p v-if="problem" class="bad" role="alert">
          {{ problem }}
        </p>
      </section>
      <section class="sheet stack">
        <h2>Step by step</h2>
        <p v-if="!rungs.length" class="soft">No level of everything together is logged yet.</p>
        <template v-else>
          <PrintDrawing :svg="chart" />
          <table class="data">
            <thead>
              <tr>
                <th>State</th>
                <th class="num">level</th>
                <th class="num">against the first</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(r, i) in rungs" :key="r.name">
                <td>
                  {{ r.name }} <span class="small soft">{{ r.stage }}</span>
                </td>
                <td class="num">{{ r.upperBound ? '≤ ' : '' }}{{ show(r.level, 'level') }}</td>
                <td class="num">
                  {{ i === 0 ? '–' : `× ${r.ratio.toFixed(2)} as loud` }}
                </td>
              </tr>
            </tbody>
          </table>
          <p class="small soft">
            10 dB less is about half as loud; 1 dB is just noticed side by side. The everyday scale is common
            practice, no source.
          </p>
        </template>
      </section>
    </div>
  </div>
</template>

<style scoped>
.cut .el-slider {
  flex: 1;
  max-width: 260px;
}
.layout {
  display: grid;
  grid-template-columns: minmax(0, 1.55fr) minmax(0, 1fr);
  gap: 12px;
  align-items: start;
}
.block {
  display: block;
  font-family: var(--sans);
  white-space: normal;
}
.predicted {
  color: var(--teal);
}
.next {
  background: var(--cap-soft);
}
.words {
  font-family: var(--sans);
  white-space: normal;
}
table.data th[scope='row'] {
  font-size: 14px;
}
.entry {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr auto;
  gap: 10px;
  align-items: end;
  background: var(--sheet-soft);
  padding: 10px;
  border-radius: 6px;
}
.bad {
  color: var(--stop);
  font-weight: 600;
}
@media (max-width: 960px) {
  .layout {
    grid-template-columns: minmax(0, 1fr);
  }
  .entry {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
