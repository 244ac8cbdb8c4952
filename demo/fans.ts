/**
 * The invented shelf of the Tarn Lane Workshop: about sixty fans whose curves, currents, noise and claims hang together.
 * Every maker and model is made up. Flow, pressure and noise follow the laws of similar fans from blade-tip speed; the
 * electric power follows from the air power and a usual efficiency; claims are off as real ones are.
 */
import {
  newFan,
  newTest,
  type Connector,
  type CurveBasis,
  type Fan,
  type FanPoint,
  type FanTest,
  type VoltageCurve,
} from '#core/document'
import { withCartons } from './cartons'
import { drawn } from './random'

interface Series {
  maker: string
  name: string
  kind: 'axial' | 'blower'
  /** flow and pressure coefficients on tip speed, see below */
  flow: number
  pressure: number
  /** dB against the usual fan of this size and speed */
  noise: number
  bearing: 'sleeve' | 'ball' | 'fluid'
  dip: boolean
  /** how far the printed numbers are from the truth: 1 is honest */
  claim: number
  basis: CurveBasis
  wires: 2 | 3 | 4
  priceFactor: number
}

const axial = (maker: string, name: string, rest: Partial<Series>): Series => ({
  maker,
  name,
  kind: 'axial',
  flow: 0.33,
  pressure: 0.22,
  noise: 0,
  bearing: 'fluid',
  dip: true,
  claim: 1,
  basis: 'curve',
  wires: 3,
  priceFactor: 1,
  ...rest,
})

const series: Record<string, Series> = {
  sedge: axial('Fenholm', 'Sedge', {
    noise: -2.5,
    flow: 0.31,
    pressure: 0.2,
    wires: 4,
    priceFactor: 1.5,
    bearing: 'fluid',
    basis: 'curve',
  }),
  teasel: axial('Fenholm', 'Teasel', {
    pressure: 0.34,
    flow: 0.32,
    noise: 1.5,
    wires: 4,
    priceFactor: 1.7,
    bearing: 'ball',
  }),
  burnet: axial('Quernside', 'Burnet', {
    noise: 1,
    bearing: 'sleeve',
    claim: 1.12,
    basis: 'claim',
    wires: 3,
    priceFactor: 0.6,
  }),
  alder: axial('Larkbeck', 'Alder', {
    flow: 0.34,
    noise: 0,
    bearing: 'ball',
    wires: 3,
    priceFactor: 0.9,
    dip: false,
  }),
  yarrow: axial('Larkbeck', 'Yarrow', { flow: 0.35, pressure: 0.19, noise: -1, wires: 4, priceFactor: 1.1 }),
  bracken: axial('Quernside', 'Bracken', {
    bearing: 'sleeve',
    claim: 1.2,
    basis: 'estimated',
    wires: 2,
    priceFactor: 0.45,
    noise: 2,
  }),
  rowan: axial('Holmrigg', 'Rowan', {
    pressure: 0.28,
    bearing: 'ball',
    basis: 'measured',
    wires: 2,
    priceFactor: 1.2,
    noise: 0.5,
  }),
  sorrel: {
    ...axial('Holmrigg', 'Sorrel', { bearing: 'ball', wires: 2, priceFactor: 1.3, noise: 3, dip: false }),
    kind: 'blower',
    flow: 0.21,
    pressure: 0.95,
  },
}

