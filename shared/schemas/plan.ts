import { z } from 'zod'
import { uncertainInputs, type PlanDocument } from '#core/document'
import { idSchema, limits, longText, maybe, shortText, within } from './fan'

const yesNo = maybe(z.boolean())
const readingQuantities = [
  'temperature',
  'level',
  'flow',
  'pressure',
  'rotation',
  'voltage',
  'current',
  'power',
  'duration',
] as const
const size = maybe(within(0.001, 20))
/** Areas and shares must be above zero: an opening of nothing lets nothing through. */
const area = maybe(z.number().gt(0, 'An area must be above zero.').max(25, 'Not above 25 m².'))
const share = maybe(z.number().gt(0, 'A share must be above zero.').max(1, 'A share cannot be above 100 %.'))

const above = (limit: number, unit: string) =>
  maybe(z.number().gt(0, 'Must be above zero.').max(limit, `Not above ${limit} ${unit}.`))
const side = z.enum(['front', 'back', 'left', 'right', 'top', 'bottom'])
const clock = above(30 * 86400, 's')

const aboutShape = {
  id: idSchema,
  name: shortText.min(1, 'A job needs a name.'),
  variantOf: maybe(idSchema),
  goal: z.enum(['cool', 'part', 'ventilate', 'fume', 'stir', 'chill', 'quieten']),
  equipment: shortText,
  complaint: longText,
  untouchable: longText,
}
const breathingShape = {
  breathesIn: shortText,
  breathesOut: shortText,
  direction: maybe(z.enum(['in', 'out'])),
  mountedDirection: maybe(z.enum(['in', 'out'])),
  intakeSide: maybe(side),
  outletSide: maybe(side),
  intakeHeightM: maybe(within(0, 100)),
  outletHeightM: maybe(within(0, 100)),
  airOutlet: maybe(z.enum(['outdoors', 'same-room', 'other-room'])),
  outletToOpeningM: maybe(within(0, 100)),
  gasketed: yesNo,
  backflowFlap: yesNo,
  intakeAirC: maybe(within(-40, 80)),
}
const placeShape = {
  ambientC: within(-40, 80),
  ambientMaxC: maybe(within(-40, 80)),
  altitudeM: within(-430, 9000),
  humidity: within(0, 1),
  hoursPerDay: within(0, 24),
  listenerM: within(0.1, 50),
  roomDbA: maybe(limits.level),
  margin: maybe(within(0, 3)),
}
const heatShape = {
  heatW: maybe(within(0, 20000)),
  heatBasis: z.enum(['measured', 'nameplate', 'estimate']),
  insideMaxC: maybe(within(-30, 150)),
  wallLossWK: maybe(within(0, 500)),
  activeCooling: yesNo,
  partMaxC: maybe(within(-30, 250)),
  partInnerKPerW: maybe(within(0, 1000)),
}
const spaceShape = {
  volumeM3: maybe(z.number().gt(0, 'A volume must be above zero.').max(2000, 'Not above 2000 m³.')),
  airChangesPerH: maybe(z.number().gt(0, 'Must be above zero.').max(600, 'Not above 600 an hour.')),
  mixing: maybe(within(1, 10)),
  clearS: clock,
  clearShare: maybe(within(0.0001, 0.99)),
  waterKgS: maybe(within(0, 0.01)),
  insideC: maybe(within(-40, 80)),
  insideRhMax: maybe(within(0.01, 1)),
  surfaceC: maybe(within(-40, 80)),
  co2M3s: maybe(within(0, 0.01)),
  co2Max: maybe(within(0, 0.2)),
  co2Fresh: maybe(within(0, 0.05)),
}
const fumeShape = {
  fumeWay: z.enum(['capture', 'slot', 'enclosure']),
  captureSpeedMs: above(20, 'm/s'),
  captureDistanceM: above(5, 'm'),
  nozzleAreaM2: area,
  nozzleOpening: z.enum(['plain', 'flanged', 'bench']),
  slotLengthM: above(10, 'm'),
  slotFlanged: z.boolean(),
  leakAreaM2: area,
  boxPressurePa: above(500, 'Pa'),
  workOpeningM2: area,
  faceSpeedMs: above(10, 'm/s'),
  roomVolumeM3: above(5000, 'm³'),
  roomChangesPerH: above(600, 'an hour'),
  fumeRated: yesNo,
  carbonHours: maybe(within(0, 1e5)),
  carbonLifeH: above(1e5, 'h'),
}
const stirShape = {
  turnoversPerH: above(5000, 'an hour'),
  jetReachM: above(20, 'm'),
  jetSpeedMs: above(20, 'm/s'),
  cop: maybe(within(0.05, 20)),
  dutyShare: maybe(within(0, 1)),
  boxPowerW: maybe(within(0, 20000)),
  contentsJK: above(1e8, 'J/K'),
  warmedK: above(100, 'K'),
  nearK: above(100, 'K'),
}
const waterShape = {
  waterAreaM2: area,
  waterC: maybe(within(0.5, 60)),
  lid: z.enum(['open', 'mesh', 'still']),
  surfaceSpeedMs: above(5, 'm/s'),
  crossAreaM2: area,
  coolingW: maybe(within(0, 20000)),
  reserveM3: above(100, 'm³'),
  daysUnattended: maybe(within(0, 1000)),
}
const keepShape = {
  keepBasis: z.enum(['existing-fan', 'temperature', 'typed']),
  existingFanId: maybe(idSchema),
  existingCount: z.number().int().min(1).max(12),
  existingV: maybe(limits.voltage),
  measuredRiseK: maybe(z.number().gt(0, 'A rise must be above zero.').max(150)),
  typedFlowM3s: maybe(limits.flow),
}
const surroundingShape = {
  fitDepthM: size,
  fitWidthM: size,
  inletClearM: maybe(within(0, 20)),
  outletClearM: maybe(within(0, 20)),
  openingGapM: maybe(within(0, 50)),
  baffled: yesNo,
  hotPartInPath: yesNo,
  mustNotFail: yesNo,
  mains: yesNo,
  flammable: yesNo,
  openFlue: yesNo,
  wet: yesNo,
  domain: z.enum(['general', 'vehicle', 'aircraft', 'medical', 'life-safety']),
  opensSupply: yesNo,
  storedV: maybe(within(0, 20000)),
  discharged: yesNo,
  earthRefitted: yesNo,
  supplyOpening: yesNo,
  laser: yesNo,
  lightBaffle: yesNo,
  thermalCutout: yesNo,
  adapterInWet: yesNo,
  touchC: maybe(within(-40, 500)),
}
const choiceShape = {
  trust: z.enum(['claims', 'own', 'discounted']),
  shaft: maybe(z.enum(['horizontal', 'vertical'])),
  stackExtraM: maybe(within(0, 1)),
  existingHolesM: maybe(within(0.01, 0.5)),
  holeM: maybe(within(0.005, 0.6)),
  screwHoleM: maybe(within(0.0005, 0.03)),
  mountKind: maybe(z.enum(['screws', 'clips', 'adhesive', 'ties'])),
  mountCapacityKg: maybe(within(0.001, 100)),
  mountIsolated: yesNo,
  thinPanel: yesNo,
  panelHz: maybe(within(1, 20000)),
  upstreamGapM: maybe(within(0, 1)),
}
const verdictShape = {
  statedChange: maybe(within(-1, 100)),
  statedOf: maybe(z.enum(readingQuantities)),
  rankedBy: maybe(z.enum(['flow-per-loudness', 'flow-per-money', 'flow-per-decibel'])),
  maintenanceFrom: maybe(z.iso.date()),
  bladesDays: maybe(
    z.number().int('Whole days are wanted.').min(1, 'At least a day.').max(3650, 'Not above ten years.'),
  ),
  filterDays: maybe(
    z.number().int('Whole days are wanted.').min(1, 'At least a day.').max(3650, 'Not above ten years.'),
  ),
  tariff: maybe(within(0, 10)),
}
export const jobSchema = z.object({
  ...aboutShape,
  ...breathingShape,
  ...placeShape,
  ...heatShape,
  ...spaceShape,
  ...fumeShape,
  ...stirShape,
  ...waterShape,
  ...keepShape,
  ...surroundingShape,
  ...choiceShape,
  ...verdictShape,
})

