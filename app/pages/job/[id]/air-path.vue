<script setup lang="ts">
import { elementNames, mayStandIn, pathStarters } from '#core/document'
import type { ElementKind, PathElement } from '#core/document'

definePageMeta({ station: 'air-path' })

const { report, findings } = useJob('air-path')
const route = useRoute()
const selectedId = ref<string | null>(null)
const spot = ref<Spot>({ branchId: null, index: null })
const { path, branches, add, begin, moveBy, moveTo, remove, edit, editBranch, addBranch, removeBranch, apply } =
  usePathEdit(selectedId, spot)
const { show } = useUnits()

const main = computed(() => path.value.filter((e) => e.branchId === null))
const selected = computed(() => path.value.find((e) => e.id === selectedId.value) ?? null)
watch(
  () => route.query,
  (query) => {
    if (typeof query.element === 'string') selectedId.value = query.element
    if (typeof query.insert === 'string') {
      landIn('.adders')
      spot.value = { branchId: null, index: Math.min(Number(query.insert) || 0, main.value.length) }
    }
  },
  { immediate: true },
)
watch(
  path,
  (list) => {
    if (!list.some((e) => e.id === selectedId.value)) selectedId.value = worstId() ?? list[0]?.id ?? null
  },
  { immediate: true },
)
/** The element that takes most: what to look at first. */
function worstId(): string | undefined {
  return report.value.path.elements.toSorted((a, b) => (b.share ?? 0) - (a.share ?? 0))[0]?.id
}

/** Every kind, the usual ones first. One flat list: grouped, the library's list loses its options for a screen reader. */
const kinds: (ElementKind | 'alike')[] = [
  'opening',
  'grille',
  'filter',
  'duct',
  'bend',
  'chamber',
  'fan',
  'slot',
  'hood',
  'outlet',
  'reducer',
  'wye',
  'damper',
  'flap',
  'adapter',
  'fins',
  'split',
  'alike',
  'custom',
]
const may = (k: ElementKind | 'alike') =>
  k === 'fan' && path.value.filter((e) => e.kind === 'fan').length >= 2
    ? false
    : mayStandIn({ branches: branches.value }, { kind: k === 'alike' ? 'split' : k }, spot.value.branchId)
const adderName = (k: ElementKind | 'alike') => (k === 'alike' ? 'Openings alike' : elementNames[k])
const wayName = computed(() => branches.value.find((b) => b.id === spot.value.branchId)?.name)
const where = computed(() =>
  wayName.value !== undefined
    ? `Add to “${wayName.value}”`
    : spot.value.index === null
      ? 'Add at the end'
      : `Insert as number ${spot.value.index + 1}`,
)
const wayRow = (id: string) => path.value.filter((e) => e.branchId === id)
const reports = computed(() => new Map(report.value.path.elements.map((e) => [e.id, e])))
const worst = computed(() => Math.max(0, ...report.value.path.elements.map((e) => e.share ?? 0)))
const severityOf = (id: string) => {
  const mine = reports.value.get(id)?.findings ?? []
  return (['stop', 'fix', 'note'] as const).find((s) => mine.some((f) => f.severity === s)) ?? null
}
const bind = (element: PathElement, row: PathElement[]) => ({
  element,
  report: reports.value.get(element.id) ?? null,
  chosen: element.id === selectedId.value,
  first: row[0] === element,
  last: row.at(-1) === element,
  worst: worst.value > 0.3 && reports.value.get(element.id)?.share === worst.value,
  severity: severityOf(element.id),
})
const flowOf = (branchId: string) => {
  const first = wayRow(branchId)[0]
  return first ? (reports.value.get(first.id)?.flow ?? null) : null
}
const list = ref<HTMLElement>()
const lists = shallowRef<HTMLElement[]>([])
const collect = async () => {
  await nextTick()
  lists.value = [...(list.value?.querySelectorAll<HTMLElement>('[data-list]') ?? [])]
}
onMounted(collect)
watch([path, branches], collect)
useSortable(lists, ({ id, toList, toIndex }) => moveTo(id, toList === 'main' ? null : toList, toIndex))
const selectedBranches = computed(() => branches.value.filter((b) => b.splitId === selectedId.value))
usePageKeys([
  { key: 'a', what: 'Add an element', run: () => landIn('.adders') },
  {
    key: 'ArrowUp',
    what: 'Move the chosen element towards the intake',
    run: () => selected.value && moveBy(selected.value, -1),
  },
  {
    key: 'ArrowDown',
    what: 'Move the chosen element towards the outlet',
    run: () => selected.value && moveBy(selected.value, 1),
  },
])
</script>