/** frame mm, thickness mm, rpm, volts, series; a letter tells variants apart. */
const list: [keyof typeof series, number, number, number, number, string][] = [
  ['alder', 40, 10, 5200, 5, ''],
  ['alder', 40, 20, 6800, 12, ''],
  ['bracken', 40, 10, 5500, 12, ''],
  ['rowan', 40, 28, 9000, 12, 'HP'],
  ['sedge', 40, 20, 4500, 12, ''],
  ['rowan', 40, 20, 7000, 24, ''],
  ['alder', 50, 15, 4500, 12, ''],
  ['burnet', 50, 10, 5000, 5, ''],
  ['rowan', 50, 20, 5200, 24, ''],
  ['sedge', 60, 25, 3000, 12, ''],
  ['burnet', 60, 15, 3600, 12, ''],
  ['teasel', 60, 25, 4300, 12, 'HP'],
  ['alder', 60, 25, 3400, 24, ''],
  ['bracken', 60, 10, 3300, 5, 'slim'],
  ['rowan', 60, 38, 5200, 24, 'HP'],
  ['sedge', 80, 25, 1800, 12, ''],
  ['burnet', 80, 25, 2500, 12, ''],
  ['teasel', 80, 25, 3000, 12, 'HP'],
  ['alder', 80, 25, 2600, 24, ''],
  ['alder', 80, 15, 2400, 12, 'slim'],
  ['bracken', 80, 25, 2300, 12, ''],
  ['rowan', 80, 38, 4000, 24, 'HP'],
  ['rowan', 80, 25, 2400, 24, ''],
  ['yarrow', 80, 25, 2000, 5, ''],
  ['rowan', 80, 32, 3400, 48, ''],
  ['sedge', 92, 25, 1650, 12, ''],
  ['teasel', 92, 25, 2600, 12, 'HP'],
  ['burnet', 92, 25, 2200, 12, ''],
  ['alder', 92, 25, 2300, 24, ''],
  ['yarrow', 92, 14, 2100, 12, 'slim'],
  ['rowan', 92, 38, 3200, 24, 'HP'],
  ['sedge', 120, 25, 1200, 12, ''],
  ['sedge', 120, 25, 1800, 12, 'S'],
  ['teasel', 120, 25, 2200, 12, 'HP'],
  ['teasel', 120, 38, 2600, 24, 'HP'],
  ['burnet', 120, 25, 1500, 12, ''],
  ['burnet', 120, 25, 1900, 24, ''],
  ['alder', 120, 15, 1500, 12, 'slim'],
  ['alder', 120, 25, 1700, 24, ''],
  ['yarrow', 120, 25, 1350, 12, ''],
  ['yarrow', 120, 25, 1100, 5, ''],
  ['bracken', 120, 25, 1600, 12, ''],
  ['bracken', 120, 38, 2400, 12, 'deep'],
  ['rowan', 120, 38, 3000, 12, 'HP'],
  ['rowan', 120, 38, 2500, 48, ''],
  ['sedge', 140, 25, 900, 12, ''],
  ['yarrow', 140, 25, 1100, 12, ''],
  ['teasel', 140, 25, 1700, 12, 'HP'],
  ['burnet', 140, 25, 1250, 12, ''],
  ['alder', 140, 25, 1300, 24, ''],
  ['yarrow', 200, 30, 700, 12, ''],
  ['burnet', 200, 20, 800, 12, ''],
  ['sorrel', 50, 15, 5000, 12, ''],
  ['sorrel', 50, 10, 5200, 5, 'slim'],
  ['sorrel', 60, 25, 4200, 12, ''],
  ['sorrel', 75, 30, 3000, 12, ''],
  ['sorrel', 75, 30, 3400, 24, ''],
  ['sorrel', 97, 33, 2600, 12, ''],
  ['sorrel', 97, 33, 3200, 24, 'HP'],
  ['sorrel', 120, 32, 2600, 12, ''],
]

/** Shapes over the share of free delivery: with a dip, without, and a forward-curved blower. Invented, physically plausible. */
const shapes = {
  dip: [
    [0, 1],
    [0.1, 0.92],
    [0.2, 0.8],
    [0.3, 0.68],
    [0.4, 0.615],
    [0.5, 0.63],
    [0.6, 0.595],
    [0.7, 0.505],
    [0.8, 0.37],
    [0.9, 0.195],
    [1, 0],
  ],
  smooth: [
    [0, 1],
    [0.12, 0.93],
    [0.25, 0.83],
    [0.38, 0.72],
    [0.5, 0.64],
    [0.62, 0.53],
    [0.74, 0.39],
    [0.86, 0.22],
    [1, 0],
  ],
  blower: [
    [0, 1],
    [0.15, 0.99],
    [0.3, 0.96],
    [0.45, 0.9],
    [0.6, 0.79],
    [0.75, 0.6],
    [0.88, 0.34],
    [1, 0],
  ],
} as const

/** Air density that the sheets are stated at, kg/m3. */
const RHO = 1.2

