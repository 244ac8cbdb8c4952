import type { AirState } from '#core/air'
import {
  deliveredClass,
  sharesAt,
  sharesUnstably,
  stallLimit,
  type Crossing,
  type OperatingPoint,
  type OperatingStatus,
} from '#core/fan'
import type { Quantity, Sentence } from '#core/units'
import type { Arrangement, Place } from '#core/document'
import { rangeBySquares } from '#core/numeric'
import type { SelectionContext } from './context'
import {
  addsPressure,
  arrayName,
  type CurveEnd,
  drivenSpeed,
  type FanGroup,
  type FanPlace,
  groupCurve,
  isOfOneKind,
  groupThickness,
  type Installation,
  installationOf,
  freeDelivery,
  lowestDuty,
  pathUncertainty,
  pathDrop,
  drivenArray,
  endsOf,
  arrayCost,
  arrayCurrent,
  arrayLimits,
  arrayThickness,
  membersOf,
  type DrivenArray,
  type FanArray,
  type ArrayDrive,
  arrayLevel,
  type LevelEstimate,
  operateOnPath,
  operatingFlow,
  quickFlow,
  type QuickPath,
} from '#core/system'

/** Voltage over start voltage that a plan should keep for cold, dust and age. Common practice, no source. */
export const START_MARGIN = 1.2

/**
 * What two stages in series may lose without a straightener between them, share of their pressure. Common practice, no
 * source (10 to 20 %).
 */
const SERIES_LOSS = 0.15

/**
 * Left of this share of free delivery an axial fan known by two numbers only is "possibly in stall". Handbook,
 * estimated curves (common practice).
 */
const ESTIMATED_STALL = 0.5
/** A fan on this share of its rated voltage or less is told as under-run. */
const UNDER_RUN = 0.6

export type Verdict = 'good' | 'warn' | 'fail'
export interface Reason {
  verdict: Verdict
  text: Sentence
}

/** So many fans of one kind, at a place. */
export interface CandidateFans {
  fanId: string
  count: number
  placeId: string | null
}
export interface Candidate {
  /** its fans, by kind and place; a place that is not named is the one that there is */
  fans: CandidateFans[]
  maker: string
  /** its model, or both of a pair */
  model: string
  count: number
  /** whether all of them are of one kind */
  ofOneKind: boolean
  arrangement: Arrangement
  driveV: number
  /** on the PWM wire; null where the voltage alone drives it */
  duty: number | null
  speed: number
  flow: number | null
  flowLow: number | null
  flowHigh: number | null
  pressure: number | null
  level: LevelEstimate | null
  powerW: number | null
  currentA: number | null
  cost: number | null
  /** depth of the group at one place, stages behind each other added, m */
  thicknessM: number
  /** flow over the airflow needed, minus 1 */
  margin: number | null
  verdict: Verdict
  reasons: Reason[]
  /** flow below which the curve dips, as driven, m3/s; null where no dip is visible (which is not "no stall") */
  stallFlow: number | null
  stalled: boolean
  /** left of where estimated curves are believed: nobody knows its dip */
  possiblyStalled: boolean
  /** where curve and path meet, rising; at each that is stable it may settle */
  crossings: Crossing[]
  /** flow that goes back through the weaker one of an unlike pair, m3/s, negative; null where none does */
  backFlow: number | null
  /** fans side by side between dip and peak of their curve */
  unsteady: boolean
  /** why there is no flow; null where there is one */
  none: Exclude<OperatingStatus, 'one' | 'several'> | null
  estimated: boolean
  owned: boolean
}

/** A group where it stands: what is told of its place, and where in the path that is. */
interface Standing {
  group: FanGroup
  place: Place
  at: FanPlace | undefined
}
/** The groups where they stand: one that names no place stands where fans are chosen for. */
const standingOf = ({ home, places }: SelectionContext, { groups }: FanArray): Standing[] =>
  groups.map((group) => {
    const at = places.find((p) => p.place?.id === (group.placeId ?? home.id))
    return { group, place: at?.place ?? home, at }
  })
/** Whether the groups of an array stand at places of their own that the path shows. */
const isApart = (fanArray: FanArray, standing: readonly Standing[]) =>
  fanArray.arrangement === 'places' && standing.every((s) => s.at)

