<script setup lang="ts">
import type { Fan } from '../../../core/plan/document'
import { fanSchema } from '../../../shared/schemas/fan'

const CurvePreview = defineAsyncComponent(() => import('./CurvePreview.vue'))

/** A fan from its data sheet: what a maker can read off it, and the curve as a table with a live chart. */
const fan = defineModel<Fan>({ required: true })
const props = defineProps<{ revision: number | null }>()
const emit = defineEmits<{ saved: [] }>()
const shelf = useShelfStore()
const toast = useToast()
const s = fanSchema.shape
const saving = ref(false)
const problem = ref<{ field: string, message: string } | null>(null)

const set = <K extends keyof Fan>(key: K) => (value: Fan[K]) => {
  fan.value = { ...fan.value, [key]: value }
  problem.value = null
}
const check = computed(() => fanSchema.safeParse(fan.value))
const kinds = [{ value: 'axial' as const, label: 'axial' }, { value: 'blower' as const, label: 'blower (radial)' }]
const wires = [{ value: null as number | null, label: 'not known' }, { value: 2, label: '2 wires' }, { value: 3, label: '3 wires (tach)' }, { value: 4, label: '4 wires (PWM)' }]
const bearings = [{ value: null, label: 'not known' }, { value: 'sleeve' as const, label: 'sleeve' }, { value: 'ball' as const, label: 'ball' }, { value: 'fluid' as const, label: 'fluid' }]
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
        <div class="fields">
          <TextField
            label="Maker"
            :model-value="fan.maker"
            @update:model-value="set('maker')($event)"
          />
          <TextField
            label="Model"
            required
            :model-value="fan.model"
            @update:model-value="set('model')($event)"
          />
          <ChoiceField
            label="Kind"
            :model-value="fan.kind"
            :options="kinds"
            @update:model-value="set('kind')($event)"
          />
          <QuantityField
            label="Frame, side"
            quantity="length"
            required
            :schema="s.frameM"
            :model-value="fan.frameM"
            @update:model-value="set('frameM')($event!)"
          />
          <QuantityField
            label="Thickness"
            quantity="length"
            required
            :schema="s.thicknessM"
            :model-value="fan.thicknessM"
            @update:model-value="set('thicknessM')($event!)"
          />
          <QuantityField
            label="Rated voltage"
            quantity="voltage"
            required
            :schema="s.ratedV"
            :model-value="fan.ratedV"
            @update:model-value="set('ratedV')($event!)"
          />
          <QuantityField
            label="Rated current"
            quantity="current"
            :schema="s.ratedA"
            :model-value="fan.ratedA"
            @update:model-value="set('ratedA')($event)"
          />
          <QuantityField
            label="Speed"
            quantity="rotation"
            :schema="s.ratedRpm"
            :model-value="fan.ratedRpm"
            @update:model-value="set('ratedRpm')($event)"
          />
          <QuantityField
            label="Free delivery (largest airflow)"
            quantity="flow"
            placeholder="48.5 CFM"
            :schema="s.maxFlowM3s"
            :model-value="fan.maxFlowM3s"
            @update:model-value="set('maxFlowM3s')($event)"
          />
          <QuantityField
            label="Shut-off pressure (largest)"
            quantity="pressure"
            placeholder="2,4 mmH2O"
            :schema="s.maxPressurePa"
            :model-value="fan.maxPressurePa"
            @update:model-value="set('maxPressurePa')($event)"
          />
          <QuantityField
            label="Noise"
            quantity="level"
            :schema="s.noiseDbA"
            :model-value="fan.noiseDbA"
            @update:model-value="set('noiseDbA')($event)"
          />
          <QuantityField
            label="at a distance of"
            quantity="distance"
            hint="empty: not stated, 1 m assumed"
            :schema="s.noiseDistanceM"
            :model-value="fan.noiseDistanceM"
            @update:model-value="set('noiseDistanceM')($event)"
          />
          <QuantityField
            label="Starts at"
            quantity="voltage"
            :schema="s.startV"
            :model-value="fan.startV"
            hint="empty: 58 % of rated assumed"
            @update:model-value="set('startV')($event)"
          />
          <QuantityField
            label="Price"
            quantity="money"
            :schema="s.price"
            :model-value="fan.price"
            @update:model-value="set('price')($event)"
          />
        </div>
        <label class="check"><input
          type="checkbox"
          :checked="fan.owned"
          @change="set('owned')(($event.target as HTMLInputElement).checked)"
        > I own it</label>
        <details class="fold">
          <summary>More of the sheet</summary>
          <div class="fields">
            <QuantityField
              label="Lowest voltage"
              quantity="voltage"
              :schema="s.minV"
              :model-value="fan.minV"
              @update:model-value="set('minV')($event)"
            />
            <QuantityField
              label="Highest voltage"
              quantity="voltage"
              :schema="s.maxV"
              :model-value="fan.maxV"
              @update:model-value="set('maxV')($event)"
            />
            <QuantityField
              label="Speed line meets zero at"
              quantity="voltage"
              :schema="s.interceptV"
              :model-value="fan.interceptV"
              @update:model-value="set('interceptV')($event)"
            />
            <ChoiceField
              label="Wires"
              :model-value="fan.wires"
              :options="wires"
              @update:model-value="set('wires')($event)"
            />
            <ChoiceField
              label="Bearing"
              :model-value="fan.bearing"
              :options="bearings"
              @update:model-value="set('bearing')($event)"
            />
            <QuantityField
              label="Mass"
              quantity="mass"
              :schema="s.massKg"
              :model-value="fan.massKg"
              @update:model-value="set('massKg')($event)"
            />
            <QuantityField
              label="Hottest air allowed"
              quantity="temperature"
              :schema="s.maxAirC"
              :model-value="fan.maxAirC"
              @update:model-value="set('maxAirC')($event)"
            />
            <QuantityField
              label="Second IP digit (water)"
              quantity="number"
              :schema="s.ipWater"
              :model-value="fan.ipWater"
              @update:model-value="set('ipWater')($event)"
            />
          </div>
          <TextField
            label="Notes"
            :lines="2"
            :model-value="fan.notes"
            @update:model-value="set('notes')($event)"
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
            @update:model-value="set('curveBasis')($event)"
          />
        </div>
        <CurvePreview
          v-if="canCompute"
          :fan="fan"
        />
        <PointTable
          :points="fan.points"
          @update="set('points')($event)"
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
  </form>
</template>

<style scoped>
.editor { display: grid; grid-template-columns: minmax(0, 1.150fr) minmax(0, 1fr); gap: 12px; padding: 0 20px 20px; align-items: start; }
.check { display: inline-flex; gap: 6px; align-items: center; }
.save { justify-content: flex-end; }
.bad { color: var(--stop); font-weight: 600; margin-right: auto; }
@media (max-width: 900px) { .editor { grid-template-columns: minmax(0, 1fr); padding: 0 10px 16px; } }
</style>