const point = z.object({
  flowM3s: z
    .number()
    .gt(0, 'A flow must be above zero.')
    .max(limits.flow.maxValue ?? 1, 'Not above 3000 m³/h.'),
  pressurePa: limits.pressure,
})
const points = z.array(point).max(60, 'At most 60 points.')

export const portSchema = z.object({
  id: idSchema,
  role: z.enum(['in', 'out']),
  name: shortText,
  side,
  areaM2: area,
  flowM3s: maybe(limits.flow),
})
export const uncertaintySchema = z
  .object({
    id: z.enum(uncertainInputs),
    grade: z.enum(['measured', 'good-guess', 'rough-guess', 'range']),
    low: maybe(z.number()),
    high: maybe(z.number()),
  })
  .refine(
    (d) => d.low === null || d.high === null || d.low <= d.high,
    'The lower end must not lie above the upper one.',
  )
export const sinkPointSchema = z.object({
  flowM3s: point.shape.flowM3s,
  kPerW: z.number().gt(0, 'Must be above zero.').max(1000, 'Not above 1000 K/W.'),
})

export const elementSchema = z.object({
  id: idSchema,
  kind: z.enum([
    'opening',
    'slot',
    'grille',
    'hood',
    'filter',
    'duct',
    'bend',
    'reducer',
    'wye',
    'damper',
    'flap',
    'fins',
    'adapter',
    'chamber',
    'outlet',
    'custom',
    'split',
    'fan',
  ]),
  name: shortText,
  branchId: maybe(idSchema),
  basis: z.enum(['measured', 'sheet', 'good-guess', 'rough-guess']),
  style: maybe(shortText),
  areaM2: area,
  freeAreaRatio: share,
  pattern: maybe(z.enum(['staggered', 'square', 'mesh', 'slots'])),
  holeM: above(0.5, 'm'),
  pitchM: above(0.5, 'm'),
  edge: maybe(z.enum(['sharp', 'slot', 'crack', 'rounded'])),
  medium: maybe(shortText),
  c1: maybe(within(0, 1e4)),
  c2: maybe(within(0, 1e4)),
  loadFactor: maybe(within(1, 5)),
  diameterM: maybe(within(0.005, 2)),
  diameter2M: maybe(within(0.005, 2)),
  widthM: maybe(within(0.001, 5)),
  heightM: maybe(within(0.001, 5)),
  lengthM: maybe(within(0.001, 100)),
  gapM: maybe(within(0.0002, 0.5)),
  finM: maybe(within(0.00005, 0.05)),
  grainM: maybe(within(0.0002, 0.05)),
  surface: maybe(shortText),
  slack: maybe(within(1, 10)),
  radiusRatio: maybe(within(0.5, 10)),
  angleDeg: maybe(within(0, 180)),
  count: maybe(z.number().int('A whole number is wanted.').min(1, 'At least 1.').max(500, 'Not above 500.')),
  a: maybe(within(0, 1e8)),
  b: maybe(within(0, 1e12)),
  points,
})

