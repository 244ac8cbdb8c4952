import { GRAVITY } from '#core/air'
import {
  columnPressure,
  dividerResistance,
  flowFromGrid,
  flowFromSpeed,
  heightPressure,
  intervalHalfWidth,
  meanOf,
  ntcTemperature,
  ptLeadError,
  ptTemperature,
  ptTolerance,
  speedFromBladePass,
  speedFromVelocityPressure,
  swappedSensorPressure,
  TACH_PULSES,
  tachSpeed,
  topplingSpeed,
  traversePoints,
  typeKTemperature,
  usualHalfWidth,
  wilsonInterval,
  type PtClass,
} from '#core/measure'
import { captureDistance, type CaptureOpening } from '#core/need'
import { backgroundClass, levelInRoom, minusBackground, NEAREST_M, readingClass } from '#core/noise'
import type { Quantity } from '#core/units'
import { figure, input, type Figure } from '#core/figure'
import type { FlowMethod, ReadingQuantity } from '#core/document'

/** From what an instrument shows to what a run wants to know, each with its working. One table: the screen asks and shows, nothing else. */

export interface ConversionField {
  key: string
  label: string
  quantity: Quantity
  /** what is usual; null where it must be read */
  usual: number | null
  /** may be left empty */
  optional?: boolean
  /** several values in one field, such as the speeds of a traverse */
  list?: boolean
  hint?: string
}
export interface ConversionChoice {
  key: string
  label: string
  options: { value: string; label: string }[]
}
export interface Inputs {
  n: Record<string, number | null>
  lists: Record<string, number[]>
  choice: Record<string, string>
  /** of the air, kg/m3 */ density: number
}
/** The first figure is the answer; the others help to judge it. */
export type Converted =
  | { ok: true; figures: Figure[]; method?: FlowMethod; points?: number; warning?: string }
  | { ok: false; reason: string }
export interface Conversion {
  key: string
  title: string
  /** reading that the answer becomes; null where it is only good to know */
  gives: ReadingQuantity | null
  fields: ConversionField[]
  choices?: ConversionChoice[]
  convert: (i: Inputs) => Converted
}

const field = (
  key: string,
  label: string,
  quantity: Quantity,
  usual: number | null = null,
  rest: Partial<ConversionField> = {},
): ConversionField => ({ key, label, quantity, usual, ...rest })
const no = (reason: string): Converted => ({ ok: false, reason })
const yes = (
  figures: Figure[],
  rest: Omit<Extract<Converted, { ok: true }>, 'ok' | 'figures'> = {},
): Converted => ({ ok: true, figures, ...rest })
const HUNDREDTH = 0.01

/** A small vane: share of the reading and a step, m/s. Common practice, no source. */
const VANE = { share: 0.05, step: 0.2, start: 0.5 } as const
function vaneUncertainty(speeds: readonly number[]): number {
  const mean = meanOf(speeds)
  return Math.hypot(VANE.share * mean, VANE.step, intervalHalfWidth(speeds) ?? 0)
}
const slow = (speeds: readonly number[]) =>
  speeds.some((v) => v < VANE.start)
    ? `Some readings are below ${VANE.start} m/s, where small vanes hardly start.`
    : ''

function traverse(
  area: number,
  speeds: readonly number[],
  inputs: Figure['inputs'],
  flow: number,
  least: number,
): Converted {
  const half = area * vaneUncertainty(speeds)
  const warning = [
    slow(speeds),
    speeds.length < least ? `${speeds.length} points are few: ${least} at least.` : '',
  ]
    .filter(Boolean)
    .join(' ')
  return yes(
    [
      figure(
        'flow',
        'Airflow',
        'flow',
        flow,
        'Q = A · mean(v)',
        'physics notes ME2; ISO 3966 for the points (from memory)',
        {
          basis: 'measured',
          low: Math.max(0, flow - half),
          high: flow + half,
          inputs: [...inputs, input('v', `mean of ${speeds.length} points`, meanOf(speeds), 'speed')],
          note:
            'Range: scatter of the points, 5 % of the reading and 0.2 m/s of a small vane. On the intake ' +
            'side or behind five diameters of tube; never in the free jet.',
        },
      ),
      figure('speed', 'Mean speed', 'speed', meanOf(speeds), 'mean(v)', 'equal weights'),
    ],
    { method: 'traverse', points: speeds.length, warning },
  )
}

