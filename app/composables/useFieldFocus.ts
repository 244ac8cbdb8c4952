/** How often a field is looked for: what holds it may open a moment later. */
const TRIES = 20
const BETWEEN_MS = 50
/** What may be folded over a field. */
const FOLD = '.el-collapse-item'

/** Opens what is folded over a field, brings it into sight and puts the cursor in. @returns whether it is there */
function reach(key: string): boolean {
  const shell = document.querySelector<HTMLElement>(`[data-field="${CSS.escape(key)}"]`)
  const input = shell?.querySelector<HTMLElement>('input, select, textarea, button')
  if (!shell || !input) return false
  for (let at = shell.closest(FOLD); at; at = at.parentElement?.closest(FOLD) ?? null)
    if (!at.classList.contains('is-active'))
      at.querySelector<HTMLElement>(
        ':scope > .el-collapse-item__header, :scope > * > .el-collapse-item__header',
      )?.click()
  shell.scrollIntoView({ block: 'center' })
  input.focus({ preventScroll: true })
  return true
}

/** Follows addresses that end in #field-… to the field. */
export function useFieldFocus() {
  const route = useRoute()
  let tries = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  function look(key: string) {
    if (reach(key) || ++tries >= TRIES) return
    timer = setTimeout(() => look(key), BETWEEN_MS)
  }
  const follow = () => {
    clearTimeout(timer)
    const key = /^#field-(.+)$/.exec(route.hash)?.[1]
    if (!key) return
    tries = 0
    timer = setTimeout(() => look(key), BETWEEN_MS)
  }
  onMounted(follow)
  watch(() => route.fullPath, follow)
  onBeforeUnmount(() => clearTimeout(timer))
}
