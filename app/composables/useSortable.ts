import type Sortable from 'sortablejs'

export interface Moved {
  id: string
  toList: string
  toIndex: number
}

/**
 * Rows that may be dragged within and between lists. The browser's rows are put back where they were and the move is told:
 * the document decides, and draws them anew.
 * @param lists elements with data-list; their rows carry data-id, a handle has the class "handle"
 */
export function useSortable(lists: Ref<HTMLElement[]>, moved: (move: Moved) => void) {
  let made: Sortable[] = []
  let gone = false
  const stop = () => {
    for (const s of made) s.destroy()
    made = []
  }
  watch(
    lists,
    async (elements) => {
      const { default: library } = await import('sortablejs')
      if (gone || elements !== lists.value) return
      stop()
      made = elements.map((el) =>
        library.create(el, {
          group: 'path',
          handle: '.handle',
          draggable: '[data-id]',
          animation: 120,
          ghostClass: 'ghost',
          fallbackTolerance: 4,
          onEnd: ({ item, from, to, oldIndex, newDraggableIndex }) => {
            const next = from.children[oldIndex ?? 0] ?? null
            from.insertBefore(
              item,
              from === to && (oldIndex ?? 0) > Array.prototype.indexOf.call(from.children, item)
                ? (next?.nextSibling ?? null)
                : next,
            )
            moved({ id: item.dataset.id!, toList: to.dataset.list!, toIndex: newDraggableIndex ?? 0 })
          },
        }),
      )
    },
    { flush: 'post', immediate: true },
  )
  onBeforeUnmount(() => {
    gone = true
    stop()
  })
}
