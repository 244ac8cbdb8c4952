<script setup lang="ts">
import { filterMedia, SLACK_FACTOR, surfaces } from '../../../core/airpath'
import { elementNames } from '../../../core/plan/defaults'
import type { PathElement } from '../../../core/plan/document'
import type { ElementReport } from '../../../core/plan/report'
import { elementSchema } from '../../../shared/schemas/plan'

/** One element of the path: only the fields its kind needs. */
const props = defineProps<{ element: PathElement, report: ElementReport | null }>()
const emit = defineEmits<{ edit: [field: string, values: Partial<PathElement>] }>()
const kind = computed(() => props.element.kind)
const set = (key: keyof PathElement, value: unknown) => emit('edit', key, { [key]: value })
type Fields = Field<keyof PathElement>[]
const areaHelp: Partial<Record<PathElement['kind'], string>> = { opening: 'Free area', grille: 'Gross area', filter: 'Face area', chamber: 'Cross-section' }
const hasArea = computed(() => areaHelp[kind.value] !== undefined)
const bore: Fields = [{ key: 'diameterM', label: 'Bore', quantity: 'length' }]
const ofKind: Record<PathElement['kind'], Fields> = {
  opening: [{ key: 'edge', label: 'Edge', options: optionsOf({ sharp: 'sharp hole', slot: 'slot', crack: 'crack', rounded: 'rounded edge' }) }],
  grille: [{ key: 'freeAreaRatio', label: 'Free-area ratio', quantity: 'ratio', hint: 'finger guard 80 to 90 %, stamped slots 35 to 55 %, insect mesh 55 to 65 %' }],
  filter: [
    { key: 'medium', label: 'Medium', options: [...filterMedia.map(m => ({ value: m.key, label: m.name })), { value: 'sheet', label: 'own data sheet' }] },
    { key: 'loadFactor', label: 'Condition', options: [{ value: 1, label: 'clean' }, { value: 2, label: 'loaded (twice the loss)' }, { value: 3, label: 'overdue (three times)' }] },
  ],
  duct: [
    ...bore,
    { key: 'lengthM', label: 'Length', quantity: 'distance' },
    { key: 'surface', label: 'Inner surface', options: surfaces.map(x => ({ value: x.key, label: x.name })) },
    { key: 'slack', label: 'How it lies', options: [{ value: 1, label: 'straight or stretched' }, { value: SLACK_FACTOR, label: 'slack hose (three times the friction)' }] },
  ],
  bend: [
    ...bore,
    { key: 'radiusRatio', label: 'Radius over bore', quantity: 'number', hint: '0.5 sharp, 1 usual, 2 wide' },
    { key: 'angleDeg', label: 'Angle', options: [90, 60, 45, 30].map(a => ({ value: a, label: `${a}°` })) },
    { key: 'count', label: 'How many', quantity: 'number' },
  ],
  custom: [{ key: 'a', label: 'a, viscous part', quantity: 'linearDrag' }, { key: 'b', label: 'b, inertial part', quantity: 'quadraticDrag' }],
  chamber: [],
  fan: [],
}
const fields = computed((): Fields => [
  { key: 'name', label: 'Name', text: true },
  ...(kind.value === 'fan' ? [] : [{ key: 'basis' as const, label: 'How sure', options: optionsOf({ 'measured': 'measured', 'sheet': 'data sheet', 'good-guess': 'good guess', 'rough-guess': 'rough guess' }) }]),
  ...(hasArea.value ? [{ key: 'areaM2' as const, label: areaHelp[kind.value]!, quantity: 'area' as const }] : []),
  ...ofKind[kind.value],
  ...(props.element.medium === 'sheet' ? [{ key: 'c1' as const, label: 'c₁, Pa·s/m', quantity: 'number' as const }, { key: 'c2' as const, label: 'c₂, Pa·s²/m²', quantity: 'number' as const }] : []),
])
// a circle or rectangle turned into an area
const side = ref<number | null>(null)
const other = ref<number | null>(null)
function sized() {
  if (!side.value) return
  emit('edit', 'areaM2', { areaM2: other.value ? side.value * other.value : Math.PI / 4 * side.value ** 2 })
}
// one measured point turned into coefficients
const pointFlow = ref<number | null>(null)
const pointDrop = ref<number | null>(null)
const share = ref(0.3)
function fromPoint() {
  if (!pointFlow.value || pointDrop.value === null) return
  emit('edit', 'point', { a: share.value * pointDrop.value / pointFlow.value, b: (1 - share.value) * pointDrop.value / pointFlow.value ** 2 })
}
const shares = [{ value: 0, label: 'sharp edges, holes (turbulent)' }, { value: 0.3, label: 'mixed' }, { value: 0.7, label: 'fins, fine mesh' }, { value: 1, label: 'dense medium (viscous)' }]
</script>

<template>
  <section
    class="sheet stack"
    :aria-label="`Edit ${element.name}`"
  >
    <div class="sheet-head">
      <h2>{{ elementNames[kind] }}</h2>
      <FigureValue
        v-if="report && kind !== 'fan' && !report.missing"
        :figure="report.figure"
        range
      />
    </div>
    <p
      v-if="report?.missing"
      class="missing"
    >
      It lacks {{ report.missing }}.
    </p>
    <p
      v-if="kind === 'fan'"
      class="soft"
    >
      The fan sits here. What is chosen for this place is the Line-up’s business.
    </p>
    <FieldGrid
      :record="element"
      :fields="fields"
      :shape="elementSchema.shape"
      @set="set"
    />
    <details
      v-if="hasArea"
      class="fold"
    >
      <summary>Area from its size</summary>
      <div class="fields">
        <QuantityField
          v-model="side"
          label="Width, or diameter"
          quantity="length"
          :schema="elementSchema.shape.diameterM"
        />
        <QuantityField
          v-model="other"
          label="Height"
          hint="leave empty for a round one"
          quantity="length"
          :schema="elementSchema.shape.diameterM"
        />
        <button
          type="button"
          class="button"
          :disabled="!side"
          @click="sized"
        >
          Use this area
        </button>
      </div>
    </details>
    <details
      v-if="kind === 'custom'"
      class="fold"
      open
    >
      <summary>From one measured or data-sheet point</summary>
      <div class="fields">
        <QuantityField
          v-model="pointFlow"
          label="At this flow"
          quantity="flow"
        />
        <QuantityField
          v-model="pointDrop"
          label="it loses"
          quantity="pressure"
        />
        <ChoiceField
          v-model="share"
          label="What it is like"
          :options="shares"
        />
        <button
          type="button"
          class="button"
          :disabled="!pointFlow || pointDrop === null"
          @click="fromPoint"
        >
          Use this point
        </button>
      </div>
    </details>
  </section>
</template>

<style scoped>
.missing { color: var(--amber); font-weight: 600; }
.fields .button { align-self: end; justify-content: center; }
</style>
