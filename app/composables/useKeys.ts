import { onKeyStroke, useEventListener } from '@vueuse/core'

export interface KeyBinding {
  key: string
  what: string
  run: () => unknown
}

export const openKeys = () => {
  keysOpen.value = true
}

const page = ref<KeyBinding[]>([])
export const keysOpen = ref(false)
export const paletteOpen = ref(false)
export const openPalette = () => {
  paletteOpen.value = true
}

/** Whether letters go into what has the focus: a tick or a slider takes none. */
const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    /^(TEXTAREA|SELECT)$/.test(target.tagName) ||
    (target instanceof HTMLInputElement && !/^(checkbox|radio|range|file|button)$/.test(target.type)))

/** Keys of the page that is open; they go with it. */
export function usePageKeys(bindings: KeyBinding[]): void {
  onMounted(() => {
    page.value = [...page.value, ...bindings]
  })
  onBeforeUnmount(() => {
    page.value = page.value.filter((b) => !bindings.includes(b))
  })
}

/** Keys that work on every page. */
export const globalKeys: KeyBinding[] = [
  { key: 'b', what: 'Bench', run: () => navigateTo('/') },
  { key: 'f', what: 'Shelf of fans', run: () => navigateTo('/shelf') },
  { key: 'k', what: 'Find or do anything (also Ctrl+K)', run: openPalette },
  { key: 'q', what: 'Quick sums', run: () => navigateTo('/sums') },
  { key: 'u', what: 'Switch between metric and imperial', run: () => useSettingsStore().toggleSystem() },
  { key: 't', what: 'Switch the theme', run: () => useSettingsStore().toggleTheme() },
  {
    key: '?',
    what: 'This list',
    run: () => {
      keysOpen.value = !keysOpen.value
    },
  },
]

export const pageKeys = page

export function useGlobalKeys(): void {
  useEventListener('keydown', (event: KeyboardEvent) => {
    if ((event.ctrlKey || event.metaKey) && event.key === 'k') {
      event.preventDefault()
      return openPalette()
    }
    if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented || typing(event.target)) return
    if (paletteOpen.value || (keysOpen.value && event.key !== '?')) return
    // of two pages that change places the newer one is meant
    const binding = [...globalKeys, ...page.value].findLast((b) => b.key === event.key)
    if (!binding) return
    event.preventDefault()
    binding.run()
  })
  onKeyStroke('Escape', () => {
    keysOpen.value = false
  })
  // Escape leaves a field, so that the keys work again; seen before the field's own part keeps it for itself. A list that
  // is open is closed first.
  useEventListener(
    'keydown',
    ({ key, target }: KeyboardEvent) => {
      if (key !== 'Escape' || !(target instanceof HTMLElement) || !typing(target)) return
      if (target.getAttribute('aria-expanded') !== 'true') target.blur()
    },
    { capture: true },
  )
}
