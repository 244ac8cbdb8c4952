/** Sums of air: flow, speed, clearing, holes and filters. */
import { equalFrictionDiameter, orificeFlow } from '#core/airpath'
import { figure } from '#core/figure'
import { ellipseArea, slotArea } from '#core/fit'
import { captureFlow, captureGuide, captureSpeedAt, clearOutTime, type CaptureOpening } from '#core/need'
import { field, given, no, inputsOf, yes, type SumOfGroup } from './sum'

const DILUTION = 'well-mixed dilution with the mixing factor of industrial-ventilation practice'

const CAPTURE = 'industrial-ventilation handbook after DallaValle and Silverman (from memory)'
/** Air comes back together behind a sharp hole in a thin wall: this share of it is filled. */
const SHARP = 0.61

const holeFields = [
  field('area', 'Hole', 'area'),
  field('pressure', 'Pressure across it', 'pressure'),
  field('share', 'Filled share (discharge coefficient)', 'ratio', SHARP, {
    hint: '61 % sharp, 80 % thick wall, 95 % rounded',
  }),
]
const ductFields = [field('width', 'Width', 'length'), field('height', 'Height', 'length')]
const captureFields = [
  field('flow', 'Airflow', 'flow'),
  field('area', 'Opening', 'area'),
  field('distance', 'Source before it', 'length'),
]
const FACTORS: Record<CaptureOpening, string> = {
  plain: 'v = Q/(10·x² + A)',
  flanged: 'v = Q/(0.75·(10·x² + A))',
  bench: 'v = Q/(5·x² + A)',
}

