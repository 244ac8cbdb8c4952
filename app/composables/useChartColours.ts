import { useMutationObserver } from '@vueuse/core'

/** The page's colours for charts, read anew when the theme changes. */
export function useChartColours() {
  const dark = ref(false)
  const look = () => {
    dark.value = document.documentElement.classList.contains('dark')
  }
  onMounted(look)
  useMutationObserver(typeof document === 'undefined' ? null : document.documentElement, look, {
    attributes: true,
    attributeFilter: ['class'],
  })
  return computed(() => {
    void dark.value
    const style = getComputedStyle(document.documentElement)
    const of = (name: string) => style.getPropertyValue(`--${name}`).trim()
    return {
      cap: of('cap'),
      other: of('line-strong'),
      bark: of('bark'),
      teal: of('teal'),
      ink: of('ink-soft'),
      grid: of('line'),
      lit: of('teal'),
      sheet: of('sheet'),
      series: of('series').split(' '),
    }
  })
}
