<script setup lang="ts">
import { until } from '@vueuse/core'
import { plannedFans, driveVolts } from '#core/document'
import type { BoxState } from '#shared/api'
import type { BoxOrder } from '#shared/schemas/log'
import { boxSchema } from '#shared/schemas/log'

/** The stand-in bench box: a simulated device that sends what a real board would send, with this plan's equipment on it. */
const { store, plan, report } = useJob('log')
const toast = useToast()
const running = ref(false)
const elsewhere = ref(false)
const simulatedS = ref(0)
const { show } = useUnits()
/** what reaches the picked fans */
const plannedV = computed(() => report.value.power.fanV ?? driveVolts(plan.value) ?? 12)
const order = reactive<BoxOrder>({
  which: 'as-found',
  volts: plan.value.job.existingV ?? plannedV.value,
  rateHz: 1,
  speed: 20,
  doorOpen: false,
  tachPulled: false,
  dropouts: 0.01,
  noise: 1,
  controlled: false,
  fault: 'none',
  unplugged: false,
})
/** what its control does, while it obeys one */
const steering = ref<BoxState['steering']>(null)
let timer: ReturnType<typeof setInterval> | undefined
async function look(first = false) {
  const result = await api<{ running: BoxState | null }>('box')
  if (!result.ok) return
  running.value = result.data.running?.jobId === plan.value.job.id
  elsewhere.value = result.data.running !== null && !running.value
  simulatedS.value = result.data.running?.simulatedS ?? 0
  steering.value = running.value ? (result.data.running?.steering ?? null) : null
  if (first && running.value) Object.assign(order, result.data.running!.order)
}
onMounted(() => {
  void look(true)
  timer = setInterval(look, 1500)
})
onBeforeUnmount(() => clearInterval(timer))
async function send() {
  // the box puts on what the server knows of the plan
  if (store.saveState !== 'saved') await until(() => store.saveState === 'saved').toBeTruthy({ timeout: 3000 })
  const result = await api(`jobs/${plan.value.job.id}/box`, { method: 'POST', body: { ...order } })
  if (!result.ok) return toast.show(result.message, { tone: 'bad' })
  running.value = true
}
watch(order, () => {
  if (running.value) void send()
})
watch(
  () => order.which,
  (which) => {
    order.volts = which === 'as-planned' ? plannedV.value : (plan.value.job.existingV ?? 12)
  },
)
async function stop() {
  const result = await api('box', { method: 'DELETE' })
  if (!result.ok) return toast.show(result.message, { tone: 'bad' })
  running.value = false
}
const what = computed(() => [
  {
    value: 'as-found' as const,
    label: plan.value.job.existingFanId ? 'as found: the old fan' : 'as found: no fan',
  },
  ...(plannedFans(plan.value) ? [{ value: 'as-planned' as const, label: 'as planned: the picked fan' }] : []),
])
const faults: { value: BoxOrder['fault']; label: string }[] = [
  { value: 'none', label: 'nothing' },
  { value: 'swapped', label: 'the fan’s pair swapped' },
  { value: 'starved', label: 'a supply that cannot give the current' },
  { value: 'stuck', label: 'blades held' },
  { value: 'covered', label: 'outlet covered' },
]
const speeds = [1, 5, 20, 60].map((value) => ({
  value,
  label: value === 1 ? 'in real time' : `${value} times as fast`,
}))
const rates = [0.1, 0.5, 1, 2, 5, 10, 20, 50].map((value) => ({
  value,
  label: value < 1 ? `every ${1 / value} s` : `${value} a second`,
}))
</script>

<template>
  <section class="sheet stack" aria-label="Stand-in bench box">
    <div class="sheet-head">
      <h2>Stand-in bench box</h2>
      <el-button size="small" :class="{ primary: !running }" @click="running ? stop() : send()">
        {{ running ? 'Stop it' : 'Start it' }}
      </el-button>
    </div>
    <p class="small soft">
      A simulated device for trying things out: probes that warm up, a tach, pressure, flow, level, volts and
      amps.
      <template v-if="running"> It has run for {{ show(simulatedS, 'duration') }} of its own time. </template>
      <template v-if="elsewhere"> It now stands on another job; starting it here takes it over. </template>
    </p>
    <div class="fields tight">
      <ChoiceField v-model="order.which" label="On it" :options="what" />
      <QuantityField
        :model-value="order.volts"
        label="Bench supply"
        quantity="voltage"
        required
        :schema="boxSchema.shape.volts"
        @update:model-value="order.volts = $event ?? order.volts"
      />
      <ChoiceField v-model="order.rateHz" label="Rows" :options="rates" />
      <ChoiceField v-model="order.speed" label="Its time runs" :options="speeds" />
      <ChoiceField v-model="order.fault" label="Wrong with it" :options="faults" />
    </div>
    <div class="row small">
      <el-checkbox v-model="order.doorOpen">door open</el-checkbox>
      <el-checkbox v-model="order.tachPulled">tach wire pulled</el-checkbox>
      <el-checkbox v-model="order.unplugged">fan unplugged, meter at the plug</el-checkbox>
      <el-checkbox v-if="plan.controls.length && order.which === 'as-planned'" v-model="order.controlled"
        >obeys the planned control</el-checkbox
      >
      <el-checkbox :model-value="order.dropouts > 0.05" @change="order.dropouts = $event ? 0.15 : 0.01"
        >bad wires</el-checkbox
      >
    </div>
    <p v-if="steering" class="small" role="status">
      <StateMark :state="steering.alarm ? 'stop' : 'settled'" />
      Its control asks for {{ show(steering.duty, 'ratio') }}.
      <strong v-if="steering.alarm">Alarm: the tach tells no speed, or too little.</strong>
    </p>
  </section>
</template>

<style scoped>
.row label {
  gap: 5px;
  min-height: 26px;
}
</style>