const openings = [
  { value: 'plain', label: 'plain' },
  { value: 'flanged', label: 'with a flange' },
  { value: 'bench', label: 'on the bench' },
]
const backgroundWords = {
  'no-correction': 'More than 15 dB over the background: no correction needed.',
  corrected: 'Background removed.',
  survey: 'Only 3 to 6 dB over the background: survey grade, uncertain.',
  invalid: 'Less than 3 dB over the background: no more than an upper bound.',
} as const

function sound({ n }: Inputs): Converted {
  const [read, background, from, to, floor] = [
    n.read!,
    n.background ?? null,
    n.from ?? null,
    n.to ?? null,
    n.floor ?? null,
  ]
  const kind = background === null ? null : backgroundClass(read, background)
  const clean = background === null ? read : (minusBackground(read, background) ?? read)
  const moves = from !== null && to !== null && from !== to
  if (moves && Math.min(from, to) < NEAREST_M)
    return no(`Nearer than ${NEAREST_M} m is the near field: no law takes a level from there to elsewhere.`)
  const moved = moves ? levelInRoom(clean, from, to) : { level: clean, halfWidth: 0 }
  const { level } = moved
  const bound = kind === 'invalid' || (floor !== null && readingClass(read, floor) !== 'usable')
  const warning = [
    kind && kind !== 'no-correction' && kind !== 'corrected' ? backgroundWords[kind] : '',
    floor !== null && readingClass(read, floor) !== 'usable'
      ? 'At the floor of the meter: an upper bound, not a value.'
      : '',
  ]
    .filter(Boolean)
    .join(' ')
  return yes(
    [
      figure(
        'level',
        bound ? 'At most' : 'Level',
        'level',
        level,
        'L = 10·lg(10^(L_t/10) − 10^(L_b/10)) − 20·lg(r₂/r₁)',
        'ISO 3744/3746 classes (from memory); free field, no further than the room lets a level fall (0.5 to 1.5 m)',
        {
          basis: 'measured',
          ...(moved.halfWidth > 0 ? { low: level - moved.halfWidth, high: level + moved.halfWidth } : {}),
          inputs: [
            input('L_t', 'read', read, 'level'),
            input('L_b', 'background', background, 'level'),
            input('r₁', 'microphone', from, 'distance'),
            input('r₂', 'wanted at', to, 'distance'),
          ],
          note: kind ? backgroundWords[kind] : 'No background given: the room is still in it.',
        },
      ),
    ],
    { warning },
  )
}

const ptLabels = ['AA', 'A', 'B', 'C'].map((value) => ({ value, label: `class ${value}` }))
function platinum({ n, choice }: Inputs): Converted {
  const r0 = choice.r0 === '1000' ? 1000 : 100
  const lead = ptLeadError(n.lead ?? 0, r0)
  const read = ptTemperature(n.ohm!, r0)
  if (read === null) return no('No temperature between −200 and 850 °C has this resistance.')
  const value = read - lead
  const half = ptTolerance((choice.kind ?? 'B') as PtClass, value)
  return yes(
    [
      figure('t', 'Temperature', 'temperature', value, 'R = R₀(1 + A·t + B·t²), solved for t', 'IEC 60751', {
        basis: 'measured',
        low: value - half,
        high: value + half,
        inputs: [
          input('R', 'resistance', n.ohm!, 'resistance'),
          input('R₀', 'at 0 °C', r0, 'resistance'),
          input('R_lead', 'both leads', n.lead ?? 0, 'resistance'),
        ],
        note: `Range: class ${choice.kind ?? 'B'}.`,
      }),
      figure('lead', 'The leads add', 'temperatureDifference', lead, 'R_lead/(A·R₀)', 'IEC 60751'),
    ],
    { warning: lead > 1 ? 'The leads alone make more than a kelvin: three or four wires, or a Pt1000.' : '' },
  )
}