/** Best static efficiency by frame, 0..1: small fans are poor (common practice bands of the handbook). */
const bestEfficiency = (frameMm: number, kind: 'axial' | 'blower') =>
  kind === 'blower' ? 0.16 : Math.min(0.26, 0.05 + 0.0019 * (frameMm - 30))

const tidy = (x: number, digits: number) => Number(x.toPrecision(digits))

/** m3/s that print as round m3/h. */
const perHour = (flow: number) => tidy(flow * 3600, 3) / 3600

function make(index: number): Fan {
  const [key, frameMm, thickMm, rpm, volts, variant] = list[index]!
  const s = series[key]!
  const random = drawn(7001 + 13 * index)
  const spread = (width: number) => 1 + width * (2 * random() - 1)
  const tip = (0.93 * frameMm) / 1000
  const hub = 0.42 * tip
  const tipSpeed = (Math.PI * tip * rpm) / 60
  const deep = Math.min(1.15, Math.max(0.62, (thickMm / (0.21 * frameMm)) ** 0.35))
  const area =
    s.kind === 'blower'
      ? 0.42 * frameMm * 1e-3 * (thickMm - 3) * 1e-3 * 3
      : (Math.PI / 4) * (tip ** 2 - hub ** 2)
  const bladeSpeed = s.kind === 'blower' ? 0.72 * tipSpeed : tipSpeed
  const trueFlow = s.flow * area * bladeSpeed * Math.sqrt(deep) * spread(0.05)
  const truePressure = s.pressure * RHO * bladeSpeed ** 2 * deep * spread(0.06)
  const shape = s.kind === 'blower' ? shapes.blower : s.dip && frameMm >= 60 ? shapes.dip : shapes.smooth
  const points: FanPoint[] = shape.map(([x, y]) => ({
    flowM3s: perHour(trueFlow * s.claim * x),
    pressurePa: tidy(truePressure * s.claim * y, 3),
  }))
  const bestAir = Math.max(...shape.map(([x, y]) => trueFlow * truePressure * x * y))
  const watts = Math.max(0.35, (1.12 * bestAir) / bestEfficiency(frameMm, s.kind)) + (0.012 * frameMm) / 10
  const level =
    15 +
    50 * Math.log10(rpm / 1000) +
    50 * Math.log10(frameMm / 120) +
    s.noise +
    (s.kind === 'blower' ? 5 : 0) +
    (2 * random() - 1)
  const floor = s.bearing === 'ball' ? 14 : 12
  const noise = 10 * Math.log10(10 ** (level / 10) + 10 ** (floor / 10)) - (s.claim > 1 ? 2 : 0)
  const startShare = s.bearing === 'sleeve' ? 0.55 : s.kind === 'blower' ? 0.5 : 0.44
  const basis = s.basis
  const usualLife = { sleeve: 30000, ball: 60000, fluid: 70000 }[s.bearing]
  const connectors: Record<number, Connector> = {
    2: frameMm < 60 || volts === 24 ? 'bare' : 'header-2',
    3: 'header-3',
    4: 'header-4',
  }
  const fan: Fan = {
    ...newFan(''),
    id: `fan-${s.name.toLowerCase()}-${frameMm}x${thickMm}-${volts}v${variant ? `-${variant.toLowerCase()}` : ''}`,
    maker: s.maker,
    model: `${s.name} ${frameMm}${variant ? ` ${variant}` : ''}${volts === 12 ? '' : ` ${volts} V`}`,
    kind: s.kind,
    frameM: frameMm / 1000,
    thicknessM: thickMm / 1000,
    ratedV: volts,
    minV: tidy(volts * (startShare - 0.1), 2),
    maxV: tidy(volts * (s.maker === 'Fenholm' ? 1.15 : 1.1), 3),
    startV: s.basis === 'estimated' ? null : tidy(volts * startShare, 2),
    interceptV: s.basis === 'measured' ? tidy(volts * 0.06, 2) : null,
    ratedA: tidy((watts / volts) * (basis === 'measured' ? 1 : 1.25), 2),
    ratedRpm: rpm,
    maxFlowM3s: perHour(trueFlow * s.claim),
    maxPressurePa: tidy(truePressure * s.claim, 3),
    noiseDbA: tidy(noise, 3),
    noiseDistanceM: s.claim > 1.1 ? null : 1,
    wires: s.wires,
    bearing: s.bearing,
    massKg: tidy(0.00042 * frameMm ** 1.25 * (thickMm / 25) * (s.kind === 'blower' ? 1.2 : 1), 2),
    ipWater: s.maker === 'Holmrigg' ? 4 : 0,
    maxAirC: s.bearing === 'ball' ? 70 : 60,
    price: tidy((2.2 + frameMm * 0.055 + watts * 0.25) * s.priceFactor, 2),
    owned: [6, 15, 20, 25, 35, 39].includes(index),
    curveBasis: basis,
    notes: basis === 'measured' ? 'Measured on the workshop’s bench; the label says a little more.' : '',
    points: basis === 'estimated' ? [] : points,
    connector: connectors[s.wires]!,
    ...(s.wires === 4 ? { pwmMinDuty: 0.2, pwmStartDuty: 0.25, pwmMinSpeed: 0.22 } : {}),
    blades: s.kind === 'blower' ? null : frameMm >= 80 ? 9 : 7,
    shaftAllowed: s.bearing === 'sleeve' ? 'horizontal' : 'any',
    lifeH: basis === 'estimated' ? null : usualLife,
    lifeC: basis === 'estimated' ? null : 40,
    ipSolid: s.maker === 'Holmrigg' ? 5 : 2,
    minAirC: -10,
    priceOn: '2026-03-14',
    sources:
      basis === 'measured'
        ? [
            { figure: 'ratedA', basis: 'measured' },
            { figure: 'startV', basis: 'measured' },
          ]
        : [],
  }
  // a sheet that shows the fan at three voltages
  if (s.name === 'Teasel' && volts === 12)
    fan.curves = [7, 9].map((v): VoltageCurve => atVoltage(points, v, (v / 12) * spread(0.02)))
  fan.tests = testsOf(
    index,
    fan,
    {
      flow: trueFlow,
      pressure: truePressure,
      watts,
      noise: noise + (s.claim > 1 ? 2 : 0),
      honest: s.claim === 1,
    },
    random,
  )
  return fan
}

