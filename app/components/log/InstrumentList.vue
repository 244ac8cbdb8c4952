<script setup lang="ts">
import type { InstrumentState, LogSummary } from '#shared/api'
import { serialRates } from '~/composables/useSerial'

/** The instruments: what they say now, recording, new boards with their token, the serial port. */
const props = defineProps<{ instruments: InstrumentState[]; logs: LogSummary[]; problem: string }>()
const emit = defineEmits<{ changed: [logId?: string] }>()
const { plan } = useJob('log')
const { show } = useUnits()
const toast = useToast()
const QUIET_S = 5

const name = ref('')
const nameProblem = ref('')
const token = ref<{ name: string; token: string } | null>(null)
const adding = ref(false)
async function add(kind: 'board' | 'serial') {
  const wanted = name.value.trim().toLowerCase()
  nameProblem.value = !wanted
    ? 'An instrument needs a name.'
    : props.instruments.some((i) => i.name.toLowerCase() === wanted)
      ? 'Another instrument has this name: give each its own, such as “board 2”.'
      : ''
  if (nameProblem.value) return
  const result = await api<{ instrument: { id: string; name: string }; token: string }>('instruments', {
    method: 'POST',
    body: { id: newId('instrument'), name: name.value, kind },
  })
  nameProblem.value = result.ok ? '' : result.message
  if (!result.ok) return
  if (kind === 'board') token.value = { name: result.data.instrument.name, token: result.data.token }
  name.value = ''
  adding.value = false
  emit('changed')
}
async function renew(one: InstrumentState) {
  const result = await api<{ token: string }>(`instruments/${one.id}/token`, { method: 'POST' })
  if (result.ok) token.value = { name: one.name, token: result.data.token }
  else toast.show(result.message, { tone: 'bad' })
}
async function record(one: InstrumentState) {
  const at = new Date()
  const result = await api<LogSummary>(`jobs/${plan.value.job.id}/logs`, {
    method: 'POST',
    body: {
      id: newId('log'),
      name: `${one.name}, ${at.toLocaleString(undefined, { dateStyle: 'short', timeStyle: 'short' })}`,
      origin: 'recorded',
      startedAt: at.toISOString(),
      instrumentId: one.id,
      channels: [],
      remarks: '',
    },
  })
  if (result.ok) emit('changed', result.data.id)
  else toast.show(result.message, { tone: 'bad' })
}
async function stop(one: InstrumentState) {
  const result = await api(`logs/${one.logId}/close`, { method: 'POST' })
  if (!result.ok) return toast.show(result.message, { tone: 'bad' })
  emit('changed')
}
async function remove(one: InstrumentState) {
  const result = await api(`instruments/${one.id}`, { method: 'DELETE' })
  if (!result.ok) return toast.show(result.message, { tone: 'bad' })
  emit('changed')
  toast.show(`${one.name} is put aside; its logs stay.`, {
    action: {
      label: 'Undo',
      run: async () => {
        await api(`instruments/${one.id}/restore`, { method: 'POST' })
        emit('changed')
      },
    },
  })
}
const serialOf = ref<string | null>(null)
const serial = useSerial(() => serialOf.value ?? '')
const rate = ref<number>(115200)
async function connect(one: InstrumentState) {
  serialOf.value = one.id
  await serial.connect(rate.value)
}
/** Where boards send: the door on the bench network, or this computer only. */
const door = ref<string | null>(null)
onMounted(async () => {
  const result = await api<{ address: string | null }>('instruments/address')
  if (result.ok) door.value = result.data.address
})
const address = computed(() => door.value ?? `${location.origin}/api/instruments/readings`)
const said = (one: InstrumentState) =>
  !one.live
    ? 'nothing yet'
    : one.live.ageS > QUIET_S
      ? `silent for ${show(one.live.ageS, 'duration')}`
      : one.live.rateHz
        ? rateWords(one.live.rateHz)
        : 'speaking'
const logName = (one: InstrumentState) =>
  props.logs.find((l) => l.id === one.logId)?.name ?? 'a log of another job'
/** "record" by key: the first that speaks and does not record yet. */
defineExpose({
  recordFirst: () => {
    const one = props.instruments.find((i) => i.live && i.live.ageS < QUIET_S && !i.logId)
    if (one) void record(one)
  },
})
/** How often it sends: two figures are enough. */
function rateWords(hz: number): string {
  const two = (x: number) => Number(x.toPrecision(2))
  return hz < 1 ? `every ${two(1 / hz)} s` : `${two(hz)} a second`
}
</script>

