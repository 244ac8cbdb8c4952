/** Airflow without an instrument for it: a bag, a heater, smoke that clears, a kitchen scale, a carton with a hole. */
import { CP_AIR, GRAVITY } from '#core/air'
import { type Figure, figure, input } from '#core/figure'
import { approachFactor, flowThrough, holeArea, SHARP } from '#core/lab'
import { intervalHalfWidth, meanOf } from '#core/measure'
import { type Conversion, type Converted, type Inputs, field, no, yes } from './conversion'

/** A person starts and stops a watch to so much, s. Common practice, no source. */
const WATCH_S = 0.3
/** What a volume, a heater's watts and a hole's coefficient with its cut are worth, shares. Common practice, no source. */
const VOLUME = 0.05
const HEATER = 0.05
const HOLE = 0.05
/** Two alike thermometers differ by so much, K. Common practice, no source. */
const RISE_K = 0.5
/** Smaller rises tell little, K. */
const LEAST_RISE_K = 3
/** Shortest time a bag is let fill, s; under a second the watch decides. */
const LEAST_FILL_S = 2

const flowFigure = (
  flow: number,
  share: number,
  formula: string,
  source: string,
  inputs: Figure['inputs'],
  note: string,
) =>
  figure('flow', 'Airflow', 'flow', flow, formula, source, {
    basis: 'measured',
    low: flow * Math.max(0, 1 - share),
    high: flow * (1 + share),
    inputs,
    note,
  })

function bag({ n, lists }: Inputs): Converted {
  const times = lists.t!
  const mean = meanOf(times)
  if (mean < 1)
    return no(
      'The bag is full in less than a second: take a larger one, or throttle nothing and use another way.',
    )
  const scatter = (intervalHalfWidth(times) ?? 0) / mean
  const share = Math.hypot(VOLUME, WATCH_S / mean, scatter)
  const { mass, area } = n
  return yes(
    [
      flowFigure(
        n.v! / mean,
        share,
        'Q = V/t',
        'volume over time',
        [input('V', 'bag', n.v!, 'volume'), input('t', `mean of ${times.length} fillings`, mean, 'duration')],
        'Range: the bag’s volume to 5 %, the watch to 0.3 s, the scatter of the fillings. The bag begins flat and ends ' +
          'just taut; once it is taut the fan pushes against it.',
      ),
      ...(mass && area
        ? [
            figure(
              'p',
              'The bag pushes back with',
              'pressure',
              (mass * GRAVITY) / area,
              'p = m·g/A',
              'weight on an area',
              {
                inputs: [input('m', 'bag', mass, 'mass'), input('A', 'its floor', area, 'area')],
                note: 'Next to nothing against what a path takes: the flow is that without the bag.',
              },
            ),
          ]
        : []),
    ],
    {
      warning: [
        mean < LEAST_FILL_S ? 'Full in under two seconds: the watch decides. A larger bag tells more.' : '',
        times.length < 3 ? 'Three fillings at least show how well it comes again.' : '',
      ]
        .filter(Boolean)
        .join(' '),
    },
  )
}

function heater({ n, density }: Inputs): Converted {
  const rise = n.rise!
  const lost = n.lost ?? 0
  if (lost >= n.watts!) return no('The walls would lose all of the heat: nothing is left for the air.')
  const flow = (n.watts! - lost) / (density * CP_AIR * rise)
  const share = Math.hypot(HEATER, RISE_K / rise)
  return yes(
    [
      flowFigure(
        flow,
        share,
        'Q = (P − P_wall)/(ρ·c_p·ΔT)',
        'heat balance, handbook air and need',
        [
          input('P', 'heater', n.watts!, 'power'),
          input('ΔT', 'rise of the air', rise, 'temperatureDifference'),
          input('P_wall', 'lost through walls', lost, 'power'),
        ],
        'Range: watts to 5 %, the rise to 0.5 K. Wait until nothing changes; shield both thermometers from the heater’s glow ' +
          'and mix the air before the second one. The heater stays where nothing can burn, and never without the fan.',
      ),
    ],
    {
      warning:
        rise < LEAST_RISE_K ? 'A rise under 3 K is hardly more than the thermometers differ: more watts.' : '',
    },
  )
}

