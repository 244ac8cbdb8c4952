<script setup lang="ts">
import { gateResolution, noPulseTimeout, TACH_ALARM } from '#core/control'
import type { Control } from '#core/document'

/** What an alarm on the tach is set to, with this fan's speed. */
const props = defineProps<{ control: Control }>()
const job = useJobStore()
const { show } = useUnits()
const rated = computed(() => job.report!.selection?.fanArray.model.fan.ratedRpm ?? null)
const lowest = computed(() =>
  rated.value === null ? null : rated.value * Math.max(0.1, props.control.minDuty ?? 0.3),
)
const words = computed(() => {
  const { alarmShare, alarmHoldS, gateS } = props.control
  const share = alarmShare ?? TACH_ALARM.fraction
  const hold = show(alarmHoldS ?? TACH_ALARM.holdS, 'duration')
  const list = [
    `Alarm once the speed was below ${show(share, 'ratio')} of what is expected for ${hold}; one good reading takes it back.`,
  ]
  if (lowest.value !== null)
    list.push(
      `No pulse for ${show(noPulseTimeout(lowest.value), 'duration')} is a stopped fan (lowest speed ${show(lowest.value, 'rotation')}).`,
    )
  if (gateS !== null) {
    const step = gateResolution(gateS)
    const coarse =
      lowest.value !== null && step > 0.1 * lowest.value
        ? ': too coarse at its lowest; measure the time between pulses instead'
        : ''
    list.push(
      `Counting for ${show(gateS, 'duration')} tells the speed in steps of ${show(step, 'rotation')}${coarse}.`,
    )
  } else list.push('The time between two pulses tells a slow fan better than counting them.')
  return list
})
</script>

<template>
  <p v-for="w in words" :key="w" class="small">{{ w }}</p>
</template>
