import { usePreferredDark } from '@vueuse/core'

/** Puts the chosen or the system's theme on the page. */
export function useTheme(): void {
  const settings = useSettingsStore()
  const systemDark = usePreferredDark()
  watchEffect(() => {
    const dark = settings.theme === 'dark' || (settings.theme === 'system' && systemDark.value)
    document.documentElement.classList.toggle('dark', dark)
  })
}
