<script setup lang="ts">
import { newConverter, newSource, type Converter, type Load, type Source } from '../../../../core/plan'
import { awgAmpacity, supplyDefaults, type SupplyKind } from '../../../../core/power'
import { converterSchema, loadSchema, pickSchema, sourceSchema } from '../../../../shared/schemas/plan'

const { store, plan, report, findings } = useJob('power')
const { show } = useUnits()
const source = computed(() => plan.value.source)
const converter = computed(() => plan.value.converter)
const power = computed(() => report.value.power)
const sourceFields: Field<keyof Source>[] = [
  { key: 'name', label: 'Name', text: true },
  { key: 'nominalV', label: 'Nominal voltage', quantity: 'voltage' },
  { key: 'lowV', label: 'Lowest', quantity: 'voltage' },
  { key: 'highV', label: 'Highest', quantity: 'voltage' },
  { key: 'iMaxA', label: 'It can give', quantity: 'current', hint: 'from its label; spare current of a rail' },
  { key: 'output', label: 'Output', options: optionsOf({ dc: 'DC', ac: 'AC' }) },
  { key: 'regulated', label: 'Regulated', yesNo: true },
]
const converterFields: Field<keyof Converter>[] = [
  { key: 'outV', label: 'Set to', quantity: 'voltage', required: true },
  { key: 'iMaxA', label: 'It can give', quantity: 'current', hint: 'as advertised; plan with 70 %' },
  { key: 'efficiency', label: 'Efficiency', quantity: 'ratio', hint: 'empty: 88 % down, 85 % up' },
  { key: 'measuredV', label: 'Measured, unloaded', quantity: 'voltage' },
]
const wireFields: Field<keyof Source>[] = [
  { key: 'wireAwg', label: 'Gauge', options: [{ value: null, label: 'not known' }, ...Object.keys(awgAmpacity).map(g => ({ value: Number(g), label: `${g} AWG` }))] },
  { key: 'wireLengthM', label: 'Length, one way', quantity: 'distance' },
  { key: 'fuseFitted', label: 'Fuse fitted', yesNo: true },
  { key: 'fuseA', label: 'Fuse', quantity: 'current' },
  { key: 'polarityChecked', label: 'Polarity metered at the plug', yesNo: true },
]
const loadFields: Field<keyof Load>[] = [
  { key: 'name', label: 'What', text: true },
  { key: 'count', label: 'Number', quantity: 'number', required: true },
  { key: 'currentA', label: 'Current, each', quantity: 'current', required: true },
]
const kinds = supplyDefaults.map(x => ({ value: x.kind, label: x.name }))
const note = computed(() => supplyDefaults.find(x => x.kind === source.value?.kind)?.note ?? '')
const converterKinds = [{ value: 'none' as const, label: 'none: straight to the fan' }, { value: 'buck' as const, label: 'step-down (buck)' }, { value: 'boost' as const, label: 'step-up (boost)' }, { value: 'linear' as const, label: 'linear regulator' }]

const choose = (kind: SupplyKind) => store.change((d) => {
  d.source = { ...newSource(d.source?.id ?? newId('source'), kind), wireAwg: d.source?.wireAwg ?? null, wireLengthM: d.source?.wireLengthM ?? null }
})
const setSource = (key: keyof Source, value: unknown) => store.change(d => assign(d.source, key, value), `source.${key}`)
const setConverter = (key: keyof Converter, value: unknown) => {
  if (key === 'outV') setDrive(value as number)
  else store.change(d => assign(d.converter, key, value), `converter.${key}`)
}
const chooseConverter = (kind: 'none' | Converter['kind']) => store.change((d) => {
  if (kind === 'none') d.converter = null
  else d.converter = d.converter ? { ...d.converter, kind } : { ...newConverter(newId('converter'), d.pick?.driveV ?? d.source?.nominalV ?? 12), kind }
})
function setDrive(value: number | null) {
  if (value === null) return
  store.change((d) => {
    if (d.pick) d.pick.driveV = value
    if (d.converter) Object.assign(d.converter, { outV: value })
  }, 'pick.driveV')
}
const addLoad = () => store.change((d) => {
  d.loads.push({ id: newId('load'), name: 'Indicator', count: 1, currentA: 0.01, startA: null, afterConverter: d.converter !== null })
})
const setLoad = (id: string, key: keyof Load, value: unknown) => store.change(d => assign(d.loads.find(l => l.id === id), key, value), `load.${id}.${key}`)
const removeLoad = (load: Load) => store.removeWithUndo(`${load.name} removed.`, (d) => {
  d.loads = d.loads.filter(l => l.id !== load.id)
})
const share = computed(() => power.value.utilisation)
const barTone = computed(() => power.value.headroom ?? 'ok')
const mismatch = computed(() => {
  const feed = power.value.feedV
  const drive = plan.value.pick?.driveV
  return feed !== null && drive !== undefined && Math.abs(feed - drive) > 0.03 * drive ? { feed, drive } : null
})
</script>

