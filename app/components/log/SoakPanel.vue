<script setup lang="ts">
import type { SoakReport } from '#core/heat'
import type { Channel } from '#core/measure'

/** Where the soak will end, and whether that may be believed yet. */
const props = defineProps<{
  soak: SoakReport | null
  channels: Channel[]
  watched: { channel: number; ambient: number | null } | null
}>()
const emit = defineEmits<{ watch: [channel: number, ambient: number | null] }>()
const { show } = useUnits()
const temperatures = computed(() =>
  props.channels
    .map((c, i) => ({ value: i, label: c.name }))
    .filter((_, i) => props.channels[i]!.quantity === 'temperature'),
)
const ambients = computed(() => [
  { value: null as number | null, label: 'none: as read' },
  ...temperatures.value.filter((t) => t.value !== props.watched?.channel),
])
const words = computed(() => {
  const s = props.soak
  if (!s) return ''
  if (s.state === 'steady') return 'Steady: nothing worth waiting for is left.'
  if (s.state === 'predicted')
    return s.to95S === 0 ? '95 % of the rise are done.' : `95 % in ${show(s.to95S, 'duration')}.`
  return `Still rising; the end may not be stated yet: ${s.why}.`
})
function toCome({ remaining, state }: NonNullable<typeof props.soak>): string {
  if (remaining === null || state === 'steady') return ''
  return `; ${show(Math.abs(remaining), 'temperatureDifference')} still to come`
}
const details = computed(() => {
  const s = props.soak
  if (!s) return ''
  return [
    s.tau === null ? '' : `Time constant ${show(s.tau, 'duration')}${toCome(s)}.`,
    // where it is steady a slope is noise
    s.slope === null || s.state === 'steady'
      ? ''
      : `Now ${(60 * s.slope).toFixed(3).replace('-', '−')} K a minute.`,
    s.changedAt === null
      ? ''
      : `Something changed before ${show(s.changedAt, 'duration')}: only what came after is fitted.`,
    s.final === null ? '' : 'The range is that of the curve; the probe’s own error comes on top.',
  ]
    .filter(Boolean)
    .join(' ')
})
</script>

<template>
  <section class="sheet stack" aria-label="Soak">
    <h2>Where will it end?</h2>
    <p v-if="!temperatures.length" class="soft">No temperature is logged.</p>
    <template v-else-if="watched">
      <div class="fields tight">
        <ChoiceField
          label="Watch"
          :options="temperatures"
          :model-value="watched.channel"
          @update:model-value="emit('watch', $event, watched.ambient)"
        />
        <ChoiceField
          label="Over the ambient of"
          :options="ambients"
          :model-value="watched.ambient"
          @update:model-value="emit('watch', watched.channel, $event)"
        />
      </div>
      <template v-if="soak">
        <p class="end">
          <StateMark
            :state="soak.state === 'steady' ? 'settled' : soak.state === 'predicted' ? 'note' : 'not-begun'"
          />
          <span v-if="soak.final !== null" class="mono big"
            >{{ soak.state === 'predicted' ? '~' : '' }}{{ show(soak.final, 'temperature') }}</span
          >
          <span v-if="soak.low !== null" class="small soft mono"
            >{{ show(soak.low, 'temperature') }} to {{ show(soak.high, 'temperature') }}</span
          >
        </p>
        <p role="status">
          {{ words }}
        </p>
        <p class="small soft">
          {{ details }}
        </p>
      </template>
    </template>
  </section>
</template>

<style scoped>
.end {
  display: flex;
  align-items: center;
  gap: 10px;
  flex-wrap: wrap;
  min-height: 28px;
}
.big {
  font-size: 20px;
  font-weight: 600;
}
</style>
