/** Airflow from speeds over an opening, a hood, a velocity pressure. */
import { type Figure, figure, input } from '#core/figure'
import {
  flowFromGrid,
  flowFromSpeed,
  intervalHalfWidth,
  meanOf,
  speedFromVelocityPressure,
  topplingSpeed,
  traversePoints,
  wilsonInterval,
} from '#core/measure'
import { type CaptureOpening, captureDistance } from '#core/need'
import { type Inputs, type Converted, type Conversion, field, no, yes } from './conversion'

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

/** What the airflow of one opening is worth, share: a small vane times area. Common practice, no source. */
const ONE_OPENING = 0.15
/** Density of water, kg/m3. */
const WATER = 1000
/** How far a mark on a tank may be misread, m. Common practice, no source. */
const MARK_M = 0.001

/** Drag coefficient of a flat card. Common practice, no source. */
const CARD_DRAG = 1.2

export const airConversions: readonly Conversion[] = [
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
    key: 'one-of-n',
    title: 'One of several openings alike to all of them',
    gives: 'flow',
    fields: [
      field('q', 'Airflow of one, or of several of them', 'flow', null, {
        list: true,
        hint: 'each opening that was read: 40 43 38',
      }),
      field('n', 'Openings alike', 'number', 2),
    ],
    convert: ({ n, lists }) => {
      const read = lists.q!
      if (!Number.isInteger(n.n) || read.length > n.n!)
        return no(`Openings alike: a whole number, at least the ${read.length} that were read.`)
      const mean = meanOf(read)
      const all = n.n! * mean
      const half = n.n! * Math.hypot(ONE_OPENING * mean, intervalHalfWidth(read) ?? 0)
      return yes(
        [
          figure(
            'flow',
            'Airflow of all of them',
            'flow',
            all,
            'Q = n · mean(q)',
            'openings alike share the air evenly',
            {
              basis: 'measured',
              low: Math.max(0, all - half),
              high: all + half,
              inputs: [
                input('n', 'openings alike', n.n!, 'number'),
                input('q', `mean of ${read.length}`, mean, 'flow'),
              ],
              note: 'Range: 15 % of a small vane, and how far the openings that were read differ.',
            },
          ),
        ],
        {
          warning:
            read.length === 1
              ? 'Only one was read: the others may share the air unevenly. Read a second one.'
              : '',
        },
      )
    },
  },
  {
    key: 'pitot',
    title: 'Velocity pressure to air speed',
    gives: 'speed',
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
    key: 'capture',
    title: 'Flow to capture distance',
    gives: 'distance',
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
    gives: 'speed',
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
  {
    key: 'tank',
    title: 'Fallen water level to evaporation a day',
    gives: 'waterPerDay',
    fields: [
      field('a', 'Surface of the water', 'area'),
      field('h', 'Fallen by', 'length'),
      field('t', 'In a time of', 'duration'),
    ],
    convert: ({ n }) => {
      const rate = (fallen: number) => (WATER * n.a! * fallen) / n.t!
      return yes(
        [
          figure('w', 'Evaporation', 'waterPerDay', rate(n.h!), 'w = ρ·A·h/t', 'balance of the water', {
            basis: 'measured',
            low: Math.max(0, rate(n.h! - 2 * MARK_M)),
            high: rate(n.h! + 2 * MARK_M),
            inputs: [
              input('ρ', 'water', WATER, 'density'),
              input('A', 'surface', n.a!, 'area'),
              input('h', 'fallen by', n.h!, 'length'),
              input('t', 'in', n.t!, 'duration'),
            ],
            note: 'Range: each of both marks read to 1 mm. Nothing else may take water or give it.',
          }),
        ],
        { warning: n.h! < 10 * MARK_M ? 'So small a fall drowns in the reading: wait some days.' : '' },
      )
    },
  },
]