/** Beta of an NTC holds within this; beyond it the error reaches a kelvin and more. Common practice, no source. */
const BETA_RANGE_C = [0, 50] as const
function thermistor({ n }: Inputs): Converted {
  const ohm =
    n.ohm ??
    (n.fraction === null || n.fraction === undefined || !n.fixed
      ? null
      : dividerResistance(n.fraction, n.fixed))
  if (ohm === null || ohm <= 0)
    return no(
      'The resistance itself, or the share of the converter’s full scale with its fixed resistor, is wanted.',
    )
  const value = ntcTemperature(ohm, n.r25!, n.beta!)
  const outside = value < BETA_RANGE_C[0] || value > BETA_RANGE_C[1]
  const half = outside ? 2 : 0.7
  return yes(
    [
      figure('t', 'Temperature', 'temperature', value, '1/T = 1/298.15 K + ln(R/R₂₅)/β', 'physics notes ME11', {
        basis: 'measured',
        low: value - half,
        high: value + half,
        inputs: [
          input('R', 'resistance', ohm, 'resistance'),
          input('R₂₅', 'at 25 °C', n.r25!, 'resistance'),
          input('β', 'in K', n.beta!, 'number'),
        ],
        note: 'Range: common practice, no source.',
      }),
      figure('ohm', 'Resistance', 'resistance', ohm, 'R = R_fix·x/(1 − x)', 'divider, the supply cancels'),
    ],
    { warning: outside ? 'Outside 0 to 50 °C the β law is off by a kelvin and more: use three points.' : '' },
  )
}

/** Wall meters are poor below this, W. Common practice, no source. */
const WALL_METER_W = 5
function wall({ n }: Inputs): Converted {
  const watts = n.with! - (n.without ?? 0)
  if (watts < 0) return no('The reading without is above the reading with.')
  const perDay = ((watts * (n.hours ?? 24)) / 24) * 86400
  return yes(
    [
      figure('p', 'Power', 'power', watts, 'P = P_with − P_without', 'physics notes ME9', {
        basis: 'measured',
        low: Math.max(0, watts - Math.max(0.5, 0.05 * watts)),
        high: watts + Math.max(0.5, 0.05 * watts),
        inputs: [
          input('P_with', 'with the fan', n.with!, 'power'),
          input('P_without', 'without', n.without ?? 0, 'power'),
        ],
      }),
      figure('e', 'Energy a day', 'energy', perDay, 'E = P · t', 'definition'),
      figure(
        'c',
        'Money a year',
        'money',
        n.tariff ? (perDay / 3.6e6) * n.tariff * 365 : null,
        'E · 365 · tariff',
        'definition',
        { note: n.tariff ? '' : 'No tariff given.' },
      ),
    ],
    { warning: watts < WALL_METER_W ? 'Most wall meters are poor below 5 W.' : '' },
  )
}

function power({ n }: Inputs): Converted {
  const watts = n.v! * n.i!
  const half = watts * Math.hypot(0.01, 0.03)
  return yes([
    figure('p', 'Power', 'power', watts, 'P = V · I', 'mean current on a steady supply', {
      basis: 'measured',
      low: watts - half,
      high: watts + half,
      inputs: [input('V', 'at the fan', n.v!, 'voltage'), input('I', 'mean current', n.i!, 'current')],
      note: 'Range: 1 % of a meter’s volts, 3 % of its amps (common practice).',
    }),
  ])
}

