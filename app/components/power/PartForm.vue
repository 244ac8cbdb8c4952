<script setup lang="ts">
import { feedProblemText, nodeFigures } from '#core/supply'
import type { FeedPart, LoadKind } from '#core/document'
import { feedPartSchema, switchProblem, takeOut, withLoadKind } from '#core/document'

/** One more thing of the feed: a branch, a switch or a load, on its own lead. */
const props = defineProps<{ id: string }>()
const job = useJobStore()
const { show } = useUnits()
const feed = computed(() => job.plan!.feed)
const nodes = computed(() => new Map(job.report!.power.feed.nodes.map((n) => [n.id, n])))
const part = computed(() => feed.value.find((f) => f.id === props.id) ?? null)
const node = computed(() => nodes.value.get(props.id) ?? null)

/** The temperatures of a thermal switch are held against each other where they are typed. */
const shape = computed(() => {
  const { onC, offC } = feedPartSchema.shape
  const fits = (change: (value: number | null) => Partial<FeedPart>) => (value: number | null) =>
    !part.value || switchProblem({ ...part.value, ...change(value) }) === null
  const error =
    'A contact that closes when warm opens lower than it closes, one that opens when warm the other way round.'
  return {
    ...feedPartSchema.shape,
    onC: onC.refine(
      fits((value) => ({ onC: value })),
      { error },
    ),
    offC: offC.refine(
      fits((value) => ({ offC: value })),
      { error },
    ),
  }
})

const parents = computed(() => parentOptions(job.plan!, props.id))
const fans = useFanOptions('not chosen')
const set = (id: string, key: keyof FeedPart, value: unknown) =>
  job.change((d) => {
    const at = d.feed.findIndex((f) => f.id === id)
    const part = d.feed[at]
    if (!part) return
    // another kind leaves nothing of the old one behind
    if (key === 'loadKind') d.feed[at] = withLoadKind(part, value as LoadKind)
    else assign(part, key, value)
  }, `feed.${id}.${key}`)
function remove(part: FeedPart) {
  job.removeWithUndo(`${part.name} removed.`, (d) => takeOut(d, part.id))
  landIn('.feed-forms')
}
const headline = computed(() => {
  const n = node.value
  return n
    ? `${show(n.inV, 'voltage')}${n.inA === null ? '' : `, ${show(n.inA, 'current')}`}`
    : 'hangs on nothing'
})
</script>

<template>
  <template v-if="part">
    <div class="sheet-head">
      <h2>{{ part.name }}</h2>
      <span class="mono small">{{ headline }}</span>
    </div>
    <FieldGrid
      tight
      :record="part"
      :fields="partFields(part, parents, fans)"
      :shape="shape"
      @set="(key, value) => set(part!.id, key, value)"
    />
    <dl v-if="node" class="figures small">
      <div v-for="f in nodeFigures(node).filter((x) => x.value !== null)" :key="f.key">
        <dt>{{ f.label }}</dt>
        <dd><FigureValue :figure="f" /></dd>
      </div>
    </dl>
    <ul v-if="node?.problems.length" class="small problems">
      <li v-for="p in node.problems" :key="p.code">
        <StateMark :state="p.severity" /> {{ feedProblemText(p) }}
      </li>
    </ul>
    <div>
      <p v-if="part.streamId" class="small soft">
        The lead of an air stream’s fans: which fans and how they are driven is told at its Line-up.
        <NuxtLink :to="{ path: `/job/${job.plan!.job.id}/line-up`, query: { stream: part.streamId } }"
          >Go there</NuxtLink
        >
      </p>
      <el-button v-else text size="small" @click="remove(part)">Take {{ part.name }} away</el-button>
    </div>
  </template>
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
