<script setup lang="ts">
import {
  plannedFans,
  addSource,
  converterOf,
  feedPartSchema,
  isConverter,
  leadOfFans,
  MOST_SOURCES,
  newFeedPart,
  newSource,
  putInLead,
  sourceOf,
  sourceSchema,
  wiringSchema,
  type FeedPart,
} from '#core/document'

/**
 * The form of one piece of the feed, beside the diagram: the source of the stream's fans, what makes their voltage, their
 * lead, or whatever else is in the feed. The diagram, a finding or the row of names says which.
 */
const { store, plan } = useJob('power')
/** Pieces that are told by what they are to the fans of the stream, whatever their ids are. */
const SOURCE = '/source'
const CONVERTER = '/converter'
const FANS = '/fans'
const chosen = ref(SOURCE)
/** So many of them, with so many letters, fit in a row; more are a list. */
const MOST_IN_ROW = 5
const LETTERS_IN_ROW = 58
/** What the fans of the stream hang on. */
const own = computed<Record<string, string | undefined>>(() => ({
  [SOURCE]: sourceOf(plan.value)?.id,
  [CONVERTER]: converterOf(plan.value)?.id,
  [FANS]: leadOfFans(plan.value)?.id,
}))
const keyOf = (id: string) => Object.keys(own.value).find((key) => own.value[key] === id) ?? id
const pieces = computed(() => {
  const { sources, feed } = plan.value
  if (!sources.length) return [{ value: SOURCE, label: 'Source' }]
  const others = [
    ...sources.map((s) => ({ value: s.id, label: s.name || 'Further source' })),
    ...feed.map((f) => ({ value: f.id, label: f.name })),
  ]
  return [
    { value: SOURCE, label: 'Source' },
    { value: CONVERTER, label: 'Converter' },
    { value: FANS, label: 'Lead to the fans' },
    ...others.filter((p) => keyOf(p.value) === p.value),
  ]
})
const inARow = computed(
  () =>
    pieces.value.length <= MOST_IN_ROW && pieces.value.map((p) => p.label).join('').length <= LETTERS_IN_ROW,
)
const open = computed({
  get: () => (pieces.value.some((p) => p.value === chosen.value) ? chosen.value : SOURCE),
  set: (value) => {
    chosen.value = value
  },
})
/** The node of the feed whose form is open. */
const nodeId = computed(() => (open.value in own.value ? (own.value[open.value] ?? null) : open.value))
/** Opens the piece that a node of the feed stands for; a coil is told with its switch. */
function openNode(id: string) {
  open.value = keyOf(id.replace(/-coil$/, ''))
}
function opened(id: string) {
  openNode(id)
  landIn('.feed-forms .piece')
}
function add(kind: FeedPart['kind']) {
  const { feed, sources } = plan.value
  const last = kind === 'load' ? feed.findLast(isConverter) : undefined
  const part = newFeedPart(newId(kind), kind, last?.id ?? own.value[SOURCE] ?? sources[0]?.id ?? null)
  store.change((d) => {
    d.feed.push(part)
  })
  opened(part.id)
}
/** A new switch stands in the lead of the fans, behind what stands there already. */
function addSwitch() {
  const part = newFeedPart(newId('switch'), 'switch', own.value[SOURCE] ?? null)
  store.change((d) => {
    const lead = leadOfFans(d)
    if (lead && plannedFans(d)) putInLead(d, lead, part)
    else d.feed.push(part)
  })
  opened(part.id)
}
function addRail() {
  const source = newSource(newId('source'), 'rail', null)
  store.change((d) => addSource(d, { ...source, name: `Rail ${d.sources.length + 1}`, nominalV: 12 }))
  opened(source.id)
}
/** The piece whose form has a field. */
function pieceOf(key: string): string | null {
  if (key in wiringSchema.shape || fansLeadFields([]).some((f) => f.key === key && key !== 'fuseA')) return FANS
  if (key in sourceSchema.shape) return SOURCE
  return key in feedPartSchema.shape ? CONVERTER : null
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
      v-if="plan.sources.length && inARow"
      v-model="open"
      label="Piece of the feed"
      :options="pieces"
    />
    <ChoiceField
      v-else-if="plan.sources.length"
      v-model="open"
      label="Piece of the feed, or press it in the diagram"
      :options="pieces"
    />
    <div :key="open" class="stack piece">
      <SourceForm v-if="open === SOURCE" />
      <SourceForm v-else-if="plan.sources.some((s) => s.id === open)" :id="open" @gone="open = SOURCE" />
      <ConverterForm v-else-if="open === CONVERTER" />
      <LeadForm v-else-if="open === FANS" />
      <ConverterForm
        v-else-if="plan.feed.some((p) => p.id === open && isConverter(p))"
        :id="open"
        @gone="open = SOURCE"
      />
      <PartForm v-else :id="open" />
    </div>
    <div v-if="plan.sources.length" class="row more">
      <span class="small soft">What else hangs on it:</span>
      <el-button size="small" @click="add('load')">+ Load</el-button>
      <el-button size="small" @click="add('converter')">+ Converter</el-button>
      <el-button size="small" @click="add('branch')">+ Branch</el-button>
      <el-button size="small" @click="addSwitch">+ Switch</el-button>
      <el-button size="small" :disabled="plan.sources.length >= MOST_SOURCES" @click="addRail"
        >+ Source</el-button
      >
    </div>
  </section>
</template>

<style scoped>
.more {
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
</style>