/** What surrounds the fans: where they stand at two places, what surrounds each group. */
export function installationsOf(
  context: SelectionContext,
  fanArray: FanArray,
  pressurePa: number,
  stalled: boolean,
): Installation[] {
  const standing = standingOf(context, fanArray)
  const nowhere = { row: context.row, index: -1 }
  return (isApart(fanArray, standing) ? standing : standing.slice(0, 1)).map(({ group, place, at }) =>
    installationOf(place, at ?? nowhere, group.model, pressurePa, stalled),
  )
}

/** A place that the fans do not fit: how much they need there, and what there is. */
interface TooLarge {
  way: 'depth' | 'frame'
  /** name of the place where there are two; else empty */
  place: string
  /** what is needed has guards, gasket and filter in it */
  withParts: boolean
  needs: number
  has: number
}
/** Where the fans do not fit: each group held against the place where it stands. */
export function tooLargeFor(context: SelectionContext, fanArray: FanArray): TooLarge[] {
  const standing = standingOf(context, fanArray)
  const held = isApart(fanArray, standing)
    ? standing.map(({ group, place, at }) => ({
        place,
        at,
        depth: groupThickness(group, 'places'),
        frame: group.model.fan.frameM,
        name: at!.element.name,
      }))
    : standing.slice(0, 1).map(({ place, at }) => ({
        place,
        at,
        depth: arrayThickness(fanArray),
        frame: Math.max(...fanArray.groups.map((g) => g.model.fan.frameM)),
        name: '',
      }))
  return held.flatMap(({ place, at, depth, frame, name }): TooLarge[] => {
    // what the path says of it goes before what is told of the place
    const depthM = at?.element.lengthM ?? place.fitDepthM
    const widthM = at?.element.widthM ?? place.fitWidthM
    const needs = depth + (place.stackExtraM ?? 0)
    const withParts = !!place.stackExtraM
    return [
      ...(depthM !== null && needs > depthM
        ? [{ way: 'depth' as const, place: name, withParts, needs, has: depthM }]
        : []),
      ...(widthM !== null && frame > widthM
        ? [{ way: 'frame' as const, place: name, withParts, needs: frame, has: widthM }]
        : []),
    ]
  })
}

/** The quick part of a candidate, enough to rank drive levels: the flow at one drive, m3/s; 0 where nothing turns. */
export function quickArrayFlow(path: QuickPath, air: AirState, fanArray: FanArray, drive: ArrayDrive): number {
  const driven = drivenArray(fanArray, drive, air)
  return driven ? Math.max(0, quickFlow(path, driven.curve, driven.drive)) : 0
}
/** Its level, as if it stood at the planned pressure and no fan stalled, dB(A). */
export const quickArrayLevel = (
  context: SelectionContext,
  fanArray: FanArray,
  drive: ArrayDrive,
): number | null =>
  arrayLevel(
    fanArray,
    drive,
    context.job.listenerM,
    installationsOf(context, fanArray, context.designPressure, false),
  )?.exact ?? null

/** Why there is no flow, as a person is told. */
const noneWords = {
  'not-turning': 'does not turn at this voltage',
  'none-opposed': 'cannot overcome the path: what opposes it is stronger than its shut-off pressure',
  'left-of-data': 'its curve begins at more air than this path lets through',
  'right-of-data': 'its curve ends before this path is met: it would move more air than the sheet tells',
} as const

