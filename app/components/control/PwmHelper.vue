<script setup lang="ts">
import { PWM_INPUT_A, PWM_WINDOW, pwmSinkCurrent, timerFrequency, timerTopFor } from '#core/control'
import { pwmOf } from '#core/day'
import type { Control } from '#core/document'

/** What a timer makes of its numbers, what the wire asks of its driver, and what fails. */
const props = defineProps<{ control: Control; fans: number; wire: boolean }>()
const emit = defineEmits<{ set: [values: Partial<Control>] }>()
const { show } = useUnits()
const made = computed(() => pwmOf(props.control))
const inWindow = computed(
  () => made.value.hz !== null && made.value.hz >= PWM_WINDOW.low && made.value.hz <= PWM_WINDOW.high,
)
const FINE = 50
const suggestion = computed(() => {
  const { clockHz, counting } = props.control
  if (clockHz === null) return null
  const top = timerTopFor(clockHz, PWM_WINDOW.target, counting)
  if (top < 2) return null
  return { top, hz: timerFrequency(clockHz, 1, top, counting) }
})
const words = computed(() => {
  const { hz, steps } = made.value
  const list: string[] = []
  if (hz !== null)
    list.push(
      props.wire
        ? `${show(hz, 'frequency')}: ${inWindow.value ? 'inside' : 'outside'} the 21 to 28 kHz that fans with a PWM input want.`
        : `${show(hz, 'frequency')}${hz > 60 && hz < 20_000 ? ': heard; chop above 20 kHz, or filter it.' : '.'}`,
    )
  if (steps !== null) list.push(`${steps} steps${steps < FINE ? ': so few are heard as steps' : ''}.`)
  if (props.wire) {
    list.push(
      `Its driver must sink ${show(pwmSinkCurrent(props.fans), 'current')} (${props.fans} × ${show(PWM_INPUT_A, 'current')}), ` +
        'open drain, never above 5.25 V; a lead up to half a metre, twisted with ground.',
    )
    list.push(
      props.control.inverted
        ? 'A transistor turns the duty round: 100 % at the pin stops the fan. Turn it in the program too; ' +
            'with the transistor off the fan runs full.'
        : 'An open PWM wire is full speed by itself: that is its safe side.',
    )
  } else
    list.push(
      'A cap lowers the mean, not the peak: the fan’s electronics see the whole supply in every pulse. ' +
        'On a higher supply use a converter.',
    )
  return list
})
</script>

<template>
  <div class="stack small">
    <p v-if="suggestion && (made.hz === null || !inWindow)">
      For 25 kHz: prescaler 1, TOP {{ suggestion.top }}, {{ show(suggestion.hz, 'frequency') }}.
      <el-button size="small" @click="emit('set', { prescaler: 1, timerTop: suggestion.top, pwmHz: null })">
        Put it in
      </el-button>
    </p>
    <p v-for="w in words" :key="w">{{ w }}</p>
    <p class="soft">
      One timer gives one frequency to all its channels; one that keeps the time must not be set anew. 4-wire
      specification, from memory.
    </p>
  </div>
</template>
