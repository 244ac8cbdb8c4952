import type { Fan, Place } from '#core/document'

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
/** From the outside in; the filter stands on the intake side, which is outside where the fan blows in. */
export function layersOf(fan: Fan, thicknessM: number, { fit, direction }: Place): Layer[] {
  const layer = (
    key: Layer['key'],
    name: string,
    value: number | null | undefined,
    outside = false,
  ): Layer[] => (value ? [{ key, name, thicknessM: value, outside }] : [])
  const filter = layer('filter', 'Filter', fit?.filterM, direction === 'in')
  return [
    ...(direction === 'in' ? filter : []),
    ...layer('guard', 'Guard', fit?.guardM, true),
    ...layer('panel', 'Panel', fit?.panelM, true),
    ...layer('gasket', 'Gasket, pressed', fit?.gasketM && PRESSED * fit.gasketM),
    ...layer('spacer', 'Spacer', fit?.spacerM),
    ...layer('pad', 'Pads', fit?.padM),
    ...layer('fan', fan.model, thicknessM),
    ...layer('far-pad', 'Pads', fit?.padM),
    ...(direction === 'in' ? [] : filter),
  ]
}
