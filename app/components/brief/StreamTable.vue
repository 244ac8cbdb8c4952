<script setup lang="ts">
import { streamJobSchema, streamName, upperLimit, type Job } from '#core/document'
import type { StreamSummary } from '#core/plan'

/** Every air stream of the machine in a line, and all fans together at the listener. */
const { store, plan, report, put } = useJob('brief')
const { show } = useUnits()
const fans = useFanOptions('not on the shelf')
const several = computed(() => report.value.streams.length > 1)
const sound = computed(() => report.value.sound)
const job = computed(() => plan.value.job)
/** What the stream in front is called, in the question about its fan. */
const stays = computed(() => `${streamName(plan.value)}: its present fan stays as it is`)
const fields = computed((): Field<keyof Job>[] => [
  {
    key: 'existingFanId',
    label: 'Fan that is in it',
    options: fans.value,
  },
  { key: 'existingCount', label: 'How many', quantity: 'number' },
  { key: 'existingV', label: 'It runs at', quantity: 'voltage' },
  { key: 'heardDbA', label: 'Heard of it alone', quantity: 'level', hint: 'at the listener' },
])
const bases = { heard: 'heard', predicted: 'predicted', claim: 'from the claim alone' } as const
function levelOf({ id }: StreamSummary) {
  const s = sound.value.sources.find((x) => x.id === id)
  return s?.level == null ? '–' : `${show(s.level, 'level')} ${s.basis ? bases[s.basis] : ''}`
}
const flowWords = (s: StreamSummary) =>
  [
    s.flow === null ? '–' : show(s.flow, 'flow'),
    s.need === null ? '' : `of ${show(s.need, 'flow')}`,
    s.ofLabel === null ? '' : `(${s.ofLabel.toFixed(2)} of the label)`,
  ]
    .filter(Boolean)
    .join(' ')
const fed = (s: StreamSummary) =>
  [s.volts === null ? '' : show(s.volts, 'voltage'), s.currentA === null ? '' : show(s.currentA, 'current')]
    .filter(Boolean)
    .join(', ') || '–'
const rows = computed(() =>
  report.value.streams.map((s) => ({
    id: s.id,
    name: s.name,
    fans: `${s.fanName || 'none yet'}${s.asIs ? ', stays' : ''}`,
    flow: flowWords(s),
    fed: fed(s),
    level: levelOf(s),
  })),
)
const limit = computed(() => upperLimit(plan.value.targets, 'level'))
/** The order in which fans are silenced, and what is left then, in words. */
const descent = computed(() => {
  // what is left under the room itself nobody hears any more
  const room = job.value.roomDbA
  const heard = sound.value.order.findIndex((o) => room !== null && o.level <= room)
  const steps = sound.value.order.slice(0, heard < 0 ? undefined : heard).filter((o) => o.left !== null)
  const words = steps.map(({ name, left }, i) => {
    const gone = i ? 'these' : 'it'
    return `${i ? 'then' : 'Quieten first'} ${name}: ${show(left, 'level')} without ${gone}`
  })
  const end = room === null ? '' : `; then the room itself, ${show(room, 'level')}`
  return words.length ? `${words.join('; ')}${end}.` : ''
})
const shown = computed(() => plan.value.stream)
const { addStream } = useNewStream()
</script>

<template>
  <section class="sheet stack" aria-label="Air streams of the machine">
    <h2>{{ several ? 'The whole machine' : 'More than one air stream?' }}</h2>
    <template v-if="several">
      <el-table :data="rows" row-key="id" size="small" aria-label="Air streams">
        <el-table-column label="Stream" min-width="110">
          <template #default="{ row }">
            <strong v-if="row.id === shown" aria-current="true">{{ row.name }}</strong>
            <el-button v-else link type="primary" @click="store.chosen = row.id">{{ row.name }}</el-button>
          </template>
        </el-table-column>
        <el-table-column label="Fans" min-width="130">
          <template #default="{ row }">{{ row.fans }}</template>
        </el-table-column>
        <el-table-column label="Airflow, of its need" min-width="150">
          <template #default="{ row }"
            ><span class="mono">{{ row.flow }}</span></template
          >
        </el-table-column>
        <el-table-column label="Fed" min-width="100">
          <template #default="{ row }"
            ><span class="mono">{{ row.fed }}</span></template
          >
        </el-table-column>
        <el-table-column label="At the listener" min-width="120">
          <template #default="{ row }"
            ><span class="mono">{{ row.level }}</span></template
          >
        </el-table-column>
      </el-table>
      <p v-if="sound.total !== null" aria-label="All fans together">
        All fans together:
        <span class="mono"
          >{{ show(sound.total, 'level') }} ({{ show(sound.low!, 'level') }} to
          {{ show(sound.high!, 'level') }})</span
        ><template v-if="limit !== null">, wanted at most {{ show(limit, 'level') }}</template
        >.
        {{ descent }}
      </p>
      <p v-if="sound.unknown.length" class="small soft">
        Not in the sum, for no level is known: {{ sound.unknown.join(', ') }}. Type what is heard of it alone.
      </p>
      <el-switch
        :model-value="job.asIs"
        :active-text="stays"
        :aria-label="stays"
        @change="put('asIs', $event === true, 'Present fan')"
      />
      <FieldGrid
        v-if="job.asIs"
        class="four"
        :record="job"
        :fields="fields"
        :shape="streamJobSchema.shape"
        @set="put"
      />
    </template>
    <p v-else class="small soft">
      Where a machine has several fans at different places, a hot part, a board, a supply, give each an air
      stream of its own: need, path and fan for itself, sound and current together.
    </p>
    <div v-if="!several">
      <el-button size="small" @click="addStream">Add an air stream</el-button>
    </div>
  </section>
</template>

<style scoped>
.four {
  grid-template-columns: repeat(4, minmax(0, 1fr));
}
@media (max-width: 760px) {
  .four {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
