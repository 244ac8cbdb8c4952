/** How often a field is looked for: what holds it may open a moment later. */
const TRIES = 20
const BETWEEN_MS = 50

/** Opens what is folded over a field, brings it into sight and puts the cursor in. @returns whether it is there */
function reach(key: string): boolean {
  const shell = document.querySelector<HTMLElement>(`[data-field="${CSS.escape(key)}"]`)
  const input = shell?.querySelector<HTMLElement>('input, select, textarea, button')
  if (!shell || !input) return false
  for (let fold = shell.closest('details'); fold; fold = fold.parentElement?.closest('details') ?? null)
    fold.open = true
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
