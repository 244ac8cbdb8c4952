<script setup lang="ts">
import { driveLevels, modelFan } from '../../../core/plan'

/** The pick's drive voltage, to be dragged: flow, noise, current and the whole chain follow. */
const job = useJobStore()
const shelf = useShelfStore()
const { show } = useUnits()
const pick = computed(() => job.plan?.pick ?? null)
const limits = computed(() => {
  const fan = shelf.known.find(f => f.id === pick.value?.fanId)
  const made = fan ? modelFan(fan) : null
  if (!made?.ok) return null
  return { low: driveLevels(made.model, 10)[0]!, high: Math.min(made.model.maxV, made.model.fan.ratedV * 1.1), start: made.model.startV, rated: made.model.fan.ratedV }
})
const STEP = 0.1
function set(event: Event) {
  const volts = Number((event.target as HTMLInputElement).value)
  job.change(d => driveAt(d, volts), 'pick.drive')
}
const current = computed(() => job.report?.pick?.candidate.currentA ?? null)
</script>

<template>
  <div
    v-if="limits && pick"
    class="drive"
  >
    <label for="drive-volts">Drive <strong class="mono">{{ show(pick.driveV, 'voltage') }}</strong></label>
    <input
      id="drive-volts"
      type="range"
      :min="limits.low"
      :max="limits.high"
      :step="STEP"
      :value="pick.driveV"
      :aria-valuetext="show(pick.driveV, 'voltage')"
      @input="set"
    >
    <span class="small soft">{{ show(limits.low, 'voltage') }} to {{ show(limits.high, 'voltage') }}, starts at {{ show(limits.start, 'voltage') }}<template v-if="current !== null">; draws {{ show(current, 'current') }}</template></span>
  </div>
</template>

<style scoped>
.drive { display: grid; grid-template-columns: auto minmax(120px, 1fr) auto; gap: 10px; align-items: center; margin-top: 8px; }
.drive input { accent-color: var(--cap); width: 100%; min-height: 26px; }
@media (max-width: 760px) { .drive { grid-template-columns: 1fr; } }
</style>
