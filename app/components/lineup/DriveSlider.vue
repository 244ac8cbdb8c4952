<script setup lang="ts">
import { setDrive } from '#core/document'
import { driveLevels } from '#core/selection'
import { arrayLimits, lowestDuty, membersOf } from '#core/system'

/** The pick's drive voltage, to be dragged: flow, noise, current and the whole chain follow. */
const job = useJobStore()
const { show } = useUnits()
const selection = computed(() => job.plan?.selection ?? null)
/** what reaches the fans: that of the feed where there is one */
const volts = computed(() => job.report?.selection?.candidate.driveV ?? selection.value?.driveV ?? 0)
const fanArray = computed(() => job.report?.selection?.fanArray ?? null)
const limits = computed(() => {
  if (!fanArray.value) return null
  const { maxV, startV } = arrayLimits(fanArray.value)
  const { model } = fanArray.value
  return { low: driveLevels(model, 10)[0]!, high: Math.min(maxV, model.fan.ratedV * 1.1), start: startV }
})
/** The PWM wire can be used where every fan of the group has one. */
const pwm = computed(() =>
  fanArray.value && membersOf(fanArray.value).every((m) => m.fan.wires === 4)
    ? { low: Math.max(...membersOf(fanArray.value).map((m) => lowestDuty(m).duty)) }
    : null,
)
const setDuty = (duty: number | null) =>
  job.change((d) => {
    if (d.selection) d.selection.duty = duty
  }, 'selection.duty')
const STEP = 0.1
function set(event: Event) {
  const wanted = Number((event.target as HTMLInputElement).value)
  job.change((d) => setDrive(d, { volts: wanted, converterId: newId('converter') }), 'selection.drive')
}
const current = computed(() => job.report?.selection?.candidate.currentA ?? null)
</script>

<template>
  <div v-if="limits && selection" class="drive">
    <label for="drive-volts"
      >Drive <strong class="mono">{{ show(volts, 'voltage') }}</strong></label
    >
    <input
      id="drive-volts"
      type="range"
      :min="limits.low"
      :max="limits.high"
      :step="STEP"
      :value="volts"
      :aria-valuetext="show(volts, 'voltage')"
      @input="set"
    />
    <span class="small soft"
      >{{ show(limits.low, 'voltage') }} to {{ show(limits.high, 'voltage') }}, starts at
      {{ show(limits.start, 'voltage')
      }}<template v-if="current !== null">; draws {{ show(current, 'current') }}</template></span
    >
    <template v-if="pwm">
      <label
        ><input
          type="checkbox"
          :checked="selection.duty !== null"
          @change="setDuty(selection.duty === null ? 1 : null)"
        />
        PWM
        <strong v-if="selection.duty !== null" class="mono">{{ show(selection.duty, 'ratio') }}</strong></label
      >
      <input
        v-if="selection.duty !== null"
        type="range"
        aria-label="Duty on the PWM wire"
        :min="pwm.low"
        max="1"
        step="0.01"
        :value="selection.duty"
        :aria-valuetext="show(selection.duty, 'ratio')"
        @input="setDuty(Number(($event.target as HTMLInputElement).value))"
      />
      <span class="small soft">{{
        selection.duty === null ? 'on the fourth wire' : `keeps turning from ${show(pwm.low, 'ratio')}`
      }}</span>
    </template>
  </div>
</template>

<style scoped>
.drive {
  display: grid;
  grid-template-columns: auto minmax(120px, 1fr) auto;
  gap: 10px;
  align-items: center;
  margin-top: 8px;
}
.drive input[type='range'] {
  accent-color: var(--cap);
  width: 100%;
  min-height: 26px;
  grid-column: 2;
}
.drive > span {
  grid-column: 3;
}
@media (max-width: 760px) {
  .drive {
    grid-template-columns: 1fr;
  }
  .drive input[type='range'],
  .drive > span {
    grid-column: 1;
  }
}
</style>