function judge(
  context: SelectionContext,
  fanArray: FanArray,
  driven: DrivenArray | null,
  c: Omit<Candidate, 'reasons' | 'verdict'>,
): Reason[] {
  const { startV, startKnown, maxV, maxKnown } = arrayLimits(fanArray)
  const members = membersOf(fanArray)
  const reasons: Reason[] = []
  const fail = (...text: Sentence) => reasons.push({ verdict: 'fail', text })
  const warn = (...text: Sentence) => reasons.push({ verdict: 'warn', text })
  const of = (value: number, quantity: Quantity) => ({ value, quantity })
  if (c.driveV < startV && startKnown)
    fail('starts at ', of(startV, 'voltage'), ', driven at ', of(c.driveV, 'voltage'))
  else if (c.driveV < startV) warn('its start voltage is assumed to be ', of(startV, 'voltage'), ': measure it')
  else if (c.driveV < START_MARGIN * startV && startKnown)
    warn('hardly above its start voltage of ', of(startV, 'voltage'))
  if (c.driveV > maxV && maxKnown) fail('allows only ', of(maxV, 'voltage'))
  else if (c.driveV > maxV)
    warn('over the ', of(maxV, 'voltage'), ' that are assumed to be its highest: find it on its sheet')
  if (c.duty !== null && members.some((m) => c.duty! < lowestDuty(m).duty))
    fail(
      'duty of ',
      of(c.duty, 'ratio'),
      ', keeps turning from ',
      of(Math.max(...members.map((m) => lowestDuty(m).duty)), 'ratio'),
    )
  for (const { way, place, withParts, needs, has } of tooLargeFor(context, fanArray)) {
    const where = place ? `${place}: ` : ''
    if (way === 'frame') fail(`${where}frame of `, of(needs, 'length'), ', the space has ', of(has, 'length'))
    else
      fail(
        `${where}needs `,
        of(needs, 'length'),
        ' of depth',
        ...(withParts ? [' with its parts'] : []),
        ', the space has ',
        of(has, 'length'),
      )
  }
  const { places } = context
  const openings = places[0]?.times ?? 1
  if (c.count % openings > 0) fail(`${c.count} fans cannot be shared out evenly to ${openings} openings`)
  if (openings > 1 && c.arrangement === 'series')
    fail(`fans behind one another in ${openings} openings alike cannot be computed: put them side by side`)
  if (c.arrangement === 'places' && places.length < 2) warn('its second place is not in the air path yet')
  if (c.arrangement !== 'places' && places.length > 1)
    warn('the air path has two places for fans: one stays empty')
  if (context.thicknessLimit !== null && c.thicknessM > context.thicknessLimit)
    fail('is ', of(c.thicknessM, 'length'), ' thick, ', of(context.thicknessLimit, 'length'), ' wanted')
  if (c.flow === null) fail(noneWords[c.none ?? 'none-opposed'])
  else if (context.needFlow !== null && c.flow < context.needFlow) {
    const short = driven ? pathDrop(context.solver.path, context.needFlow) - endsOf(driven).highest : 0
    if (short > 0) fail('needs ', of(short, 'pressure'), ' more than this fan can push')
    else fail('lacks ', of(context.needFlow - c.flow, 'flow'))
  } else if (context.designFlow !== null && c.flow < context.designFlow)
    warn('meets the need, but ', of(context.designFlow - c.flow, 'flow'), ' short of the margin')
  if (c.stalled) warn('too much resistance, it may rumble (stall region)')
  else if (c.possiblyStalled) warn('possibly in stall: its curve is estimated')
  if (c.backFlow !== null)
    warn('the weaker fan is overpowered: ', of(-c.backFlow, 'flow'), ' go back through it')
  if (c.unsteady) warn('the fans may share the air unevenly and change over')
  const settles = c.crossings.filter((x) => x.stable)
  if (settles.length > 1) warn('may settle at either of several flows: ', ...eitherOf(settles))
  if (c.level && context.levelLimit !== null && c.level.exact > context.levelLimit)
    fail(...tooLoud(c.level.exact - context.levelLimit))
  if (c.cost !== null && context.costLimit !== null && c.cost > context.costLimit)
    fail(of(c.cost - context.costLimit, 'money'), ' over the money limit')
  if (c.flow !== null && driven && !c.estimated && deliveredClass(c.flow, endsOf(driven).free) === 'check')
    warn('delivers under 15 % of its free air')
  const lies = standingOf(context, fanArray).find(({ group: { model }, place: { shaft } }) => {
    const allowed = model.fan.shaftAllowed
    return shaft !== null && allowed !== null && allowed !== 'any' && allowed !== shaft
  })
  if (lies) fail(`its sheet wants the shaft ${lies.group.model.fan.shaftAllowed}`)
  if (c.level === null && context.levelLimit !== null) warn('no noise figure')
  return reasons
}

