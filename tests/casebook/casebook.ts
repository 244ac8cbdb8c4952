import {
  converterOf,
  leadOfFans,
  newBattery,
  newControlOf,
  newConverter,
  newDay,
  newElement,
  newFan,
  newFeedPart,
  newFit,
  newPort,
  newReading,
  newRun,
  newSource,
  newSplit,
  newStreamPlan,
  newSun,
  newTarget,
  planSchema,
  sourceOf,
  wholePlan,
  type ElementKind,
  type Fan,
  type FeedPart,
  type StreamPlan,
  type PlanInput,
  type ReadingQuantity,
  type RunKind,
  type Source,
  type ConverterKind,
  seenAt,
  plannedFans,
  settlePlaces,
} from '#core/document'
import { computeReport, type Report } from '#core/plan'
import { withAlso } from '#core/rules'
import {
  convertBy,
  driveAt,
  feedFrom,
  hang,
  pick,
  putBefore,
  selectionOf,
  tell,
  stand,
  type Picked,
} from '../plans'

/**
 * How the entries of the casebook are read: an ordinary plan that raises nothing but notes, and changes of it, each
 * written as where and what. "job.heatW": 245 sets a field; "path.out.areaM2" one of an element, "target.limit" one of the
 * first target; "source", "converter", "battery", "sun", "before", "after", "bench" "control", "day" put a new one in with what is usual;
 * "path", "path+", "feed", "ports", "targets" are lists.
 */

export type Changes = Record<string, unknown>
type Rec = Record<string, unknown>

// invented: an ordinary 12 V fan on an ordinary path
const ordinaryFan: Fan = {
  ...newFan('f'),
  model: 'Whin 80',
  ratedA: 0.15,
  ratedRpm: 2400,
  startV: 5,
  minV: 4,
  maxV: 13.2,
  noiseDbA: 26,
  noiseDistanceM: 1,
  wires: 3,
  bearing: 'ball',
  ipWater: 4,
  maxAirC: 70,
  massKg: 0.09,
  points: [
    [0, 40],
    [0.004, 34],
    [0.008, 26],
    [0.012, 14],
    [0.016, 0],
  ].map(([q, p]) => ({ flowM3s: q!, pressurePa: p! })),
}

function ordinaryPlan(): StreamPlan {
  const plan = newStreamPlan('j', 'Box')
  tell(plan, {
    goal: 'cool',
    equipment: 'Box',
    heatW: 100,
    heatBasis: 'measured',
    insideMaxC: 40,
    ambientC: 25,
    ambientMaxC: 28,
    direction: 'in',
    fitDepthM: 0.05,
    fitWidthM: 0.1,
    inletClearM: 0.2,
    outletClearM: 0.2,
    openingGapM: 0.5,
    baffled: true,
    hotPartInPath: true,
    mustNotFail: false,
    mains: false,
    flammable: false,
    openFlue: false,
    wet: false,
    roomDbA: 25,
  })
  plan.targets = [newTarget({ id: 't', kind: 'level', limit: 40 }, 'main')]
  plan.path = [
    { ...newElement('in', 'grille'), areaM2: 0.012, freeAreaRatio: 0.6 },
    { ...newElement('filter', 'filter'), areaM2: 0.03, medium: 'foam20' },
    { ...newElement('fan', 'fan') },
    { ...newElement('box', 'chamber'), areaM2: 0.1 },
    { ...newElement('out', 'opening'), areaM2: 0.006 },
  ]
  pick(plan, selectionOf('f'), 12)
  feedFrom(plan, { ...newSource('s', 'adapter'), ...wired, iMaxA: 1 }, lead)
  return plan
}
const wired = { fuseFitted: true, fuseA: 0.5, polarityChecked: true }
const lead = { wireAwg: 20, wireLengthM: 1 }

/** Ten minutes apart, alike in everything. */
const alike = {
  fanV: 12,
  voltageAt: 'fan' as const,
  ambientC: 22,
  heatW: 100,
  distanceM: 1,
  soakS: 1800,
  lid: 'closed' as const,
  steady: false,
}
const takenAt: Record<RunKind, string> = {
  baseline: '2026-01-01T10:00:00Z',
  after: '2026-01-02T10:00:00Z',
  bench: '2026-01-03T10:00:00Z',
}
const runKinds: Record<string, RunKind> = { before: 'baseline', after: 'after', bench: 'bench' }