function capture({ n, choice }: Inputs): Converted {
  const reach = captureDistance(n.flow!, n.speed!, n.area!, choice.opening as CaptureOpening)
  const wilson = n.tries ? wilsonInterval(n.hits ?? 0, n.tries) : null
  return yes(
    [
      figure(
        'x',
        'Captures up to',
        'distance',
        reach,
        'x = √((Q/v/f − A)/10)',
        'industrial-ventilation handbook after DallaValle and Silverman (from memory)',
        {
          inputs: [
            input('Q', 'flow', n.flow!, 'flow'),
            input('v', 'capture speed', n.speed!, 'speed'),
            input('A', 'opening', n.area!, 'area'),
          ],
          note:
            reach === 0
              ? 'The flow does not even give that speed in the opening.'
              : 'On the axis, up to about 1.5 diameters; a draught spoils it.',
        },
      ),
      ...(wilson
        ? [
            figure(
              'p',
              'Puffs caught',
              'ratio',
              (n.hits ?? 0) / n.tries!,
              'k/n with its Wilson interval',
              'E. B. Wilson; physics notes ME17',
              { basis: 'measured', low: wilson.low, high: wilson.high },
            ),
          ]
        : []),
    ],
    {
      warning:
        n.tries !== null && n.tries !== undefined && (n.hits ?? 0) > n.tries ? 'More caught than tried.' : '',
    },
  )
}

/** Drag coefficient of a flat card. Common practice, no source. */
const CARD_DRAG = 1.2

