<script setup lang="ts">
import { newSource, setDrive, withNominal, type Converter, type Source, type Wiring } from '#core/document'
import { DROP_LIMIT, fuseFamilyOf, fuseFor, usbBudgetOf, windowOf } from '#core/supply'
import type { SupplyKind } from '#core/power'
import { converterSchema, selectionSchema, sourceSchema, wiringSchema } from '#core/document'

definePageMeta({ station: 'power' })

const { store, plan, report, findings } = useJob('power')
const { show } = useUnits()
const source = computed(() => plan.value.source)
const converter = computed(() => plan.value.converter)
const power = computed(() => report.value.power)
const view = ref<'diagram' | 'wires' | 'order' | 'parts'>('diagram')
const views = [
  { value: 'diagram' as const, label: 'Diagram' },
  { value: 'wires' as const, label: 'Wire list' },
  { value: 'order' as const, label: 'Connection order' },
  { value: 'parts' as const, label: 'Parts' },
]

/** Rated voltage of the chosen fan: a source that comes in any voltage is taken at it. */
const fanV = computed(() => report.value.selection?.fanArray.model.fan.ratedV ?? null)
const choose = (kind: SupplyKind) =>
  store.change((d) => {
    d.source = {
      ...newSource(d.source?.id ?? newId('source'), kind, fanV.value),
      wireAwg: d.source?.wireAwg ?? null,
      wireMm2: d.source?.wireMm2 ?? null,
      wireLengthM: d.source?.wireLengthM ?? null,
    }
    // the pick keeps its voltage whatever feeds it: straight where the source has it, else through what makes it
    if (d.selection && d.source.nominalV)
      setDrive(d, { volts: d.selection.driveV, converterId: newId('converter') })
  })
const setSource = (key: keyof Source, value: unknown) =>
  store.change((d) => {
    if (key === 'nominalV' && d.source) d.source = withNominal(d.source, value as number | null)
    else assign(d.source, key, value)
    if (key === 'usbKind' && d.source) d.source.iMaxA = usbBudgetOf(d) ?? d.source.iMaxA
  }, `source.${key}`)
const setConverter = (key: keyof Converter, value: unknown) => {
  if (key === 'outV') driveAt(value as number)
  else store.change((d) => assign(d.converter, key, value), `converter.${key}`)
}
const setWiring = (key: keyof Wiring, value: unknown) =>
  store.change((d) => assign(d.wiring, key, value), `wiring.${key}`)
const chooseConverter = (kind: 'none' | Converter['kind']) =>
  store.change((d) => {
    const volts = d.selection?.driveV ?? d.source?.nominalV ?? 12
    const converterId = newId('converter')
    if (kind === 'none') setDrive(d, { volts: d.source?.nominalV ?? volts, by: 'straight', converterId })
    else setDrive(d, { volts, by: { kind }, converterId })
  })