/** What speaks for a row, where something does: told when nothing speaks against it. */
export function meritOf(context: SelectionContext, fanArray: FanArray, c: Candidate): Sentence | null {
  if (c.verdict === 'fail' || c.margin === null || context.needFlow === null) return null
  const low = c.driveV <= UNDER_RUN * fanArray.model.fan.ratedV
  return [
    context.designFlow !== null && c.flow !== null && c.flow >= context.designFlow
      ? 'meets need and margin'
      : 'meets the need',
    ...(low
      ? ['; a ', { value: fanArray.model.fan.ratedV, quantity: 'voltage' as const }, ' fan under-run']
      : []),
  ]
}

/** Lowest and highest voltage at the fans, V. */
export interface SupplyWindow {
  low: number
  high: number
}

/**
 * Range of the flow, 95 times in 100: what the fans deliver of their curves, the shape of an estimated one, the path,
 * stages that disturb each other, and the supply, each at its ends; the deviations added as squares.
 * Reference: law of propagation of uncertainty, JCGM 100
 */
function flowRange(
  { solver, air }: SelectionContext,
  fanArray: FanArray,
  drive: ArrayDrive,
  flow: number,
  supply: SupplyWindow | null,
): { low: number; high: number } {
  const { model, arrangement } = fanArray
  const alone = isOfOneKind(fanArray) ? model.fan.id : null
  const at = (end: CurveEnd, change: Partial<ArrayDrive> = {}, factor = 1, stages = 1, faster = 1) => {
    const driven = drivenArray(fanArray, { ...drive, ...change }, air, end)
    if (!driven) return 0
    const { speed, series } = driven.drive
    const scaled = { ...driven.drive, speed: speed * faster, series: series * stages }
    return Math.max(0, operatingFlow(solver, driven.curve, scaled, factor))
  }
  const calibrating = alone !== null && solver.path.calibrated?.fanId === alone
  const uncertainty = pathUncertainty(solver.path, flow, alone)
  const ends = [[at('middle', {}, 1 + uncertainty), at('middle', {}, 1 / (1 + uncertainty))]]
  if (!calibrating) {
    const guessed = membersOf(fanArray).some((m) => m.curves.basis === 'estimated')
    if (!guessed) ends.push([at('low'), at('high')])
    else
      ends.push(
        [at('shapeLow'), at('shapeHigh')],
        deliveredShares(fanArray).map((share) => at('middle', {}, 1, 1, share)),
      )
  }
  if (arrangement === 'series') ends.push([at('middle', {}, 1, 1 - SERIES_LOSS)])
  if (supply) ends.push([at('middle', { volts: supply.low }), at('middle', { volts: supply.high })])
  const range = rangeBySquares(flow, ends)
  return { low: Math.max(0, range.low), high: range.high ?? flow }
}

const noneOf = (op: OperatingPoint | null): Candidate['none'] =>
  op === null || op.status === 'one' || op.status === 'several' ? 'none-opposed' : op.status

/** How fans side by side share their common pressure. */
function sharing(
  { air }: SelectionContext,
  fanArray: FanArray,
  drive: ArrayDrive,
  pressure: number | null,
): Pick<Candidate, 'backFlow' | 'unsteady'> {
  const { groups, count, arrangement } = fanArray
  if (pressure === null || count < 2 || addsPressure(arrangement)) return { backFlow: null, unsteady: false }
  const curves = groups.map((g) => groupCurve(g, arrangement, drive, air))
  if (curves.some((c) => c === null)) return { backFlow: null, unsteady: false }
  const shares = curves.length > 1 ? sharesAt(curves[0]!, curves[1]!, pressure) : null
  const least = shares ? Math.min(...shares) : 0
  return { backFlow: least < 0 ? least : null, unsteady: curves.some((c) => sharesUnstably(c!, pressure)) }
}

/** Less than this over a limit is told without its number: it would round to nothing, dB. */
const JUST_DB = 0.5
const tooLoud = (over: number): Sentence =>
  over < JUST_DB ? ['just too loud'] : [{ value: over, quantity: 'levelDifference' }, ' too loud']

/** "12 or 18 m³/h". */
const eitherOf = (settles: readonly Crossing[]): Sentence =>
  settles.flatMap(({ flow }, i): Sentence => [...(i > 0 ? [' or '] : []), { value: flow, quantity: 'flow' }])

/** How much faster or slower the fans may turn than what their estimated curve says, at both ends. */
const deliveredShares = (fanArray: FanArray): number[] =>
  (['low', 'high'] as const).map((end) => {
    const shares = membersOf(fanArray).map((m) => m.curves.delivered[end])
    return end === 'low' ? Math.min(...shares) : Math.max(...shares)
  })

