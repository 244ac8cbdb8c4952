<script setup lang="ts">
import { plannedFans, batterySource, driveVolts } from '#core/document'
import type { SupplyKind } from '#core/power'
import { driveRange } from '#core/day'

definePageMeta({ station: 'power' })

const { plan, report, findings } = useJob('power')
const { show, inUnits } = useUnits()
/** Sources whose battery is told of. */
const stored = computed(() => isBattery(batterySource(plan.value)?.kind))
const power = computed(() => report.value.power)
const view = ref<'diagram' | 'wires' | 'order' | 'parts'>('diagram')
const views = [
  { value: 'diagram' as const, label: 'Diagram' },
  { value: 'wires' as const, label: 'Wire list' },
  { value: 'order' as const, label: 'Connection order' },
  { value: 'parts' as const, label: 'Parts' },
]
const forms = ref<{ openNode: (id: string) => void; nodeId: string | null } | null>(null)
const cautions = computed(() => {
  const { job } = plan.value
  const has = (...kinds: SupplyKind[]) => plan.value.sources.some((s) => kinds.includes(s.kind))
  return [
    job.mains
      ? 'Mains parts stay dangerous after switching off: unplug, wait, measure; only the low-voltage ' +
        'side, below 60 V DC. Work on the mains side is for a licensed electrician.'
      : '',
    has('pack', 'power-bank')
      ? 'Lithium: never without a protection board; never charge below 0 °C, unattended or on fabric. Fuse at the pack, no damaged cells.'
      : '',
    has('house-battery', 'solar')
      ? 'Lead-acid: charging makes hydrogen, acid burns, a spanner across the poles melts. Vent high and ' +
        'low, insulated tools, fuse within 0.2 m.'
      : '',
    has('vehicle') || job.domain === 'vehicle'
      ? 'Vehicle: charging voltage and spikes kill 12 V fans; fuse at the battery, nothing near pedals, airbags or exhaust.'
      : '',
    job.domain === 'aircraft' || job.domain === 'medical' || job.domain === 'life-safety'
      ? 'Certified parts and maintainers only: this is not planned here.'
      : '',
    job.wet
      ? 'Wet zone: extra-low voltage only; the adapter stays dry and above, behind a residual-current device, with a drip loop.'
      : '',
    job.openFlue
      ? 'Open flue in the same air: extraction can pull combustion gas back. A supply opening and a licensed gas fitter come first.'
      : '',
    job.flammable
      ? 'Ignitable air: a brushless fan is not explosion-proof. Certified equipment, qualified people.'
      : '',
  ].filter(Boolean)
})
/** What the control makes of the voltage and the current at start, where one is planned. */
const steered = computed(() => {
  const { day } = report.value
  const volts = power.value.fanV ?? driveVolts(plan.value)
  const range = day && volts ? driveRange(day, plan.value, volts) : null
  if (!range) return ''
  const between = range.byWire
    ? `The control gives the PWM wire ${show(range.lowDuty, 'ratio')} to ${show(range.highDuty, 'ratio')}; the voltage stays.`
    : range.lowV < range.highV
      ? `The control gives ${show(range.lowV, 'voltage')} to ${show(range.highV, 'voltage')}: what stands above must go so far down.`
      : `The control gives ${show(range.highV, 'voltage')} while it runs.`
  const start = power.value.fanStartA
  const kick =
    range.kickDuty !== null && start !== null ? ` Each start is kicked: ${show(start, 'current')}.` : ''
  return between + kick
})
const print = () => window.print()
</script>

<template>
  <div class="layout" :class="{ drawn: view === 'diagram' }">
    <section class="sheet paper">
      <div class="sheet-head">
        <h2 class="visually-hidden">From the source to the fan</h2>
        <SegmentChoice v-model="view" class="no-print" label="Show the wiring as" :options="views" />
        <el-button size="small" class="no-print" @click="print">Print</el-button>
      </div>
      <ul v-if="cautions.length" class="cautions small">
        <li v-for="c in cautions" :key="c"><StateMark state="stop" /> {{ inUnits(c) }}</li>
      </ul>
      <FeedDiagram v-if="view === 'diagram'" :chosen="forms?.nodeId" @choose="forms?.openNode($event)" />
      <WireSheet v-else :view="view" />
    </section>
    <InTurn>
      <div class="stack no-print">
        <section class="sheet">
          <h2>At the fan and at the source</h2>
          <p v-if="!report.selection && !plannedFans(plan)" class="soft">
            Pick a fan in the Line-up: its current at its driven voltage decides the rest.
          </p>
          <template v-else>
            <p v-if="steered" class="small">
              {{ steered }} <NuxtLink :to="`/job/${plan.job.id}/control`">To Control</NuxtLink>
            </p>
            <dl class="figures">
              <div v-for="figure in power.figures" :key="figure.key">
                <dt class="small soft">{{ figure.label }}</dt>
                <dd><FigureValue :figure="figure" range /></dd>
              </div>
            </dl>
          </template>
        </section>
        <FeedForms ref="forms" />
        <section class="sheet">
          <FindingList :findings="findings" empty="Nothing to fix in what has been checked." />
        </section>
        <BatteryPanel v-if="stored" />
      </div>
    </InTurn>
    <InTurn>
      <SlowDown class="whole no-print" />
    </InTurn>
  </div>
</template>

<style scoped>
.layout {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  align-items: start;
}
.layout.drawn {
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.35fr);
}
.whole {
  grid-column: 1 / -1;
}
.figures {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(122px, 1fr));
  gap: 4px 14px;
  margin: 0;
}
.figures dd {
  margin: 0;
}
.figures :deep(.figure) {
  text-align: left;
}
.cautions {
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
  display: grid;
  gap: 3px;
}
@media (max-width: 1000px) {
  .layout.drawn {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