/** Typed here, the voltage is that of the converter which is there; without one the feed follows. */
function driveAt(volts: number | null) {
  if (volts === null) return
  const converterId = newId('converter')
  store.change((d) => setDrive(d, { volts, by: d.converter ? {} : 'auto', converterId }), 'selection.driveV')
}
const selectionNode = computed(() => power.value.feed.nodes.find((n) => n.kind === 'selection') ?? null)
/** What the lead to the fans may be, in words. */
const leadWords = computed(() => {
  const n = selectionNode.value
  if (!n?.lead) return ''
  const { lead } = n
  const fuse = fuseFor(n, fuseFamilyOf(source.value))
  return [
    lead.ampacityA === null
      ? 'Choose a gauge: its drop and what it carries follow.'
      : `It carries ${show(lead.ampacityA, 'current')}`,
    lead.longestM === null
      ? ''
      : `may be ${show(lead.longestM, 'distance')} long for a loss of ${100 * DROP_LIMIT} %`,
    lead.lengthM === null || lead.awg === null
      ? ''
      : `loses ${show(lead.dropV, 'voltage')} and ${show(lead.lossW, 'power')} now`,
    fuse === null ? '' : `a fuse of ${show(fuse, 'current')} protects it`,
  ]
    .filter(Boolean)
    .join('; ')
})
const mismatch = computed(() => {
  const feed = power.value.feedV
  const drive = plan.value.selection?.driveV
  return feed !== null && drive !== undefined && Math.abs(feed - drive) > 0.03 * drive ? { feed, drive } : null
})
const partForm = ref<{ open: (id: string) => void } | null>(null)
const cautions = computed(() => {
  const { job } = plan.value
  const kind = source.value?.kind
  return [
    job.mains
      ? 'Mains parts stay dangerous after switching off: unplug, wait, measure; only the low-voltage ' +
        'side, below 60 V DC. Work on the mains side is for a licensed electrician.'
      : '',
    kind === 'pack' || kind === 'power-bank'
      ? 'Lithium: never without a protection board; never charge below 0 °C, unattended or on fabric. Fuse at the pack, no damaged cells.'
      : '',
    kind === 'house-battery' || kind === 'solar'
      ? 'Lead-acid: charging makes hydrogen, acid burns, a spanner across the poles melts. Vent high and ' +
        'low, insulated tools, fuse within 0.2 m.'
      : '',
    kind === 'vehicle' || job.domain === 'vehicle'
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
const print = () => window.print()
</script>

<template>
  <div class="stack">
    <section class="sheet paper">
      <div class="sheet-head">
        <h2>From the source to the fan</h2>
        <div class="row no-print">
          <SegmentChoice v-model="view" label="Show the wiring as" :options="views" />
          <el-button size="small" @click="print">Print</el-button>
        </div>
      </div>
      <ul v-if="cautions.length" class="cautions small">
        <li v-for="c in cautions" :key="c"><StateMark state="stop" /> {{ c }}</li>
      </ul>
      <FeedDiagram v-if="view === 'diagram'" @choose="partForm?.open($event)" />
      <WireSheet v-else :view="view" />
    </section>
    <div class="layout no-print">
      <div class="stack">
        <section class="sheet stack">
          <div class="sheet-head">
            <h2>What feeds it?</h2>
            <ChoiceField
              class="kind"
              label="Kind of source"
              hide-label
              :model-value="(source?.kind ?? 'none') as SupplyKind"
              :options="sourceKinds"
              @update:model-value="choose($event)"
            />
          </div>
          <p v-if="!source" class="soft">
            Choose the source: its window and current are filled in as usual values, which you then correct from
            its label or a meter.
          </p>
          <template v-else>
            <FieldGrid
              tight
              :record="source"
              :fields="sourceFields(source, windowOf(plan))"
              :shape="sourceShape(source)"
              @set="setSource"
            />
            <div class="row" role="group" aria-label="Usual voltages">
              <el-button
                v-for="v in usualVoltages"
                :key="v"
                size="small"
                :aria-pressed="source.nominalV === v"
                @click="setSource('nominalV', v)"
              >
                {{ v }} V
              </el-button>
              <span v-if="fanV !== null" class="small soft">the fan is for {{ show(fanV, 'voltage') }}</span>
            </div>
            <p v-if="sourceNote(source.kind)" class="small soft">
              {{ sourceNote(source.kind) }}
            </p>
          </template>
        </section>
        <section v-if="source" class="sheet stack">
          <div class="sheet-head">
            <h2>Through what?</h2>
            <ChoiceField
              class="kind"
              label="Converter"
              hide-label
              :model-value="converter?.kind ?? 'none'"
              :options="converterKinds"
              @update:model-value="chooseConverter($event)"
            />
          </div>
          <template v-if="converter">
            <FieldGrid
              tight
              :record="converter"
              :fields="converterFields(converter)"
              :shape="converterSchema.shape"
              @set="setConverter"
            />
            <div
              v-if="converter.kind === 'buck' || converter.kind === 'boost' || converter.kind === 'linear'"
              class="row"
            >
              <el-checkbox
                :model-value="converter.adjustable"
                @change="setConverter('adjustable', Boolean($event))"
                >has a trimmer</el-checkbox
              >
              <el-checkbox :model-value="converter.setFirst" @change="setConverter('setFirst', Boolean($event))"
                >set with a meter before the fan was connected</el-checkbox
              >
            </div>
          </template>
          <h3>Lead to the fans</h3>
          <FieldGrid tight :record="source" :fields="leadFields" :shape="sourceSchema.shape" @set="setSource" />
          <p v-if="leadWords" class="small soft">{{ leadWords }}.</p>
          <FoldBox title="Colours, connector, how it is joined">
            <FieldGrid
              tight
              :record="plan.wiring"
              :fields="wiringFields(plan.wiring)"
              :shape="wiringSchema.shape"
              @set="setWiring"
            />
          </FoldBox>
          <FoldBox title="Tach and PWM wires">
            <FieldGrid
              tight
              :record="plan.wiring"
              :fields="controlWireFields"
              :shape="wiringSchema.shape"
              @set="setWiring"
            />
            <p class="small soft">
              One tach lead to one input, the others open and insulated. PWM may be shared: the driver sinks 5
              mA for each fan. An open PWM pin is full speed, a grounded one the lowest speed or stop; 12 V on
              it destroys it.
            </p>
          </FoldBox>
        </section>
        <PartForm v-if="source" ref="partForm" />
        <BatteryPanel v-if="source && isBattery(source.kind)" />
      </div>
      <div class="stack">
        <section class="sheet stack">
          <h2>At the fan and at the source</h2>
          <p v-if="!report.selection && !plan.selection" class="soft">
            Pick a fan in the Line-up: its current at its driven voltage decides the rest.
          </p>
          <template v-else>
            <QuantityField
              v-if="plan.selection"
              class="drive"
              label="Drive voltage of the pick"
              quantity="voltage"
              required
              :schema="selectionSchema.shape.driveV"
              :model-value="mismatch ? power.fanV : plan.selection.driveV"
              @update:model-value="driveAt($event)"
            />
            <p v-if="mismatch" class="warn">
              The feed gives {{ show(mismatch.feed, 'voltage') }}, the pick was made for
              {{ show(mismatch.drive, 'voltage') }}. Figures use the feed.
            </p>
            <table class="data">
              <tbody>
                <tr v-for="figure in power.figures" :key="figure.key">
                  <td>{{ figure.label }}</td>
                  <td class="num">
                    <FigureValue :figure="figure" range />
                  </td>
                </tr>
              </tbody>
            </table>
          </template>
          <FindingList :findings="findings" empty="Nothing to mend in what has been checked." />
        </section>
        <SlowDown />
      </div>
    </div>
  </div>
</template>

<style scoped>
.layout {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 12px;
  align-items: start;
}
.kind {
  min-width: 240px;
}
.drive {
  max-width: 240px;
}
.check {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  min-height: 28px;
}
.warn {
  color: var(--amber);
  font-weight: 600;
}
.cautions {
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
  display: grid;
  gap: 3px;
}
@media (max-width: 1000px) {
  .layout {
    grid-template-columns: minmax(0, 1fr);
  }
  .kind {
    min-width: 0;
  }
}
</style>