export const branchSchema = z.object({ id: idSchema, splitId: idSchema, name: shortText, leak: z.boolean() })
export const calibrationSchema = z.object({
  id: idSchema,
  kind: z.enum(['flow', 'pairs', 'rise']),
  used: z.boolean(),
  fanId: maybe(idSchema),
  count: z.number().int().min(1).max(12),
  volts: maybe(limits.voltage),
  flowM3s: maybe(point.shape.flowM3s),
  heatW: maybe(within(0, 20000)),
  riseK: above(150, 'K'),
  points,
})

export const targetSchema = z.object({
  id: idSchema,
  kind: z.enum(['temperature', 'level', 'flow', 'runtime', 'money', 'thickness']),
  limit: within(-60, 1e8),
  place: shortText,
  setBy: shortText,
  why: longText,
})

export const selectionSchema = z.object({
  id: idSchema,
  fanId: idSchema,
  secondFanId: maybe(idSchema),
  count: z.number().int().min(1).max(12),
  arrangement: z.enum(['single', 'parallel', 'series', 'places']),
  driveV: within(0.5, 60),
  duty: maybe(z.number().gt(0, 'A duty must be above zero.').max(1, 'A duty cannot be above 100 %.')),
})

const gauge = maybe(
  z.number().int().min(10, 'Not thicker than 10 AWG here.').max(30, 'Not thinner than 30 AWG.'),
)
const length = maybe(z.number().gt(0, 'A wire has a length above zero.').max(100, 'Not above 100 m.'))
const ohms = maybe(z.number().gt(0, 'Must be above zero.').max(1e6, 'Not above 1 MΩ.'))
const amps = maybe(within(0.0001, 200))

