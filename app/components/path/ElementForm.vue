<script setup lang="ts">
import { filterMedia, SLACK_FACTOR, surfaces } from '../../../core/airpath'
import { elementNames } from '../../../core/plan/defaults'
import type { PathElement } from '../../../core/plan/document'
import type { ElementReport } from '../../../core/plan/report'
import { elementSchema } from '../../../shared/schemas/plan'

/** One element of the path: only the fields its kind needs. */
const props = defineProps<{ element: PathElement, report: ElementReport | null }>()
const emit = defineEmits<{ edit: [field: string, values: Partial<PathElement>] }>()
const s = elementSchema.shape
const kind = computed(() => props.element.kind)
const set = <K extends keyof PathElement>(key: K) => (value: PathElement[K]) => emit('edit', key, { [key]: value })
const bases = [
  { value: 'measured' as const, label: 'measured' }, { value: 'sheet' as const, label: 'data sheet' }, { value: 'good-guess' as const, label: 'good guess' }, { value: 'rough-guess' as const, label: 'rough guess' },
]
const edges = [{ value: 'sharp' as const, label: 'sharp hole' }, { value: 'slot' as const, label: 'slot' }, { value: 'crack' as const, label: 'crack' }, { value: 'rounded' as const, label: 'rounded edge' }]
const media = [...filterMedia.map(m => ({ value: m.key as string | null, label: m.name })), { value: 'sheet', label: 'own data sheet' }]
const surfaceOptions = surfaces.map(x => ({ value: x.key as string | null, label: x.name }))
const loads = [{ value: 1 as number | null, label: 'clean' }, { value: 2, label: 'loaded (twice the loss)' }, { value: 3, label: 'overdue (three times)' }]
const slacks = [{ value: 1 as number | null, label: 'straight or stretched' }, { value: SLACK_FACTOR, label: 'slack hose (three times the friction)' }]
const angles = [90, 60, 45, 30].map(a => ({ value: a as number | null, label: `${a}°` }))
const areaHelp: Partial<Record<PathElement['kind'], string>> = { opening: 'Free area', grille: 'Gross area', filter: 'Face area', chamber: 'Cross-section' }
const hasArea = computed(() => areaHelp[kind.value] !== undefined)
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
    <div class="fields">
      <TextField
        label="Name"
        :model-value="element.name"
        @update:model-value="set('name')($event)"
      />
      <ChoiceField
        v-if="kind !== 'fan'"
        label="How sure"
        :model-value="element.basis"
        :options="bases"
        @update:model-value="set('basis')($event)"
      />
      <QuantityField
        v-if="hasArea"
        :label="areaHelp[kind]!"
        quantity="area"
        :schema="s.areaM2"
        :model-value="element.areaM2"
        @update:model-value="set('areaM2')($event)"
      />
      <QuantityField
        v-if="kind === 'grille'"
        label="Free-area ratio"
        hint="finger guard 80 to 90 %, stamped slots 35 to 55 %, insect mesh 55 to 65 %"
        quantity="ratio"
        :schema="s.freeAreaRatio"
        :model-value="element.freeAreaRatio"
        @update:model-value="set('freeAreaRatio')($event)"
      />
      <ChoiceField
        v-if="kind === 'opening'"
        label="Edge"
        :model-value="element.edge ?? 'sharp'"
        :options="edges"
        @update:model-value="set('edge')($event)"
      />
      <template v-if="kind === 'filter'">
        <ChoiceField
          label="Medium"
          :model-value="element.medium"
          :options="media"
          @update:model-value="set('medium')($event)"
        />
        <ChoiceField
          label="Condition"
          :model-value="element.loadFactor"
          :options="loads"
          @update:model-value="set('loadFactor')($event)"
        />
        <template v-if="element.medium === 'sheet'">
          <QuantityField
            label="c₁, Pa·s/m"
            quantity="number"
            :schema="s.c1"
            :model-value="element.c1"
            @update:model-value="set('c1')($event)"
          />
          <QuantityField
            label="c₂, Pa·s²/m²"
            quantity="number"
            :schema="s.c2"
            :model-value="element.c2"
            @update:model-value="set('c2')($event)"
          />
        </template>
      </template>
      <QuantityField
        v-if="kind === 'duct' || kind === 'bend'"
        label="Bore"
        quantity="length"
        :schema="s.diameterM"
        :model-value="element.diameterM"
        @update:model-value="set('diameterM')($event)"
      />
      <template v-if="kind === 'duct'">
        <QuantityField
          label="Length"
          quantity="distance"
          :schema="s.lengthM"
          :model-value="element.lengthM"
          @update:model-value="set('lengthM')($event)"
        />
        <ChoiceField
          label="Inner surface"
          :model-value="element.surface"
          :options="surfaceOptions"
          @update:model-value="set('surface')($event)"
        />
        <ChoiceField
          label="How it lies"
          :model-value="element.slack"
          :options="slacks"
          @update:model-value="set('slack')($event)"
        />
      </template>
      <template v-if="kind === 'bend'">
        <QuantityField
          label="Radius over bore"
          hint="0.5 sharp, 1 usual, 2 wide"
          quantity="number"
          :schema="s.radiusRatio"
          :model-value="element.radiusRatio"
          @update:model-value="set('radiusRatio')($event)"
        />
        <ChoiceField
          label="Angle"
          :model-value="element.angleDeg"
          :options="angles"
          @update:model-value="set('angleDeg')($event)"
        />
        <QuantityField
          label="How many"
          quantity="number"
          :schema="s.count"
          :model-value="element.count"
          @update:model-value="set('count')($event)"
        />
      </template>
      <template v-if="kind === 'custom'">
        <QuantityField
          label="a, viscous part"
          quantity="linearDrag"
          :schema="s.a"
          :model-value="element.a"
          @update:model-value="set('a')($event)"
        />
        <QuantityField
          label="b, inertial part"
          quantity="quadraticDrag"
          :schema="s.b"
          :model-value="element.b"
          @update:model-value="set('b')($event)"
        />
      </template>
    </div>
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
          :schema="s.diameterM"
        />
        <QuantityField
          v-model="other"
          label="Height"
          hint="leave empty for a round one"
          quantity="length"
          :schema="s.diameterM"
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
