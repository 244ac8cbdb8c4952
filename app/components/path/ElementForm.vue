<script setup lang="ts">
import { findingMessage } from '#core/rules'
import { branchSchema, elementNames, elementSchema } from '#core/document'
import type { Branch, PathElement } from '#core/document'
import { freeAreaRatioOf } from '#core/system'
import type { ElementReport } from '#core/plan'
import type { WhatIf } from '#core/advice'

/** One element of the path: only the fields its kind needs, what it does, and what else it could be. */
const props = defineProps<{ element: PathElement; branches: Branch[]; report: ElementReport | null }>()
const emit = defineEmits<{
  edit: [field: string, values: Partial<PathElement>]
  apply: [change: WhatIf]
  branch: [id: string, values: Partial<Branch>]
  addBranch: [leak: boolean]
  removeBranch: [id: string]
}>()
const { show, units } = useUnits()
const kind = computed(() => props.element.kind)
const set = (key: keyof PathElement, value: unknown) => emit('edit', key, { [key]: value })
/** What is asked first stands first: its sizes, then how sure they are. */
const fields = computed((): Field<keyof PathElement>[] => [
  ...elementFields(props.element),
  ...(kind.value === 'fan' || kind.value === 'split' || kind.value === 'chamber'
    ? []
    : [{ key: 'basis' as const, label: 'How sure', options: basisOptions }]),
  { key: 'name', label: 'Name', text: true },
])
/** Fans in openings alike: a second, unlike way would let the air go round in a loop. */
const job = useJobStore()
const fansInside = computed(() =>
  Boolean(job.plan?.path.some((e) => e.kind === 'fan' && props.branches.some((b) => b.id === e.branchId))),
)
const ratio = computed(() =>
  kind.value === 'grille' && props.element.pattern ? freeAreaRatioOf(props.element) : null,
)
const GrillePhoto = defineAsyncComponent(() => import('./GrillePhoto.vue'))
const fromPhoto = ref(false)
function takePhoto(values: Partial<PathElement>) {
  emit('edit', 'freeAreaRatio', values)
  fromPhoto.value = false
}
const hasPoints = computed(
  () => kind.value === 'custom' || (kind.value === 'filter' && props.element.medium === 'sheet'),
)
const spoken = computed(() =>
  (props.report?.findings ?? []).map((f) => ({
    id: f.id,
    severity: f.severity,
    text: findingMessage(f, units.value),
    fix: f.fix,
  })),
)
</script>

<template>
  <section class="sheet stack" :aria-label="`Edit ${element.name}`">
    <div class="sheet-head">
      <h2>{{ elementNames[kind] }}</h2>
      <FigureValue
        v-if="report && kind !== 'fan' && kind !== 'chamber' && !report.missing"
        :figure="report.figure"
        range
      />
    </div>
    <p v-if="report?.missing" class="missing">It lacks {{ report.missing }}.</p>
    <ul v-if="spoken.length" class="spoken">
      <li v-for="f in spoken" :key="f.id">
        <StateMark :state="f.severity" />
        <span
          ><strong>{{ f.text }}.</strong> {{ f.fix }}</span
        >
      </li>
    </ul>
    <p v-if="kind === 'fan'" class="soft small">
      The fans sit here. With a second place for fans on the other side of the box, air is blown in here and
      drawn out there. Which fans, and how many: the Line-up.
    </p>
    <p v-if="kind === 'split'" class="soft small">
      The air divides: each way takes what its resistance lets through. A leak is a way whose air does not do
      the job. A way may stand several times: give the sizes of one.
    </p>
    <FieldGrid tight :record="element" :fields="fields" :shape="elementSchema.shape" @set="set" />
    <div v-if="kind === 'grille'">
      <el-button size="small" @click="fromPhoto = true">How open it is, from a photo</el-button>
    </div>
    <el-dialog
      v-model="fromPhoto"
      :title="`${element.name}, from a photo`"
      width="min(980px, 96vw)"
      top="3vh"
      append-to-body
      destroy-on-close
    >
      <GrillePhoto @take="takePhoto" />
    </el-dialog>
    <p v-if="element.pattern && ratio !== null" class="small soft">
      That pattern is <strong class="mono">{{ show(ratio, 'ratio') }}</strong> open.
    </p>
    <template v-if="kind === 'split'">
      <div v-for="way in branches" :key="way.id" class="way">
        <TextField
          label="Way"
          :model-value="way.name"
          @update:model-value="emit('branch', way.id, { name: $event })"
        />
        <QuantityField
          label="How many"
          quantity="number"
          required
          :schema="branchSchema.shape.times"
          :model-value="way.times"
          @update:model-value="emit('branch', way.id, { times: $event! })"
        />
        <el-checkbox :model-value="way.leak" @change="emit('branch', way.id, { leak: Boolean($event) })"
          >a leak</el-checkbox
        >
        <el-button
          text
          class="icon"
          :disabled="branches.length <= 1"
          :aria-label="`Remove the way ${way.name}`"
          @click="emit('removeBranch', way.id)"
        >
          ×
        </el-button>
      </div>
      <div class="row">
        <el-button size="small" :disabled="fansInside" @click="emit('addBranch', false)"
          >+ Another way</el-button
        >
        <el-button size="small" :disabled="fansInside" @click="emit('addBranch', true)">+ A leak</el-button>
      </div>
      <p v-if="fansInside" class="small soft">
        The fans stand in these openings, so that they are all alike: an unlike way beside them is a stream of
        its own.
      </p>
    </template>
    <FoldBox v-if="hasPoints" open title="Points from its data sheet or your own test">
      <LossPoints :points="element.points" what="it" @update="set('points', $event)" />
    </FoldBox>
    <WhatIfList v-if="!report?.missing" :element="element" @apply="emit('apply', $event)" />
  </section>
</template>

<style scoped>
.missing {
  color: var(--amber);
  font-weight: 600;
}
.way {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 92px auto auto;
  gap: 10px;
  align-items: end;
}
.spoken {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
  font-size: 14px;
}
.spoken li {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
</style>
