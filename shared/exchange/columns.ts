import type { Fan } from '#core/document'
import { parseQuantity, quantityInfo, type Quantity, type Unit } from '#core/units'

/** How one field of a fan stands in a table. */
export interface Column {
  key: Exclude<keyof Fan, 'sources' | 'tests' | 'trusted'>
  /** heading that is written; the unit follows in brackets */
  heading: string
  /** further headings that are understood, without unit, lower case */
  aliases: string[]
  kind: 'text' | 'number' | 'choice' | 'yes-no' | 'curve' | 'curves'
  quantity?: Quantity
  choices?: Record<string, string[]>
}

const text = (key: Column['key'], heading: string, aliases: string[] = []): Column => ({
  key,
  heading,
  aliases,
  kind: 'text',
})
const number = (key: Column['key'], heading: string, quantity: Quantity, aliases: string[] = []): Column => ({
  key,
  heading,
  aliases,
  kind: 'number',
  quantity,
})
const choice = (
  key: Column['key'],
  heading: string,
  choices: Record<string, string[]>,
  aliases: string[] = [],
): Column => ({ key, heading, aliases, kind: 'choice', choices })

/** Every column of a shelf table, in the order they are written. */
export const columns: Column[] = [
  text('id', 'id'),
  text('maker', 'maker', ['manufacturer', 'brand', 'make']),
  text('model', 'model', ['name', 'type', 'part', 'part number', 'fan']),
  choice('kind', 'kind', { axial: ['axial', 'fan'], blower: ['blower', 'radial', 'centrifugal'] }),
  number('frameM', 'frame', 'length', ['size', 'frame size', 'side', 'width']),
  number('thicknessM', 'thickness', 'length', ['depth', 'thick']),
  number('thicknessMeasuredM', 'thickness measured', 'length'),
  number('holeSpacingM', 'hole spacing', 'length', ['mounting holes', 'hole pitch', 'screw pitch']),
  number('ratedV', 'rated voltage', 'voltage', ['voltage', 'volts', 'rated v', 'v']),
  number('minV', 'lowest voltage', 'voltage', ['min voltage', 'vmin', 'v min']),
  number('maxV', 'highest voltage', 'voltage', ['max voltage', 'vmax', 'v max']),
  number('startV', 'start voltage', 'voltage', ['starting voltage', 'start-up voltage', 'starts at']),
  number('interceptV', 'speed line meets zero at', 'voltage'),
  number('ratedA', 'rated current', 'current', ['current', 'amps', 'rated a', 'a']),
  number('ratedW', 'rated power', 'power', ['power', 'watts']),
  number('ratedRpm', 'speed', 'rotation', ['rpm', 'rated speed']),
  number('maxFlowM3s', 'free delivery', 'flow', [
    'airflow',
    'air flow',
    'flow',
    'max flow',
    'max airflow',
    'free air',
  ]),
  number('maxPressurePa', 'shut-off pressure', 'pressure', [
    'static pressure',
    'pressure',
    'max pressure',
    'max static pressure',
  ]),
  number('alsoFlowM3s', 'free delivery, printed again', 'flow'),
  number('alsoPressurePa', 'shut-off pressure, printed again', 'pressure'),
  number('noiseDbA', 'noise', 'level', ['noise level', 'sound level', 'level', 'acoustic noise']),
  number('noiseDistanceM', 'noise at', 'distance', ['noise distance']),
  { key: 'noiseIsPower', heading: 'noise is sound power', aliases: ['sound power', 'lwa'], kind: 'yes-no' },
  number('noiseSone', 'noise in sone', 'number', ['sone', 'sones']),
  number('wires', 'wires', 'number', ['pins', 'leads']),
  choice(
    'connector',
    'connector',
    {
      bare: ['bare', 'bare leads', 'leads', 'none'],
      'header-2': ['header-2', '2 pin', '2-pin'],
      'header-3': ['header-3', '3 pin', '3-pin'],
      'header-4': ['header-4', '4 pin', '4-pin'],
      'small-4': ['small-4', 'small 4 pin'],
      peripheral: ['peripheral', 'peripheral 4 pin'],
      barrel: ['barrel', 'barrel plug', 'dc plug'],
      usb: ['usb', 'usb plug'],
      other: ['other'],
    },
    ['plug'],
  ),
  number('pwmMinDuty', 'lowest duty', 'ratio', ['min duty']),
  number('pwmStartDuty', 'start duty', 'ratio'),
  number('pwmMinSpeed', 'speed at lowest duty', 'ratio'),
  number('blades', 'blades', 'number'),
  choice('bearing', 'bearing', {
    sleeve: ['sleeve', 'plain'],
    ball: ['ball', 'dual ball', '2 ball', 'two ball'],
    fluid: ['fluid', 'hydraulic', 'hydro', 'fdb'],
  }),
  choice(
    'shaftAllowed',
    'shaft allowed',
    { any: ['any', 'all'], horizontal: ['horizontal'], vertical: ['vertical'] },
    ['orientation', 'mounting'],
  ),
  number('lifeH', 'life hours', 'number', ['life', 'l10', 'lifetime']),
  number('lifeC', 'life stated at', 'temperature', ['life temperature']),
  number('massKg', 'mass', 'mass', ['weight']),
  number('ipSolid', 'IP first digit', 'number', ['ip solid']),
  number('ipWater', 'IP second digit', 'number', ['ip water', 'ipx']),
  number('minAirC', 'lowest air temperature', 'temperature', ['min temperature']),
  number('maxAirC', 'highest air temperature', 'temperature', ['max temperature', 'operating temperature']),
  number('price', 'price', 'money', ['cost']),
  text('priceOn', 'price of', ['price date']),
  { key: 'owned', heading: 'owned', aliases: ['own', 'have', 'in stock'], kind: 'yes-no' },
  choice(
    'curveBasis',
    'curve from',
    {
      curve: ['curve', 'data sheet', 'datasheet', 'sheet'],
      measured: ['measured', 'own measurement'],
      claim: ['claim', 'claimed'],
      estimated: ['estimated', 'estimate'],
    },
    ['basis'],
  ),
  text('notes', 'notes', ['note', 'comment', 'remarks']),
  { key: 'points', heading: 'curve', aliases: ['pq', 'p-q', 'p–q', 'curve points', 'points'], kind: 'curve' },
  { key: 'curves', heading: 'curves at other voltages', aliases: [], kind: 'curves' },
]

