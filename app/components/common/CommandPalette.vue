<script setup lang="ts">
import { conversions } from '#core/verification'
import { sums } from '#core/sums'
import { findingMessage } from '#core/rules'
import type { FanPage, JobSummary } from '#shared/api'
import { beginTour } from '~/composables/useTour'
import { globalKeys, openPalette, pageKeys, paletteOpen } from '~/composables/useKeys'

/** Stations, jobs, fans, sums, findings, actions and settings, found by what they are called. */
const job = useJobStore()
const route = useRoute()
const { units } = useUnits()
const typed = ref('')
const field = useTemplateRef('field')
useComboboxRole(() => field.value)
const jobs = shallowRef<JobSummary[]>([])
watch(
  paletteOpen,
  async (open) => {
    if (!open) return
    typed.value = ''
    const result = await api<JobSummary[]>('jobs?soon=1')
    if (result.ok) jobs.value = result.data
  },
  { immediate: true },
)
const inJob = computed(() => route.path.startsWith('/job/'))
const own = computed((): PaletteEntry[] => {
  const id = job.plan?.job.id
  if (!inJob.value || !id || !job.report) return []
  return [
    ...job.report.stations.map((s) => ({
      value: s.title,
      kind: 'station',
      run: () => navigateTo(`/job/${id}/${s.key}`),
    })),
    ...job.report.findings.findings.map((f) => ({
      value: `${f.subject?.name ? `${f.subject.name}: ` : ''}${findingMessage(f, units.value)}`,
      kind: 'finding',
      run: () => navigateTo(placeLink(id, f.at)),
    })),
  ]
})
const actions = computed((): PaletteEntry[] =>
  [...pageKeys.value, ...globalKeys]
    // stations and the palette itself stand here by other ways
    .filter((b) => !/^\d$/.test(b.key) && b.run !== openPalette)
    .map((b) => ({ value: b.what, kind: `action, key ${b.key}`, run: b.run })),
)
const elsewhere: PaletteEntry[] = [
  { value: 'Bench: all jobs', kind: 'page', run: () => navigateTo('/') },
  { value: 'Shelf: all fans', kind: 'page', run: () => navigateTo('/shelf') },
  { value: 'Back up, restore, password', kind: 'page', run: () => navigateTo('/backup') },
  { value: 'New job', kind: 'page', run: () => navigateTo('/begin') },
  { value: 'Guide: one worked job', kind: 'page', run: () => navigateTo('/guide') },
  { value: 'Take the tour', kind: 'page', run: beginTour },
  { value: 'What the words mean', kind: 'page', run: () => navigateTo('/words') },
  { value: 'A new fan', kind: 'page', run: () => navigateTo('/shelf/new') },
  { value: 'Parts in the drawer', kind: 'page', run: () => navigateTo('/shelf/parts') },
  ...[...sums, ...conversions].map((s) => ({
    value: s.title,
    kind: 'sum',
    run: () => navigateTo({ path: '/sums', query: { sum: s.key } }),
  })),
]
/** The shelf is asked from so many letters on. */
const FROM = 2
async function fansLike(query: string): Promise<PaletteEntry[]> {
  if (query.trim().length < FROM) return []
  const result = await api<FanPage>(`fans?${new URLSearchParams({ text: query.trim(), limit: '4' })}`)
  return result.ok
    ? result.data.fans.map(({ fan }) => ({
        value: `${fan.maker} ${fan.model}`.trim(),
        kind: 'fan',
        run: () => navigateTo(`/shelf/${fan.id}`),
      }))
    : []
}
async function suggest(query: string, found: (entries: PaletteEntry[]) => void) {
  const all = [
    ...own.value,
    ...actions.value,
    ...jobs.value.map((j) => ({ value: j.name, kind: 'job', run: () => navigateTo(`/job/${j.id}/brief`) })),
    ...elsewhere,
  ]
  // what is known here stands at once, so that Enter never takes from an older list; fans follow
  const here = findEntries(all, query)
  found(here)
  const fans = await fansLike(query)
  if (fans.length && query === typed.value) found([...here, ...fans])
}
function choose(entry: Record<string, unknown>) {
  paletteOpen.value = false
  ;(entry as unknown as PaletteEntry).run()
}
</script>

<template>
  <el-dialog
    v-model="paletteOpen"
    title="Find or do anything"
    width="min(560px, calc(100vw - 24px))"
    top="12vh"
    append-to-body
    destroy-on-close
    @opened="field?.focus()"
  >
    <el-autocomplete
      ref="field"
      v-model="typed"
      class="palette"
      popper-class="palette-list"
      aria-label="Find or do"
      placeholder="need, new run, dew point, a job, a fan …"
      :fetch-suggestions="suggest"
      :debounce="0"
      highlight-first-item
      fit-input-width
      @select="choose"
    >
      <template #default="{ item }">
        <span class="entry">
          <span>{{ item.value }}</span> <span class="soft small">{{ item.kind }}</span>
        </span>
      </template>
    </el-autocomplete>
  </el-dialog>
</template>

<style scoped>
.palette {
  width: 100%;
}
.entry {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
</style>
