/** What is asked of the library's field with suggestions. */
interface Suggesting {
  inputRef?: { input?: HTMLElement } | undefined
  activated: boolean
  suggestions: unknown[]
  highlightedIndex: number
}

/**
 * The library's field with suggestions calls itself a plain one and names a row that is not there: for a screen reader it is
 * a combobox, open or closed.
 */
export function useComboboxRole(field: () => Suggesting | null) {
  watchPostEffect(() => {
    const shown = field()
    const input = shown?.inputRef?.input
    if (!shown || !input) return
    input.setAttribute('role', 'combobox')
    const open = shown.activated && shown.suggestions.length > 0
    const lit = shown.highlightedIndex >= 0
    // after the library's own words
    void nextTick(() => {
      input.setAttribute('role', 'combobox')
      input.setAttribute('aria-expanded', String(open))
      if (!lit) input.removeAttribute('aria-activedescendant')
      // the pop-over around the list says that it is a list too
      const list = open ? document.getElementById(input.getAttribute('aria-controls') ?? '') : null
      list?.closest('.el-popper')?.setAttribute('role', 'none')
    })
  })
}
