<script setup lang="ts">
import type { JobSummary, StoredPlan } from '#shared/api'

useHead({ title: 'Bench · Redpoll' })
const jobs = ref<JobSummary[] | null>(null)
const problem = ref('')
const name = ref('')
const nameError = ref('')
const naming = ref(false)
const toast = useToast()
const { say } = useUnits()

async function load() {
  const result = await api<JobSummary[]>('jobs')
  if (!result.ok) {
    problem.value = result.message
    return
  }
  jobs.value = result.data
  problem.value = ''
}
await load()

async function create() {
  if (!name.value.trim()) {
    nameError.value = 'A job needs a name.'
    return
  }
  const result = await api<StoredPlan>('jobs', { method: 'POST', body: { name: name.value } })
  if (!result.ok) {
    nameError.value = result.message
    return
  }
  await navigateTo(`/job/${result.data.plan.job.id}/brief`)
}

async function remove(job: JobSummary) {
  const result = await api(`jobs/${job.id}`, { method: 'DELETE' })
  if (!result.ok) return toast.show(result.message, { tone: 'bad' })
  jobs.value = jobs.value?.filter((j) => j.id !== job.id) ?? null
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

const nameField = ref<{ focus: () => void }>()
async function begin() {
  naming.value = true
  await nextTick()
  nameField.value?.focus()
}
usePageKeys([{ key: 'n', what: 'New job', run: begin }])
const print = (job: JobSummary, key: string) => say(job.stations.find((s) => s.key === key)?.headline ?? [])
const waits = (job: JobSummary) => {
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
      <el-button type="primary" @click="begin">New job</el-button>
    </AppHeader>
    <main class="bench">
      <form v-if="naming" class="sheet new" @submit.prevent="create">
        <div class="field">
          <label for="job-name">What is it? A name for the job</label>
          <el-input
            id="job-name"
            ref="nameField"
            v-model="name"
            maxlength="120"
            placeholder="Printer enclosure"
            :aria-invalid="nameError ? 'true' : undefined"
            aria-describedby="job-name-error"
            @keydown.esc="naming = false"
            @input="nameError = ''"
          />
          <span v-if="nameError" id="job-name-error" class="error" role="alert">{{ nameError }}</span>
        </div>
        <el-button type="primary" native-type="submit">Begin</el-button>
      </form>
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
        <el-button type="primary" @click="begin">New job</el-button>
      </div>
      <ul v-else class="jobs">
        <li v-for="job in jobs" :key="job.id" class="sheet job">
          <div class="title">
            <NuxtLink :to="`/job/${job.id}/brief`">
              {{ job.name }}
            </NuxtLink>
            <span class="tag">{{ goalName(job.goal) }}</span>
            <el-button text size="small" :aria-label="`Delete ${job.name}`" @click="remove(job)">
              Delete
            </el-button>
          </div>
          <p class="soft small what">
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
            {{ waits(job) }}
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
.new {
  display: grid;
  grid-template-columns: minmax(0, 420px) auto;
  gap: 12px;
  align-items: end;
  justify-content: start;
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
  font-weight: 700;
  font-size: 17px;
  color: var(--ink);
}
.title .el-button {
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
  font-size: 13.5px;
  font-weight: 600;
}
@media (max-width: 760px) {
  .bench {
    padding: 0 12px 20px;
  }
  .new {
    grid-template-columns: 1fr;
  }
  .facts {
    grid-template-columns: 1fr;
  }
}
</style>
