import type { Fan, Fit } from '#core/document'

/** What lies between the outside and the inside, piece by piece. */

/** One thing in the stack, from the outside in. */
export interface Layer {
  key: 'guard' | 'panel' | 'gasket' | 'spacer' | 'pad' | 'fan' | 'far-pad' | 'filter'
  name: string
  thicknessM: number
  /** takes none of the depth inside */
  outside: boolean
}

/** Pressed, a gasket is half as thick. Common practice, no source (handbook fit 3). */
const PRESSED = 0.5
export function layersOf(fan: Fan, thicknessM: number, fit: Fit | null): Layer[] {
  const layer = (
    key: Layer['key'],
    name: string,
    value: number | null | undefined,
    outside = false,
  ): Layer[] => (value ? [{ key, name, thicknessM: value, outside }] : [])
  return [
    ...layer('guard', 'Guard', fit?.guardM, true),
    ...layer('panel', 'Panel', fit?.panelM, true),
    ...layer('gasket', 'Gasket, pressed', fit?.gasketM && PRESSED * fit.gasketM),
    ...layer('spacer', 'Spacer', fit?.spacerM),
    ...layer('pad', 'Pads', fit?.padM),
    ...layer('fan', fan.model, thicknessM),
    ...layer('far-pad', 'Pads', fit?.padM),
    ...layer('filter', 'Filter', fit?.filterM),
  ]
}
