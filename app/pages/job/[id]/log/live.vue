<script setup lang="ts">
import type { LogSummary } from '#shared/api'

definePageMeta({ station: 'log' })

const { plan } = useJob('log')
const route = useRoute()
const toast = useToast()
const { show } = useUnits()
const { instruments, problem, renew } = useInstruments()
const data = useLogData()
const { log, view, facts, summary, soak, range, watched, loading, offline } = data
const logs = shallowRef<LogSummary[]>([])
const chosen = ref<string | null>(typeof route.query.log === 'string' ? route.query.log : null)

async function list(select?: string) {
  const result = await api<LogSummary[]>(`jobs/${plan.value.job.id}/logs`)
  if (!result.ok) return toast.show(result.message, { tone: 'bad' })
  logs.value = result.data
  if (select) chosen.value = select
  const one = logs.value.find((l) => l.id === chosen.value) ?? logs.value[0] ?? null
  chosen.value = one?.id ?? null
  await data.open(one)
}
onMounted(async () => {
  await renew()
  await list()
})
async function changed(select?: string) {
  await renew()
  await list(select)
}
async function choose(id: string) {
  chosen.value = id
  await data.open(logs.value.find((l) => l.id === id) ?? null)
}
async function stop() {
  if (!log.value) return
  const result = await api(`logs/${log.value.id}/close`, { method: 'POST' })
  if (!result.ok) return toast.show(result.message, { tone: 'bad' })
  await changed(log.value.id)
}
async function rename(name: string) {
  if (!log.value || !name.trim()) return
  const { id } = log.value
  const result = await api(`logs/${id}`, { method: 'PUT', body: { name } })
  if (!result.ok) return toast.show(result.message, { tone: 'bad' })
  logs.value = logs.value.map((l) => (l.id === id ? { ...l, name } : l))
  if (log.value?.id === id) log.value = { ...log.value, name }
}
async function remove(one: LogSummary) {
  // nothing is asked of a log that goes
  await data.open(null)
  const result = await api(`logs/${one.id}`, { method: 'DELETE' })
  await list()
  if (!result.ok) return toast.show(result.message, { tone: 'bad' })
  toast.show(`${one.name} is put aside.`, {
    action: {
      label: 'Undo',
      run: async () => {
        await api(`logs/${one.id}/restore`, { method: 'POST' })
        await list(one.id)
      },
    },
  })
}
const end = computed(() => view.value?.last ?? 0)
const from = computed(() => range.value?.from ?? 0)
const to = computed(() => range.value?.to ?? Math.max(end.value, 1))
function zoom(factor: number) {
  const middle = (from.value + to.value) / 2
  const half = ((to.value - from.value) / 2) * factor
  if (middle - half <= 0 && middle + half >= end.value) range.value = null
  else range.value = { from: Math.max(0, middle - half), to: Math.min(end.value, middle + half) }
}
function shift(share: number) {
  const by = share * (to.value - from.value)
  const width = to.value - from.value
  const start = Math.max(0, Math.min(end.value - width, from.value + by))
  range.value = { from: start, to: start + width }
}
const times = (n: number) => (n === 1 ? 'once' : `${n} times`)
const counted = (n: number, one: string, many: string) => (n === 1 ? one : `${n} ${many}`)
const remarks = computed(() => {
  const l = log.value
  if (!l) return []
  return [
    l.whole ? '' : 'its import was cut short: rows are missing at its end; import the file again',
    l.remarks,
    facts.value.gaps.length
      ? `${counted(facts.value.gaps.length, 'one silence,', 'silences, the longest')} ` +
        `${show(facts.value.gaps[0]!.to - facts.value.gaps[0]!.from, 'duration')}`
      : '',
    l.lost ? `${counted(l.lost, 'one row', 'rows')} never came` : '',
    l.repeated ? `${counted(l.repeated, 'one row was', 'rows were')} sent twice and stored once` : '',
    l.late
      ? `${counted(l.late, 'one row came', 'rows came')} late and stand${l.late === 1 ? 's' : ''} where they belong`
      : '',
    l.clockJumps ? `the board’s clock jumped ${times(l.clockJumps)}` : '',
    l.boots > 1 ? `the board started ${times(l.boots)}` : '',
    facts.value.tachLosses.length
      ? `the fan stood ${times(facts.value.tachLosses.length)} although it was fed`
      : '',
    jumpWords.value,
  ].filter(Boolean)
})
/** what changed faster than it can, the largest told */
const jumpWords = computed(() => {
  const [first] = facts.value.jumps.toSorted((a, b) => Math.abs(b.change) - Math.abs(a.change))
  const channel = first && log.value?.channels[first.channel]
  if (!channel) return ''
  const rotates = channel.quantity === 'rotation'
  return (
    `${channel.name} jumped ${times(facts.value.jumps.length)}, most by ` +
    `${show(first.change, rotates ? 'rotation' : 'temperatureDifference')} at ${show(first.at, 'duration')}: ` +
    (rotates ? 'was the drive changed, or is the tach disturbed?' : 'a loose probe, or a cold one put in?')
  )
})
const list_ = ref<{ recordFirst: () => void }>()
usePageKeys([
  { key: 'r', what: 'Record the first instrument that speaks', run: () => list_.value?.recordFirst() },
  { key: 's', what: 'Stop recording', run: () => log.value?.open && stop() },
  { key: '+', what: 'Nearer in the log', run: () => zoom(0.5) },
  { key: '-', what: 'Farther', run: () => zoom(2) },
  {
    key: 'w',
    what: 'The whole log',
    run: () => {
      range.value = null
    },
  },
  { key: 'ArrowLeft', what: 'Earlier', run: () => shift(-0.4) },
  { key: 'ArrowRight', what: 'Later', run: () => shift(0.4) },
])
</script>

