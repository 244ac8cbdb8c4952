import { fromStock, type Fan, type StreamPlan, type StockKind, type StockPart } from '#core/document'
import type { MountReport } from '#core/mount'
import type { FanArray } from '#core/system'
import type { FeedReport } from './feed-tree'

/** Something the plan needs, what it costs, and whether it is there. */
export interface PartRow {
  what: string
  detail: string
  count: number
  unit: string
  price: number | null
  owned: boolean
  sum: number | null
}

/** Usual prices where nothing else is known: rough, so that a total is no surprise. Common practice, no source. */
export const USUAL_PRICE = {
  adapter: 9,
  buck: 2,
  boost: 2.5,
  linear: 1.2,
  resistor: 0.3,
  divider: 0.4,
  diode: 0.6,
  pwm: 3,
  capacitor: 0.4,
  fuse: 1.5,
  wirePerM: 0.5,
  plug: 0.6,
  screw: 0.1,
  gasket: 1,
  grommet: 0.2,
  extension: 2.5,
  sheet: 1,
  saw: 9,
  hub: 12,
  splitter: 4,
  guard: 1.5,
  filterPerM2: 60,
  shrink: 0.3,
  hand: 1.5,
  relay: 3,
  timer: 7,
  'thermal-no': 2,
  'thermal-nc': 2,
  thermostat: 6,
}
export const mm = (m: number) => Math.round(m * 1000)

type Bought = Omit<PartRow, 'sum' | 'owned' | 'unit'> & { owned?: boolean; unit?: string }
export function row({ owned = false, unit = '', ...rest }: Bought): PartRow {
  return { ...rest, unit, owned, sum: owned ? 0 : rest.price === null ? null : rest.price * rest.count }
}

/** What is wanted of a part, by which one's own stock is searched. */
interface Wanted extends Omit<Bought, 'owned'> {
  kind: StockKind
  name?: string
  volts?: number | null
  amps?: number | null
  sizeMm?: number
  does?: 'buck' | 'boost' | 'linear'
}
/** What the rows of a list are made from. */
export interface Shopping {
  plan: StreamPlan
  feed: FeedReport
  /** the fans of every air stream */
  arrays: readonly FanArray[]
  fans: readonly Fan[]
  stock: readonly StockPart[]
  /** how the fans of every air stream go into their place */
  mounts: readonly MountReport[]
}

/** A part at the price of one's own stock, or at a usual one. */
export function stockRow(
  { stock }: Shopping,
  { kind, name, volts, amps, sizeMm, does, ...part }: Wanted,
): PartRow {
  const found = fromStock(stock, kind, { name: name ?? part.what, volts, amps, sizeMm, does })
  return row({
    ...part,
    what: found && found.name !== part.what ? `${part.what}: ${found.name}` : part.what,
    price: found?.price ?? part.price,
    owned: found?.owned,
  })
}
