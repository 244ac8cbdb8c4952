export type SupplyKind =
  | 'adapter'
  | 'rail'
  | 'tap'
  | 'header'
  | 'usb'
  | 'power-bank'
  | 'pack'
  | 'house-battery'
  | 'vehicle'
  | 'solar'
  | 'none'

export interface SupplyDefaults {
  kind: SupplyKind
  name: string
  nominalV: number
  lowV: number
  highV: number
  iMaxA: number | null
  note: string
}

/**
 * What to plan with for each kind of source. Windows and currents: peripheral taps, USB (USB-IF, 5 V 0.5 A configured),
 * batteries from memory; the rest common practice, no source.
 */
export const supplyDefaults: SupplyDefaults[] = [
  {
    kind: 'adapter',
    name: 'Wall adapter, regulated',
    nominalV: 12,
    lowV: 11.4,
    highV: 12.6,
    iMaxA: null,
    note: 'Plan with 80 % of the label current.',
  },
  {
    kind: 'rail',
    name: 'Rail of the equipment',
    nominalV: 12,
    lowV: 11.4,
    highV: 12.6,
    iMaxA: null,
    note: 'Measure it, loaded. Plan with a tenth of its rating until the spare current is proven.',
  },
  {
    kind: 'tap',
    name: 'Peripheral 4-pin tap',
    nominalV: 12,
    lowV: 11.4,
    highV: 12.6,
    iMaxA: 5,
    note: '12 V and 5 V sit at the two ends: meter before connecting.',
  },
  {
    kind: 'header',
    name: 'Fan header of a board',
    nominalV: 12,
    lowV: 10.8,
    highV: 13.2,
    iMaxA: 1,
    note: '1 A for a header unless the board says otherwise.',
  },
  {
    kind: 'usb',
    name: 'USB port',
    nominalV: 5,
    lowV: 4.4,
    highV: 5.5,
    iMaxA: 0.5,
    note: 'Strictly 0.1 A for a device that never negotiates.',
  },
  {
    kind: 'power-bank',
    name: 'USB power bank',
    nominalV: 5,
    lowV: 4.75,
    highV: 5.5,
    iMaxA: 2,
    note: 'Many switch off under 50 to 100 mA.',
  },
  {
    kind: 'pack',
    name: 'Li-ion pack, 3 cells',
    nominalV: 11.1,
    lowV: 9,
    highV: 12.6,
    iMaxA: null,
    note: 'Fuse at the pack, protection board, never charge below 0 °C.',
  },
  {
    kind: 'house-battery',
    name: 'Lead-acid, 12 V',
    nominalV: 12,
    lowV: 11.5,
    highV: 14.4,
    iMaxA: null,
    note: 'Fuse within 0.2 m of the terminal.',
  },
  {
    kind: 'vehicle',
    name: 'Vehicle, 12 V',
    nominalV: 12,
    lowV: 11.5,
    highV: 14.4,
    iMaxA: null,
    note: 'Suppressor and fuse: spikes kill 12 V electronics.',
  },
  {
    kind: 'solar',
    name: 'Small solar panel, direct',
    nominalV: 12,
    lowV: 0,
    highV: 22,
    iMaxA: null,
    note: 'Open-circuit voltage on a light load.',
  },
]
