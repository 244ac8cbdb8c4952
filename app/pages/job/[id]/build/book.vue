<script setup lang="ts">
import { missingEntries, settingsChange, settingsOf, timeLine, type TimeEntry } from '#core/care'
import { eventKinds, eventNames, type EventKind } from '#core/document'

definePageMeta({ station: 'build' })

const { plan, report } = useJob('build')
const { units } = useUnits()
const { who, add, remove } = useLogBook()

const entries = computed(() => timeLine(plan.value, report.value, units.value))
const missing = computed(() => missingEntries(plan.value))
const kinds = eventKinds.map((value) => ({ value, label: eventNames[value] }))
const entry = reactive({
  kind: 'note' as EventKind,
  what: '',
  before: '',
  after: '',
  parts: '',
  nextDue: null as string | null,
})
const problem = ref('')
/** Raised after each line: its fields begin anew. */
const turn = ref(0)
function put() {
  problem.value = entry.what.trim() ? add({ ...entry, what: entry.what.trim() }) : 'Say what happened.'
  if (problem.value) return
  Object.assign(entry, { what: '', before: '', after: '', parts: '', nextDue: null })
  turn.value++
  landIn('.entry')
}
/** Settings that say something else than the last ones that were written down. */
const settings = computed(() => settingsOf(plan.value, report.value))
const change = computed(() => settingsChange(settings.value, plan.value.logbook))
const changeWords = computed(() => change.value.changed.map((c) => c.now || `${c.before}: gone`))
function note() {
  const { first, changed } = change.value
  const { now, before } = changed[0]!
  add({
    kind: 'setting',
    what: first
      ? 'Settings as built'
      : (changed.length === 1 ? now || `${before} gone` : `${changed.length} settings changed`).slice(0, 120),
    before: first
      ? ''
      : changed
          .map((c) => c.before)
          .filter(Boolean)
          .join('; ')
          .slice(0, 120),
    after: first
      ? ''
      : changed
          .map((c) => c.now)
          .filter(Boolean)
          .join('; ')
          .slice(0, 120),
    settings: settings.value.join('\n'),
  })
}
const lineOf = ({ id }: TimeEntry) => plan.value.logbook.find((e) => e.id === id)
const stations = { run: 'log', build: 'build', book: '' } as const
const save = async () => {
  const { csvOf } = await import('#shared/exchange/csv')
  const rows = entries.value.toReversed().map((e) => [e.at, e.who, e.kind, e.what, e.detail])
  saveText(csvOf(['at', 'who', 'kind', 'what', 'found'], rows), 'log-book.csv', 'text/csv')
}
</script>

<template>
  <div class="stack">
    <BuildTabs />
    <section class="sheet stack">
      <div class="sheet-head">
        <h2>Log book</h2>
        <el-button size="small" :disabled="!entries.length" @click="save">CSV</el-button>
      </div>
      <form class="entry no-print" @submit.prevent="put">
        <ChoiceField v-model="entry.kind" label="Kind" :options="kinds" />
        <TextField :key="turn" v-model="entry.what" class="what" label="What happened" :maxlength="120" />
        <TextField v-model="entry.before" label="Reading before" :maxlength="120" />
        <TextField v-model="entry.after" label="Reading after" :maxlength="120" />
        <TextField v-model="entry.parts" label="Parts used" :maxlength="120" />
        <DayField v-model="entry.nextDue" label="Next due" />
        <TextField v-model="who" label="Who" />
        <el-button type="primary" native-type="submit">Write it down</el-button>
      </form>
      <p v-if="problem" class="error small" role="alert">{{ problem }}</p>
      <div v-if="settings.length && changeWords.length" class="settings row">
        <p class="small">
          {{
            change.first ? 'The settings are not written down yet' : 'Changed since the last line of settings'
          }}: {{ changeWords.join('; ') }}.
        </p>
        <el-button size="small" @click="note">Write the settings down</el-button>
      </div>
      <p v-if="missing.length" class="small soft">
        A log book has at least {{ missing.join(', ') }} as well:
        {{ missing.length > 1 ? 'these are' : 'it is' }} missing.
      </p>
      <p v-if="!entries.length" class="soft">
        Nothing happened yet. Runs and ticked steps come here by themselves; write down the rest above.
      </p>
      <ol v-else class="line">
        <li v-for="e in entries" :key="e.id">
          <span class="mono small when">{{ localTime(e.at) }}</span>
          <span class="body">
            <span class="tag">{{ e.kind }}</span>
            <strong>{{ e.what }}</strong><span v-if="e.detail" class="small">: {{ e.detail }}</span>
            <span v-if="e.who" class="small soft">, {{ e.who }}</span>
          </span>
          <NuxtLink
            v-if="stations[e.from]"
            class="small"
            :to="`/job/${plan.job.id}/${stations[e.from]}${e.from === 'run' ? `?run=${e.id.slice(4)}` : ''}`"
            >{{ e.from === 'run' ? 'Log' : 'Steps' }}</NuxtLink
          >
          <el-button v-else-if="lineOf(e)" text size="small" @click="remove(lineOf(e)!)"
            >Remove<span class="visually-hidden">: {{ e.what }}</span></el-button
          >
        </li>
      </ol>
    </section>
  </div>
</template>

<style scoped>
.entry {
  display: grid;
  grid-template-columns: 150px minmax(0, 2fr) repeat(2, minmax(0, 1fr));
  gap: 8px 10px;
  align-items: end;
  background: var(--sheet-soft);
  padding: 10px;
  border-radius: var(--radius);
}
.settings {
  justify-content: space-between;
  border-left: 4px solid var(--teal);
  background: var(--sheet-soft);
  padding: 8px 12px;
}
.when {
  white-space: nowrap;
}
.line {
  list-style: none;
  margin: 0;
  padding: 0;
}
.line li {
  display: grid;
  grid-template-columns: 160px minmax(0, 1fr) auto;
  gap: 10px;
  padding: 7px 0;
  border-top: 1px solid var(--line);
  align-items: baseline;
}
.body {
  display: inline;
}
.line a {
  min-height: 26px;
  min-width: 26px;
}
.body .tag {
  margin-right: 6px;
}
@media (max-width: 700px) {
  .entry {
    grid-template-columns: 1fr 1fr;
  }
  .what {
    grid-column: 1 / -1;
  }
  .line li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .when {
    grid-column: 1 / -1;
  }
}
</style>