export const conversions: readonly Conversion[] = [
  {
    key: 'tach',
    title: 'Tach frequency to fan speed',
    gives: 'rotation',
    fields: [
      field('hz', 'Tach frequency', 'frequency'),
      field('pulses', 'Pulses a turn', 'number', TACH_PULSES, { hint: 'two are usual' }),
    ],
    convert: ({ n }) =>
      n.pulses! > 0
        ? yes([
            figure('rpm', 'Speed', 'rotation', tachSpeed(n.hz!, n.pulses!), 'n = 60·f/p', 'physics notes ME1', {
              basis: 'measured',
              inputs: [
                input('f', 'frequency', n.hz!, 'frequency'),
                input('p', 'pulses a turn', n.pulses!, 'number'),
              ],
              note: 'Twice or half the label means a wrong pulse count.',
            }),
          ])
        : no('A turn has at least one pulse.'),
  },
  {
    key: 'blade-pass',
    title: 'Whine in a recording to fan speed',
    gives: 'rotation',
    fields: [field('hz', 'Frequency of the line', 'frequency'), field('blades', 'Blades', 'number', 7)],
    convert: ({ n }) =>
      n.blades! > 0
        ? yes([
            figure(
              'rpm',
              'Speed',
              'rotation',
              speedFromBladePass(n.hz!, n.blades!),
              'n = 60·f/B',
              'blade-pass frequency',
              {
                basis: 'measured',
                inputs: [input('f', 'line', n.hz!, 'frequency'), input('B', 'blades', n.blades!, 'number')],
              },
            ),
          ])
        : no('A fan has blades.'),
  },
  {
    key: 'round',
    title: 'Anemometer over a round opening',
    gives: 'flow',
    fields: [
      field('d', 'Diameter', 'length'),
      field('hub', 'Blocked hub', 'length', 0, { optional: true }),
      field('v', 'Speeds read, one after the other', 'speed', null, {
        list: true,
        hint: `along two diameters at ${traversePoints('circle-log-linear', 6)!
          .map((x) => `${Math.round(100 * x)} %`)
          .join(', ')}`,
      }),
    ],
    convert: ({ n, lists }) => {
      const hub = n.hub ?? 0
      if (hub >= n.d!) return no('The hub is as large as the opening.')
      const area = (Math.PI / 4) * (n.d! ** 2 - hub ** 2)
      return traverse(
        area,
        lists.v!,
        [
          input('D', 'diameter', n.d!, 'length'),
          input('d', 'hub', hub, 'length'),
          input('A', 'area', area, 'area'),
        ],
        flowFromSpeed(n.d!, meanOf(lists.v!), hub),
        12,
      )
    },
  },
  {
    key: 'rectangle',
    title: 'Anemometer over a rectangular opening',
    gives: 'flow',
    fields: [
      field('w', 'Width', 'length'),
      field('h', 'Height', 'length'),
      field('v', 'Speeds read, one after the other', 'speed', null, {
        list: true,
        hint: 'middles of a 3 × 3 grid at least',
      }),
    ],
    convert: ({ n, lists }) =>
      traverse(
        n.w! * n.h!,
        lists.v!,
        [input('b', 'width', n.w!, 'length'), input('h', 'height', n.h!, 'length')],
        flowFromGrid(n.w!, n.h!, lists.v!)!,
        9,
      ),
  },
  {
    key: 'hood',
    title: 'Anemometer in a hood’s known outlet',
    gives: 'flow',
    fields: [
      field('a', 'Outlet of the hood', 'area'),
      field('v', 'Speeds read', 'speed', null, { list: true }),
    ],
    convert: ({ n, lists }) => {
      const flow = n.a! * meanOf(lists.v!)
      const half = n.a! * vaneUncertainty(lists.v!)
      return yes(
        [
          figure('flow', 'Airflow', 'flow', flow, 'Q = A · v', 'physics notes ME2', {
            basis: 'measured',
            low: Math.max(0, flow - half),
            high: flow + half,
            inputs: [input('A', 'outlet', n.a!, 'area'), input('v', 'mean speed', meanOf(lists.v!), 'speed')],
            note: 'The hood’s own resistance lowers the flow a little.',
          }),
        ],
        { method: 'hood', points: lists.v!.length, warning: slow(lists.v!) },
      )
    },
  },
  {
    key: 'pitot',
    title: 'Velocity pressure to air speed',
    gives: null,
    fields: [field('p', 'Velocity pressure', 'pressure')],
    convert: ({ n, density }) => {
      const speed = speedFromVelocityPressure(n.p!, density)
      return yes(
        [
          figure('v', 'Air speed', 'speed', speed, 'v = √(2·Δp/ρ)', 'Bernoulli', {
            basis: 'measured',
            inputs: [input('Δp', 'velocity pressure', n.p!, 'pressure'), input('ρ', 'air', density, 'density')],
          }),
        ],
        { warning: speed < 2 ? 'Below 2 m/s the signal is too small for low-cost sensors.' : '' },
      )
    },
  },
  {
    key: 'column',
    title: 'Liquid column to pressure',
    gives: 'pressure',
    fields: [
      field('l', 'Length along the tube', 'length'),
      field('angle', 'Angle of the tube, degrees', 'number', 90, { hint: '90 stands upright; 1:10 is 5.7' }),
      field('rho', 'Liquid', 'density', 998),
    ],
    convert: ({ n }) =>
      n.angle! > 0 && n.angle! <= 90
        ? yes([
            figure(
              'p',
              'Pressure',
              'pressure',
              columnPressure(n.l!, n.rho!, n.angle!),
              'p = ρ·g·L·sin θ',
              'hydrostatics',
              {
                basis: 'measured',
                inputs: [
                  input('L', 'along the tube', n.l!, 'length'),
                  input('θ', 'degrees', n.angle!, 'number'),
                  input('ρ', 'liquid', n.rho!, 'density'),
                  input('g', 'm/s²', GRAVITY, 'number'),
                ],
              },
            ),
          ])
        : no('The angle lies between 0 and 90 degrees.'),
  },
  {
    key: 'swap',
    title: 'Two barometric sensors, swapped',
    gives: 'pressure',
    fields: [field('d1', 'Sensor A inside: A − B', 'pressure'), field('d2', 'A outside: A − B', 'pressure')],
    convert: ({ n }) =>
      yes([
        figure(
          'p',
          'Pressure',
          'pressure',
          swappedSensorPressure(n.d1!, n.d2!),
          'Δp = (d₁ − d₂)/2',
          'physics notes ME5: the offset cancels',
          {
            basis: 'measured',
            low:
              swappedSensorPressure(n.d1!, n.d2!) -
              usualHalfWidth('pressure', swappedSensorPressure(n.d1!, n.d2!)),
            high:
              swappedSensorPressure(n.d1!, n.d2!) +
              usualHalfWidth('pressure', swappedSensorPressure(n.d1!, n.d2!)),
            inputs: [input('d₁', 'A inside', n.d1!, 'pressure'), input('d₂', 'A outside', n.d2!, 'pressure')],
            note: 'Usable floor 1 to 2 Pa after a minute of averaging (common practice).',
          },
        ),
      ]),
  },
  {
    key: 'offset',
    title: 'Two barometric sensors, offset known',
    gives: 'pressure',
    fields: [
      field('in', 'Inside less outside, running', 'pressure'),
      field('zero', 'The same, fan off', 'pressure', 0),
      field('dh', 'Inside sensor higher by', 'length', 0, { optional: true }),
    ],
    convert: ({ n, density }) => {
      const height = heightPressure(n.dh ?? 0, density)
      const value = n.in! - n.zero! + height
      return yes([
        figure(
          'p',
          'Pressure',
          'pressure',
          value,
          'Δp = (p_in − p_out) − offset + ρ·g·Δh',
          'physics notes ME5',
          {
            basis: 'measured',
            low: value - usualHalfWidth('pressure', value),
            high: value + usualHalfWidth('pressure', value),
            inputs: [
              input('p', 'running', n.in!, 'pressure'),
              input('offset', 'fan off', n.zero!, 'pressure'),
              input('Δh', 'height', n.dh ?? 0, 'length'),
            ],
            note: 'Only where the height was not there already when the offset was read.',
          },
        ),
      ])
    },
  },
  {
    key: 'sound',
    title: 'Meter reading to level at a spot',
    gives: 'level',
    fields: [
      field('read', 'Reading, fan on', 'level'),
      field('background', 'Background, fan off', 'level', null, { optional: true }),
      field('floor', 'Meter’s floor', 'level', null, { optional: true }),
      field('from', 'Microphone at', 'distance', null, { optional: true }),
      field('to', 'Wanted at', 'distance', null, { optional: true }),
    ],
    convert: sound,
  },
  {
    key: 'platinum',
    title: 'Platinum sensor to temperature',
    gives: 'temperature',
    choices: [
      {
        key: 'r0',
        label: 'Sensor',
        options: [
          { value: '100', label: 'Pt100' },
          { value: '1000', label: 'Pt1000' },
        ],
      },
      { key: 'kind', label: 'Class', options: ptLabels },
    ],
    fields: [
      field('ohm', 'Resistance', 'resistance'),
      field('lead', 'Both leads', 'resistance', 0, { optional: true }),
    ],
    convert: platinum,
  },
  {
    key: 'ntc',
    title: 'NTC to temperature',
    gives: 'temperature',
    fields: [
      field('ohm', 'Resistance', 'resistance', null, { optional: true }),
      field('fraction', 'or share of full scale', 'ratio', null, { optional: true, hint: 'NTC to ground' }),
      field('fixed', 'under a fixed', 'resistance', 10000, { optional: true }),
      field('r25', 'At 25 °C', 'resistance', 10000),
      field('beta', 'β, K', 'number', 3950),
    ],
    convert: thermistor,
  },
  {
    key: 'type-k',
    title: 'Type K thermocouple to temperature',
    gives: 'temperature',
    fields: [field('v', 'Voltage', 'voltage'), field('cold', 'Cold junction', 'temperature', 22)],
    convert: ({ n }) => {
      const value = typeKTemperature(n.v!, n.cold!)
      return value === null
        ? no('The table reaches from 0 to 200 °C.')
        : yes([
            figure(
              't',
              'Temperature',
              'temperature',
              value,
              'E(t) = E_meas + E(t_cold)',
              'IEC 60584-1 (from memory): voltages add, degrees do not',
              {
                basis: 'measured',
                low: value - 2.5,
                high: value + 2.5,
                inputs: [
                  input('E_meas', 'voltage', n.v!, 'voltage'),
                  input('t_cold', 'cold junction', n.cold!, 'temperature'),
                ],
                note: 'Range: class 2.',
              },
            ),
          ])
    },
  },
  {
    key: 'power',
    title: 'Volts and amps to watts',
    gives: 'power',
    fields: [field('v', 'At the fan’s terminals', 'voltage'), field('i', 'Mean current', 'current')],
    convert: power,
  },
  {
    key: 'shunt',
    title: 'Shunt to current',
    gives: 'current',
    fields: [field('v', 'Across the shunt', 'voltage'), field('r', 'Shunt', 'resistance', 0.1)],
    convert: ({ n }) =>
      n.r! > 0
        ? yes([
            figure('i', 'Current', 'current', n.v! / n.r!, 'I = V/R', 'Ohm', {
              basis: 'measured',
              low: (n.v! / n.r!) * (1 - HUNDREDTH),
              high: (n.v! / n.r!) * (1 + HUNDREDTH),
              inputs: [input('V', 'across it', n.v!, 'voltage'), input('R', 'shunt', n.r!, 'resistance')],
            }),
          ])
        : no('A shunt has a resistance.'),
  },
  {
    key: 'wall',
    title: 'Wall meter, with and without',
    gives: 'power',
    fields: [
      field('with', 'With the fan', 'power'),
      field('without', 'Without', 'power', 0, { optional: true }),
      field('hours', 'Hours a day', 'number', 24, { optional: true }),
      field('tariff', 'Price of a kWh', 'money', null, { optional: true }),
    ],
    convert: wall,
  },
  {
    key: 'capture',
    title: 'Flow to capture distance',
    gives: null,
    choices: [{ key: 'opening', label: 'Opening', options: openings }],
    fields: [
      field('flow', 'Airflow', 'flow'),
      field('area', 'Opening', 'area'),
      field('speed', 'Capture speed', 'speed', 0.5),
      field('hits', 'Puffs caught', 'number', null, { optional: true }),
      field('tries', 'of tries', 'number', null, { optional: true }),
    ],
    convert: capture,
  },
  {
    key: 'blow-over',
    title: 'Card that just topples to air speed',
    gives: null,
    fields: [
      field('m', 'Mass of the card', 'mass'),
      field('b', 'Width', 'length'),
      field('h', 'Height', 'length'),
      field('d', 'Depth of its foot', 'length'),
    ],
    convert: ({ n, density }) =>
      yes([
        figure(
          'v',
          'Air speed',
          'speed',
          topplingSpeed(n.m!, n.b!, n.h!, n.d!, CARD_DRAG, density),
          'v = √(2·m·g·d/(ρ·C_d·b·h²))',
          'physics notes ME21, C_d 1.2 (common practice)',
          {
            basis: 'estimated',
            inputs: [
              input('m', 'mass', n.m!, 'mass'),
              input('b', 'width', n.b!, 'length'),
              input('h', 'height', n.h!, 'length'),
              input('d', 'foot', n.d!, 'length'),
            ],
            note: 'Comparative: the farthest card that topples is the score.',
          },
        ),
      ]),
  },
]

const empty = (x: number | null | undefined): x is null | undefined =>
  x === null || x === undefined || !Number.isFinite(x)
/** Signed fields; all others must be above zero, or at zero where zero is usual. */
const signed = new Set<Quantity>(['temperature', 'pressure', 'level', 'voltage'])

/** Runs one conversion on what was typed: says what is still wanted instead of computing on nothing. */
export function convert(conversion: Conversion, inputs: Inputs): Converted {
  for (const f of conversion.fields) {
    const given = f.list ? (inputs.lists[f.key] ?? []) : inputs.n[f.key]
    if (f.list ? !(given as number[]).length : empty(given as number)) {
      if (f.optional) continue
      return no(`Wanted: ${f.label}.`)
    }
    for (const value of f.list ? (given as number[]) : [given as number])
      if (
        !signed.has(f.quantity) &&
        (value < 0 ||
          (value === 0 && f.usual !== 0 && !f.list && f.quantity !== 'power' && f.quantity !== 'number'))
      )
        return no(`${f.label} must be above zero.`)
  }
  const result = conversion.convert(inputs)
  return result.ok && result.figures[0]!.value === null ? no('These values give no result.') : result
}