export const sourceSchema = z.object({
  id: idSchema,
  kind: z.enum([
    'adapter',
    'rail',
    'tap',
    'header',
    'usb',
    'power-bank',
    'pack',
    'house-battery',
    'vehicle',
    'solar',
    'none',
  ]),
  name: shortText,
  nominalV: maybe(limits.voltage),
  lowV: maybe(limits.voltage),
  highV: maybe(limits.voltage),
  openV: maybe(limits.voltage),
  iMaxA: maybe(within(0.001, 200)),
  iPeakA: maybe(within(0.001, 400)),
  regulated: yesNo,
  output: z.enum(['dc', 'ac']),
  wireAwg: gauge,
  wireLengthM: length,
  fuseA: maybe(within(0.01, 100)),
  fuseFitted: yesNo,
  fuseDistanceM: maybe(within(0, 50)),
  polarityChecked: yesNo,
  usbKind: maybe(
    z.enum([
      'usb2-unconfigured',
      'usb2-configured',
      'usb3-unconfigured',
      'usb3-configured',
      'bc12',
      'typec-1A5',
      'typec-3A',
    ]),
  ),
  typeCPullDown: yesNo,
  tap: maybe(z.enum(['12V', '5V', '7V'])),
  fiveLoadA: maybe(limits.current),
  transientProtected: yesNo,
  reversible: yesNo,
})

export const converterSchema = z.object({
  id: idSchema,
  kind: z.enum(['buck', 'boost', 'linear', 'resistor', 'divider', 'diode', 'pwm']),
  outV: within(0.5, 60),
  iMaxA: maybe(within(0.001, 100)),
  efficiency: maybe(within(0.05, 1)),
  dropoutV: maybe(within(0, 20)),
  adjustable: z.boolean(),
  setFirst: z.boolean(),
  measuredV: maybe(limits.voltage),
  ohm: ohms,
  ohm2: ohms,
  ratingW: maybe(within(0.01, 500)),
  diodes: maybe(z.number().int('A whole number is wanted.').min(1).max(20)),
  duty: maybe(within(0.01, 1)),
  pwmHz: maybe(within(0.1, 1e6)),
  switchSide: maybe(z.enum(['high', 'low'])),
  flyback: yesNo,
  junctionToAirKPerW: maybe(within(0.1, 500)),
  capsFitted: yesNo,
  capV: maybe(within(1, 1000)),
})

export const feedPartSchema = z.object({
  id: idSchema,
  parentId: maybe(idSchema),
  kind: z.enum(['converter', 'branch', 'load']),
  name: shortText.min(1, 'Name it.'),
  wireAwg: gauge,
  wireLengthM: length,
  fuseA: maybe(within(0.01, 100)),
  converterKind: maybe(z.enum(['buck', 'boost', 'linear', 'resistor'])),
  outV: maybe(within(0.5, 60)),
  iMaxA: amps,
  efficiency: maybe(within(0.05, 1)),
  ohm: ohms,
  setFirst: yesNo,
  loadKind: maybe(z.enum(['fan', 'led', 'module', 'board', 'pump', 'other'])),
  count: z.number().int('A whole number is wanted.').min(1, 'At least 1.').max(200, 'Not above 200.'),
  currentA: maybe(limits.current),
  startA: maybe(limits.current),
  ratedV: maybe(limits.voltage),
  fanId: maybe(idSchema),
  ledString: maybe(z.number().int('A whole number is wanted.').min(1).max(30)),
  ledV: maybe(within(0.5, 10)),
})

