import { bladePass } from '#core/noise'
import {
  arrayLimits,
  drivenArray,
  drivenSpeed,
  endsOf,
  fanAirC,
  fanFlowFor,
  holeSpacing,
  impellerDiameter,
  membersOf,
  pathDrop,
  sweptArea,
  weakestPressure,
  type FanArray,
} from '#core/system'
import type { Candidate } from '#core/selection'
import type { FactSources, SiFacts } from './sources'

/** The selected fans as they run; facts of fans need one. */
interface Running extends FactSources {
  fanArray: FanArray
  candidate: Candidate
}

const driveOf = ({ driveV, duty }: Candidate) => ({ volts: driveV, duty })

function operatingFacts({ system, requirement, operation, candidate, fanArray }: Running): SiFacts {
  const { path } = system
  const { wanted: needFlow } = requirement
  return {
    'op.exists': path.complete && candidate.none !== 'not-turning' ? candidate.flow !== null : null,
    // a stated lowest voltage has its own rule; an assumed one only asks
    'op.turns': candidate.none === 'not-turning' && fanArray.model.fan.minV === null ? false : null,
    'op.flow': operation.delivered.flow,
    'op.flowDirty': operation.deliveredDirty,
    'op.dp': candidate.pressure,
    'op.dpAtNeed': path.complete && needFlow !== null ? pathDrop(path, fanFlowFor(path, needFlow)) : null,
  }
}

/** What the sheet says of one of the fans, and how the whole array is driven. */
function electricFacts({ fanArray, candidate, power }: Running): SiFacts {
  const { fan } = fanArray.model
  const limits = arrayLimits(fanArray)
  return {
    'fan.ratedV': fan.ratedV,
    'fan.vMin': fan.minV,
    // a stop rests on what a sheet or a meter says: assumed limits have rules of their own
    'fan.vMax': limits.maxKnown ? limits.maxV : null,
    'fan.vMaxAssumed': limits.maxKnown ? null : limits.maxV,
    'fan.startV': limits.startKnown ? limits.startV : null,
    'fan.startVAssumed': limits.startKnown ? null : limits.startV,
    'fan.drivenV': power.fanLowV ?? power.fanV,
    'fan.highV': power.fanHighV,
    'fan.ratedA': fan.ratedA,
    'fan.currentKnown': fan.ratedA !== null,
    'fan.startA': power.fanStartA,
    // the label's power speaks of rated voltage: over-driven curves are not held against it
    'fan.ratedW': fan.ratedW ?? (fan.ratedA === null || candidate.speed > 1 ? null : fan.ratedA * fan.ratedV),
    'fan.wires': fan.wires,
    'fan.minDuty': fan.pwmMinDuty,
    'fan.startDuty': fan.pwmStartDuty,
  }
}

function bodyFacts({ plan: { job }, system, requirement, fanArray, candidate }: Running): SiFacts {
  const { fan } = fanArray.model
  const { insideMaxC } = requirement
  const driven = drivenArray(fanArray, driveOf(candidate), system.air)
  const ends = driven && endsOf(driven)
  return {
    'fan.freeFlow': ends?.free,
    'fan.maxPressure': ends?.highest,
    'fan.stallFlow': candidate.stallFlow,
    'fan.size': fan.frameM,
    'fan.thickness': candidate.thicknessM,
    'fan.impeller': impellerDiameter(fan),
    'fan.annulus': sweptArea(fan),
    'fan.holeSpacing': holeSpacing(fan),
    'fan.mass': membersOf(fanArray).some((m) => m.fan.massKg === null) ? null : fan.massKg,
    'fan.bearing': fan.bearing,
    'fan.shaft': job.shaft,
    'fan.airTemp':
      job.direction === 'out' && insideMaxC !== null
        ? insideMaxC
        : fanAirC(job, insideMaxC, candidate.flow, system.air),
    'fan.maxAirTemp': fan.maxAirC,
    'fan.ipWater': fan.ipWater,
    'fan.exCertified': false,
  }
}

/** A claim printed twice: the first stands for the metric figure, the second for the other unit. */
function claimFacts({ fanArray: { model } }: Running): SiFacts {
  const { fan } = model
  return {
    'fan.curveBasis': model.curves.basis,
    'fan.ratedRpm': fan.ratedRpm,
    'fan.flowMetric': fan.alsoFlowM3s === null ? null : fan.maxFlowM3s,
    'fan.flowCfm': fan.maxFlowM3s === null ? null : fan.alsoFlowM3s,
    'fan.pressurePa': fan.alsoPressurePa === null ? null : fan.maxPressurePa,
    'fan.pressureMm': fan.maxPressurePa === null ? null : fan.alsoPressurePa,
  }
}

/** Blade-pass frequency of each fan as driven, Hz. */
const bladePasses = (fanArray: FanArray, { volts, duty }: ReturnType<typeof driveOf>) =>
  membersOf(fanArray).map((m) => {
    const { blades, ratedRpm } = m.fan
    return blades === null || ratedRpm === null
      ? null
      : bladePass(ratedRpm * drivenSpeed(m, volts, duty), blades)
  })

function arrayFacts({ system, operation, fanArray, candidate }: Running): SiFacts {
  const { flow, arrangement } = candidate
  const { flowOfOne } = operation
  const { fan } = fanArray.model
  const passes = bladePasses(fanArray, driveOf(candidate))
  const known = passes.filter((p) => p !== null)
  return {
    'group.count': fanArray.count,
    'group.alike': fanArray.second === null || fanArray.second.fan.id === fan.id,
    'group.arrangement': arrangement === 'places' ? 'series' : arrangement,
    'group.voltagesMixed': fanArray.second !== null && fanArray.second.fan.ratedV !== fan.ratedV,
    'group.flowGain': flow && flowOfOne ? flow / flowOfOne : null,
    'group.weakestPressure': weakestPressure(fanArray, driveOf(candidate), system.air),
    'group.bladePassDiff':
      passes.length > 1 && known.length === passes.length ? Math.max(...known) - Math.min(...known) : null,
    'noise.bladePass': passes[0],
  }
}

function noiseFacts({ plan: { job }, fanArray: { model }, candidate }: Running): SiFacts {
  const level = candidate.level?.value ?? null
  const claimed = model.claimDbA !== null
  return {
    'noise.level': level,
    'noise.distanceStated': claimed ? model.claimDistanceM !== null : null,
    'noise.basis': claimed ? 'corrected' : null,
    'safety.exposure': level === null ? null : exposureOf(level, job.hoursPerDay),
  }
}

/** Hours of the working day that exposure limits speak of. Directive 2003/10/EC (from memory). */
const DAY_H = 8
/** Level over a working day, dB(A): energy mean of the hours beside it. */
const exposureOf = (level: number, hours: number) =>
  hours > 0 ? level + 10 * Math.log10(Math.min(hours, 24) / DAY_H) : null

/** The selected fans: where they run, what their sheets say, how they work together. */
export function fanFacts(sources: FactSources): SiFacts[] {
  const { fanArray } = sources.system
  const { candidate } = sources.operation
  if (!fanArray || !candidate) return []
  const running: Running = { ...sources, fanArray, candidate }
  return [
    operatingFacts(running),
    electricFacts(running),
    bodyFacts(running),
    claimFacts(running),
    arrayFacts(running),
    noiseFacts(running),
  ]
}