<template>
  <div class="layout">
    <div class="stack">
      <section class="sheet stack">
        <div class="sheet-head">
          <h2>What feeds it?</h2>
          <ChoiceField
            class="kind"
            label="Kind of source"
            hide-label
            :model-value="(source?.kind ?? 'none') as SupplyKind"
            :options="kinds"
            @update:model-value="choose($event)"
          />
        </div>
        <p
          v-if="!source"
          class="soft"
        >
          Choose the source: its window and current are filled in as usual values, which you then correct from its label or a meter.
        </p>
        <template v-else>
          <FieldGrid
            tight
            :record="source"
            :fields="sourceFields"
            :shape="sourceSchema.shape"
            @set="setSource"
          />
          <p
            v-if="note"
            class="small soft"
          >
            {{ note }}
          </p>
        </template>
      </section>
      <section
        v-if="source"
        class="sheet stack"
      >
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
            :fields="converterFields"
            :shape="converterSchema.shape"
            @set="setConverter"
          />
          <div class="row">
            <label class="check"><input
              type="checkbox"
              :checked="converter.adjustable"
              @change="setConverter('adjustable', ($event.target as HTMLInputElement).checked)"
            > has a trimmer</label>
            <label class="check"><input
              type="checkbox"
              :checked="converter.setFirst"
              @change="setConverter('setFirst', ($event.target as HTMLInputElement).checked)"
            > set with a meter before the fan was connected</label>
          </div>
          <p
            v-if="converter.adjustable && !converter.setFirst"
            class="small"
          >
            Turn the trimmer, unloaded, until the meter reads <strong class="mono">{{ show(converter.outV, 'voltage') }}</strong>, accept {{ show(converter.outV * 0.95, 'voltage') }} to {{ show(converter.outV * 1.05, 'voltage') }}. Power off, connect the fan, measure again.
          </p>
        </template>
        <h3>Wire, fuse, plug</h3>
        <FieldGrid
          tight
          :record="source"
          :fields="wireFields"
          :shape="sourceSchema.shape"
          @set="setSource"
        />
      </section>
    </div>
    <div class="stack">
      <section class="sheet stack">
        <h2>From the source to the fan</h2>
        <p
          v-if="!report.pick && !plan.pick"
          class="soft"
        >
          Pick a fan in the Line-up: its current at its driven voltage decides the rest.
        </p>
        <template v-else>
          <QuantityField
            v-if="plan.pick"
            class="drive"
            label="Drive voltage of the pick"
            quantity="voltage"
            required
            :schema="pickSchema.shape.driveV"
            :model-value="plan.pick.driveV"
            @update:model-value="setDrive($event)"
          />
          <p
            v-if="mismatch"
            class="warn"
          >
            The feed gives {{ show(mismatch.feed, 'voltage') }}, the pick was made for {{ show(mismatch.drive, 'voltage') }}. Figures use the feed.
          </p>
          <table class="data">
            <tbody>
              <tr
                v-for="figure in power.figures"
                :key="figure.key"
              >
                <td>{{ figure.label }}</td>
                <td class="num">
                  <FigureValue
                    :figure="figure"
                    range
                  />
                </td>
              </tr>
            </tbody>
          </table>
          <div
            v-if="share !== null"
            class="meter"
            role="img"
            :aria-label="`${Math.round(share * 100)} per cent of the source is used`"
          >
            <span
              :class="barTone"
              :style="{ width: `${Math.min(100, share * 100)}%` }"
            />
            <i />
          </div>
          <p
            v-if="share !== null"
            class="small soft"
          >
            The tick stands at 80 %, as far as a plan should go.
          </p>
        </template>
        <FindingList
          :findings="findings"
          empty="Nothing to mend in what has been checked."
        />
      </section>
      <section class="sheet stack">
        <div class="sheet-head">
          <h2>Other loads on it</h2>
          <button
            type="button"
            class="button small"
            @click="addLoad"
          >
            + Load
          </button>
        </div>
        <p
          v-if="!plan.loads.length"
          class="soft"
        >
          LEDs, boards, pumps on the same source: overload usually comes from them.
        </p>
        <div
          v-for="load in plan.loads"
          :key="load.id"
          class="load"
        >
          <FieldGrid
            tight
            :record="load"
            :fields="loadFields"
            :shape="loadSchema.shape"
            @set="(key, value) => setLoad(load.id, key, value)"
          />
          <label class="check"><input
            type="checkbox"
            :checked="load.afterConverter"
            @change="setLoad(load.id, 'afterConverter', ($event.target as HTMLInputElement).checked)"
          > behind the converter</label>
          <button
            type="button"
            class="button quiet icon"
            :aria-label="`Remove ${load.name}`"
            @click="removeLoad(load)"
          >
            ×
          </button>
        </div>
      </section>
    </div>
  </div>
</template>

<style scoped>
.layout { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); gap: 12px; align-items: start; }
.kind { min-width: 240px; }
.drive { max-width: 240px; }
.check { display: inline-flex; gap: 6px; align-items: center; min-height: 28px; }
.warn { color: var(--amber); font-weight: 600; }
.load { display: grid; grid-template-columns: 1fr auto auto; gap: 8px; align-items: end; }
.meter { position: relative; height: 12px; background: var(--sheet-soft); border: 1px solid var(--line); border-radius: 4px; }
.meter span { display: block; height: 100%; border-radius: 3px; background: var(--moss-mark); }
.meter span.fix { background: var(--amber-mark); }
.meter span.stop { background: var(--stop); }
.meter i { position: absolute; left: 80%; top: -3px; bottom: -3px; width: 2px; background: var(--ink); }
@media (max-width: 1000px) { .layout { grid-template-columns: minmax(0, 1fr); } .kind { min-width: 0; } }
</style>
