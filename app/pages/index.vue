<script setup lang="ts">
import { useTimeoutFn } from '@vueuse/core'
import type { JobSummary, StoredPlan } from '#shared/api'

useHead({ title: 'Bench · Redpoll' })
const jobs = ref<JobSummary[] | null>(null)
const problem = ref('')
const toast = useToast()
const { say } = useUnits()

/** What is still being worked out is asked for again after so long, ms. */
const AGAIN_MS = 500
async function load() {
  const result = await api<JobSummary[]>('jobs?soon=1')
  if (!result.ok) {
    problem.value = result.message
    return
  }
  jobs.value = result.data
  problem.value = ''
  if (result.data.some((j) => j.pending)) again.start()
}
const again = useTimeoutFn(load, AGAIN_MS, { immediate: false })
await load()
watch(benchChange(), (now, before) => before && void load())

async function remove(job: JobSummary) {
  const result = await api(`jobs/${job.id}`, { method: 'DELETE' })
  if (!result.ok) return toast.show(result.message, { tone: 'bad' })
  const at = shown.value.indexOf(job)
  jobs.value = jobs.value?.filter((j) => j.id !== job.id) ?? null
  const next = shown.value[at] ?? shown.value[at - 1]
  landIn(next ? `[data-job="${next.id}"]` : '.bench')
  toast.show(`“${job.name}” is off the bench.`, {
    action: {
      label: 'Undo',
      run: async () => {
        await api(`jobs/${job.id}/restore`, { method: 'POST' })
        await load()
      },
    },
  })
}

/** A plan file becomes a job of its own; it can be taken back. */
async function take(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  if (/\.zip$/i.test(file.name)) {
    chosenBackup.value = file
    return navigateTo('/backup')
  }
  let body: unknown
  try {
    body = JSON.parse(await file.text())
  } catch {
    return toast.show(`${file.name} is no plan file: it cannot be read as JSON.`, { tone: 'bad' })
  }
  const result = await api<StoredPlan>('jobs/import', { method: 'POST', body })
  if (!result.ok) return toast.show(`${file.name} was not taken: ${result.message}`, { tone: 'bad' })
  const { id, name: taken } = result.data.plan.job
  await load()
  toast.show(`“${taken}” is on the bench.`, {
    action: {
      label: 'Undo',
      run: async () => {
        await api(`jobs/${id}`, { method: 'DELETE' })
        await load()
      },
    },
  })
  landIn(`[data-job="${id}"]`)
}
/** What a job leaves as: its plan as text, or with its logs and pictures. */
const ways = [
  { value: 'plan' as const, label: 'The plan with its fans (JSON)' },
  { value: 'all' as const, label: 'With logs and pictures (zip)' },
]
async function give(job: JobSummary, way: 'plan' | 'all') {
  if (way === 'all') return saveFrom(`/api/jobs/${job.id}/backup`, `${fileWords(job.name)}.zip`)
  const result = await api<object>(`jobs/${job.id}`)
  if (!result.ok) return toast.show(result.message, { tone: 'bad' })
  saveText(JSON.stringify(result.data, null, 1), `${fileWords(job.name)}.plan.json`, 'application/json')
}

