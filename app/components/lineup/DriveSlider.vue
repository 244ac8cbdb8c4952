<script setup lang="ts">
import { driveVolts, dutyOf, plannedFans, setDrive, setDuty } from '#core/document'
import { driveLevels } from '#core/selection'
import { arrayLimits, lowestDuty, membersOf } from '#core/system'

/** The pick's drive voltage, to be dragged: flow, noise, current and the whole chain follow. */
const job = useJobStore()
const { show } = useUnits()
const planned = computed(() => job.plan !== null && plannedFans(job.plan) !== null)
const duty = computed(() => job.plan && dutyOf(job.plan))
/** what reaches the fans: that of the feed where there is one */
const volts = computed(() => job.report?.selection?.candidate.driveV ?? (job.plan && driveVolts(job.plan)) ?? 0)
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
const steer = (to: number | null) => job.change((d) => setDuty(d, to), 'duty')
const set = (wanted: number) =>
  job.change((d) => setDrive(d, { volts: wanted, converterId: newId('converter') }), 'selection.drive')
const current = computed(() => job.report?.selection?.candidate.currentA ?? null)
</script>

<template>
  <div v-if="limits && planned" class="drive">
    <span aria-hidden="true"
      >Drive <strong class="mono">{{ show(volts, 'voltage') }}</strong></span
    >
    <SliderField
      label="Drive voltage"
      :min="limits.low"
      :max="limits.high"
      :step="0.1"
      :model-value="volts"
      :text="(v) => show(v, 'voltage')"
      @update:model-value="set"
    />
    <span class="small soft"
      >{{ show(limits.low, 'voltage') }} to {{ show(limits.high, 'voltage') }}, starts at
      {{ show(limits.start, 'voltage')
      }}<template v-if="current !== null">; draws {{ show(current, 'current') }}</template></span
    >
    <template v-if="pwm">
      <el-checkbox :model-value="duty !== null" @change="steer(duty === null ? 1 : null)"
        >PWM <strong v-if="duty !== null" class="mono">{{ show(duty, 'ratio') }}</strong></el-checkbox
      >
      <SliderField
        v-if="duty !== null"
        label="Duty on the PWM wire"
        :min="pwm.low"
        :max="1"
        :step="0.01"
        :model-value="duty"
        :text="(v) => show(v, 'ratio')"
        @update:model-value="steer"
      />
      <span class="small soft">{{
        duty === null ? 'on the fourth wire' : `keeps turning from ${show(pwm.low, 'ratio')}`
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
.drive > .el-slider {
  grid-column: 2;
}
.drive > .soft {
  grid-column: 3;
}
@media (max-width: 760px) {
  .drive {
    grid-template-columns: 1fr;
  }
  .drive > .el-slider,
  .drive > .soft {
    grid-column: 1;
  }
}
</style>