<template>
  <section class="sheet stack" aria-label="Instruments">
    <div class="sheet-head">
      <h2>Instruments</h2>
      <el-button size="small" :aria-expanded="adding" @click="adding = !adding"> + Board or port </el-button>
    </div>
    <p v-if="problem" class="bad" role="alert">
      {{ problem }}
    </p>
    <form v-if="adding" class="stack add" @submit.prevent="add('board')">
      <div class="field">
        <label for="instrument-name">Name of the instrument</label>
        <el-input
          id="instrument-name"
          v-model="name"
          maxlength="120"
          :aria-invalid="nameProblem ? 'true' : undefined"
          :aria-describedby="nameProblem ? 'instrument-problem' : undefined"
        />
        <span v-if="nameProblem" id="instrument-problem" class="error" role="alert">{{ nameProblem }}</span>
      </div>
      <div class="row">
        <el-button size="small" type="primary" native-type="submit">A board on the network</el-button>
        <el-button size="small" @click="add('serial')">On a serial port here</el-button>
      </div>
    </form>
    <div v-if="token" class="add stack" role="status">
      <p>
        Token of <strong>{{ token.name }}</strong>, shown once: <code>{{ token.token }}</code>
      </p>
      <pre class="small">
curl -X POST {{ address }} \
  -H "Authorization: Bearer {{ token.token }}" \
  --data-binary $'# boot=a1\n0 0 sink_degC=24.5 fan_rpm=1500\n'</pre>
      <p class="small soft">
        A row is: running number, milliseconds since the start, name_unit=value. The answer’s
        <code>next</code> tells up to where all is safe; send the rest again.
      </p>
      <p v-if="!door" class="small soft">
        This address is for programs on this computer. For boards on the network start Redpoll with
        <code>npm start -- --bench 0.0.0.0:3100</code>: then readings are taken there, and nothing else.
      </p>
      <div>
        <el-button size="small" @click="token = null">I have it</el-button>
      </div>
    </div>
    <p v-if="!instruments.length && !adding" class="soft">
      No instrument yet. Start the stand-in bench box below, or add a board of your own.
    </p>
    <ul class="list">
      <li v-for="one in instruments" :key="one.id">
        <div class="row head">
          <StateMark
            :state="
              one.live?.tachLost || one.live?.problem
                ? 'stop'
                : one.live && one.live.ageS <= QUIET_S
                  ? 'settled'
                  : 'not-begun'
            "
          />
          <strong>{{ one.name }}</strong>
          <span class="small soft">{{ said(one) }}</span>
        </div>
        <p v-if="one.live?.tachLost" class="bad" role="alert">
          The fan stands although it has voltage: tach lost.
        </p>
        <p v-if="one.live?.problem" class="bad" role="alert">
          {{ one.live.problem }}
        </p>
        <p v-if="one.live?.values.length" class="small mono values">
          <span v-for="v in one.live.values" :key="v.name + v.quantity"
            ><span class="soft">{{ v.name }}</span>
            {{ v.value === null ? '–' : show(v.value, v.quantity) }}</span
          >
        </p>
        <p v-if="one.live?.refused" class="small soft">
          {{ one.live.refused === 1 ? 'One line' : `${one.live.refused} lines` }} could not be read, last
          {{ one.live.lastRefusal }}.
        </p>
        <div class="row">
          <el-button v-if="one.logId" size="small" @click="stop(one)"> ■ Stop recording </el-button>
          <el-button v-else size="small" type="primary" @click="record(one)">● Record</el-button>
          <template v-if="one.kind === 'serial'">
            <el-button
              v-if="serial.connected.value && serialOf === one.id"
              size="small"
              @click="serial.disconnect()"
            >
              Disconnect
            </el-button>
            <template v-else>
              <ChoiceField
                v-model="rate"
                label="Rate of the port"
                hide-label
                :options="serialRates.map((value) => ({ value: value as number, label: `${value} baud` }))"
              />
              <el-button
                size="small"
                :disabled="!serial.supported"
                :title="serial.supported ? undefined : 'This browser has no serial port'"
                @click="connect(one)"
              >
                Connect
              </el-button>
            </template>
          </template>
          <el-button v-if="one.kind === 'board'" text size="small" @click="renew(one)"> New token </el-button>
          <el-button
            v-if="one.kind !== 'stand-in'"
            text
            size="small"
            class="icon"
            :aria-label="`Put ${one.name} aside`"
            @click="remove(one)"
          >
            ×
          </el-button>
          <span v-if="one.logId" class="small soft">to “{{ logName(one) }}”</span>
        </div>
        <p v-if="serialOf === one.id && serial.problem.value" class="bad" role="alert">
          {{ serial.problem.value }}
        </p>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.add {
  background: var(--sheet-soft);
  border-radius: 6px;
  padding: 10px;
  gap: 8px;
}
pre {
  margin: 0;
  overflow-x: auto;
  font-family: var(--mono);
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
code {
  overflow-wrap: anywhere;
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 10px;
}
.list li {
  display: grid;
  gap: 5px;
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
.list li:first-child {
  border-top: 0;
  padding-top: 0;
}
.head {
  gap: 7px;
}
.values {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
}
.bad {
  color: var(--stop);
  font-weight: 600;
}
.list :deep(.choice) {
  min-height: 28px;
  width: auto;
}
</style>
