import { curveProblem } from '#core/control'
import {
  contactYears,
  mostLoad,
  onlySwitches,
  pwmOf,
  runOnAdvice,
  thermostatAdvice,
  usesWire,
  type DayReport,
  type ModelGroup,
} from '#core/day'
import { converterOf, type Control, type StreamPlan, plannedFans } from '#core/document'
import { membersOf } from '#core/system'
import type { FactSources, SiFacts, SiSubject } from './sources'

/** What is known of every control, and of the days that it has to serve. */

interface Steered {
  sources: FactSources
  day: DayReport
  group: ModelGroup
  index: number
}

const looks = ({ school }: Control) => school === 'thermostat' || school === 'curve' || school === 'host'
const intermittent = ({ school }: Control) => school === 'tool' || school === 'boost'
const senses = (control: Control) => looks(control) && control.sense === 'temperature'

/** The part that is sensed; null where the air around is. */
const sensedPart = ({ day, group }: Steered) => day.model.parts[group.sensed] ?? null
/** Whether the sensor is known to sit on the part that the day takes it on. */
function sitsOn({ sources: { plan }, group: { control } }: Steered): boolean {
  if (plan.day?.parts.length || control.sensedId !== null) return true
  return plan.job.goal === 'part' || control.sensorKind === 'in-air'
}
/** Whether its heat capacity was told or measured: what follows from a guess is not judged. */
const capacityKnown = (steered: Steered) => {
  const part = sensedPart(steered)
  return part !== null && !part.assumed.includes('how slowly it warms')
}

function thresholdFacts(steered: Steered): SiFacts {
  const { group, day } = steered
  const { control } = group
  if (!senses(control)) return {}
  const part = sensedPart(steered)
  // like against like: the limit of the air inside says nothing of a sensor that sits who knows where
  const limit = part ? (sitsOn(steered) ? part.limitC : null) : undefined
  const { points } = control
  const cap = control.capDuty ?? 1
  const onACurve = control.school !== 'thermostat'
  const full = onACurve ? points.find((p) => p.duty >= cap) : undefined
  const valid = onACurve && points.length > 1 ? !curveProblem(points).includes('never falls') : undefined
  return {
    'ctl.onTemp': onACurve ? undefined : control.onC,
    'ctl.offTemp': onACurve ? undefined : control.offC,
    'ctl.limitTemp': limit,
    'ctl.fullTemp': full?.temperatureC,
    'ctl.monotonic': valid,
    'ctl.rampUp': control.rampUpPerS ?? undefined,
    'ctl.sensorLag': part && !onACurve ? control.sensorLagS : undefined,
    'ctl.heatRate':
      part && !onACurve
        ? capacityKnown(steered)
          ? (mostLoad(day.model) * part.loadShare) / part.capacityJK
          : null
        : undefined,
  }
}

/** How often it switches, and what that wears. */
function wearFacts(steered: Steered): SiFacts {
  const { group, day, index } = steered
  const { control, problem } = group
  if (problem || !onlySwitches(control)) return {}
  const known = !senses(control) || capacityKnown(steered)
  const most = Math.max(day.usual.groups[index]!.busiestHour, day.hot.groups[index]!.busiestHour)
  const life = contactYears(control, day.usual.groups[index]!.starts)
  return {
    'ctl.cyclesPerHour': known ? most : null,
    'ctl.relayYears': known ? life?.years : null,
  }
}

/** Parts that pass their limit although the one that is sensed stays below its own. */
function unsensedHot({ day, group }: Steered): boolean | undefined {
  const { parts } = day.model
  if (parts.length < 2) return undefined
  const over = (i: number) => parts[i]!.limitC !== null && day.hot.peakC[i]! > parts[i]!.limitC!
  if (group.sensed >= 0 && over(group.sensed)) return undefined
  return parts.some((p, i) => i !== group.sensed && p.group === day.model.groups.indexOf(group) && over(i))
}

