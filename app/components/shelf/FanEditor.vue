<script setup lang="ts">
import { estimateFromLabel } from '#core/fan'
import { sourcedFigures, type Fan, type FanPoint, type SourcedFigure } from '#core/document'
import { fanSchema } from '#core/document'

const CurveTracer = defineAsyncComponent(() => import('./CurveTracer.vue'))
const CurvePreview = defineAsyncComponent(() => import('./CurvePreview.vue'))

/** A fan from its data sheet: what a maker can read off it, and the curve as a table with a live chart. */
const fan = defineModel<Fan>({ required: true })
const props = defineProps<{
  revision: number | null
  /** id of the job that it is made for: it goes back there, chosen */
  forJob?: string
  /** and the air stream of it */
  forStream?: string
}>()
const emit = defineEmits<{ saved: [] }>()
const shelf = useShelfStore()
const { bare, show } = useUnits()
const toast = useToast()
const saving = ref(false)
const problem = ref<{ field: string; message: string } | null>(null)

function set(key: keyof Fan, value: unknown) {
  fan.value = { ...fan.value, [key]: value }
  problem.value = null
}
const sheet: Field<keyof Fan>[] = [
  { key: 'maker', label: 'Maker', text: true },
  { key: 'model', label: 'Model', text: true, required: true },
  { key: 'kind', label: 'Kind', options: optionsOf({ axial: 'axial', blower: 'blower (radial)' }) },
  { key: 'frameM', label: 'Frame, side', quantity: 'length', required: true },
  { key: 'thicknessM', label: 'Thickness', quantity: 'length', required: true },
  { key: 'ratedV', label: 'Rated voltage', quantity: 'voltage', required: true },
  { key: 'ratedA', label: 'Rated current', quantity: 'current' },
  { key: 'ratedRpm', label: 'Speed', quantity: 'rotation' },
  { key: 'maxFlowM3s', label: 'Free delivery (largest airflow)', quantity: 'flow', placeholder: '48.5 CFM' },
  {
    key: 'maxPressurePa',
    label: 'Shut-off pressure (largest)',
    quantity: 'pressure',
    placeholder: '2,4 mmH2O',
  },
  { key: 'noiseDbA', label: 'Noise', quantity: 'level' },
  {
    key: 'noiseDistanceM',
    label: 'at a distance of',
    quantity: 'distance',
    hint: 'empty: not stated, 1 m assumed',
  },
  { key: 'startV', label: 'Starts at', quantity: 'voltage', hint: 'empty: assumed, and asked to be measured' },
  { key: 'price', label: 'Price', quantity: 'money' },
]
const folds: { title: string; fields: Field<keyof Fan>[] }[] = [
  {
    title: 'Voltage, wires and PWM',
    fields: [
      { key: 'minV', label: 'Lowest voltage', quantity: 'voltage' },
      { key: 'maxV', label: 'Highest voltage', quantity: 'voltage' },
      { key: 'interceptV', label: 'Speed line meets zero at', quantity: 'voltage' },
      { key: 'ratedW', label: 'Power, as printed', quantity: 'power' },
      {
        key: 'wires',
        label: 'Wires',
        options: [
          { value: null, label: 'not known' },
          { value: 2, label: '2 wires' },
          { value: 3, label: '3 wires (tach)' },
          { value: 4, label: '4 wires (PWM)' },
        ],
      },
      { key: 'connector', label: 'Connector', options: optionsOf(connectorNames, 'not known') },
      { key: 'pwmMinDuty', label: 'Keeps turning from duty', quantity: 'ratio' },
      { key: 'pwmStartDuty', label: 'Starts from duty', quantity: 'ratio' },
      { key: 'pwmMinSpeed', label: 'Speed at lowest duty', quantity: 'ratio', hint: 'share of full speed' },
    ],
  },
  {
    title: 'Bearing, life, air and splash',
    fields: [
      {
        key: 'bearing',
        label: 'Bearing',
        options: optionsOf({ sleeve: 'sleeve', ball: 'ball', fluid: 'fluid' }, 'not known'),
      },
      {
        key: 'shaftAllowed',
        label: 'Shaft may lie',
        options: optionsOf(
          { any: 'any way', horizontal: 'horizontal only', vertical: 'vertical only' },
          'not known',
        ),
      },
      { key: 'lifeH', label: 'Life (L10), hours', quantity: 'number' },
      { key: 'lifeC', label: 'Life stated at', quantity: 'temperature', hint: 'empty: 40 °C assumed' },
      { key: 'blades', label: 'Blades', quantity: 'number' },
      { key: 'minAirC', label: 'Coldest air allowed', quantity: 'temperature' },
      { key: 'maxAirC', label: 'Hottest air allowed', quantity: 'temperature' },
      { key: 'ipSolid', label: 'First IP digit (dust)', quantity: 'number' },
      { key: 'ipWater', label: 'Second IP digit (water)', quantity: 'number' },
    ],
  },
  {
    title: 'Body, price, and claims printed twice',
    fields: [
      { key: 'thicknessMeasuredM', label: 'Thickness, measured', quantity: 'length' },
      {
        key: 'holeSpacingM',
        label: 'Screw holes',
        quantity: 'length',
        hint: 'centre to centre; empty: usual pattern',
      },
      { key: 'massKg', label: 'Mass', quantity: 'mass' },
      { key: 'priceOn', label: 'Price of (date)', text: true, placeholder: '2026-05-31' },
      {
        key: 'alsoFlowM3s',
        label: 'Free delivery, other unit',
        quantity: 'flow',
        hint: 'as printed a second time',
      },
      { key: 'alsoPressurePa', label: 'Shut-off pressure, other unit', quantity: 'pressure' },
      {
        key: 'noiseIsPower',
        label: 'The noise claim is',
        options: [
          { value: false, label: 'a level at a distance (LpA)' },
          { value: true, label: 'a sound power (LwA)' },
        ],
      },
      { key: 'noiseSone', label: 'Noise in sone', quantity: 'number', hint: 'where no dB(A) is told' },
      { key: 'notes', label: 'Notes', text: true, lines: 2 },
    ],
  },
]
const filled = (fields: Field<keyof Fan>[]) =>
  fields.filter((f) => fan.value[f.key] !== null && fan.value[f.key] !== '').length