/** What gets warm. */
const core = {
  id: 'core',
  name: 'Core',
  streamId: 'main',
  limitC: 70,
  massKg: null,
  material: null,
  capacityJK: 3000,
  stillWK: 1.5,
  movedWK: 8,
  atM3s: null,
  loadShare: 1,
  basis: 'measured' as const,
}

/** A run: its readings as { quantity: value } or lists of them, everything else as its fields. */
function runOf(kind: RunKind, id: string, { readings = {}, ...rest }: Rec) {
  const list = Array.isArray(readings) ? (readings as Rec[]) : [readings as Rec]
  return {
    ...newRun(id, kind, takenAt[kind]),
    ...alike,
    ...rest,
    readings: list.flatMap((group, g) => {
      const { place = 'x', method = null, points = null, source = '', stage = '', ...values } = group
      return Object.entries(values).map(([quantity, value], i) => ({
        ...newReading(`${id}-${g}-${i}`, quantity as ReadingQuantity, place as string, value as number),
        method: method as null,
        points: points as null,
        source: source as string,
        stage: stage as string,
      }))
    }),
  }
}

const element = ({ kind, id, ...rest }: Rec) => ({
  ...newElement((id ?? kind) as string, kind as ElementKind),
  ...rest,
})

/** What is put in whole. */
const whole: Record<string, (input: { plan: StreamPlan; fans: Fan[] }, value: unknown) => void> = {
  source: ({ plan }, value) => {
    const { kind, ...rest } = (value ?? {}) as Rec
    feedFrom(
      plan,
      value ? { ...newSource('s', kind as Source['kind'], 12), iMaxA: 1, ...wired, ...rest } : null,
    )
  },
  converter: ({ plan }, value) => {
    const { kind, ...rest } = value as Rec
    const made = newConverter('c', 12, kind as ConverterKind | undefined)
    convertBy(plan, { ...made, iMaxA: 1, setFirst: true, ...rest })
  },
  /** what the fans are driven at, by what makes it */
  drive: ({ plan }, value) => driveAt(plan, value as number),
  /** the place of the fans: a panel and a guard that are in order */
  fit: ({ plan }, value) => {
    seenAt(plan).place.fit = {
      ...newFit('fit'),
      material: 'metal',
      panelM: 0.002,
      guard: 'wire',
      guardM: 0.0015,
      guardOpeningM: 0.004,
      guardGapM: 0.01,
      reach: true,
      cableGapM: 0.03,
      ...(value as Rec),
    }
  },
  /** other fans than the one, or more */
  picked: ({ plan }, value) => {
    const now = plannedFans(plan)!
    const before = { count: now.count, arrangement: now.arrangement }
    stand(plan, selectionOf('f', { ...before, ...(value as Partial<Picked>) }))
  },
  /** a header beside the source that feeds */
  header: ({ plan }) => {
    plan.sources.push({ ...newSource('h', 'header', 12), name: 'Header', iMaxA: 1 })
  },
  battery: ({ plan }, value) => {
    plan.battery = { ...newBattery('b', plan.sources[0]?.kind ?? 'pack'), ...(value as Rec) }
  },
  sun: ({ plan }, value) => {
    plan.sun = { ...newSun('sun'), ...(value as Rec) }
  },
  path: ({ plan }, value) => {
    plan.path = (value as Rec[]).map(element)
  },
  'path+': ({ plan }, value) => {
    plan.path.push(...(value as Rec[]).map(element))
  },
  feed: ({ plan }, value) => {
    const parts = (inLead: boolean) =>
      (value as Rec[])
        .filter((p) => Boolean(p.inLead) === inLead)
        .map(({ id, kind, parentId = null, inLead: _, ...rest }) => ({
          ...newFeedPart(id as string, kind as FeedPart['kind'], parentId as string | null),
          ...rest,
        }))
    hang(plan, ...parts(false))
    putBefore(plan, ...parts(true))
  },
  ports: ({ plan }, value) => {
    plan.ports = (value as Rec[]).map(({ role, ...rest }, i) => ({
      ...newPort(`port-${i}`, role as 'in'),
      ...rest,
    }))
  },
  targets: ({ plan }, value) => {
    plan.targets = (value as Rec[]).map((t, i) =>
      newTarget({ id: `t${i}`, kind: 'level', limit: 40, ...t }, 'main'),
    )
  },
  /** a thermostat by a contact on a core that stays well below its limit; its day */
  control: ({ plan }, value) => {
    plan.controls = [
      {
        ...newControlOf('ctl', 'thermostat', [plan.stream]),
        actuator: 'contact',
        onC: 50,
        offC: 42,
        sensorLagS: 20,
        operations: 1e6,
        ...(value as Rec),
      },
    ]
    plan.day ??= newDay('day')
    if (!plan.day.parts.length) plan.day.parts = [{ ...core }]
  },
  day: ({ plan }, value) => {
    const { parts = [{}], ...rest } = value as Rec
    plan.day = {
      ...newDay('day'),
      ...rest,
      parts: (parts as Rec[]).map((part) => ({ ...core, ...part })),
    }
  },
  sink: ({ plan }, value) => {
    plan.sink = value as StreamPlan['sink']
  },
  calibration: ({ plan }, value) => {
    plan.calibration = value as StreamPlan['calibration']
  },
  /** a crack beside the outlet, m2 */
  leak: ({ plan }, value) => {
    const ways = [
      { id: 'through', name: 'Through', leak: false },
      { id: 'past', name: 'Past it', leak: true },
    ]
    const { element: split, branches } = newSplit('split', ways)
    plan.branches = branches
    plan.path = [
      ...plan.path.filter((e) => e.id !== 'out'),
      split,
      { ...plan.path.find((e) => e.id === 'out')!, branchId: 'through' },
      { ...newElement('crack', 'opening', 'past'), areaM2: value as number },
    ]
  },
  /** the fans and the outlet stand in so many openings alike */
  fansInOpenings: ({ plan }, value) => {
    const { element: split, branches } = newSplit('split', [
      { id: 'one', name: 'One of them', leak: false, times: value as number },
    ])
    plan.branches = branches
    plan.path = [
      ...plan.path.filter((e) => e.id !== 'out' && e.kind !== 'fan'),
      split,
      ...plan.path.filter((e) => e.id === 'out' || e.kind === 'fan').map((e) => ({ ...e, branchId: 'one' })),
    ]
  },
  other: ({ fans }, value) => {
    fans.push({ ...structuredClone(ordinaryFan), id: 'g', model: 'Whin 60', ...(value as Rec) })
  },
}
for (const [key, kind] of Object.entries(runKinds))
  whole[key] = ({ plan }, value) => {
    for (const [i, run] of [value].flat().entries())
      plan.runs.push(runOf(kind, `${key}${i}`, run as Rec) as StreamPlan['runs'][number])
  }