export const air: SumOfGroup[] = [
  {
    key: 'flow-speed-area',
    title: 'Airflow from speed and area',
    fields: [field('v', 'Air speed, mean', 'speed'), field('a', 'Opening', 'area')],
    convert: (i) =>
      yes([
        figure('flow', 'Airflow', 'flow', i.n.v! * i.n.a!, 'Q = v · A', 'continuity', {
          inputs: given(i, ['v', 'v', 'speed', 'speed'], ['A', 'a', 'area', 'area']),
        }),
      ]),
  },
  {
    key: 'speed-flow-area',
    title: 'Air speed from airflow and area',
    fields: [field('q', 'Airflow', 'flow'), field('a', 'Opening', 'area')],
    convert: (i) =>
      yes([
        figure('speed', 'Air speed', 'speed', i.n.q! / i.n.a!, 'v = Q / A', 'continuity', {
          inputs: given(i, ['Q', 'q', 'airflow', 'flow'], ['A', 'a', 'area', 'area']),
        }),
      ]),
  },
  {
    key: 'clear-out',
    title: 'Time to clear the air',
    fields: [
      field('volume', 'Volume', 'volume'),
      field('flow', 'Fresh air', 'flow'),
      field('mixing', 'Mixing factor', 'number', 3, { hint: '1 perfect, 3 to 5 usual, 10 dead corners' }),
      field('left', 'Left of the first level', 'ratio', 0.05),
    ],
    convert: (i) =>
      i.n.mixing! < 1 || i.n.left! > 1
        ? no('The mixing factor is 1 or more, what is left at most 100 %.')
        : yes([
            figure(
              'time',
              'Clears in',
              'duration',
              clearOutTime(i.n.volume!, i.n.flow!, i.n.mixing!, 1, i.n.left!),
              't = V·K/Q · ln(1/share)',
              DILUTION,
              {
                inputs: given(
                  i,
                  ['V', 'volume', 'volume', 'volume'],
                  ['Q', 'flow', 'fresh air', 'flow'],
                  ['K', 'mixing', 'mixing factor', 'number'],
                  ['share', 'left', 'left', 'ratio'],
                ),
              },
            ),
            figure(
              'changes',
              'Air changes',
              'perHour',
              (3600 * i.n.flow!) / i.n.volume!,
              'n = Q / V',
              'definition',
              {
                inputs: given(i, ['Q', 'flow', 'fresh air', 'flow'], ['V', 'volume', 'volume', 'volume']),
              },
            ),
          ]),
  },
  {
    key: 'oval',
    title: 'Area of an oval opening',
    fields: [field('w', 'Width', 'length'), field('h', 'Height', 'length')],
    convert: (i) => {
      const [w, h] = [i.n.w!, i.n.h!]
      if (!(w > 0 && h > 0)) return no('Width and height are above 0.')
      const inputs = given(i, ['w', 'w', 'width', 'length'], ['h', 'h', 'height', 'length'])
      const [ellipse, slot] = [ellipseArea(w, h), slotArea(Math.max(w, h), Math.min(w, h))]
      const bore = (area: number) => Math.sqrt(area / (Math.PI / 4))
      return yes([
        figure('ellipse', 'As an ellipse', 'area', ellipse, 'A = π/4·w·h', 'geometry', { inputs }),
        figure('slot', 'As a slot with round ends', 'area', slot, 'A = (w − h)·h + π/4·h²', 'geometry', {
          inputs,
        }),
        figure('bore', 'Round bore like the slot', 'length', bore(slot), 'd = √(4·A/π)', 'geometry', {
          inputs,
        }),
      ])
    },
  },
  {
    key: 'holes',
    title: 'Free area of round holes',
    fields: [
      field('d', 'Diameter of a hole', 'length'),
      field('n', 'How many', 'number', 1),
      field('whole', 'Of a plate of', 'area', null, { optional: true }),
    ],
    convert: (i) => {
      const area = (i.n.n! * Math.PI * i.n.d! ** 2) / 4
      const { whole } = i.n
      if (whole && area > whole) return no('So many holes do not fit into the plate.')
      return yes([
        figure('area', 'Free area', 'area', area, 'A = n · π·d²/4', 'geometry', {
          inputs: given(i, ['n', 'n', 'holes', 'number'], ['d', 'd', 'diameter', 'length']),
        }),
        ...(whole
          ? [
              figure('ratio', 'Free-area ratio', 'ratio', area / whole, 'φ = A / A_plate', 'definition', {
                inputs: given(i, ['A_plate', 'whole', 'plate', 'area']),
              }),
            ]
          : []),
      ])
    },
  },
  {
    key: 'filter-area',
    title: 'Filter area for a face velocity',
    fields: [
      field('q', 'Airflow', 'flow'),
      field('v', 'Speed at its face', 'speed', 0.5, {
        hint: 'coarse up to about 1 m/s; fine and carbon 0.2 to 0.5 m/s',
      }),
    ],
    convert: (i) => {
      const area = i.n.q! / i.n.v!
      return yes([
        figure(
          'area',
          'Face area',
          'area',
          area,
          'A = Q / v',
          'continuity; face velocities are common practice',
          {
            inputs: given(i, ['Q', 'q', 'airflow', 'flow'], ['v', 'v', 'face velocity', 'speed']),
          },
        ),
        figure('side', 'Square of side', 'length', Math.sqrt(area), 's = √A', 'geometry'),
      ])
    },
  },
  {
    key: 'hole-flow',
    title: 'Air through a hole, by its pressure',
    fields: holeFields,
    convert: (i) => {
      const { area, pressure, share } = i.n
      if (share! > 1) return no('The filled share is at most 100 %.')
      const flow = orificeFlow(area!, share!, pressure!, i.density)
      const inputs = inputsOf(i, holeFields, { area: 'A', pressure: 'Δp', share: 'C_d' })
      const ORIFICE = 'orifice equation, 1.2 kg/m³ (20 °C, sea level)'
      return yes([
        figure('flow', 'Airflow', 'flow', flow, 'Q = C_d·A·√(2·Δp/ρ)', ORIFICE, { inputs }),
        figure(
          'speed',
          'Speed in the jet',
          'speed',
          area! > 0 ? flow / (share! * area!) : null,
          'v = √(2·Δp/ρ)',
          ORIFICE,
          { inputs },
        ),
      ])
    },
  },
  {
    key: 'round-duct',
    title: 'Round duct in place of a rectangle',
    fields: ductFields,
    convert: (i) => {
      const { width, height } = i.n
      const inputs = inputsOf(i, ductFields, { width: 'a', height: 'b' })
      return yes([
        figure(
          'bore',
          'Bore of equal flow and friction',
          'length',
          equalFrictionDiameter(width!, height!),
          'D = 1.30·(a·b)^0.625/(a + b)^0.25',
          'Huebscher, ASHRAE Fundamentals',
          { inputs },
        ),
        figure('area', 'Area of the rectangle', 'area', width! * height!, 'a·b', 'geometry'),
        figure(
          'hydraulic',
          'Hydraulic diameter',
          'length',
          (2 * width! * height!) / (width! + height!),
          '4·A/U',
          'definition: equal friction at equal speed',
          { inputs },
        ),
      ])
    },
  },
  {
    key: 'capture',
    title: 'Air speed before a suction opening',
    fields: captureFields,
    choices: [
      {
        key: 'opening',
        label: 'Opening',
        options: [
          { value: 'plain', label: 'plain end' },
          { value: 'flanged', label: 'with a flange' },
          { value: 'bench', label: 'resting on the bench' },
        ],
      },
    ],
    convert: (i) => {
      const { flow, area, distance } = i.n
      const opening = (i.choice.opening || 'plain') as CaptureOpening
      if (!(area! > 0 && flow! > 0)) return no('Airflow and opening are above zero.')
      const speed = captureSpeedAt(flow!, distance!, area!, opening)
      const inputs = inputsOf(i, captureFields, { flow: 'Q', area: 'A', distance: 'x' })
      const enough = captureGuide.filter((g) => speed >= g.low).at(-1)
      return yes(
        [
          figure('speed', 'Speed at the source', 'speed', speed, FACTORS[opening], CAPTURE, {
            inputs,
            note: enough
              ? `Enough for what ${enough.how}.`
              : 'Not even enough for what evaporates in still air.',
          }),
          figure('face', 'Speed in the opening', 'speed', flow! / area!, 'Q/A', 'continuity', { inputs }),
          figure(
            'wanted',
            'Airflow for 0.5 m/s there',
            'flow',
            captureFlow(0.5, distance!, area!, opening),
            'the same backwards',
            CAPTURE,
            { inputs },
          ),
        ],
        distance! > 1.5 * Math.sqrt((4 * area!) / Math.PI)
          ? 'Farther than one and a half openings the law is stretched, and any draught wins.'
          : '',
      )
    },
  },
]
