<script setup lang="ts">
import { FEW_STARTS, SNUBBER, USUAL, type Advice } from '#core/day'
import type { Control } from '#core/document'

/** What the formulas say of the control in front: cycles, overshoot, contact, quiet interval, run-on. */
const props = defineProps<{ advice: Advice; control: Control }>()
const emit = defineEmits<{ set: [values: Partial<Control>] }>()
const { show } = useUnits()
const kelvin = (k: number) => show(k, 'temperatureDifference')
const years = (y: number) => (y > 30 ? 'over 30 years' : `${y.toPrecision(2)} years`)
const lines = computed(() => {
  const { thermostat: t, quiet, runOn, contact } = props.advice
  const list: string[] = []
  if (t?.state === 'never-on') list.push('With the most load on a usual day it never switches on.')
  if (t?.state === 'always-on') list.push('With the most load on a usual day it never switches off again.')
  if (t && t.perHour !== null && t.onS !== null && t.offS !== null)
    list.push(
      `At the most load: ${t.perHour.toPrecision(2)} starts an hour, on ${show(t.onS, 'duration')}, off ${show(t.offS, 'duration')}.`,
    )
  if (t && t.overK + t.underK > 0.2)
    list.push(`The sensor’s lag lets it go ${kelvin(t.overK)} above “on” and ${kelvin(t.underK)} below “off”.`)
  if (contact && Number.isFinite(contact.years))
    list.push(
      `The contact lasts ${years(contact.years)}${contact.assumed ? ', if it is made for 100 000 operations (assumed)' : ''}.`,
    )
  if (contact && Number.isFinite(contact.years)) {
    const most = (contact.years * USUAL.mechanical) / (props.control.operations ?? USUAL.operations)
    list.push(
      props.control.snubber
        ? `A diode or snubber takes the spark: between that and the ${years(most)} of its mechanics (common practice).`
        : `On DC the spark wears it. A diode across the fan (stripe to plus), or ${SNUBBER.ohm} Ω and ` +
            `${1e6 * SNUBBER.farad} µF in series across the contact, bring it towards the ${years(most)} of its ` +
            'mechanics (common practice).',
    )
  }
  if (quiet) {
    const limit = show(quiet.limitC, 'temperature')
    list.push(
      quiet.holdsS === null
        ? `The quiet level holds for ever: ${quiet.part} settles at ${show(quiet.settlesC, 'temperature')}, below ${limit}.`
        : `The quiet level holds ${show(quiet.holdsS, 'duration')} at the most load, until ${quiet.part} is at ${limit}.`,
    )
  }
  if (quiet)
    list.push(
      quiet.foreverDuty === null
        ? 'No level of these fans holds the most load for ever.'
        : `${show(quiet.foreverDuty, 'ratio')} holds the most load for ever.`,
    )
  if (runOn)
    list.push(
      runOn.why === 'air'
        ? `The air is clear ${show(runOn.seconds, 'duration')} after the work.`
        : `What is warm is cool again after ${show(runOn.seconds, 'duration')}.`,
    )
  return list
})
const band = computed(() => props.advice.thermostat?.bandK ?? null)
const thresholds = computed(() =>
  props.control.school === 'thermostat' && props.control.sense === 'temperature'
    ? props.advice.thresholds
    : null,
)
const differs = computed(
  () =>
    thresholds.value !== null &&
    !thresholds.value.problem &&
    (props.control.onC !== thresholds.value.onC || props.control.offC !== thresholds.value.offC),
)
</script>

<template>
  <div class="stack small">
    <p v-for="l in lines" :key="l">{{ l }}</p>
    <p v-if="band !== null && control.onC !== null">
      <StateMark state="fix" /> A band of {{ kelvin(band) }} brings it down to {{ FEW_STARTS }} an hour.
      <el-button size="small" @click="emit('set', { offC: Math.round(10 * (control.onC - band)) / 10 })">
        Off at {{ show(control.onC - band, 'temperature') }}
      </el-button>
    </p>
    <p v-if="thresholds?.problem"><StateMark state="fix" /> {{ thresholds.problem }}</p>
    <p v-else-if="differs && thresholds">
      For this job: on {{ show(thresholds.onC, 'temperature') }}, off
      {{ show(thresholds.offC, 'temperature') }}.
      <el-button size="small" @click="emit('set', { onC: thresholds.onC, offC: thresholds.offC })">
        Put them in
      </el-button>
    </p>
    <p v-if="advice.runOn && control.runOnS !== Math.ceil(advice.runOn.seconds / 60) * 60">
      <el-button
        size="small"
        @click="emit('set', { runOnS: Math.ceil(advice.runOn.seconds / 60) * 60, runOnFrom: 'always-on' })"
      >
        Run on for {{ show(Math.ceil(advice.runOn.seconds / 60) * 60, 'duration') }}
      </el-button>
    </p>
  </div>
</template>
