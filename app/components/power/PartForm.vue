<script setup lang="ts">
import { feedProblemText, nodeFigures } from '#core/supply'
import type { FeedPart, LoadKind } from '#core/document'
import { newFeedPart, feedPartSchema, withLoadKind, withPartConverter } from '#core/document'

/** What else the source feeds: converters, branches and loads, each on its own lead. */
const job = useJobStore()
const shelf = useShelfStore()
const { show } = useUnits()
const feed = computed(() => job.plan!.feed)
const nodes = computed(() => new Map(job.report!.power.feed.nodes.map((n) => [n.id, n])))
const open = ref<string | null>(null)

/** Everything below a part: none of it may be what the part hangs on. */
function below(id: string): Set<string> {
  const set = new Set([id])
  for (let grown = true; grown;) {
    grown = false
    for (const f of feed.value) {
      if (f.parentId !== null && set.has(f.parentId) && !set.has(f.id)) {
        set.add(f.id)
        grown = true
      }
    }
  }
  return set
}
const parentsOf = (part: FeedPart): Option[] => {
  const under = below(part.id)
  return [
    { value: null, label: job.plan!.source?.name || 'the source' },
    ...(job.plan!.converter ? [{ value: job.plan!.converter.id, label: 'the fan’s converter' }] : []),
    ...feed.value
      .filter((f) => f.kind !== 'load' && !under.has(f.id))
      .map((f) => ({ value: f.id, label: f.name })),
  ]
}
const fans = computed((): Option[] => [
  { value: null, label: 'not chosen' },
  ...shelf.known.map((f) => ({ value: f.id, label: `${f.maker} ${f.model}` })),
])
function add(kind: FeedPart['kind']) {
  const last = feed.value.findLast((f) => f.kind === 'converter')
  const parent = kind === 'load' ? (last?.id ?? job.plan!.converter?.id ?? null) : null
  const part = newFeedPart(newId(kind), kind, parent)
  job.change((d) => {
    d.feed.push(part)
  })
  open.value = part.id
}
const set = (id: string, key: keyof FeedPart, value: unknown) =>
  job.change((d) => {
    const at = d.feed.findIndex((f) => f.id === id)
    const part = d.feed[at]
    if (!part) return
    // another kind leaves nothing of the old one behind
    if (key === 'loadKind') d.feed[at] = withLoadKind(part, value as LoadKind)
    else if (key === 'converterKind') d.feed[at] = withPartConverter(part, value as 'buck')
    else assign(part, key, value)
  }, `feed.${id}.${key}`)
const remove = (part: FeedPart) =>
  job.removeWithUndo(`${part.name} and what hangs on it removed.`, (d) => {
    const gone = below(part.id)
    d.feed = d.feed.filter((f) => !gone.has(f.id))
  })
const headline = (part: FeedPart) => {
  const n = nodes.value.get(part.id)
  return n
    ? `${show(n.inV, 'voltage')}${n.inA === null ? '' : `, ${show(n.inA, 'current')}`}`
    : 'hangs on nothing'
}
const stateOf = (part: FeedPart) => {
  const problems = nodes.value.get(part.id)?.problems ?? []
  return problems.some((p) => p.severity === 'stop')
    ? ('stop' as const)
    : problems.some((p) => p.severity === 'fix')
      ? ('fix' as const)
      : ('settled' as const)
}
const route = useRoute()
watch(
  () => route.query.part,
  (part) => {
    if (typeof part === 'string' && feed.value.some((f) => f.id === part)) open.value = part
  },
  { immediate: true },
)
defineExpose({
  open: (id: string) => {
    open.value = id
  },
})
</script>

<template>
  <section class="sheet stack">
    <div class="sheet-head">
      <h2>What else hangs on it</h2>
      <div class="row">
        <el-button size="small" @click="add('load')">+ Load</el-button>
        <el-button size="small" @click="add('converter')">+ Converter</el-button>
        <el-button size="small" @click="add('branch')">+ Branch</el-button>
      </div>
    </div>
    <p v-if="!feed.length" class="soft small">
      Other fans, LEDs, boards, pumps, modules on the same source: overload usually comes from them.
    </p>
    <FoldBox v-for="part in feed" :key="part.id" :open="open === part.id">
      <template #title>
        <StateMark :state="stateOf(part)" /> {{ part.name }}<span class="aside">{{ headline(part) }}</span>
      </template>
      <FieldGrid
        tight
        :record="part"
        :fields="partFields(part, parentsOf(part), fans)"
        :shape="feedPartSchema.shape"
        @set="(key, value) => set(part.id, key, value)"
      />
      <dl v-if="nodes.get(part.id)" class="figures small">
        <div v-for="f in nodeFigures(nodes.get(part.id)!).filter((x) => x.value !== null)" :key="f.key">
          <dt>{{ f.label }}</dt>
          <dd><FigureValue :figure="f" /></dd>
        </div>
      </dl>
      <ul v-if="nodes.get(part.id)?.problems.length" class="small problems">
        <li v-for="p in nodes.get(part.id)!.problems" :key="p.code">
          <StateMark :state="p.severity" /> {{ feedProblemText(p) }}
        </li>
      </ul>
      <el-button text size="small" @click="remove(part)">Take {{ part.name }} away</el-button>
    </FoldBox>
  </section>
</template>

<style scoped>
.figures {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(120px, 1fr));
  gap: 4px 12px;
  margin: 6px 0 0;
}
.figures dt {
  color: var(--ink-soft);
}
.figures dd {
  margin: 0;
}
.figures :deep(.figure) {
  text-align: left;
}
.problems {
  list-style: none;
  margin: 4px 0;
  padding: 0;
  display: grid;
  gap: 2px;
}
</style>