export const wiringSchema = z.object({
  plusColour: shortText,
  minusColour: shortText,
  identifiedBy: maybe(z.enum(['position', 'measurement', 'colour'])),
  connector: maybe(
    z.enum([
      'header',
      'pin-housing',
      'wire-to-board',
      'small-1.25',
      'barrel',
      'peripheral',
      'xt30',
      'spade',
      'screw',
      'usb-a',
      'usb-c',
      'splice',
    ]),
  ),
  join: maybe(z.enum(['adapter', 'cut'])),
  strainRelief: yesNo,
  reverseProtected: yesNo,
  routeM: length,
  bundle: maybe(z.number().int().min(1).max(40)),
  insulationC: maybe(within(40, 260)),
  wireAirC: maybe(within(-40, 150)),
  tachUsed: yesNo,
  tachJoined: maybe(z.number().int().min(0).max(50)),
  hub: maybe(z.enum(['none', 'passive', 'powered'])),
  headerMode: maybe(z.enum(['pwm', 'voltage'])),
  pwmSinkA: maybe(within(0, 1)),
  pwmPinV: maybe(limits.voltage),
  electricalSeries: yesNo,
  barrelPlugM: maybe(within(0.0005, 0.02)),
  barrelJackM: maybe(within(0.0005, 0.02)),
  crimpPullN: maybe(within(0, 5000)),
  shrinkBoreM: maybe(within(0.0005, 0.1)),
  shrinkRatio: maybe(within(1.5, 4)),
  switchDcV: maybe(within(0, 1000)),
  switchDcA: maybe(within(0, 200)),
})

export const batterySchema = z.object({
  id: idSchema,
  chemistry: z.enum(['li-ion', 'lifepo4', 'lead-acid', 'nimh', 'alkaline']),
  cells: maybe(z.number().int().min(1).max(20)),
  chargeCoulomb: maybe(within(36, 4e6)),
  cellV: maybe(within(0.5, 60)),
  depth: share,
  maxA: amps,
  autoOffA: maybe(within(0, 5)),
  idleW: maybe(within(0, 50)),
  protectedPack: yesNo,
  coldC: maybe(within(-60, 60)),
  chargedCold: yesNo,
  airTravel: yesNo,
  energyBasis: z.enum(['cell-voltage', 'output-voltage']),
  wishedS: maybe(within(1, 1e9)),
  dutyShare: maybe(within(0.001, 1)),
})

export const sunSchema = z.object({
  id: idSchema,
  panelW: maybe(within(0.1, 5000)),
  panelVoc: maybe(within(0.5, 100)),
  panelVmp: maybe(within(0.5, 100)),
  controller: z.enum(['tracking', 'series', 'none']),
  sunHours: z.array(within(0, 16)).length(12, 'Twelve months are wanted.'),
  wishedDays: maybe(within(0, 365)),
})

/** What a reading of a kind may be; small pressures may come out below zero by the sensor's noise. */
export const readingLimit = (quantity: (typeof readingQuantities)[number]): z.ZodType<number> =>
  quantity === 'power'
    ? within(0, 20000)
    : quantity === 'duration'
      ? within(0, 1e8)
      : quantity === 'pressure'
        ? within(-5, 5000)
        : limits[quantity]

export const readingSchema = z
  .object({
    id: idSchema,
    quantity: z.enum(readingQuantities),
    place: shortText,
    value: within(-60, 1e8),
    repeats: z.array(within(-60, 1e8)).max(60, 'At most 60 repeats.'),
    stage: shortText,
    source: shortText,
    method: maybe(z.enum(['traverse', 'hood', 'jet', 'vane-centre'])),
    points: maybe(z.number().int('A whole number is wanted.').min(1, 'At least 1.').max(400, 'Not above 400.')),
  })
  .superRefine((r, context) => {
    const check = readingLimit(r.quantity)
    for (const [i, value] of [r.value, ...r.repeats].entries()) {
      const result = check.safeParse(value)
      if (!result.success)
        context.addIssue({
          code: 'custom',
          path: i ? ['repeats', i - 1] : ['value'],
          message: result.error.issues[0]!.message,
        })
    }
  })

export const runSchema = z.object({
  id: idSchema,
  kind: z.enum(['baseline', 'after', 'bench']),
  name: shortText,
  takenAt: z.iso.datetime({ offset: true }),
  changeNo: maybe(
    z.number().int('A whole number is wanted.').min(1, 'Changes are counted from 1.').max(99, 'Not above 99.'),
  ),
  changed: maybe(z.enum(['fan', 'voltage', 'path', 'mount', 'other'])),
  stage: shortText,
  who: shortText,
  stoodAt: shortText,
  fanV: maybe(limits.voltage),
  voltageAt: maybe(z.enum(['fan', 'supply'])),
  ambientC: maybe(within(-40, 80)),
  heatW: maybe(within(0, 20000)),
  distanceM: maybe(within(0.01, 100)),
  soakS: maybe(within(0, 30 * 86400)),
  steady: yesNo,
  lid: maybe(z.enum(['open', 'closed'])),
  otherOpenings: yesNo,
  backgroundDbA: maybe(limits.level),
  instrument: maybe(z.enum(['phone', 'class2', 'class1'])),
  calibrated: yesNo,
  floorDbA: maybe(limits.level),
  changes: maybe(z.number().int().min(0).max(50)),
  notes: longText,
  photoId: maybe(idSchema),
  logId: maybe(idSchema),
  slopeKS: maybe(within(-100, 100)),
  tauS: maybe(within(0, 1e8)),
  readings: z.array(readingSchema).max(400, 'At most 400 readings.'),
})