<template>
  <div class="layout">
    <div class="stack">
      <section ref="list" class="sheet">
        <div class="sheet-head">
          <h2>What the air has to get through</h2>
          <span class="total">whole path <FigureValue :figure="report.path.drop" range /></span>
        </div>
        <div class="adders">
          <el-select
            filterable
            :persistent="false"
            :placeholder="`+ ${where} …`"
            :aria-label="where"
            :model-value="''"
            @change="add"
          >
            <el-option v-for="kind in kinds.filter(may)" :key="kind" :value="kind" :label="adderName(kind)" />
          </el-select>
          <el-button
            v-if="spot.index !== null || spot.branchId !== null"
            text
            size="small"
            @click="spot = { branchId: null, index: null }"
          >
            at the end instead
          </el-button>
        </div>
        <div v-if="!path.length" class="empty">
          <p>
            From where the air is drawn in to where it leaves: begin with the opening or grille it enters by,
            put the fan in its place, end with where it goes out. Or begin with a usual row and fill in its
            sizes:
          </p>
          <div class="row">
            <el-button v-for="starter in pathStarters" :key="starter.name" @click="begin(starter)">
              {{ starter.name }}
            </el-button>
          </div>
        </div>
        <ul v-else class="rows" data-list="main">
          <template v-for="element in main" :key="element.id">
            <PathRow
              v-bind="bind(element, main)"
              @pick="selectedId = element.id"
              @move="moveBy(element, $event)"
              @remove="remove(element)"
            />
            <li v-for="way in branches.filter((b) => b.splitId === element.id)" :key="way.id" class="way">
              <div class="way-head">
                <span class="small"
                  ><strong
                    ><template v-if="way.times > 1">{{ way.times }} × </template>{{ way.name }}</strong
                  ><template v-if="way.leak"> · leak</template
                  ><template v-if="flowOf(way.id) !== null">
                    · <span class="mono">{{ show(flowOf(way.id), 'flow') }}</span></template
                  ></span
                >
                <el-button
                  size="small"
                  :aria-pressed="spot.branchId === way.id"
                  :aria-label="`Add elements to ${way.name}`"
                  @click="spot = { branchId: way.id, index: null }"
                >
                  Add here
                </el-button>
              </div>
              <ul class="rows" :data-list="way.id">
                <PathRow
                  v-for="inner in wayRow(way.id)"
                  :key="inner.id"
                  v-bind="bind(inner, wayRow(way.id))"
                  @pick="selectedId = inner.id"
                  @move="moveBy(inner, $event)"
                  @remove="remove(inner)"
                />
              </ul>
            </li>
          </template>
        </ul>
        <p v-if="report.path.useful" class="useful">
          Air that does the job: <FigureValue :figure="report.path.useful" />
        </p>
        <FindingList class="after" :findings="findings" />
        <FoldBox :open="report.path.calibration !== null" title="Calibrate with a measurement">
          <CalibratePanel data-field="calibrate" />
        </FoldBox>
        <FoldBox title="Where practice differs: the ways with this job’s numbers">
          <TradeoffList />
        </FoldBox>
      </section>
    </div>
    <InTurn>
      <div class="stack">
        <PathChart />
        <ElementForm
          v-if="selected"
          :key="selected.id"
          class="element-form"
          :element="selected"
          :branches="selectedBranches"
          :report="reports.get(selected.id) ?? null"
          @edit="edit"
          @apply="apply(selected, $event)"
          @branch="editBranch"
          @add-branch="addBranch(selected.id, $event)"
          @remove-branch="removeBranch"
        />
      </div>
    </InTurn>
  </div>
</template>

<style scoped>
.layout {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  gap: 12px;
  align-items: start;
}
.total {
  font-size: 14px;
  text-align: right;
}
.adders {
  display: flex;
  gap: 6px;
  align-items: center;
  margin-bottom: 6px;
}
.rows {
  list-style: none;
  margin: 0;
  padding: 0;
  min-height: 10px;
}
.way {
  list-style: none;
  margin-left: 22px;
  border-left: 3px solid var(--line);
  padding-left: 6px;
}
.way .rows {
  min-height: 22px;
}
.way-head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
  padding: 3px 4px;
}
.useful {
  margin-top: 8px;
  font-size: 14px;
}
.after {
  margin: 8px 0;
}
@media (max-width: 900px) {
  .layout {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
