<script setup lang="ts">
import { newRun, type Run, type RunKind } from '../../../../core/plan'

const { store, plan, findings } = useJob('log')
const runs = computed(() => [...plan.value.runs].sort((a, b) => b.takenAt.localeCompare(a.takenAt)))
const selectedId = ref<string | null>(runs.value[0]?.id ?? null)
const selected = computed(() => plan.value.runs.find(r => r.id === selectedId.value) ?? runs.value[0] ?? null)
const kindNames: Record<RunKind, string> = { baseline: 'Baseline', after: 'After' }
const { show } = useUnits()
const date = (iso: string) => new Date(iso).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })

function add(kind: RunKind) {
  const run = newRun(newId('run'), kind, new Date().toISOString())
  // conditions that rarely change between runs are carried over, for a fair comparison
  const last = runs.value[0]
  if (last) Object.assign(run, { distanceM: last.distanceM, instrument: last.instrument, floorDbA: last.floorDbA, lid: last.lid, voltageAt: last.voltageAt })
  store.change(d => d.runs.push(run))
  selectedId.value = run.id
}
const remove = (run: Run) => store.removeWithUndo(`${run.name || kindNames[run.kind]} removed.`, (d) => {
  d.runs = d.runs.filter(r => r.id !== run.id)
})
const editor = ref<{ addReading: () => void }>()
usePageKeys([{ key: 'r', what: 'Add a reading to the open run', run: () => editor.value?.addReading() }])
</script>

<template>
  <div class="layout">
    <section class="sheet stack">
      <div class="sheet-head">
        <h2>Runs</h2>
        <div class="row">
          <button
            type="button"
            class="button small"
            @click="add('baseline')"
          >
            + Baseline
          </button>
          <button
            type="button"
            class="button small"
            @click="add('after')"
          >
            + After the change
          </button>
        </div>
      </div>
      <p
        v-if="!runs.length"
        class="soft"
      >
        Measure before you change anything: temperature, level at a marked spot, current. Without a baseline nobody can say what the fan brought.
      </p>
      <ul
        v-else
        class="runs"
      >
        <li
          v-for="run in runs"
          :key="run.id"
          :class="{ on: run.id === selected?.id }"
        >
          <button
            type="button"
            class="run"
            :aria-pressed="run.id === selected?.id"
            @click="selectedId = run.id"
          >
            <span><strong>{{ run.name || kindNames[run.kind] }}</strong> <span class="small soft">{{ kindNames[run.kind].toLowerCase() }}</span></span>
            <span class="small soft">{{ date(run.takenAt) }}</span>
            <span class="small mono">{{ run.readings.map(r => show(r.value, r.quantity)).join(' · ') || 'no readings yet' }}</span>
          </button>
          <button
            type="button"
            class="button quiet icon small"
            :aria-label="`Remove the run ${run.name}`"
            @click="remove(run)"
          >
            ×
          </button>
        </li>
      </ul>
      <FindingList :findings="findings" />
    </section>
    <RunEditor
      v-if="selected"
      ref="editor"
      :key="selected.id"
      :run="selected"
      :listener-m="plan.job.listenerM"
    />
  </div>
</template>

<style scoped>
.layout { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1.900fr); gap: 12px; align-items: start; }
.runs { list-style: none; margin: 0; padding: 0; display: grid; gap: 6px; }
.runs li { display: grid; grid-template-columns: 1fr auto; align-items: start; border: 1px solid var(--line); border-radius: 6px; }
.runs li.on { background: var(--cap-soft); border-color: var(--cap); }
.run { border: 0; background: none; color: inherit; text-align: left; display: grid; gap: 2px; padding: 8px 10px; cursor: pointer; }
@media (max-width: 860px) { .layout { grid-template-columns: minmax(0, 1fr); } }
</style>