/** The record that a dotted key speaks of, and its field. */
function target({ plan, fans }: { plan: StreamPlan; fans: Fan[] }, key: string): [Rec, string] {
  const [head, ...rest] = key.split('.')
  const field = rest.at(-1)!
  if (head === 'fan') return [fans[0] as unknown as Rec, field]
  if (head === 'path') return [plan.path.find((e) => e.id === rest[0]) as unknown as Rec, field]
  if (head === 'place') return [seenAt(plan).place as unknown as Rec, field]
  if (head === 'lead') return [leadOfFans(plan) as unknown as Rec, field]
  if (head === 'source') return [sourceOf(plan) as unknown as Rec, field]
  if (head === 'converter') return [converterOf(plan) as unknown as Rec, field]
  if (head === 'target') return [plan.targets[0] as unknown as Rec, field]
  return [plan[head as keyof StreamPlan] as unknown as Rec, field]
}

/** The ordinary plan with changes. */
export function casePlan(...changes: (Changes | undefined)[]): PlanInput {
  const input = { plan: ordinaryPlan(), fans: [structuredClone(ordinaryFan)], shown: null }
  for (const [key, value] of changes.flatMap((c) => Object.entries(c ?? {}))) {
    const put = whole[key]
    if (put) put(input, value)
    else {
      const [record, field] = target(input, key)
      if (!record || !(field in record)) throw new Error(`${key} is nothing that a plan has`)
      record[field] = value
    }
  }
  // as the app does with every change
  settlePlaces(input.plan)
  // a case that no person could enter would prove nothing
  const checked = planSchema.safeParse(wholePlan(input.plan))
  if (!checked.success) throw new Error(JSON.stringify(checked.error.issues))
  return input
}

/** The report of the ordinary plan with changes. */
export function caseReport(...changes: (Changes | undefined)[]): Report {
  const result = computeReport(casePlan(...changes))
  if (!result.ok) throw new Error(result.reason)
  return result.report
}

/** Every rule that a plan raises, told by itself or below another. */
export const raised = ({ findings }: Report): string[] => withAlso(findings.findings).map((f) => f.id)