function failureFacts(steered: Steered): SiFacts {
  const { control } = steered.group
  const { sources } = steered
  return {
    'ctl.onSensorFault': looks(control) && !onlySwitches(control) ? control.onFault : undefined,
    'ctl.unsensedHotPart': looks(control) ? unsensedHot(steered) : undefined,
    'ctl.tachAlarm':
      sources.plan.job.mustNotFail === true ? control.tachAlarm : (control.tachAlarm ?? undefined),
    'ctl.hostSleeps': control.school === 'host' ? control.hostSleeps : undefined,
    'ctl.interlock': control.interlock ?? undefined,
  }
}

/** Duties on the PWM wire and voltages of what is steered by them. */
function driveFacts({ sources, day, group, index }: Steered): SiFacts {
  const { control, settings, table } = group
  const streams = sources.streams.filter((s) => group.streams.includes(s.plan.stream))
  const members = streams.flatMap((s) => (s.system.fanArray ? membersOf(s.system.fanArray) : []))
  const most = (list: (number | null)[]) => {
    const known = list.filter((x) => x !== null)
    return known.length ? Math.max(...known) : undefined
  }
  const wire = streams.some((s) => usesWire(control, s.plan))
  const { hz, steps } = pwmOf(control)
  const chops = control.actuator === 'chopped'
  const [one] = streams.length === 1 ? streams : []
  const lowest = settings ? lowestAsked(group) : null
  const kicked = (control.kickS ?? 0) > 0
  const start = kicked ? (control.kickDuty ?? 1) : control.startDuty
  const driveV = one?.operation.candidate?.driveV
  const volts = !wire && one && driveV !== undefined && !onlySwitches(control)
  return {
    'ctl.usesPwmWire': wire,
    'ctl.chopsSupply': chops || streams.some((s) => converterOf(s.plan)?.converterKind === 'pwm'),
    'ctl.pwmHz': wire || chops ? (hz ?? (control.clockHz !== null ? null : undefined)) : undefined,
    'ctl.pwmSteps': (wire || chops) && steps !== null ? steps : undefined,
    'ctl.dutyMin': wire && lowest !== null ? lowest : undefined,
    'ctl.dutyStart': wire ? (start ?? undefined) : undefined,
    'ctl.dutyCap': control.capDuty ?? undefined,
    'fan.minDuty': most(members.map((m) => m.fan.pwmMinDuty)),
    'fan.startDuty': most(members.map((m) => m.fan.pwmStartDuty)),
    'fan.wires': members.some((m) => m.fan.wires === null)
      ? null
      : Math.min(...members.map((m) => m.fan.wires!)),
    'op.flow': one?.operation.candidate?.flow ?? undefined,
    'need.flow': one?.context.needFlow ?? undefined,
    'op.flowAtCap':
      control.capDuty === null || !one
        ? undefined
        : (table.flowM3s[Math.round(control.capDuty * (table.flowM3s.length - 1))] ?? undefined),
    'ctl.lowestV': volts && lowest !== null ? lowest * driveV : undefined,
    'ctl.fanMinV': volts ? most(members.map((m) => m.fan.minV)) : undefined,
    'ctl.startDriveV': volts && start !== null ? start * driveV : undefined,
    'ctl.fanStartV': volts ? most(members.map((m) => m.fan.startV)) : undefined,
    ...neverStarts(group, day.usual.groups[index]!.onS + day.hot.groups[index]!.onS),
    'ctl.converterFixed': converterFixed(streams, control),
    'ctl.neverOn': neverOn(day, group, index),
  }
}

/** A thermostat that never switches on: only of a part whose numbers were told, since a guess proves nothing. */
function neverOn(
  { model, hot }: DayReport,
  { control, problem, sensed }: ModelGroup,
  index: number,
): boolean | undefined {
  if (control.school !== 'thermostat' || control.sense !== 'temperature' || problem) return undefined
  const part = model.parts[sensed]
  return part && part.basis !== 'assumed' ? hot.groups[index]!.onS === 0 : undefined
}

/** A law that asks for air whatever is warm, and whose fans never turn: what they start from is more than it asks. */
function neverStarts({ settings }: ModelGroup, onS: number): SiFacts {
  if (!settings || settings.law.kind === 'thermostat' || settings.law.kind === 'curve') return {}
  const { law } = settings
  const asks = law.kind === 'fixed' ? law.duty : law.onDuty
  return asks > 0 && onS === 0 ? { 'ctl.asks': asks, 'ctl.startsFrom': settings.startDuty } : {}
}