/** Straight line through logarithms of what is left: slope, and what it is worth. @returns null where it does not fall */
function decayOf(times: readonly number[], left: readonly number[]): { tau: number; share: number } | null {
  const n = times.length
  const y = left.map(Math.log)
  const [mt, my] = [meanOf(times), meanOf(y)]
  const xx = times.reduce((s, t) => s + (t - mt) ** 2, 0)
  const slope = times.reduce((s, t, i) => s + (t - mt) * (y[i]! - my), 0) / xx
  if (!(slope < 0)) return null
  const misfit = times.reduce((s, t, i) => s + (y[i]! - my - slope * (t - mt)) ** 2, 0)
  const error = n > 2 ? Math.sqrt(misfit / (n - 2) / xx) : 0
  return { tau: -1 / slope, share: (2.2 * error) / -slope }
}

function clearOut({ n, lists }: Inputs): Converted {
  const [times, read] = [lists.t!, lists.c!]
  const base = n.base ?? 0
  if (times.length !== read.length) return no('As many readings as times are wanted, in the same order.')
  if (times.length < 3) return no('Three readings at least: from two nobody sees whether it falls evenly.')
  if (read.some((c) => c <= base)) return no('A reading lies at the background already: leave it out.')
  if (times.some((t, i) => i > 0 && t <= times[i - 1]!)) return no('The times must rise.')
  const made = decayOf(
    times,
    read.map((c) => c - base),
  )
  if (!made) return no('The readings do not fall: something still gives it off, or no air is changed.')
  const { tau } = made
  const spread = times.at(-1)! - times[0]!
  return yes(
    [
      flowFigure(
        n.v! / tau,
        Math.hypot(VOLUME, made.share),
        'C = C₀·exp(−t/τ), Q = V/τ',
        'least squares of the logarithms, mixed room',
        [input('V', 'room', n.v!, 'volume'), input('τ', 'time constant', tau, 'duration')],
        'Range: the volume to 5 %, the scatter of the readings. It is the air that counts as fresh: stir with a second fan, ' +
          'and open no door meanwhile.',
      ),
      figure('tau', 'Time constant', 'duration', tau, 'τ = −1/slope', 'least squares of the logarithms'),
    ],
    { warning: spread < tau ? 'Read for longer: less than one time constant tells little.' : '' },
  )
}

/** "Gone" to the eye is two to four time constants, three as a rule. Common practice, no source. */
const GONE = { low: 2, middle: 3, high: 4 } as const
function byEye({ n }: Inputs): Converted {
  const flow = (GONE.middle * n.v!) / n.gone!
  return yes([
    figure(
      'flow',
      'Airflow',
      'flow',
      flow,
      'Q = 3·V/t',
      'common practice, no source: gone is two to four time constants',
      {
        basis: 'estimated',
        low: (GONE.low * n.v!) / n.gone!,
        high: (GONE.high * n.v!) / n.gone!,
        inputs: [input('V', 'room', n.v!, 'volume'), input('t', 'gone after', n.gone!, 'duration')],
        note: 'By eye only: good for the size of it. Theatre smoke or incense, in a room that may be smoked in.',
      },
    ),
  ])
}

/** Momentum of a real jet over that of an even one: 1 to 1.3 behind a small fan. Common practice, no source. */
const JET = { low: 1, middle: 1.12, high: 1.3 } as const
/** A kitchen scale shows whole grams. */
const SCALE_KG = 0.001
function thrust({ n, density }: Inputs): Converted {
  const hub = n.hub ?? 0
  if (hub >= n.d!) return no('The hub is as large as the fan.')
  if (n.mass! < 2 * SCALE_KG)
    return no('Under two grams a kitchen scale tells nothing: take a finer one, or a larger fan.')
  const area = holeArea(n.d!) - holeArea(hub)
  const force = n.mass! * GRAVITY
  const flow = (momentum: number, f = force) => Math.sqrt((f * area) / (momentum * density))
  const step = (SCALE_KG / 2) * GRAVITY
  return yes([
    figure(
      'flow',
      'Airflow',
      'flow',
      flow(JET.middle),
      'Q = √(F·A/(κ·ρ))',
      'momentum of the jet on a flat pan',
      {
        basis: 'measured',
        low: flow(JET.high, force - step),
        high: flow(JET.low, force + step),
        inputs: [
          input('m', 'shown by the scale', n.mass!, 'mass'),
          input('A', 'ring that blows', area, 'area'),
          input('κ', 'unevenness of the jet', JET.middle, 'number'),
        ],
        note:
          'Blow straight down on a pan wider than the jet, one to two diameters away, held apart from the scale. Range: how ' +
          'uneven the jet is, and half a gram.',
      },
    ),
  ])
}

