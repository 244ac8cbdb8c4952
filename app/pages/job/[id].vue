<script setup lang="ts">
import { isOneOfSeveral } from '#core/document'

const route = useRoute('job-id')
const job = useJobStore()
const id = computed(() => route.params.id)
const ready = ref(false)

await job.open(id.value)
if (job.missing === 'missing')
  throw createError({
    statusCode: 404,
    statusMessage: 'Not found',
    message: 'There is no job at this address. It may have been deleted.',
    fatal: true,
  })
ready.value = true

const station = computed(() => route.meta.station ?? 'brief')
/** Stations that speak of one air stream; the others speak of the whole machine. */
const streamStations = ['brief', 'need', 'air-path', 'line-up', 'fit']
const ofStream = computed(() => streamStations.includes(station.value))
watchEffect(() => {
  job.ofStream = ofStream.value
})
// a link may lead to one of the streams, and there to one of the places of its fans
watch(
  () => [route.query.stream, route.query.place],
  ([stream, place]) => {
    if (typeof stream === 'string') job.chosen = stream
    if (typeof place === 'string') job.chosenPlace = place
  },
  { immediate: true },
)
// and what is chosen is found again at its address
watch(
  () => [job.chosen, job.chosenPlace],
  ([stream, place]) => {
    const query = { ...route.query, stream: stream || undefined, place: place || undefined }
    const same = query.stream === route.query.stream && query.place === route.query.place
    if (ofStream.value && !same) void navigateTo({ query, hash: route.hash }, { replace: true })
  },
)
const report = computed(() => job.report)
const counts = computed(() => {
  const all = report.value?.findings.findings ?? []
  return {
    stop: all.filter((f) => f.severity === 'stop').length,
    fix: all.filter((f) => f.severity === 'fix').length,
    note: all.filter((f) => f.severity === 'note').length,
  }
})
const findingsOpen = ref(false)
useHead({ title: () => `${job.plan?.job.name ?? 'Job'} · Redpoll` })

usePlanWorker()
useFieldFocus()
const go = (key: string) => () => navigateTo(`/job/${id.value}/${key}`)
usePageKeys([
  ...(report.value?.stations ?? []).map((s, i) => ({
    key: String((i + 1) % 10),
    what: s.title,
    run: go(s.key),
  })),
  {
    key: 'z',
    get what() {
      return job.undoWhat ? `Undo: ${job.undoWhat}` : 'Undo the last change'
    },
    run: () => job.undo(),
  },
  {
    key: 'y',
    get what() {
      return job.redoWhat ? `Redo: ${job.redoWhat}` : 'Redo'
    },
    run: () => job.redo(),
  },
  {
    key: 'i',
    what: 'All findings',
    run: () => {
      findingsOpen.value = !findingsOpen.value
    },
  },
])
</script>

<template>
  <div v-if="job.plan && report" class="frame">
    <JobRail :job-id="id" :stations="report.stations" :current="station" />
    <div class="page">
      <header class="head">
        <h1>{{ job.plan.job.name }}</h1>
        <SaveBadge />
        <div class="right">
          <el-button
            v-if="job.canUndo"
            size="small"
            text
            class="step"
            :title="`Undo: ${job.undoWhat}, key z`"
            @click="job.undo"
            >Undo<span class="what soft">: {{ job.undoWhat }}</span></el-button
          >
          <el-button
            v-if="job.canRedo"
            size="small"
            text
            class="step"
            :title="`Redo: ${job.redoWhat}, key y`"
            @click="job.redo"
            >Redo<span class="what soft">: {{ job.redoWhat }}</span></el-button
          >
          <button
            type="button"
            class="tag marks"
            :aria-expanded="findingsOpen"
            :aria-label="`Findings: ${counts.stop} stop, ${counts.fix} to fix, ${counts.note} notes`"
            @click="findingsOpen = true"
          >
            <template v-if="counts.stop"> <StateMark state="stop" /> {{ counts.stop }} stop </template>
            <template v-if="counts.fix"> <StateMark state="fix" /> {{ counts.fix }} to fix </template>
            <template v-if="counts.note">
              <StateMark state="note" /> {{ counts.note === 1 ? '1 note' : `${counts.note} notes` }}
            </template>
            <template v-if="!counts.stop && !counts.fix && !counts.note"> no findings </template>
          </button>
          <UnitMenu />
          <button type="button" class="tag help" aria-label="Find or do anything, key k" @click="openPalette()">
            Find
          </button>
          <button type="button" class="tag help" aria-label="Help and keys" @click="openKeys()">?</button>
        </div>
      </header>
      <p v-if="job.problem" class="problem" role="alert">
        {{ job.problem }} The last good plan is still shown.
      </p>
      <StreamBar v-if="ofStream && job.plan && isOneOfSeveral(job.plan)" />
      <InTurn>
        <AirRibbon
          :segments="report.ribbon"
          :elements="report.path.elements"
          :job-id="id"
          :job-name="job.plan.job.name"
          :selected="String(route.query.element ?? '')"
        />
      </InTurn>
      <main id="main" class="station">
        <InTurn><NuxtPage /></InTurn>
      </main>
    </div>
    <el-drawer
      v-model="findingsOpen"
      :title="`Findings of ${job.plan.job.name}`"
      size="min(520px, 100vw)"
      append-to-body
    >
      <FindingDesk :report="report" :job-id="id" @went="findingsOpen = false" />
    </el-drawer>
  </div>
  <main v-else-if="job.missing" class="lost">
    <div class="sheet stack">
      <h1>The job cannot be opened</h1>
      <p>{{ job.missing }}</p>
      <div>
        <el-button type="primary" @click="job.open(id)">Try again</el-button>
      </div>
    </div>
  </main>
</template>

<style scoped>
.frame {
  display: grid;
  grid-template-columns: 216px minmax(0, 1fr);
  min-height: 100vh;
}
.page {
  padding: 10px 18px 18px;
  display: grid;
  gap: 10px;
  align-content: start;
  min-width: 0;
}
.head {
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 34px;
  flex-wrap: wrap;
}
.right {
  margin-left: auto;
  display: flex;
  align-items: center;
  gap: 8px;
  flex-wrap: wrap;
}
.what {
  display: inline-block;
  max-width: 150px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  vertical-align: bottom;
}
.step + .step {
  margin-left: 0;
}
.marks {
  cursor: pointer;
  color: inherit;
}
.marks:hover,
.help:hover {
  background: var(--sheet-soft);
}
.help {
  cursor: pointer;
  color: inherit;
  min-width: 28px;
  justify-content: center;
}
.problem {
  color: var(--stop);
  font-weight: 600;
}
.lost {
  min-height: 100vh;
  display: grid;
  place-items: center;
  padding: 20px;
}
@media (max-width: 760px) {
  .what {
    display: none;
  }
  .frame {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto 1fr;
    min-height: 0;
  }
  .page {
    padding: 8px 10px 18px;
  }
}
</style>
