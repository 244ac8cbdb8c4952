<script setup lang="ts">
import { channelUnits, type NamedChannel } from '#core/measure'
import { timeFormats, type LogTable, type TimeFormat } from '#shared/exchange/log-file'

definePageMeta({ station: 'log' })

const { plan } = useJob('log')
const toast = useToast()
const { table, result, problem, name, doing, progress, open, change, cancel, write } = useLogImport(
  () => plan.value.job.id,
)
const over = ref(false)

function chosen(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (file) void open(file)
}
function dropped(event: DragEvent) {
  over.value = false
  const file = event.dataTransfer?.files[0]
  if (file) void open(file)
}
const endings = [
  { value: '-', label: 'leave out' },
  { value: '', label: 'plain number' },
  ...Object.keys(channelUnits).map((value) => ({ value, label: unitWords[value] ?? value })),
]
const endingOf = (c: NamedChannel | null) =>
  c === null
    ? '-'
    : (Object.entries(channelUnits).find(
        ([, u]) => u.quantity === c.quantity && u.factor === c.factor && u.offset === c.offset,
      )?.[0] ?? '')
const setEnding = (i: number, ending: string) =>
  change((t) => {
    const column = t.columns[i]!
    const kept = column.channel?.name ?? column.heading
    column.channel =
      ending === '-'
        ? null
        : { ...(channelUnits[ending] ?? { quantity: 'number', factor: 1, offset: 0 }), name: kept }
  })
const setName = (i: number, text: string) =>
  change((t) => {
    const { channel } = t.columns[i]!
    if (channel && text.trim()) channel.name = text.trim()
  })
const formats = Object.entries(timeFormats).map(([value, label]) => ({ value: value as TimeFormat, label }))
const timeColumns = computed(() => [
  { value: null as number | null, label: 'none' },
  ...(table.value?.columns.map((c, i) => ({ value: i as number | null, label: c.heading })) ?? []),
])
const setTime = (time: number | null) =>
  change((t: LogTable) => {
    t.time = time
    t.date = null
    if (time === null) t.format = 'rows'
    else {
      t.columns[time]!.channel = null
      if (t.format === 'rows') t.format = 's'
    }
  })
const separators = [
  { value: ',', label: 'comma' },
  { value: ';', label: 'semicolon' },
  { value: '\t', label: 'tab' },
  { value: '|', label: 'bar' },
  { value: ' ', label: 'blank' },
]
const decimals = [
  { value: false, label: 'point: 21.5' },
  { value: true, label: 'comma: 21,5' },
]
const spaced = (n: number) => n.toLocaleString('en').replaceAll(',', ' ')
const words = computed(() => {
  const t = result.value?.tally
  if (!t) return []
  return [
    `${spaced(t.rows)} rows read`,
    t.broken ? `${spaced(t.broken)} rows cannot be read and are left out` : '',
    t.gaps ? `${spaced(t.gaps)} values are missing: gaps, not zeros` : '',
    t.clockJumps ? `the clock jumped back ${t.clockJumps} times; the log goes on where it was` : '',
    t.sameTime ? `${spaced(t.sameTime)} rows share their time with the one before` : '',
    t.repeated ? `${spaced(t.repeated)} rows are whole repeats and stand once` : '',
  ].filter(Boolean)
})
async function take() {
  const log = await write()
  if (!log) return
  toast.show(`${spaced(log.rows)} rows taken.`)
  await navigateTo(`/job/${plan.value.job.id}/log/live?log=${log.id}`)
}
</script>

<script lang="ts">
/** Endings in words. */
const unitWords: Record<string, string> = {
  degC: 'temperature, °C',
  degF: 'temperature, °F',
  K: 'temperature, K',
  Pa: 'pressure, Pa',
  hPa: 'pressure, hPa',
  mmH2O: 'pressure, mmH₂O',
  rpm: 'speed, rpm',
  V: 'voltage, V',
  mV: 'voltage, mV',
  A: 'current, A',
  mA: 'current, mA',
  W: 'power, W',
  dBA: 'level, dB(A)',
  m3h: 'airflow, m³/h',
  cfm: 'airflow, CFM',
  ls: 'airflow, L/s',
  mps: 'air speed, m/s',
  pct: 'share, %',
  Hz: 'frequency, Hz',
}
</script>