/** Where each figure comes from; what is not told is taken as the maker's claim. */
const figureNames: Record<SourcedFigure, string> = {
  thicknessM: 'Thickness',
  holeSpacingM: 'Screw holes',
  massKg: 'Mass',
  startV: 'Start voltage',
  ratedA: 'Current',
  ratedW: 'Power',
  ratedRpm: 'Speed',
  maxFlowM3s: 'Free delivery',
  maxPressurePa: 'Shut-off pressure',
  noiseDbA: 'Noise',
  lifeH: 'Life',
  price: 'Price',
}
const sourceOf = (figure: SourcedFigure) => fan.value.sources.find((s) => s.figure === figure)?.basis ?? null
function setSource(figure: SourcedFigure, basis: Fan['curveBasis'] | null) {
  const others = fan.value.sources.filter((s) => s.figure !== figure)
  set(
    'sources',
    basis === null ? others : [...others, { figure, basis }].sort((a, b) => a.figure.localeCompare(b.figure)),
  )
}
const known = computed(() => sourcedFigures.filter((f) => fan.value[f] !== null))
const tracing = ref(false)
/** counts up when points came off a picture, so that their table begins anew */
const traced = ref(0)
/** Takes a traced curve; its reading error is kept with the fan. */
function takeTrace(points: FanPoint[], error: number, volts: number) {
  const before = fan.value
  if (volts !== before.ratedV) {
    const others = before.curves.filter((c) => c.volts !== volts)
    fan.value = {
      ...before,
      curves: [...others, { volts, basis: 'curve' as const, points }].sort((a, b) => a.volts - b.volts),
    }
    toast.show(`${points.length} points taken for ${volts} V. Mark the next curve, or close.`, {
      action: {
        label: 'Undo',
        run: () => {
          fan.value = before
        },
      },
    })
    return
  }
  const told = `Curve read off a picture, reading error ±${(100 * error).toFixed(1)} % of the highest pressure.`
  fan.value = {
    ...before,
    points,
    curveBasis: 'curve',
    notes: [before.notes.replace(/Curve read off a picture[^.]*\.\d* ?%[^.]*\.\s*/, '').trim(), told]
      .filter(Boolean)
      .join('\n'),
  }
  traced.value++
  toast.show(`${points.length} points taken. Mark the next curve, or close.`, {
    action: {
      label: 'Undo',
      run: () => {
        fan.value = before
        traced.value++
      },
    },
  })
}
const check = computed(() => fanSchema.safeParse(fan.value))
const bases = [
  { value: 'curve' as const, label: 'data sheet' },
  { value: 'claim' as const, label: 'a claim' },
  { value: 'measured' as const, label: 'my own measurement' },
]

async function save() {
  if (!check.value.success) {
    const issue = check.value.error.issues[0]!
    problem.value = { field: String(issue.path[0] ?? ''), message: issue.message }
    return
  }
  saving.value = true
  const result = await shelf.save(check.value.data, props.revision)
  saving.value = false
  if (!result.ok) {
    problem.value = { field: result.field ?? '', message: result.message }
    return
  }
  emit('saved')
  toast.show(`${fan.value.model} is on the shelf.`)
  await navigateTo(wayBack({ take: fan.value.id }))
}
/** Where it was asked for: the line-up of an air stream, or the shelf. */
const wayBack = (query: { take?: string } = {}) =>
  props.forJob
    ? { path: `/job/${props.forJob}/line-up`, query: { stream: props.forStream, ...query } }
    : '/shelf'
