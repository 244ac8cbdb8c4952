<script setup lang="ts">
import { newRun, readingMean, runStates, type Run, type RunKind } from '#core/document'
import { runsCsv, runsJson } from '#shared/exchange/runs-table'

definePageMeta({ station: 'log' })

const { store, plan, findings } = useJob('log')
const route = useRoute()
const states = computed(() => runStates(plan.value.runs).toReversed())
const newest = computed(() => plan.value.runs.toSorted((a, b) => b.takenAt.localeCompare(a.takenAt))[0] ?? null)
const selectedId = ref<string | null>(typeof route.query.run === 'string' ? route.query.run : null)
watch(
  () => route.query.run,
  (run) => {
    if (typeof run === 'string') selectedId.value = run
  },
)
const selected = computed(() => plan.value.runs.find((r) => r.id === selectedId.value) ?? newest.value)
const { show } = useUnits()
const date = (iso: string) =>
  new Date(iso).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })

/** Conditions that rarely change between runs are carried over, for a fair comparison. */
const carried = (last: Run): Partial<Run> => ({
  distanceM: last.distanceM,
  instrument: last.instrument,
  calibrated: last.calibrated,
  floorDbA: last.floorDbA,
  lid: last.lid,
  voltageAt: last.voltageAt,
  who: last.who,
  stoodAt: last.stoodAt,
  stage: last.stage,
})
function add(kind: RunKind, rest: Partial<Run> = {}) {
  const run = {
    ...newRun(newId('run'), kind, new Date().toISOString()),
    ...(newest.value ? carried(newest.value) : {}),
    ...rest,
  }
  store.change((d) => d.runs.push(run))
  selectedId.value = run.id
  // what is there to do in a new run is to read
  void nextTick(() => editor.value?.addReading())
}
const lastChange = computed(() =>
  Math.max(0, ...plan.value.runs.filter((r) => r.kind === 'after').map((r) => r.changeNo ?? 1)),
)
const addAfter = () =>
  add('after', { changeNo: lastChange.value + 1, name: `After change ${lastChange.value + 1}` })
/** The same state measured once more: a replicate. */
const again = (run: Run) =>
  add(run.kind, {
    changeNo: run.changeNo,
    changed: run.changed,
    name: `${run.name}, again`,
    heatW: run.heatW,
    fanV: run.fanV,
    otherOpenings: run.otherOpenings,
  })
function remove(run: Run) {
  store.removeWithUndo(`${run.name} removed.`, (d) => {
    d.runs = d.runs.filter((r) => r.id !== run.id)
  })
  landIn('.run-list')
}
const fileName = computed(() => fileWords(plan.value.job.name))
const editor = ref<{ addReading: () => void }>()
usePageKeys([
  { key: 'r', what: 'Add a reading to the open run', run: () => editor.value?.addReading() },
  { key: 'n', what: 'New run after a change', run: addAfter },
])
</script>

<template>
  <div class="stack">
    <LogTabs />
    <div class="layout">
      <section class="sheet stack run-list">
        <div class="sheet-head">
          <h2>Runs</h2>
          <div class="row">
            <el-button size="small" @click="add('baseline')">+ Baseline</el-button>
            <el-button size="small" @click="addAfter">+ After a change</el-button>
            <el-button size="small" text @click="add('bench')">+ Bench test</el-button>
          </div>
        </div>
        <p v-if="!states.length" class="soft">
          Measure before you change anything: temperature, level at a marked spot, current. Without a baseline
          nobody can say what the fan brought.
        </p>
        <div v-for="state in states" :key="state.key" class="stack state">
          <h3>
            {{ state.name }}
            <span class="soft small">{{
              state.runs.length === 1 ? 'one run' : `${state.runs.length} runs`
            }}</span>
          </h3>
          <ul class="runs">
            <li v-for="run in state.runs.toReversed()" :key="run.id" :class="{ on: run.id === selected?.id }">
              <button
                type="button"
                class="run"
                :aria-pressed="run.id === selected?.id"
                @click="selectedId = run.id"
              >
                <strong>{{ run.name || state.name }}</strong>
                <span class="small soft">{{ date(run.takenAt) }}{{ run.who ? `, ${run.who}` : '' }}</span>
                <span class="small mono"
                  >{{
                    run.readings
                      .slice(0, 4)
                      .map((r) => show(readingMean(r), r.quantity))
                      .join(' · ') || 'no readings yet'
                  }}{{ run.readings.length > 4 ? ` · ${run.readings.length - 4} more` : '' }}</span
                >
              </button>
              <el-button
                text
                size="small"
                class="icon"
                :aria-label="`Remove the run ${run.name}`"
                @click="remove(run)"
              >
                ×
              </el-button>
            </li>
          </ul>
          <div>
            <el-button text size="small" @click="again(state.runs.at(-1)!)">
              + Measure “{{ state.name }}” again
            </el-button>
          </div>
        </div>
        <p v-if="states.length && states.every((s) => s.runs.length < 3)" class="small soft">
          Three runs of each state, set-up taken apart in between, give a real interval instead of what the
          instruments are worth.
        </p>
        <div v-if="states.length" class="row">
          <span class="small soft">Take all runs along:</span>
          <el-button
            text
            size="small"
            @click="saveText(runsCsv(plan.runs), `${fileName}-runs.csv`, 'text/csv')"
          >
            CSV
          </el-button>
          <el-button
            text
            size="small"
            @click="saveText(runsJson(plan.job.name, plan.runs), `${fileName}-runs.json`, 'application/json')"
          >
            JSON
          </el-button>
        </div>
        <FindingList :findings="findings" />
      </section>
      <InTurn>
        <RunEditor v-if="selected" ref="editor" :key="selected.id" :run="selected" />
      </InTurn>
    </div>
  </div>
</template>

<style scoped>
.layout {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 2.2fr);
  gap: 12px;
  align-items: start;
}
.state {
  gap: 5px;
}
.runs {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
.runs li {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: start;
  border: 1px solid var(--line);
  border-radius: 6px;
}
.runs li.on {
  background: var(--cap-soft);
  border-color: var(--cap);
}
.run {
  border: 0;
  background: none;
  color: inherit;
  text-align: left;
  display: grid;
  gap: 2px;
  padding: 8px 10px;
  cursor: pointer;
  min-width: 0;
}
@media (max-width: 860px) {
  .layout {
    grid-template-columns: minmax(0, 1fr);
  }
  /* at the bench the open run, with its line to type, comes first */
  .run-list {
    order: 2;
  }
}
</style>
