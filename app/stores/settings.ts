import { preferenceSets, type Quantity } from '#core/units'
import { defaultSettings, type Settings } from '#shared/schemas/settings'

/** Units and theme; a change shows at once and is saved behind it. */
export const useSettingsStore = defineStore('settings', () => {
  const units = ref<Settings['units']>({ ...preferenceSets.metric })
  const theme = ref<Settings['theme']>(defaultSettings.theme)

  async function load() {
    const result = await api<Settings>('settings')
    if (!result.ok) return
    units.value = { ...preferenceSets.metric, ...result.data.units }
    theme.value = result.data.theme
  }

  async function save() {
    const result = await api<Settings>('settings', {
      method: 'PUT',
      body: { units: units.value, theme: theme.value },
    })
    if (!result.ok) useToast().show(`Units and theme are not saved: ${result.message}`, { tone: 'bad' })
  }

  const system = computed<'metric' | 'imperial' | 'own'>(() => {
    const same = (set: 'metric' | 'imperial') =>
      Object.entries(preferenceSets[set]).every(([q, u]) => units.value[q] === u)
    return same('metric') ? 'metric' : same('imperial') ? 'imperial' : 'own'
  })
  const setUnit = (quantity: Quantity, symbol: string) => {
    units.value = { ...units.value, [quantity]: symbol }
    void save()
  }
  const setSystem = (set: 'metric' | 'imperial') => {
    units.value = { ...preferenceSets[set] }
    void save()
  }
  const toggleSystem = () => setSystem(system.value === 'metric' ? 'imperial' : 'metric')
  const setTheme = (choice: Settings['theme']) => {
    theme.value = choice
    void save()
  }
  const toggleTheme = () => setTheme(document.documentElement.classList.contains('dark') ? 'light' : 'dark')
  return { units, theme, system, load, setUnit, setSystem, toggleSystem, setTheme, toggleTheme }
})