function carton({ n, lists, density }: Inputs): Converted {
  const area = lists.d!.reduce((s, d) => s + holeArea(d), 0)
  const box = n.box ?? null
  if (box !== null && box <= area) return no('The holes are larger than the carton’s cross-section.')
  const factor = box === null ? 1 : approachFactor(area, box)
  const flow = flowThrough(SHARP * area * factor, Math.abs(n.p!), density)
  const share = Math.hypot(HOLE, n.gauge! / (2 * Math.max(1e-9, Math.abs(n.p!))))
  return yes(
    [
      flowFigure(
        flow,
        share,
        'Q = C·A·√(2·Δp/ρ)/√(1 − (C·A/A_box)²)',
        'sharp-edged orifice, C 0.61: ISO 5167, ISO 5801 (from memory)',
        [
          input('A', 'holes', area, 'area'),
          input('Δp', 'carton against the room', Math.abs(n.p!), 'pressure'),
          input('C', 'coefficient', SHARP, 'number'),
          ...(box === null ? [] : [input('A_box', 'cross-section', box, 'area')]),
        ],
        'The carton stands in the way of the air, before or behind the equipment. With a second fan steered until the ' +
          'equipment stands at room pressure it takes nothing away: this flow is then the equipment’s own.',
      ),
    ],
    {
      warning:
        box !== null && area > 0.5 * box
          ? 'The holes take more than half of the carton: its air is not still.'
          : '',
    },
  )
}

export const withoutConversions: readonly Conversion[] = [
  {
    key: 'carton',
    title: 'Carton with a sharp-edged hole in the way of the air',
    gives: 'flow',
    fields: [
      field('d', 'Holes that are open, diameters', 'length', null, { list: true }),
      field('p', 'Carton against the room', 'pressure'),
      field('gauge', 'Gauge resolves', 'pressure', 1),
      field('box', 'Cross-section of the carton', 'area', null, { optional: true }),
    ],
    convert: carton,
  },
  {
    key: 'bag',
    title: 'Bag filled, by the watch',
    gives: 'flow',
    fields: [
      field('v', 'Volume of the bag', 'volume', null, { hint: 'a bin bag’s litres, or weighed with water' }),
      field('t', 'Times to fill it', 'duration', null, { list: true }),
      field('mass', 'Mass of the bag', 'mass', null, { optional: true }),
      field('area', 'Area that it lies on', 'area', null, { optional: true }),
    ],
    convert: bag,
  },
  {
    key: 'heater',
    title: 'Heater of known watts in the air',
    gives: 'flow',
    fields: [
      field('watts', 'Heater', 'power'),
      field('rise', 'Rise of the air, before to behind it', 'temperatureDifference'),
      field('lost', 'Lost through walls', 'power', 0, { optional: true }),
    ],
    convert: heater,
  },
  {
    key: 'clear-out',
    title: 'Smoke or CO₂ that clears out',
    gives: 'flow',
    fields: [
      field('v', 'Volume of the room', 'volume'),
      field('t', 'Times', 'duration', null, { list: true }),
      field('c', 'Readings at these times', 'number', null, { list: true, hint: 'in the meter’s own unit' }),
      field('base', 'Reading when all is clear', 'number', 0, {
        optional: true,
        hint: 'CO₂ outdoors: about 420',
      }),
    ],
    convert: clearOut,
  },
  {
    key: 'by-eye',
    title: 'Smoke gone, by eye',
    gives: 'flow',
    fields: [field('v', 'Volume of the room', 'volume'), field('gone', 'Gone after', 'duration')],
    convert: byEye,
  },
  {
    key: 'thrust',
    title: 'Jet on a kitchen scale',
    gives: 'flow',
    fields: [
      field('mass', 'Scale shows', 'mass'),
      field('d', 'Diameter of the blades', 'length'),
      field('hub', 'Hub', 'length', 0, { optional: true }),
    ],
    convert: thrust,
  },
]
