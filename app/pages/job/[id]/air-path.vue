<script setup lang="ts">
import { elementNames, newElement, pathStarters } from '../../../../core/plan/defaults'
import type { ElementKind, PathElement } from '../../../../core/plan/document'

const { store, plan, report, findings } = useJob('air-path')
const route = useRoute()
const path = computed(() => plan.value.path)
const selectedId = ref<string | null>(null)
const insertAt = ref<number | null>(null)
const { show } = useUnits()

const selected = computed(() => path.value.find(e => e.id === selectedId.value) ?? null)
watch(() => route.query, (query) => {
  if (typeof query.element === 'string') selectedId.value = query.element
  if (typeof query.insert === 'string') insertAt.value = Math.min(Number(query.insert) || 0, path.value.length)
}, { immediate: true })
watch(path, (list) => {
  if (!list.some(e => e.id === selectedId.value)) selectedId.value = list[0]?.id ?? null
}, { immediate: true })

const kinds: ElementKind[] = ['opening', 'grille', 'filter', 'duct', 'bend', 'chamber', 'custom', 'fan']
const available = computed(() => kinds.filter(k => k !== 'fan' || !path.value.some(e => e.kind === 'fan')))
const rows = computed(() => path.value.map((element, i) => ({ element, i, report: report.value.path.elements.find(e => e.id === element.id) ?? null })))
const worst = computed(() => Math.max(0, ...rows.value.map(r => r.report?.share ?? 0)))

function add(kind: ElementKind) {
  const element = newElement(newId(kind), kind)
  const at = insertAt.value ?? path.value.length
  store.change(d => d.path.splice(at, 0, element))
  selectedId.value = element.id
  insertAt.value = null
}
const begin = (starter: typeof pathStarters[number]) => store.change((d) => {
  d.path = starter.kinds.map(({ kind, name }) => ({ ...newElement(newId(kind), kind), name }))
})
function move(index: number, by: number) {
  const to = index + by
  if (to < 0 || to >= path.value.length) return
  store.change((d) => {
    const [element] = d.path.splice(index, 1)
    d.path.splice(to, 0, element!)
  })
}
const remove = (element: PathElement) => store.removeWithUndo(`${element.name || elementNames[element.kind]} removed.`, (d) => {
  d.path = d.path.filter(e => e.id !== element.id)
})
const edit = (field: string, values: Partial<PathElement>) => store.change((d) => {
  const element = d.path.find(e => e.id === selectedId.value)
  if (element) Object.assign(element, values)
}, `path.${selectedId.value}.${field}`)
usePageKeys([
  { key: 'ArrowUp', what: 'Move the chosen element towards the intake', run: () => move(path.value.findIndex(e => e.id === selectedId.value), -1) },
  { key: 'ArrowDown', what: 'Move the chosen element towards the outlet', run: () => move(path.value.findIndex(e => e.id === selectedId.value), 1) },
])
</script>

