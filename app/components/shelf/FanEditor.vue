<script setup lang="ts">
import type { Fan, FanPoint } from '../../../core/plan/document'
import { fanSchema } from '../../../shared/schemas/fan'

const CurveTracer = defineAsyncComponent(() => import('./CurveTracer.vue'))
const CurvePreview = defineAsyncComponent(() => import('./CurvePreview.vue'))

/** A fan from its data sheet: what a maker can read off it, and the curve as a table with a live chart. */
const fan = defineModel<Fan>({ required: true })
const props = defineProps<{ revision: number | null }>()
const emit = defineEmits<{ saved: [] }>()
const shelf = useShelfStore()
const toast = useToast()
const saving = ref(false)
const problem = ref<{ field: string, message: string } | null>(null)

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
  { key: 'maxPressurePa', label: 'Shut-off pressure (largest)', quantity: 'pressure', placeholder: '2,4 mmH2O' },
  { key: 'noiseDbA', label: 'Noise', quantity: 'level' },
  { key: 'noiseDistanceM', label: 'at a distance of', quantity: 'distance', hint: 'empty: not stated, 1 m assumed' },
  { key: 'startV', label: 'Starts at', quantity: 'voltage', hint: 'empty: 58 % of rated assumed' },
  { key: 'price', label: 'Price', quantity: 'money' },
]
const more: Field<keyof Fan>[] = [
  { key: 'minV', label: 'Lowest voltage', quantity: 'voltage' },
  { key: 'maxV', label: 'Highest voltage', quantity: 'voltage' },
  { key: 'interceptV', label: 'Speed line meets zero at', quantity: 'voltage' },
  { key: 'wires', label: 'Wires', options: [{ value: null, label: 'not known' }, { value: 2, label: '2 wires' }, { value: 3, label: '3 wires (tach)' }, { value: 4, label: '4 wires (PWM)' }] },
  { key: 'bearing', label: 'Bearing', options: optionsOf({ sleeve: 'sleeve', ball: 'ball', fluid: 'fluid' }, 'not known') },
  { key: 'massKg', label: 'Mass', quantity: 'mass' },
  { key: 'maxAirC', label: 'Hottest air allowed', quantity: 'temperature' },
  { key: 'ipWater', label: 'Second IP digit (water)', quantity: 'number' },
  { key: 'notes', label: 'Notes', text: true, lines: 2 },
]
const tracing = ref(false)
/** counts up when points came off a picture, so that their table begins anew */
const traced = ref(0)
/** Takes a traced curve; its reading error is kept with the fan. */
function takeTrace(points: FanPoint[], error: number) {
  const before = fan.value
  const told = `Curve read off a picture, reading error ±${(100 * error).toFixed(1)} % of the highest pressure.`
  fan.value = { ...before, points, curveBasis: 'curve', notes: [before.notes.replace(/Curve read off a picture[^.]*\.\d* ?%[^.]*\.\s*/, '').trim(), told].filter(Boolean).join('\n') }
  traced.value++
  tracing.value = false
  toast.show(`${points.length} points taken.`, { action: { label: 'Undo', run: () => {
    fan.value = before
    traced.value++
  } } })
}
const check = computed(() => fanSchema.safeParse(fan.value))
const bases = [{ value: 'curve' as const, label: 'data sheet' }, { value: 'claim' as const, label: 'a claim' }, { value: 'measured' as const, label: 'my own measurement' }]

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
  await navigateTo('/shelf')
}
const names: Record<string, string> = { model: 'Model', frameM: 'Frame', thicknessM: 'Thickness', ratedV: 'Rated voltage', points: 'Curve', minV: 'Lowest voltage', startV: 'Starts at', interceptV: 'Speed line' }
const problemText = computed(() => problem.value ? `${names[problem.value.field] ? `${names[problem.value.field]}: ` : ''}${problem.value.message}` : '')
const canCompute = computed(() => fan.value.points.length >= 2 || (fan.value.maxFlowM3s !== null && fan.value.maxPressurePa !== null))
</script>

<template>
  <form
    class="editor"
    @submit.prevent="save"
  >
    <div class="stack">
      <section class="sheet stack">
        <h2>From the data sheet</h2>
        <FieldGrid
          :record="fan"
          :fields="sheet"
          :shape="fanSchema.shape"
          @set="set"
        />
        <label class="check"><input
          type="checkbox"
          :checked="fan.owned"
          @change="set('owned', ($event.target as HTMLInputElement).checked)"
        > I own it</label>
        <details class="fold">
          <summary>More of the sheet</summary>
          <FieldGrid
            :record="fan"
            :fields="more"
            :shape="fanSchema.shape"
            @set="set"
          />
        </details>
      </section>
    </div>
    <div class="stack">
      <section class="sheet stack">
        <div class="sheet-head">
          <h2>Its curve</h2>
          <ChoiceField
            label="Curve from"
            hide-label
            :model-value="fan.curveBasis === 'estimated' ? 'curve' as const : fan.curveBasis"
            :options="bases"
            @update:model-value="set('curveBasis', $event)"
          />
        </div>
        <CurvePreview
          v-if="canCompute"
          :fan="fan"
        />
        <div>
          <button
            type="button"
            class="button small"
            @click="tracing = true"
          >
            Read it off a picture
          </button>
        </div>
        <PointTable
          :key="traced"
          :points="fan.points"
          @update="set('points', $event)"
        />
        <p
          v-if="fan.points.length === 0"
          class="small soft"
        >
          {{ canCompute ? 'Without points the curve is estimated from the two end values, with a wide band.' : 'Give points of its curve, or free delivery and shut-off pressure: from one number no curve can be made.' }}
        </p>
      </section>
      <div class="row save">
        <span
          v-if="problemText"
          class="bad"
          role="alert"
        >{{ problemText }}</span>
        <NuxtLink
          to="/shelf"
          class="button"
        >
          Back without saving
        </NuxtLink>
        <button
          type="submit"
          class="button primary"
          :disabled="saving"
        >
          {{ revision === null ? 'Put on the shelf' : 'Save' }}
        </button>
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
      <CurveTracer @take="takeTrace" />
    </el-dialog>
  </form>
</template>

<style scoped>
.editor { display: grid; grid-template-columns: minmax(0, 1.150fr) minmax(0, 1fr); gap: 12px; padding: 0 20px 20px; align-items: start; }
.check { display: inline-flex; gap: 6px; align-items: center; }
.save { justify-content: flex-end; }
.bad { color: var(--stop); font-weight: 600; margin-right: auto; }
@media (max-width: 900px) { .editor { grid-template-columns: minmax(0, 1fr); padding: 0 10px 16px; } }
</style>