// search, order, filter
const orders = [
  { value: 'changed' as const, label: 'last changed first' },
  { value: 'urgent' as const, label: 'stops first' },
  { value: 'name' as const, label: 'by name' },
]
const states = [
  { value: '' as const, label: 'all jobs' },
  { value: 'stop' as const, label: 'with a stop' },
  { value: 'fix' as const, label: 'with something to fix' },
  { value: 'open' as const, label: 'waiting for a station' },
  { value: 'settled' as const, label: 'settled' },
]
const text = ref('')
const order = ref<'changed' | 'urgent' | 'name'>('changed')
const state = ref<'' | 'stop' | 'fix' | 'open' | 'settled'>('')
const inState: Record<typeof state.value, (job: JobSummary) => boolean> = {
  '': () => true,
  stop: (job) => job.stops > 0,
  fix: (job) => job.fixes > 0,
  open: (job) => job.waitsFor !== '' && job.stops + job.fixes === 0,
  settled: (job) => job.waitsFor === '' && job.problem === '' && !job.pending,
}
const sorting: Record<typeof order.value, (a: JobSummary, b: JobSummary) => number> = {
  changed: (a, b) => b.updatedAt.localeCompare(a.updatedAt),
  urgent: (a, b) => b.stops - a.stops || b.fixes - a.fixes || a.name.localeCompare(b.name),
  name: (a, b) => a.name.localeCompare(b.name),
}
const shown = computed(() => {
  const words = text.value.toLowerCase().split(/\s+/).filter(Boolean)
  return (jobs.value ?? [])
    .filter(inState[state.value])
    .filter((job) => {
      const about = `${job.name} ${job.equipment} ${goalName(job.goal)}`.toLowerCase()
      return words.every((w) => about.includes(w))
    })
    .toSorted(sorting[order.value])
})
/** How many plans of a job there are, itself counted. */
const plansOf = (job: JobSummary) => {
  const root = job.variantOf ?? job.id
  return (jobs.value ?? []).filter((j) => (j.variantOf ?? j.id) === root).length
}
/** Where the work goes on. */
const nextOf = (job: JobSummary) =>
  `/job/${job.id}/${job.stations.find((s) => s.title === job.waitsFor)?.key ?? 'verdict'}`

const begin = () => navigateTo('/begin')
usePageKeys([
  { key: 'n', what: 'New job', run: begin },
  { key: '/', what: 'Search the jobs', run: () => landIn('.seek') },
])
const print = (job: JobSummary, key: string) => say(job.stations.find((s) => s.key === key)?.headline ?? [])
const waits = (job: JobSummary) => {
  if (job.problem) return 'cannot be read'
  if (job.pending && !job.stations.length) return 'looking how it stands …'
  if (!job.waitsFor) return 'settled at every station'
  const state = job.stations.find((s) => s.title === job.waitsFor)?.state
  const what =
    state === 'stop'
      ? `stopped at ${job.waitsFor}`
      : state === 'fix'
        ? `something to fix at ${job.waitsFor}`
        : `waits for ${job.waitsFor}`
  const findings = [job.stops ? `${job.stops} stop` : '', job.fixes ? `${job.fixes} to fix` : '']
    .filter(Boolean)
    .join(', ')
  return findings ? `${what} · ${findings}` : what
}
</script>