const names: Record<string, string> = {
  model: 'Model',
  frameM: 'Frame',
  thicknessM: 'Thickness',
  ratedV: 'Rated voltage',
  points: 'Curve',
  minV: 'Lowest voltage',
  startV: 'Starts at',
  interceptV: 'Speed line',
  curves: 'Curves at other voltages',
  tests: 'Tests',
  priceOn: 'Price date',
  pwmStartDuty: 'Start duty',
  minAirC: 'Coldest air',
}
const problemText = computed(() =>
  problem.value
    ? `${names[problem.value.field] ? `${names[problem.value.field]}: ` : ''}${problem.value.message}`
    : '',
)
const printed = computed(() => fan.value.maxFlowM3s !== null && fan.value.maxPressurePa !== null)
/** what its label makes of it, while neither a curve nor both its ends are known */
const estimate = computed(() =>
  fan.value.points.length || printed.value ? null : estimateFromLabel(fan.value),
)
const estimateWords = computed(() => {
  const e = estimate.value
  if (!e) return 'Without points the curve is estimated from the two end values, with a wide band.'
  const between = (low: number, high: number, quantity: 'flow' | 'pressure') =>
    `${bare(low, quantity)} to ${show(high, quantity)}`
  const flow = between(e.maxFlow * e.low, e.maxFlow * e.high, 'flow')
  const pressure = between(e.maxPressure * e.low ** 2, e.maxPressure * e.high ** 2, 'pressure')
  return `Without them it is estimated from its ${e.from}: free delivery ${flow}, shut-off pressure ${pressure}.`
})
</script>

<template>
  <form class="editor" @submit.prevent="save">
    <div class="stack">
      <section class="sheet stack">
        <h2>From the data sheet</h2>
        <FieldGrid :record="fan" :fields="sheet" :shape="fanSchema.shape" @set="set" />
        <el-checkbox :model-value="fan.owned" @change="set('owned', Boolean($event))">I own it</el-checkbox>
        <FoldBox v-for="fold in folds" :key="fold.title">
          <template #title>
            {{ fold.title
            }}<span v-if="filled(fold.fields)" class="aside"
              >{{ filled(fold.fields) }} of {{ fold.fields.length }} known</span
            >
          </template>
          <FieldGrid tight :record="fan" :fields="fold.fields" :shape="fanSchema.shape" @set="set" />
        </FoldBox>
        <FoldBox>
          <template #title>
            Where each figure comes from<span v-if="fan.sources.length" class="aside"
              >{{ fan.sources.length }} told</span
            >
          </template>
          <div class="fields tight">
            <ChoiceField
              v-for="figure in known"
              :key="figure"
              :label="`Source of ${figureNames[figure].toLowerCase()}`"
              :model-value="sourceOf(figure)"
              :options="[
                { value: null, label: 'the sheet’s claim' },
                { value: 'measured', label: 'own measurement' },
                { value: 'curve', label: 'read off a curve' },
                { value: 'estimated', label: 'estimated' },
              ]"
              @update:model-value="setSource(figure, $event)"
            />
          </div>
        </FoldBox>
      </section>
      <BenchTests :fan="fan" :stored="revision !== null" @update="set('tests', $event)" />
    </div>
    <div class="stack">
      <section class="sheet stack">
        <div class="sheet-head">
          <h2>Its curve</h2>
          <ChoiceField
            label="Curve from"
            hide-label
            :model-value="fan.curveBasis === 'estimated' ? ('curve' as const) : fan.curveBasis"
            :options="bases"
            @update:model-value="set('curveBasis', $event)"
          />
        </div>
        <CurvePreview v-if="fan.points.length !== 1" :fan="fan" />
        <div>
          <el-button size="small" @click="tracing = true">Read it off a picture</el-button>
        </div>
        <PointTable :key="traced" :points="fan.points" @update="set('points', $event)" />
        <p v-if="fan.points.length === 0" class="small soft">
          {{ estimateWords }}
        </p>
      </section>
      <VoltageCurves :fan="fan" @update="set('curves', $event)" />
      <FanPictures v-if="revision !== null" :fan-id="fan.id" />
      <div class="row save">
        <span v-if="problemText" class="bad" role="alert">{{ problemText }}</span>
        <NuxtLink :to="wayBack()" class="button"> Back without saving </NuxtLink>
        <el-button type="primary" native-type="submit" :disabled="saving">
          {{ revision !== null ? 'Save' : forJob ? 'Put on the shelf and take it' : 'Put on the shelf' }}
        </el-button>
      </div>
    </div>
    <el-dialog
      v-model="tracing"
      title="Read the curve off a picture"
      width="min(940px, 96vw)"
      top="3vh"
      append-to-body
      destroy-on-close
    >
      <CurveTracer :rated="fan.ratedV" @take="takeTrace" />
    </el-dialog>
  </form>
</template>

<style scoped>
.editor {
  display: grid;
  grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr);
  gap: 12px;
  padding: 0 20px 20px;
  align-items: start;
}
.check {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
.save {
  justify-content: flex-end;
}
.bad {
  color: var(--stop);
  font-weight: 600;
  margin-right: auto;
}
@media (max-width: 900px) {
  .editor {
    grid-template-columns: minmax(0, 1fr);
    padding: 0 10px 16px;
  }
}
</style>
