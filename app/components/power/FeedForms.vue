<script setup lang="ts">
import { fansNodeOf } from '#core/supply'
import {
  converterSchema,
  inFansLead,
  newFeedPart,
  newSource,
  sourceSchema,
  wiringSchema,
  type FeedPart,
} from '#core/document'

/**
 * The form of one piece of the feed, beside the diagram: the source, what makes the fans' voltage, the lead to the fans,
 * or whatever else hangs on it. The diagram, a finding or the row of names says which.
 */
const { store, plan, report } = useJob('power')
const chosen = ref('source')
/** So many names of pieces fit in a row; more are a list. */
const IN_A_ROW = 5
const pieces = computed(() => [
  { value: 'source', label: 'Source' },
  ...(plan.value.source
    ? [
        { value: 'converter', label: 'Converter' },
        { value: 'fans', label: 'Lead to the fans' },
        ...plan.value.sources.map((s) => ({ value: s.id, label: s.name || 'Further source' })),
        ...plan.value.feed.map((f) => ({ value: f.id, label: f.name })),
      ]
    : []),
])
const open = computed({
  get: () => (pieces.value.some((p) => p.value === chosen.value) ? chosen.value : 'source'),
  set: (value) => {
    chosen.value = value
  },
})
/** The node of the feed whose form is open. */
const nodeId = computed(() => {
  const { source, converter } = plan.value
  if (open.value === 'source') return source?.id ?? null
  if (open.value === 'converter') return converter?.id ?? null
  return open.value === 'fans' ? (fansNodeOf(plan.value, report.value.power.feed)?.id ?? null) : open.value
})
/** Opens the piece that a node of the feed stands for. */
function openNode(id: string) {
  const { source, converter } = plan.value
  if (id === source?.id) open.value = 'source'
  else if (id === fansNodeOf(plan.value, report.value.power.feed)?.id) open.value = 'fans'
  // a coil is told with its switch
  else open.value = id === converter?.id ? 'converter' : id.replace(/-coil$/, '')
}
function add(kind: FeedPart['kind']) {
  const last = plan.value.feed.findLast((f) => f.kind === 'converter')
  const parent = kind === 'load' ? (last?.id ?? plan.value.converter?.id ?? null) : null
  const part = newFeedPart(newId(kind), kind, parent)
  store.change((d) => {
    d.feed.push(part)
  })
  open.value = part.id
  landIn('.feed-forms .piece')
}
/** A new switch stands in the lead of the fans, behind what stands there already. */
function addSwitch() {
  const { feed, converter, source } = plan.value
  const start = converter?.id ?? source?.id
  if (!start) return
  const last = inFansLead(feed, start, !converter).at(-1)
  const part = newFeedPart(newId('switch'), 'switch', last?.id ?? converter?.id ?? null)
  store.change((d) => {
    d.feed.push({ ...part, carriesFans: plan.value.selection !== null })
  })
  open.value = part.id
  landIn('.feed-forms .piece')
}
function addSource() {
  const source = newSource(newId('source'), 'rail', null)
  store.change((d) => {
    d.sources.push({ ...source, name: `Rail ${d.sources.length + 2}`, nominalV: 12 })
  })
  open.value = source.id
  landIn('.feed-forms .piece')
}
/** The piece whose form has a field. */
function pieceOf(key: string): string | null {
  if (key in wiringSchema.shape || leadFields.some((f) => f.key === key)) return 'fans'
  if (key in sourceSchema.shape) return 'source'
  return key in converterSchema.shape ? 'converter' : null
}
const route = useRoute()
watch(
  () => route.fullPath,
  () => {
    const { part } = route.query
    const key = /^#field-(.+)$/.exec(route.hash)?.[1]
    if (typeof part === 'string') openNode(part)
    else if (key) open.value = pieceOf(key) ?? open.value
  },
  { immediate: true },
)
defineExpose({ openNode, nodeId })
</script>

<template>
  <section class="sheet stack feed-forms">
    <SegmentChoice
      v-if="plan.source && pieces.length <= IN_A_ROW"
      v-model="open"
      label="Piece of the feed"
      :options="pieces"
    />
    <ChoiceField
      v-else-if="plan.source"
      v-model="open"
      label="Piece of the feed, or press it in the diagram"
      :options="pieces"
    />
    <div :key="open" class="stack piece">
      <SourceForm v-if="open === 'source'" />
      <SourceForm v-else-if="plan.sources.some((s) => s.id === open)" :id="open" @gone="open = 'source'" />
      <ConverterForm v-else-if="open === 'converter'" />
      <LeadForm v-else-if="open === 'fans'" />
      <PartForm v-else :id="open" />
    </div>
    <div v-if="plan.source" class="row more">
      <span class="small soft">What else hangs on it:</span>
      <el-button size="small" @click="add('load')">+ Load</el-button>
      <el-button size="small" @click="add('converter')">+ Converter</el-button>
      <el-button size="small" @click="add('branch')">+ Branch</el-button>
      <el-button size="small" @click="addSwitch">+ Switch</el-button>
      <el-button size="small" :disabled="plan.sources.length >= 7" @click="addSource">+ Source</el-button>
    </div>
  </section>
</template>

<style scoped>
.more {
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
</style>