const atVoltage = (points: readonly FanPoint[], volts: number, speed: number): VoltageCurve => ({
  volts,
  basis: 'curve',
  points: points.map((p) => ({
    flowM3s: perHour(p.flowM3s * speed),
    pressurePa: tidy(p.pressurePa * speed ** 2, 3),
  })),
})

interface Truth {
  flow: number
  pressure: number
  watts: number
  noise: number
  honest: boolean
}

/** Fans that the workshop had on its bench, and how many specimens of each. */
const tested: Record<number, number> = { 6: 1, 15: 3, 16: 1, 20: 2, 35: 1, 39: 2, 46: 1, 55: 1 }

/** What the workshop's bench showed: near the truth, with specimens that differ a little. */
function testsOf(index: number, fan: Fan, truth: Truth, random: () => number): FanTest[] {
  const spread = (width: number) => 1 + width * (2 * random() - 1)
  return Array.from({ length: tested[index] ?? 0 }, (_, i) => {
    const speed = (truth.honest ? 0.985 : 0.93) * spread(0.02)
    const own = spread(0.03)
    return {
      ...newTest(`test-${i + 1}`, fan.ratedV, `2026-04-${String(10 + i).padStart(2, '0')}T18:20:00.000Z`),
      specimen: 'ABC'[i]!,
      ambientC: 21,
      rpm: Math.round((fan.ratedRpm! * speed) / 10) * 10,
      currentA: tidy((truth.watts / fan.ratedV) * spread(0.04), 2),
      startV: tidy(fan.ratedV * 0.4 * spread(0.08), 2),
      flowM3s: perHour(truth.flow * speed * own),
      pressurePa: tidy(truth.pressure * speed ** 2 * spread(0.04), 3),
      levelDbA: tidy(truth.noise + 50 * Math.log10(speed) + 1.5 * (2 * random() - 1), 3),
      levelDistanceM: fan.noiseDistanceM ?? 1,
      backgroundDbA: null,
      notes: i === 0 ? 'Through a hood with one known outlet.' : '',
    }
  })
}

/** The whole invented shelf. */
export const demoFans: Fan[] = withCartons(list.map((_, i) => make(i)))