const unique = (list: { id: string }[]) => new Set(list.map((x) => x.id)).size === list.length

/** What is wrong with splits and ways: a path is a row, and ways hold neither the fan nor further splits, so that no loop can be made. */
function pathProblem({ path, branches }: Pick<PlanDocument, 'path' | 'branches'>): string | null {
  const ways = new Set(branches.map((b) => b.id))
  const splits = new Set(path.filter((e) => e.kind === 'split').map((e) => e.id))
  if (branches.some((b) => !splits.has(b.splitId))) return 'A way belongs to no split.'
  if (path.some((e) => e.branchId !== null && !ways.has(e.branchId)))
    return 'An element stands in a way that is not there.'
  if (path.some((e) => e.branchId !== null && (e.kind === 'split' || e.kind === 'fan')))
    return 'Neither the fan nor a split can stand inside a way: the path would go round in a loop.'
  return null
}

/** What is wrong with a feed: a part that hangs on nothing, on a load, or on itself by a detour. */
export function feedProblem({ feed, converter }: Pick<PlanDocument, 'feed' | 'converter'>): string | null {
  const of = new Map(feed.map((f) => [f.id, f]))
  for (const part of feed) {
    let at = part
    for (let steps = 0; at.parentId !== null && at.parentId !== converter?.id; steps++) {
      const above = of.get(at.parentId)
      if (!above) return `${at.name} hangs on something that is not there.`
      if (above.kind === 'load') return `${at.name} hangs on ${above.name}, which is a load.`
      if (steps > feed.length) return `${part.name} feeds itself: a loop.`
      at = above
    }
  }
  return null
}

export const planSchema = z
  .object({
    job: jobSchema,
    targets: z.array(targetSchema).max(20).refine(unique, 'Two targets share an id.'),
    ports: z.array(portSchema).max(30).refine(unique, 'Two openings share an id.'),
    uncertainties: z.array(uncertaintySchema).max(60).refine(unique, 'An input is doubted twice.'),
    sink: z.array(sinkPointSchema).max(40),
    path: z
      .array(elementSchema)
      .max(80, 'At most 80 elements.')
      .refine(unique, 'Two elements share an id.')
      .refine(
        (path) => path.filter((e) => e.kind === 'fan').length <= 2,
        'Fans have at most two places in the path.',
      ),
    branches: z.array(branchSchema).max(40, 'At most 40 ways.').refine(unique, 'Two ways share an id.'),
    calibration: calibrationSchema.nullable(),
    selection: selectionSchema.nullable(),
    source: sourceSchema.nullable(),
    converter: converterSchema.nullable(),
    feed: z.array(feedPartSchema).max(120, 'At most 120 parts.').refine(unique, 'Two parts share an id.'),
    wiring: wiringSchema,
    battery: batterySchema.nullable(),
    sun: sunSchema.nullable(),
    runs: z.array(runSchema).max(200).refine(unique, 'Two runs share an id.'),
  })
  .superRefine((plan, context) => {
    const problem = pathProblem(plan)
    if (problem) context.addIssue({ code: 'custom', path: ['path'], message: problem })
    const fed = feedProblem(plan)
    if (fed) context.addIssue({ code: 'custom', path: ['feed'], message: fed })
  }) satisfies z.ZodType<PlanDocument>

/** What a save sends: the document and the revision it was read at. */
export const savePlanSchema = z.object({ plan: planSchema, revision: z.number().int().min(1) })
/** A variant: its name and the plan it begins with. */
export const newVariantSchema = z.object({
  name: shortText.min(1, 'A variant needs a name.'),
  plan: planSchema,
})
export const newJobSchema = z.object({ name: shortText.min(1, 'A job needs a name.') })
