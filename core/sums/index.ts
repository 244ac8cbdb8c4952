/**
 * Quick sums: calculations that stand alone, each with its fields, its working and its source. One table, like that of the
 * instruments' conversions and run by the same `convert`: the screen asks and shows, nothing else.
 */
import { air } from './air'
import { control } from './control'
import { fan } from './fan'
import { heat } from './heat'
import { measuring } from './measuring'
import { power } from './power'
import { sound } from './sound'
import { switching } from './switching'
import type { Sum, SumOfGroup } from './sum'

export { placesFor, type Place } from './put'
export type { Sum } from './sum'
export { reachOf, sweep } from './sweep'

const inGroup = (group: string, list: SumOfGroup[]): Sum[] => list.map((s) => ({ ...s, group, gives: null }))

export const sums: Sum[] = [
  ...inGroup('Air', air),
  ...inGroup('Fans', fan),
  ...inGroup('Sound', sound),
  ...inGroup('Power and wire', power),
  ...inGroup('Switched and regulated', switching),
  ...inGroup('Heat and water', heat),
  ...inGroup('Control', control),
  ...inGroup('Measuring', measuring),
]