<template>
  <div class="stack">
    <LogTabs />
    <section
      class="sheet stack drop"
      :class="{ over }"
      aria-label="Import a logger’s file"
      @dragover.prevent="over = true"
      @dragleave="over = false"
      @drop.prevent="dropped"
    >
      <div class="sheet-head">
        <h2>Import a logger’s file</h2>
        <label class="button small primary"
          >Choose a file<input
            class="visually-hidden"
            type="file"
            accept=".csv,.txt,.tsv,.log,text/csv,text/plain"
            @change="chosen"
        /></label>
      </div>
      <p v-if="!table && progress === null" class="soft">
        Any table of numbers with a time: commas, semicolons or tabs, points or decimal commas, up to a million
        rows. Drop it here or choose it. What is guessed is shown before anything is taken.
      </p>
      <p v-if="problem" class="bad" role="alert">
        {{ problem }}
      </p>
      <div v-if="progress !== null" class="row" role="status">
        <progress :value="progress" /> {{ doing }}, {{ Math.round(100 * progress) }} %
        <el-button size="small" @click="cancel">Give it up</el-button>
      </div>
      <template v-if="table">
        <div class="fields tight">
          <ChoiceField
            label="Time stands in"
            :options="timeColumns"
            :model-value="table.time"
            @update:model-value="setTime($event)"
          />
          <ChoiceField
            label="Written as"
            :options="formats"
            :model-value="table.format"
            @update:model-value="
              change((t) => {
                t.format = $event
              })
            "
          />
          <QuantityField
            v-if="table.format === 'rows'"
            label="Seconds between rows"
            quantity="number"
            required
            :model-value="table.step"
            @update:model-value="
              change((t) => {
                t.step = $event && $event > 0 ? $event : t.step
              })
            "
          />
          <ChoiceField
            label="Separator"
            :options="separators"
            :model-value="table.delimiter"
            @update:model-value="
              change((t) => {
                t.delimiter = $event
              })
            "
          />
          <ChoiceField
            label="Decimals"
            :options="decimals"
            :model-value="table.decimalComma"
            @update:model-value="
              change((t) => {
                t.decimalComma = $event
              })
            "
          />
        </div>
        <div class="scroll-x" tabindex="0" role="region" aria-label="First rows of the file">
          <table class="data">
            <thead>
              <tr>
                <th v-for="(c, i) in table.columns" :key="i">
                  {{ c.heading }}
                  <ChoiceField
                    v-if="i !== table.time && i !== table.date"
                    :label="`Meaning of ${c.heading}`"
                    hide-label
                    :options="endings"
                    :model-value="endingOf(c.channel)"
                    @update:model-value="setEnding(i, $event)"
                  />
                  <span v-else class="tag">time</span>
                  <TextField
                    v-if="c.channel"
                    :label="`Name of ${c.heading}`"
                    hide-label
                    :model-value="c.channel.name"
                    @update:model-value="setName(i, $event)"
                  />
                </th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(row, r) in table.sample" :key="r">
                <td
                  v-for="(c, i) in table.columns"
                  :key="i"
                  class="mono"
                  :class="{ out: !c.channel && i !== table.time && i !== table.date }"
                >
                  {{ row[i] }}
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <div v-if="result?.tally" class="stack">
          <ul class="words">
            <li v-for="w in words" :key="w">
              {{ w }}
            </li>
          </ul>
          <FoldBox v-if="result.tally.brokenSample.length" title="Rows that cannot be read">
            <p v-for="b in result.tally.brokenSample" :key="b.line" class="small mono">
              line {{ b.line }}: {{ b.text }}
            </p>
          </FoldBox>
          <div class="row end">
            <TextField v-model="name" label="Name of the log" />
            <el-button type="primary" :disabled="!!problem || progress !== null" @click="take">
              Take {{ spaced(result.rows) }} rows
            </el-button>
          </div>
        </div>
      </template>
    </section>
  </div>
</template>

<style scoped>
.drop.over {
  outline: 2px dashed var(--teal);
}
.bad {
  color: var(--stop);
  font-weight: 600;
}
th {
  vertical-align: top;
  min-width: 130px;
}
th :deep(.field) {
  margin-top: 4px;
}
.out {
  color: var(--ink-soft);
  text-decoration: line-through;
}
.words {
  margin: 0;
  padding-left: 18px;
}
.end {
  align-items: end;
}
label.button {
  position: relative;
}
progress {
  width: 180px;
  accent-color: var(--teal);
}
</style>