/** A control by a converter that gives one voltage only; nothing where there is none, or the control does not use it. */
function converterFixed(
  streams: readonly { plan: StreamPlan }[],
  { actuator, school }: Control,
): boolean | undefined {
  const converters = streams.map((s) => converterOf(s.plan)).filter((c) => c !== null)
  if (actuator !== 'converter' || school === 'always' || !converters.length) return undefined
  return converters.some((c) => !c.adjustable || fixedKinds.includes(c.converterKind))
}
const fixedKinds = ['resistor', 'diode', 'divider']

/** The lowest duty that a law asks for while the fans run. */
function lowestAsked({ settings }: ModelGroup): number | null {
  if (!settings) return null
  const { law, minDuty } = settings
  const asked =
    law.kind === 'fixed'
      ? [law.duty]
      : law.kind === 'curve'
        ? law.points.map((p) => p.duty)
        : [law.onDuty, law.restDuty]
  const running = asked.filter((d) => d > 0)
  return running.length ? Math.max(minDuty, Math.min(...running)) : null
}

function timeFacts(steered: Steered): SiFacts {
  const { group, day, index, sources } = steered
  const { control } = group
  const stream = sources.streams.find((s) => group.streams.includes(s.plan.stream))
  const advice = intermittent(control) ? runOnAdvice(day.model, index, stream) : null
  const needed = advice?.why === 'air' ? advice.seconds : undefined
  const thermostat = thermostatAdvice(day.model, index, day.model.weather.usual.highC)
  return {
    'ctl.runOn': intermittent(control) ? control.runOnS : undefined,
    'need.runOn': needed,
    'ctl.runOnFrom': needed !== undefined && control.runOnS ? control.runOnFrom : undefined,
    'ctl.timerStep': control.school === 'timer' ? (control.timerStepS ?? undefined) : undefined,
    'ctl.timerOn': control.school === 'timer' ? (control.timerOnS ?? undefined) : undefined,
    'ctl.cycle': thermostat?.promptS && capacityKnown(steered) ? thermostat.promptS : undefined,
  }
}

/** What the days show: heat over a limit, an empty battery. */
function dayFacts({ day, group, index }: Steered): SiFacts {
  const { parts } = day.model
  const over = parts
    .map((p, i) => ({ p, peakC: day.hot.peakC[i]! }))
    .filter(({ p }) => p.group === index && p.limitC !== null && !p.assumed.includes('how slowly it warms'))
    .toSorted((a, b) => b.peakC - b.p.limitC! - (a.peakC - a.p.limitC!))[0]
  const told = over && over.p.basis !== 'assumed'
  const first = index === 0
  return {
    'day.peak': group.problem === null && over && told ? over.peakC : undefined,
    'day.part': over && told ? over.p.name : undefined,
    'day.limit': over && told ? over.p.limitC! : undefined,
    'day.lowestCharge': first ? (day.greyest ?? undefined) : undefined,
  }
}

/** Every control of the machine by itself. */
export function controlSubjects(sources: FactSources): SiSubject[] {
  const { day } = sources
  if (!day) return driven(sources)
  return day.model.groups.map((group, index): SiSubject => {
    const steered: Steered = { sources, day, group, index }
    const { control } = group
    return {
      kind: 'control',
      id: control.id,
      name: day.model.groups.length > 1 || control.name ? group.name : '',
      at: { station: 'control', part: control.id },
      facts: {
        'ctl.kind': control.school,
        ...thresholdFacts(steered),
        ...wearFacts(steered),
        ...failureFacts(steered),
        ...driveFacts(steered),
        ...timeFacts(steered),
        ...dayFacts(steered),
        'switch.device': control.actuator === 'chopped' ? 'mosfet' : undefined,
        'switch.gateV': control.gateV ?? undefined,
        'switch.gateFullV': control.gateFullV ?? undefined,
      },
    }
  })
}

/** Fans that nobody planned a control for: what drives them is judged all the same. */
const driven = ({ plan }: FactSources): SiSubject[] =>
  plannedFans(plan) ? [{ kind: 'control', id: 'drive', name: '', at: { station: 'power' }, facts: {} }] : []