/** One group and drive on this job's path, with the reasons for or against it. */
export function evaluateCandidate(
  context: SelectionContext,
  fanArray: FanArray,
  drive: ArrayDrive,
  supply: SupplyWindow | null = null,
): Candidate {
  const { model, count, arrangement, groups } = fanArray
  const { fan } = model
  const ofOneKind = isOfOneKind(fanArray)
  const makers = [...new Set(groups.map((g) => g.model.fan.maker))]
  const driven = drivenArray(fanArray, drive, context.air)
  const op = driven ? operateOnPath(context.solver, driven.curve, driven.drive) : null
  const flow = op?.flow ?? null
  const range = flow === null ? null : flowRange(context, fanArray, drive, flow, supply)
  const estimated = membersOf(fanArray).some((m) => m.curves.basis === 'estimated')
  const wide = driven ? driven.drive.speed * driven.drive.parallel : 0
  const dip = driven ? stallLimit(driven.curve) : null
  const stallFlow = dip === null ? null : dip * wide
  const stalled = flow !== null && stallFlow !== null && flow < stallFlow
  const possiblyStalled =
    flow !== null &&
    estimated &&
    fan.kind === 'axial' &&
    ofOneKind &&
    flow < ESTIMATED_STALL * freeDelivery(model) * wide
  const pressure = op?.pressure ?? null
  const current = driven ? arrayCurrent(fanArray, drive) : null
  const partial = {
    fans: groups.map((g) => ({ fanId: g.model.fan.id, count: g.count, placeId: g.placeId })),
    maker: makers.join(', '),
    model: ofOneKind ? fan.model : arrayName(fanArray),
    count,
    ofOneKind,
    arrangement,
    driveV: drive.volts,
    duty: drive.duty,
    speed: driven ? drivenSpeed(model, drive.volts, drive.duty) : 0,
    flow,
    flowLow: range?.low ?? null,
    flowHigh: range?.high ?? null,
    pressure,
    level: driven
      ? arrayLevel(
          fanArray,
          drive,
          context.job.listenerM,
          installationsOf(context, fanArray, pressure ?? 0, stalled),
        )
      : null,
    powerW: current === null ? null : current * drive.volts,
    currentA: current,
    thicknessM: arrayThickness(fanArray),
    cost: arrayCost(fanArray),
    margin: flow !== null && context.needFlow ? flow / context.needFlow - 1 : null,
    stallFlow,
    stalled,
    possiblyStalled,
    crossings: op?.crossings ?? [],
    ...sharing(context, fanArray, drive, pressure),
    none: flow !== null ? null : driven ? noneOf(op) : ('not-turning' as const),
    estimated,
    owned: membersOf(fanArray).every((m) => m.fan.owned),
  }
  const reasons = judge(context, fanArray, driven, partial)
  const verdict: Verdict = reasons.some((r) => r.verdict === 'fail') ? 'fail' : reasons.length ? 'warn' : 'good'
  return { ...partial, reasons, verdict }
}

/** Where a group runs at one drive: flow, level at the listener, power at the fans. */
export interface Running {
  /** m3/s; 0 where nothing comes through */
  flow: number
  /** dB(A); −Infinity: it stands */
  levelDbA: number
  /** W; 0 where it stands, or no sheet tells */
  powerW: number
}
/** The same as a candidate without its reasons and ranges: enough for a table over the duty. */
export function runningAt(context: SelectionContext, fanArray: FanArray, drive: ArrayDrive): Running {
  const driven = drivenArray(fanArray, drive, context.air)
  if (!driven) return { flow: 0, levelDbA: -Infinity, powerW: 0 }
  const flow = Math.max(0, operatingFlow(context.solver, driven.curve, driven.drive))
  const pressure = flow > 0 ? pathDrop(context.solver.path, flow) : 0
  const level = arrayLevel(
    fanArray,
    drive,
    context.job.listenerM,
    installationsOf(context, fanArray, pressure, false),
  )
  return {
    flow,
    levelDbA: level?.exact ?? -Infinity,
    powerW: (arrayCurrent(fanArray, drive) ?? 0) * drive.volts,
  }
}