<template>
  <div>
    <AppHeader title="Bench">
      <label class="button small quiet"
        >Import a job<input
          class="visually-hidden"
          type="file"
          accept=".json,.zip,application/json,application/zip"
          aria-label="Import a job from a plan file or a backup"
          @change="take"
      /></label>
      <el-button type="primary" @click="begin">New job</el-button>
    </AppHeader>
    <main id="main" class="bench">
      <p v-if="problem" role="alert" class="sheet">
        {{ problem }}
        <el-button size="small" @click="load">Try again</el-button>
      </p>
      <div v-else-if="jobs && !jobs.length" class="sheet empty">
        <h2>Nothing on the bench yet</h2>
        <p>
          Begin with what runs hot, smells, or is too loud. Redpoll asks few things and shows a result as you
          type.
        </p>
        <p class="row">
          <el-button type="primary" @click="begin">New job</el-button>
          <NuxtLink to="/guide" class="button small quiet">Read how a job goes</NuxtLink>
        </p>
      </div>
      <div v-if="jobs && jobs.length > 1" class="seek">
        <TextField
          v-model="text"
          label="Search the jobs"
          hide-label
          placeholder="Search: name, equipment, goal"
        />
        <ChoiceField v-model="state" label="Show" hide-label :options="states" />
        <ChoiceField v-model="order" label="Order" hide-label :options="orders" />
        <span class="small soft" role="status">{{ shown.length }} of {{ jobs.length }}</span>
      </div>
      <p v-if="jobs?.length && !shown.length" class="sheet empty">
        No job answers to that.
        <el-button size="small" @click="((text = ''), (state = ''))">Show all</el-button>
      </p>
      <ul v-if="shown.length" class="jobs">
        <li v-for="job in shown" :key="job.id" class="sheet job" :data-job="job.id">
          <div class="title">
            <NuxtLink :to="nextOf(job)">
              {{ job.name }}
            </NuxtLink>
            <span class="tag">{{ goalName(job.goal) }}</span>
            <span v-if="job.variantOf" class="tag">variant</span>
            <span class="acts">
              <el-dropdown trigger="click" :persistent="false" @command="give(job, $event)">
                <el-button text size="small" :aria-label="`Export ${job.name}`">Export</el-button>
                <template #dropdown>
                  <el-dropdown-menu>
                    <el-dropdown-item v-for="w in ways" :key="w.value" :command="w.value">
                      {{ w.label }}
                    </el-dropdown-item>
                  </el-dropdown-menu>
                </template>
              </el-dropdown>
              <el-button text size="small" :aria-label="`Delete ${job.name}`" @click="remove(job)">
                Delete
              </el-button>
            </span>
          </div>
          <p v-if="job.problem" class="small" role="alert">
            <StateMark state="stop" /> This job cannot be read ({{ job.problem }}). Nothing of it was changed; a
            copy of the data directory still has it.
          </p>
          <p v-else class="soft small what">
            {{ job.equipment || 'Not described yet' }}
          </p>
          <ol class="marks">
            <li v-for="station in job.stations" :key="station.key">
              <NuxtLink :to="`/job/${job.id}/${station.key}`" :title="station.title">
                <StateMark :state="station.state" />
                <span>{{ station.title }}</span>
              </NuxtLink>
            </li>
          </ol>
          <dl class="facts">
            <div>
              <dt>Need</dt>
              <dd class="mono">
                {{ print(job, 'need') }}
              </dd>
            </div>
            <div>
              <dt>Picked</dt>
              <dd class="mono">
                {{ print(job, 'line-up') }}
              </dd>
            </div>
            <div>
              <dt>Verdict</dt>
              <dd class="mono">
                {{ print(job, 'verdict') }}
              </dd>
            </div>
          </dl>
          <p class="waits">
            <NuxtLink v-if="job.waitsFor" :to="nextOf(job)" class="button small">
              Go on: {{ job.waitsFor }}
            </NuxtLink>
            <span>{{ waits(job) }}</span>
            <NuxtLink v-if="plansOf(job) > 1" :to="`/job/${job.id}/line-up#variants`" class="compare small"
              >compare its {{ plansOf(job) }} plans</NuxtLink
            >
          </p>
        </li>
      </ul>
    </main>
  </div>
</template>

<style scoped>
.bench {
  padding: 0 20px 24px;
  display: grid;
  gap: 12px;
}
.jobs {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 520px), 1fr));
  gap: 12px;
}
.job {
  display: grid;
  gap: 8px;
}
.title {
  display: flex;
  align-items: center;
  gap: 10px;
}
.title a {
  min-width: 0;
  overflow-wrap: anywhere;
  font-weight: 700;
  font-size: 17px;
  color: var(--ink);
}
.acts {
  margin-left: auto;
  display: flex;
}
.seek {
  display: grid;
  grid-template-columns: minmax(0, 320px) 200px 180px auto;
  gap: 10px;
  align-items: center;
}
.compare {
  margin-left: auto;
}
.what {
  min-height: 1.4em;
}
.marks {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
}
.marks a {
  display: inline-flex;
  align-items: center;
  gap: 5px;
  padding: 3px 7px;
  border-radius: 5px;
  font-size: 13px;
  color: var(--ink);
  text-decoration: none;
  min-height: 26px;
}
.marks a:hover {
  background: var(--sheet-soft);
}
.facts {
  margin: 0;
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 10px;
}
.facts dt {
  font-size: 12.5px;
  color: var(--ink-soft);
}
.facts dd {
  margin: 0;
  font-size: 13.5px;
}
.waits {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 8px;
  font-size: 13.5px;
  font-weight: 600;
}
@media (max-width: 760px) {
  .bench {
    padding: 0 12px 20px;
  }
  .facts,
  .seek {
    grid-template-columns: 1fr;
  }
}
</style>