export interface Mapped {
  column: Column | null
  unit: Unit | null
}

const plain = (s: string) =>
  s
    .normalize('NFKC')
    .toLowerCase()
    .replaceAll(/[_\s]+/g, ' ')
    .trim()

/** The unit a heading carries in brackets, after a comma or at its end: "Airflow (CFM)", "pressure, mmH2O". */
function splitHeading(heading: string): { name: string; unit: string } {
  const bracket = /^(.*?)\s*[([](.+)[)\]]\s*$/.exec(heading.trim()) ?? /^(.*),\s*([^,]+)$/.exec(heading.trim())
  return bracket ? { name: plain(bracket[1]!), unit: bracket[2]!.trim() } : { name: plain(heading), unit: '' }
}

const unitOf = (quantity: Quantity, symbol: string): Unit | null => {
  const read = parseQuantity(`1 ${symbol}`, quantity)
  return symbol && read.ok ? read.unit : null
}

/** Which column a heading means, and in which unit its numbers stand; null for a heading that is not known. */
export function detectColumn(heading: string): Mapped {
  const { name, unit } = splitHeading(heading)
  const whole = plain(heading)
  const knows = (c: Column, n: string) => plain(c.heading) === n || c.aliases.includes(n)
  const column =
    columns.find((c) => knows(c, name)) ?? columns.find((c) => knows(c, whole)) ?? trailingUnit(whole)
  if (!column) return { column: null, unit: null }
  const written = unit || whole.slice(name.length).trim()
  return {
    column,
    unit: column.quantity ? (unitOf(column.quantity, written) ?? lastWordUnit(column.quantity, whole)) : null,
  }
}

/** "airflow cfm": the last word is a unit of what the words before it name. */
function trailingUnit(whole: string): Column | null {
  const at = whole.lastIndexOf(' ')
  if (at < 0) return null
  const before = whole.slice(0, at)
  return (
    columns.find(
      (c) =>
        c.quantity &&
        (plain(c.heading) === before || c.aliases.includes(before)) &&
        unitOf(c.quantity, whole.slice(at + 1)),
    ) ?? null
  )
}
const lastWordUnit = (quantity: Quantity, whole: string) =>
  unitOf(quantity, whole.slice(whole.lastIndexOf(' ') + 1))

/** Each column at most once: the first heading that means it. */
export function detectColumns(headings: readonly string[]): Mapped[] {
  const taken = new Set<string>()
  return headings.map((heading) => {
    const found = detectColumn(heading)
    if (!found.column || taken.has(found.column.key)) return { column: null, unit: null }
    taken.add(found.column.key)
    return found
  })
}

/** The heading a column is written with: SI-near units that read well in a table. */
export const writtenUnit = (c: Column): Unit | null =>
  c.quantity && c.quantity !== 'number' ? quantityInfo(c.quantity).units[0]! : null