<template>
  <div class="stack">
    <LogTabs />
    <div class="layout">
      <div class="stack">
        <section class="sheet stack" aria-label="Log">
          <div class="sheet-head">
            <div class="row">
              <ChoiceField
                v-if="logs.length"
                label="Log"
                hide-label
                :options="
                  logs.map((l) => ({
                    value: l.id,
                    label: `${l.open ? '● ' : ''}${l.name}${l.whole ? '' : ' (cut short)'}`,
                  }))
                "
                :model-value="chosen ?? ''"
                @update:model-value="choose($event)"
              />
              <h2 v-else>No log yet</h2>
              <span v-if="log?.open" class="tag">● recording, {{ show(end, 'duration') }}</span>
              <span v-else-if="log" class="small soft"
                >{{ log.rows.toLocaleString('en').replaceAll(',', ' ') }} rows,
                {{ show(end, 'duration') }}</span
              >
            </div>
            <div v-if="log" class="row tools">
              <el-button v-if="log.open" size="small" type="primary" @click="stop">■ Stop</el-button>
              <el-button size="small" aria-label="Nearer" @click="zoom(0.5)">+</el-button>
              <el-button size="small" aria-label="Farther" @click="zoom(2)">−</el-button>
              <el-button size="small" :disabled="!range" @click="range = null">Whole</el-button>
              <el-button size="small" @click="data.exportAs('csv')">CSV</el-button>
              <el-button size="small" @click="data.exportAs('json')">JSON</el-button>
            </div>
          </div>
          <p v-if="offline" class="bad" role="alert">
            {{ offline }}
          </p>
          <p v-if="loading" class="soft" role="status">Loading the log…</p>
          <p v-if="!log" class="soft">
            Press Record at an instrument, start the stand-in bench box, or
            <NuxtLink :to="`/job/${plan.job.id}/log/import`">import a logger’s file</NuxtLink>.
          </p>
          <LogChart
            v-if="log && view && log.channels.length"
            :channels="log.channels"
            :view="view"
            :summary="summary"
            :facts="facts"
            :soak="soak"
            :soak-channel="watched?.channel ?? null"
            :from="from"
            :to="to"
            @range="
              (a, b) => {
                range = { from: a, to: b }
              }
            "
            @whole="range = null"
          />
          <p v-else-if="log && !loading" class="soft">Waiting for the first row.</p>
          <ul v-if="remarks.length" class="remarks small soft">
            <li v-for="r in remarks" :key="r">
              {{ r }}
            </li>
          </ul>
          <div v-if="log" class="row">
            <TextField label="Name of the log" :model-value="log.name" @update:model-value="rename" />
            <el-button text size="small" @click="remove(log)">Put it aside</el-button>
          </div>
        </section>
      </div>
      <div class="stack">
        <SoakPanel
          v-if="log?.channels.length && view"
          :soak="soak"
          :channels="log.channels"
          :watched="watched"
          @watch="
            (channel, ambient) => {
              watched = { channel, ambient }
            }
          "
        />
        <ToRun
          v-if="log?.channels.length && view"
          :log="log"
          :summary="summary"
          :soak="soak"
          :watched="watched?.channel ?? null"
          :window-s="to - from"
          :end-s="to"
        />
        <InstrumentList
          ref="list_"
          :instruments="instruments"
          :logs="logs"
          :problem="problem"
          @changed="changed"
        />
        <BoxPanel />
      </div>
    </div>
  </div>
</template>

<style scoped>
.layout {
  display: grid;
  grid-template-columns: minmax(0, 1.9fr) minmax(270px, 1fr);
  gap: 12px;
  align-items: start;
}
.tools {
  gap: 5px;
}
.row :deep(.choice) {
  max-width: 250px;
}
.bad {
  color: var(--stop);
  font-weight: 600;
}
.remarks {
  margin: 0;
  padding-left: 18px;
}
.row :deep(.field) {
  min-width: 220px;
}
@media (max-width: 960px) {
  .layout {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
