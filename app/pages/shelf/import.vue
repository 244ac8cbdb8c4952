<script setup lang="ts">
import { columns } from '#shared/exchange/columns'
import { unitsOf } from '#shared/exchange/rows'
import type { RowState } from '#shared/exchange/shelf-file'

useHead({ title: 'Import · Redpoll' })
const { outcome, progress, doing, open, remap, cancel, write } = useShelfImport()
const pasted = ref('')
const problem = ref('')
/** Larger files are not read: a shelf of a hundred thousand fans stays below. */
const MAX_BYTES = 60e6
async function chosen(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (!file) return
  problem.value = file.size > MAX_BYTES ? 'This file is larger than any shelf: 60 MB at most.' : ''
  if (!problem.value) await open(await file.text())
}
const states: Record<RowState, { word: string; mark: 'settled' | 'fix' | 'stop' | 'note' | 'not-begun' }> = {
  new: { word: 'new', mark: 'settled' },
  changed: { word: 'changes', mark: 'fix' },
  same: { word: 'as it stands', mark: 'not-begun' },
  twice: { word: 'twice', mark: 'note' },
  wrong: { word: 'cannot be taken', mark: 'stop' },
}
const total = computed(() => (outcome.value?.counts.new ?? 0) + (outcome.value?.counts.changed ?? 0))
const meanings = [
  { value: null as string | null, label: 'left out' },
  ...columns.map((c) => ({ value: c.key as string | null, label: c.heading })),
]
const unitsFor = (key: string | null) => {
  const column = columns.find((c) => c.key === key)
  return column
    ? unitsOf(column)
        .filter((u) => u.symbol)
        .map((u) => ({ value: u.symbol, label: u.symbol }))
    : []
}
const summary = computed(() =>
  outcome.value
    ? (Object.keys(states) as RowState[])
        .filter((s) => outcome.value!.counts[s])
        .map((s) => `${outcome.value!.counts[s]} ${states[s].word}`)
        .join(', ')
    : '',
)
</script>

<template>
  <div>
    <AppHeader title="Import fans">
      <NuxtLink to="/shelf" class="button"> Back to the shelf </NuxtLink>
    </AppHeader>
    <main id="main" class="page stack">
      <section class="sheet stack">
        <h2>A table or a shelf file</h2>
        <div class="row">
          <label class="button"
            >Choose a file<input
              class="visually-hidden"
              type="file"
              accept=".csv,.tsv,.txt,.json,text/csv,application/json"
              @change="chosen"
          /></label>
          <span class="soft small"
            >CSV with any headings (commas, semicolons or tabs), or a Redpoll shelf file (JSON)</span
          >
        </div>
        <TextField
          v-model="pasted"
          label="Or paste a table"
          :lines="3"
          placeholder="model; frame (mm); thickness (mm); voltage; airflow (CFM); static pressure (mmH2O)"
        />
        <div>
          <el-button :disabled="!pasted.trim()" @click="open(pasted)"> Read the pasted table </el-button>
        </div>
        <p v-if="problem || outcome?.problem" class="bad" role="alert">
          {{ problem || outcome?.problem }}
        </p>
        <div v-if="progress !== null" class="row" role="status">
          <progress :value="progress" /> <span>{{ doing }}, {{ Math.round(100 * progress) }} %</span>
          <el-button size="small" @click="cancel">Cancel</el-button>
        </div>
      </section>
      <template v-if="outcome && !outcome.problem">
        <section v-if="outcome.headings.length" class="sheet">
          <div class="sheet-head">
            <h2>What each heading means</h2>
          </div>
          <div class="headings">
            <div v-for="(h, i) in outcome.headings" :key="i" class="heading">
              <strong>{{ h.heading || '(no heading)' }}</strong>
              <ChoiceField
                hide-label
                :label="`Meaning of ${h.heading}`"
                :options="meanings"
                :model-value="h.key"
                @update:model-value="remap(i, $event, null)"
              />
              <ChoiceField
                v-if="unitsFor(h.key).length > 1"
                hide-label
                :label="`Unit of ${h.heading}`"
                :options="[{ value: null, label: 'as written' }, ...unitsFor(h.key)]"
                :model-value="h.unit"
                @update:model-value="remap(i, h.key, $event)"
              />
            </div>
          </div>
        </section>
        <section class="sheet">
          <div class="sheet-head">
            <h2>What it would do</h2>
            <span class="soft">{{ summary || 'no rows' }}</span>
            <el-button type="primary" :disabled="!total || progress !== null" @click="write">
              {{ total ? `Write ${total} fans` : 'Nothing to write' }}
            </el-button>
          </div>
          <div class="scroll-x">
            <table class="data">
              <thead>
                <tr>
                  <th>Row</th>
                  <th>Fan</th>
                  <th>It</th>
                  <th>Why</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="row in outcome.sample" :key="row.line">
                  <td class="num">
                    {{ row.line }}
                  </td>
                  <td>{{ row.name || '–' }}</td>
                  <td>
                    <span class="state"
                      ><StateMark :state="states[row.state].mark" /> {{ states[row.state].word }}</span
                    >
                  </td>
                  <td class="small">
                    <template v-if="row.issues.length">
                      {{ row.issues.map((x) => `${x.column}: ${x.message}`).join(' ') }}
                    </template>
                  </td>
                </tr>
              </tbody>
            </table>
          </div>
          <p class="small soft">
            Rows that cannot be taken are left out; the others are written. The first
            {{ outcome.sample.length }} rows that need a look are shown. Writing can be undone.
          </p>
        </section>
      </template>
    </main>
  </div>
</template>

<style scoped>
.page {
  padding: 0 20px 24px;
}
.bad {
  color: var(--stop);
  font-weight: 600;
}
.headings {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: 10px 14px;
}
.heading {
  display: grid;
  gap: 4px;
  align-content: start;
  font-size: 14px;
  overflow-wrap: anywhere;
}
.state {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  white-space: nowrap;
}
label.button:focus-within {
  outline: 2px solid var(--focus);
  outline-offset: 2px;
}
@media (max-width: 760px) {
  .page {
    padding: 0 12px 20px;
  }
}
</style>