<template>
  <div class="layout">
    <section class="sheet">
      <div class="sheet-head">
        <h2>What the air has to get through</h2>
        <span class="total">whole path <FigureValue
          :figure="report.path.drop"
          range
        /></span>
      </div>
      <div
        class="adders"
        role="group"
        :aria-label="insertAt === null ? 'Add an element at the end' : 'Insert an element'"
      >
        <span class="small soft">{{ insertAt === null ? 'Add at the end:' : `Insert as number ${insertAt + 1}:` }}</span>
        <button
          v-for="kind in available"
          :key="kind"
          type="button"
          class="button small"
          @click="add(kind)"
        >
          + {{ elementNames[kind] }}
        </button>
        <button
          v-if="insertAt !== null"
          type="button"
          class="button quiet small"
          @click="insertAt = null"
        >
          at the end instead
        </button>
      </div>
      <div
        v-if="!path.length"
        class="empty"
      >
        <p>From where the air is drawn in to where it leaves: begin with the opening or grille it enters by, put the fan in its place, end with where it goes out. Or begin with a usual row and fill in its sizes:</p>
        <div class="row">
          <button
            v-for="starter in pathStarters"
            :key="starter.name"
            type="button"
            class="button"
            @click="begin(starter)"
          >
            {{ starter.name }}
          </button>
        </div>
      </div>
      <div
        v-else
        class="scroll-x"
      >
        <table class="data">
          <thead>
            <tr>
              <th>Element, in the order of the air</th>
              <th class="num">
                loses
              </th>
              <th>share</th>
              <th><span class="visually-hidden">Order and removal</span></th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="row in rows"
              :key="row.element.id"
              :class="{ chosen: row.element.id === selectedId, worst: row.report?.share === worst && worst > 0.3 }"
            >
              <td>
                <button
                  type="button"
                  class="pick"
                  :aria-pressed="row.element.id === selectedId"
                  @click="selectedId = row.element.id"
                >
                  <strong>{{ row.element.name || elementNames[row.element.kind] }}</strong>
                  <span class="small soft">{{ elementNames[row.element.kind].toLowerCase() }}<template v-if="row.element.areaM2"> · {{ show(row.element.areaM2, 'area') }}</template><template v-if="row.element.diameterM"> · Ø {{ show(row.element.diameterM, 'length') }}</template></span>
                </button>
              </td>
              <td class="num">
                <template v-if="row.element.kind === 'fan'">
                  <span class="soft">fan</span>
                </template>
                <span
                  v-else-if="row.report?.missing"
                  class="missing"
                >size?</span>
                <FigureValue
                  v-else-if="row.report"
                  :figure="row.report.figure"
                />
              </td>
              <td>
                <span
                  v-if="row.report?.share != null && row.element.kind !== 'fan'"
                  class="bar"
                  :aria-label="`${Math.round(row.report.share * 100)} per cent of the loss`"
                  role="img"
                ><span :style="{ width: `${Math.round(row.report.share * 100)}%` }" /></span>
              </td>
              <td class="tools">
                <button
                  type="button"
                  class="button quiet icon small"
                  :disabled="row.i === 0"
                  :aria-label="`Move ${row.element.name} towards the intake`"
                  @click="move(row.i, -1)"
                >
                  ↑
                </button>
                <button
                  type="button"
                  class="button quiet icon small"
                  :disabled="row.i === path.length - 1"
                  :aria-label="`Move ${row.element.name} towards the outlet`"
                  @click="move(row.i, 1)"
                >
                  ↓
                </button>
                <button
                  type="button"
                  class="button quiet icon small"
                  :aria-label="`Remove ${row.element.name}`"
                  @click="remove(row.element)"
                >
                  ×
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <FindingList
        class="after"
        :findings="findings"
      />
    </section>
    <ElementForm
      v-if="selected"
      :key="selected.id"
      :element="selected"
      :report="rows.find(r => r.element.id === selectedId)?.report ?? null"
      @edit="edit"
    />
  </div>
</template>

<style scoped>
.layout { display: grid; grid-template-columns: minmax(0, 1.350fr) minmax(0, 1fr); gap: 12px; align-items: start; }
.total { font-size: 14px; text-align: right; }
.adders { display: flex; flex-wrap: wrap; gap: 6px; align-items: center; margin-bottom: 10px; }
tr.chosen td { background: var(--cap-soft); }
tr.chosen td:first-child { box-shadow: inset 3px 0 0 var(--cap); }
.pick { border: 0; background: none; color: inherit; text-align: left; display: grid; cursor: pointer; padding: 2px 4px; width: 100%; }
.missing { color: var(--amber); font-weight: 600; }
.bar { display: block; width: 110px; height: 10px; background: var(--sheet-soft); border: 1px solid var(--line); border-radius: 3px; }
.bar span { display: block; height: 100%; background: var(--bark); border-radius: 2px; }
.tools { white-space: nowrap; text-align: right; }
.after { margin-top: 12px; }
@media (max-width: 760px) { .layout { grid-template-columns: minmax(0, 1fr); } .bar { width: 50px; } }
</style>
