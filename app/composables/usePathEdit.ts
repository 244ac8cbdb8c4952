import type { pathStarters, Branch, ElementKind, PathElement } from '#core/document'
import {
  boreBeside,
  elementNames,
  newElement,
  newSplit,
  mayStandIn,
  placeElement,
  removeBranch,
  removeElement,
  rowOf,
} from '#core/document'
import type { WhatIf } from '#core/advice'

/** Where the next element goes: a row (main or a way) and its place in it; at the end where none is told. */
export interface Spot {
  branchId: string | null
  index: number | null
}

/** All changes of the open job's air path. */
export function usePathEdit(selectedId: Ref<string | null>, spot: Ref<Spot>) {
  const store = useJobStore()
  const toast = useToast()
  const path = computed(() => store.plan?.path ?? [])
  const branches = computed(() => store.plan?.branches ?? [])

  function add(adder: ElementKind | 'alike') {
    const kind = adder === 'alike' ? 'split' : adder
    const id = newId(kind)
    const { branchId, index } = spot.value
    const way = (name: string, times = 1) => ({ id: newId('way'), name, leak: false, times })
    store.change((d) => {
      if (kind === 'split') {
        const made = newSplit(
          id,
          adder === 'alike' ? [way('One of them', 2)] : [way('First way'), way('Second way')],
        )
        if (adder === 'alike') made.element.name = 'Openings alike'
        placeElement(d, made.element, null, index)
        d.branches.push(...made.branches)
      } else
        placeElement(
          d,
          { ...newElement(id, kind), diameterM: boreBeside(d, kind, branchId, index) },
          branchId,
          index,
        )
    })
    selectedId.value = id
    landIn('.element-form')
    if (index !== null) spot.value = { branchId, index: null }
  }
  function begin(starter: (typeof pathStarters)[number]) {
    store.change((d) => {
      d.path = starter.kinds.map(({ kind, name, rest }) => ({
        ...newElement(newId(kind), kind),
        name,
        ...rest,
      }))
    })
    landIn('.element-form')
  }
  function moveBy(element: PathElement, by: number) {
    const row = rowOf(store.plan!, element.branchId)
    const to = row.findIndex((e) => e.id === element.id) + by
    if (to >= 0 && to < row.length) moveTo(element.id, element.branchId, to)
  }
  const landOnRow = (id: string | undefined) => landIn(`[data-id="${id}"]`)
  function moveTo(id: string, branchId: string | null, index: number) {
    const element = path.value.find((e) => e.id === id)
    if (!element) return
    if (!mayStandIn(store.plan!, element, branchId)) {
      toast.show(
        `${elementNames[element.kind]} stays in the main row: inside a way the path would go round in a loop.`,
        { tone: 'bad' },
      )
      return
    }
    store.change((d) => {
      const own = d.path.find((e) => e.id === id)!
      placeElement(d, own, branchId, index)
    })
    landOnRow(id)
  }
  /** The work goes on at the next element, or where one is added. */
  function remove(element: PathElement) {
    const row = rowOf(store.plan!, element.branchId)
    const at = row.indexOf(element)
    store.removeWithUndo(`${element.name || elementNames[element.kind]} removed.`, (d) =>
      removeElement(d, element.id),
    )
    const next = row[at + 1] ?? row[at - 1]
    if (next) landOnRow(next.id)
    else landIn('.adders')
  }
  const edit = (field: string, values: Partial<PathElement>) =>
    store.change((d) => {
      const element = d.path.find((e) => e.id === selectedId.value)
      if (element) Object.assign(element, values)
    }, `path.${selectedId.value}.${field}`)
  const editBranch = (id: string, values: Partial<Branch>) =>
    store.change((d) => {
      const branch = d.branches.find((b) => b.id === id)
      if (branch) Object.assign(branch, values)
    }, `branch.${id}`)
  const addBranch = (splitId: string, leak: boolean) =>
    store.change((d) => {
      const way: Branch = { id: newId('way'), splitId, name: leak ? 'Leak' : 'Another way', leak, times: 1 }
      d.branches.push(way)
      if (leak)
        d.path.push({
          ...newElement(newId('opening'), 'opening', way.id),
          name: 'Crack',
          edge: 'crack',
          basis: 'rough-guess',
        })
    })
  const dropBranch = (id: string) => store.removeWithUndo('Way removed.', (d) => removeBranch(d, id))
  /** Takes a what-if; one undo away. */
  function apply(element: PathElement, change: WhatIf) {
    store.change((d) => {
      if (!change.element) return removeElement(d, element.id)
      d.path = d.path.map((e) => (e.id === element.id ? change.element! : e))
    })
    toast.show(`${element.name}: ${change.label}.`, { action: { label: 'Undo', run: store.undo } })
  }
  return {
    path,
    branches,
    add,
    begin,
    moveBy,
    moveTo,
    remove,
    edit,
    editBranch,
    addBranch,
    removeBranch: dropBranch,
    apply,
  }
}
