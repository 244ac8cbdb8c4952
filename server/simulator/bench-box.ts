import { airState, CP_AIR } from '#core/air'
import {
  alarmStep,
  controlStep,
  newControl,
  TACH_ALARM,
  type AlarmState,
  type ControlSettings,
} from '#core/control'
import { dayModel } from '#core/day'
import { sumLevels, minusBackground } from '#core/noise'
import { computeReport, dayStreamsOf } from '#core/plan'
import {
  putFans,
  plannedFans,
  dutyOf,
  placesInUse,
  type FansAt,
  driveVolts,
  fansLead,
  type Fan,
  type StreamPlan,
} from '#core/document'
import { normal, seeded } from '#core/numeric'
import type { BenchRow } from '#core/measure'

/**
 * The stand-in bench box: a small simulated device with the plan's equipment on it. It warms up by physics, its fan
 * follows the voltage, its sensors have noise and drop out, and it speaks the same lines as a real board.
 */

/** What stands on the bench. SI units. */
export interface BoxSetting {
  /** names of the channels' places */
  places: { hot: string; level: string; flow: string }
  ambientC: number
  heatW: number
  /** wall loss and leak without a fan, W/K */
  wallWK: number
  /** of the hot part to the air inside, K/W, and heat capacities, J/K */
  partKW: number
  partJK: number
  airJK: number
  density: number
  /** the fan as it runs in the path at `atV`; null for no fan at all */
  fan: {
    atV: number
    stopV: number
    rpm: number
    flowM3s: number
    pressurePa: number
    levelDbA: number
    currentA: number
  } | null
  backgroundDbA: number
  heatInsideC: number
  /** the planned control of the picked fan; null: none that could be stepped */
  control: {
    settings: ControlSettings
    /** speed over that of the plan, at evenly spaced duties from 0 to 1 */
    speeds: number[]
    alarm: { fraction: number; holdS: number; blankS: number } | null
  } | null
}

/** What a hand on the bench may do while it runs. */
export interface BoxControls {
  volts: number
  doorOpen: boolean
  tachPulled: boolean
  dropouts: number
  noise: number
  /** the picked fan obeys the planned control */
  controlled?: boolean
  /** what is wrong with it: the fan's pair swapped, a supply that cannot give the current, blades held, outlet covered */
  fault?: BoxFault
  /** the fan hangs on nothing: the meter stands at the open plug */
  unplugged?: boolean
}
export type BoxFault = 'none' | 'swapped' | 'starved' | 'stuck' | 'covered'

/** A starved supply gives its voltage less this share for the planned current. Invented for the stand-in. */
const STARVED = 1
/** A held rotor takes so many times its running current; a covered outlet lets so much air through, at more pressure. Invented. */
const LOCKED_AMPS = 2.2
const COVERED = { flow: 0.25, pressure: 1.6, levelDb: 3 } as const

/** Guesses for what a plan does not say, all invented for the stand-in. */
const USUAL = {
  heatW: 25,
  wallWK: 0.8,
  partKW: 0.1,
  partJK: 90,
  airJK: 400,
  backgroundDbA: 24,
  levelDbA: 36,
  flowM3s: 0.008,
  pressurePa: 6,
  rpm: 1800,
  currentA: 0.12,
} as const

/** What a plan leaves on the bench: the picked fan, the fan that was found in it, or none. */
export function boxOf(plan: StreamPlan, fans: readonly Fan[], which: 'as-found' | 'as-planned'): BoxSetting {
  const { job } = plan
  const [place] = placesInUse(plan)
  const found: FansAt[] =
    job.existingFanId === null || !place
      ? []
      : [{ placeId: place.id, fanId: job.existingFanId, count: job.existingCount }]
  const onBench = structuredClone(plan)
  if (which === 'as-found') putFans(onBench, { groups: found, arrangement: 'parallel' })
  const fitted = plannedFans(onBench)
  // straight on the bench supply: the voltage is what the bench says
  const benchV = which === 'as-planned' ? driveVolts(plan) : (job.existingV ?? 12)
  const duty = which === 'as-planned' ? dutyOf(plan) : null
  const lead = { ...fansLead(plan.stream, ''), wishV: benchV, duty }
  const result = computeReport({
    plan: { ...onBench, sources: [], feed: [lead], battery: null, sun: null },
    fans: [...fans],
    shown: null,
  })
  const candidate = result.ok ? (result.report.selection?.candidate ?? null) : null
  const model = result.ok ? (result.report.selection?.fanArray.model ?? null) : null
  const told = (kind: 'temperature' | 'level' | 'flow', otherwise: string) =>
    plan.targets.find((t) => t.kind === kind && t.place)?.place ?? otherwise
  return {
    places: {
      hot: told('temperature', 'inside'),
      level: told('level', 'spot'),
      flow: told('flow', 'outlet'),
    },
    ambientC: job.ambientC,
    heatW: job.heatW ?? USUAL.heatW,
    wallWK: job.wallLossWK ?? USUAL.wallWK,
    partKW: USUAL.partKW,
    partJK: USUAL.partJK,
    airJK: USUAL.airJK,
    density: airState(job.ambientC, job.altitudeM, job.humidity)?.density ?? 1.2,
    backgroundDbA: job.roomDbA ?? USUAL.backgroundDbA,
    heatInsideC: job.ambientC,
    control: which === 'as-planned' ? controlOf(plan, fans) : null,
    fan:
      candidate && fitted
        ? {
            atV: candidate.driveV,
            stopV: model?.fan.minV ?? 0.35 * candidate.driveV,
            rpm: (model?.fan.ratedRpm ?? USUAL.rpm) * candidate.speed,
            flowM3s: candidate.flow ?? USUAL.flowM3s,
            pressurePa: candidate.pressure ?? USUAL.pressurePa,
            levelDbA: candidate.level?.value ?? USUAL.levelDbA,
            currentA: candidate.currentA ?? USUAL.currentA,
          }
        : null,
  }
}

/** Seconds after a start in which a slow fan is no alarm. Common practice, no source. */
const BLANK_S = 5
/** The planned control of the stream's fans, as the box obeys it. */
function controlOf(plan: StreamPlan, fans: readonly Fan[]): BoxSetting['control'] {
  if (!plan.controls.length) return null
  const streams = dayStreamsOf({ plan, fans, shown: null })
  if (!streams.some((s) => s.operation.candidate)) return null
  const group = dayModel(plan, streams).groups.find((g) => g.streams.includes(plan.stream))
  if (!group?.settings || !(group.referenceM3s > 0)) return null
  const { tachAlarm, alarmShare, alarmHoldS, alarmBlankS } = group.control
  return {
    settings: group.settings,
    speeds: Array.from(group.table.flowM3s, (q) => q / group.referenceM3s),
    alarm: tachAlarm
      ? {
          fraction: alarmShare ?? TACH_ALARM.fraction,
          holdS: alarmHoldS ?? TACH_ALARM.holdS,
          blankS: alarmBlankS ?? BLANK_S,
        }
      : null,
  }
}

/** Noise of the sensors at a noise setting of 1: K, rpm share, Pa, flow share, dB, V, A. Common practice, no source. */
const SENSOR = {
  temperature: 0.08,
  rotation: 0.004,
  pressure: 0.6,
  flow: 0.04,
  level: 0.5,
  voltage: 0.01,
  current: 0.002,
} as const
/** The motor follows its voltage within this, s; the door lets this much air through, W/K. Invented. */
const MOTOR_S = 1.2
const DOOR_WK = 6
const STEP_S = 0.2
/** What a digital probe sends when it has nothing to tell. Common practice, no source. */
const SENTINEL_C = -127
/** Level falls with the fifth power of the speed. Reference: fan sound law */
const SOUND_POWER = 50

export interface Box {
  /** the simulated time, s */
  now: () => number
  controls: BoxControls
  /** what its control puts out, 0..1, and whether its alarm sounds; null where it obeys none */
  steering: () => { duty: number; alarm: boolean } | null
  /** moves on and gives the rows of that time; rows that were lost on the way are missing, their numbers stay used */
  advance: (seconds: number, rateHz: number) => BenchRow[]
}

/** A channel's name from the place it stands at. */
const named = (place: string, ending: string) =>
  `${
    place
      .trim()
      .replaceAll(/[^\p{L}\p{N}]+/gu, '_')
      .replace(/^[\d_]+/, '') || 'spot'
  }_${ending}`

/** @param seed same seed, same run */
export function makeBox(setting: BoxSetting, controls: BoxControls, seed: number): Box {
  const random = seeded(seed)
  const gauss = normal(random)
  let [part, air, speed] = [setting.heatInsideC, setting.heatInsideC, 0]
  let [now, due, seq] = [0, 0, 0]
  const { fan, control } = setting
  let state = newControl
  let [low, alarm, sinceStart]: [AlarmState | null, boolean, number] = [null, false, 0]
  const obeys = () => controls.controlled === true && control !== null && fan !== null
  /** What its control wants of the fan, as a share of the planned speed; the alarm beside it. */
  function steered(): number {
    const { settings, speeds, alarm: set } = control!
    const turned = state.duty > 0
    state = controlStep(settings, state, part, STEP_S).state
    const wanted = speeds[Math.round(state.duty * (speeds.length - 1))]!
    sinceStart = state.duty > 0 && turned ? sinceStart + STEP_S : 0
    const shown = controls.tachPulled ? 0 : fan!.rpm * speed
    if (!set || state.duty === 0 || sinceStart < set.blankS) [low, alarm] = [null, false]
    else {
      const step = alarmStep(low, shown, fan!.rpm * wanted, STEP_S, set.fraction, set.holdS)
      low = step.state
      alarm = step.alarm
    }
    return wanted
  }
  /** How much air the outlet lets through, as a share. */
  const through = () => (controls.fault === 'covered' ? COVERED.flow : 1)
  /** Voltage at the fan's plug: a starved supply falls with what it has to give. */
  function plugV(): number {
    const { volts, fault, unplugged } = controls
    if (fault === 'swapped') return -volts
    return fault === 'starved' && fan && !unplugged ? volts * (1 - STARVED * Math.min(0.9, speed ** 2)) : volts
  }
  const louder = () => (controls.fault === 'covered' ? COVERED.levelDb : 0)
  const pushed = () => (controls.fault === 'covered' ? COVERED.pressure : 1)
  function amps(): number {
    if (!fan || controls.unplugged) return 0
    if (controls.fault === 'stuck' && controls.volts > fan.stopV) return LOCKED_AMPS * fan.currentA
    return fan.currentA * speed ** 2
  }
  // the level of the fan alone, without the room
  const fanDbA = fan && (minusBackground(fan.levelDbA, setting.backgroundDbA) ?? fan.levelDbA)
  function step() {
    const volts = plugV()
    const turns = fan && volts > fan.stopV && !controls.unplugged && controls.fault !== 'stuck'
    const fed = turns ? volts / fan.atV : 0
    const wanted = obeys() && fed > 0 ? steered() : fed
    speed += (wanted - speed) * Math.min(1, STEP_S / MOTOR_S)
    const flow = fan ? fan.flowM3s * speed * through() : 0
    const g = setting.wallWK + CP_AIR * setting.density * flow + (controls.doorOpen ? DOOR_WK : 0)
    const inner = (part - air) / setting.partKW
    part += (STEP_S * (setting.heatW - inner)) / setting.partJK
    air += (STEP_S * (inner - g * (air - setting.ambientC))) / setting.airJK
    now += STEP_S
  }
  function row(): BenchRow {
    const n = controls.noise
    const missing = () => random() < controls.dropouts
    const value = (x: number) => (missing() ? null : x)
    const probe = (x: number) => (missing() ? SENTINEL_C : x + n * SENSOR.temperature * gauss())
    const level =
      fanDbA !== null && speed > 0.05
        ? sumLevels([fanDbA + louder() + SOUND_POWER * Math.log10(speed), setting.backgroundDbA])!
        : setting.backgroundDbA
    return {
      seq: seq++,
      ms: Math.round(now * 1000),
      values: {
        [named(setting.places.hot, 'degC')]: probe(part),
        room_degC: probe(setting.ambientC),
        fan_rpm: controls.tachPulled
          ? null
          : value(Math.max(0, (fan?.rpm ?? 0) * speed * (1 + n * SENSOR.rotation * gauss()))),
        box_Pa: value((fan?.pressurePa ?? 0) * pushed() * speed ** 2 + n * SENSOR.pressure * gauss()),
        [named(setting.places.flow, 'm3h')]: value(
          Math.max(0, 3600 * (fan?.flowM3s ?? 0) * through() * speed * (1 + n * SENSOR.flow * gauss())),
        ),
        [named(setting.places.level, 'dBA')]: value(level + n * SENSOR.level * gauss()),
        ...(obeys() ? { fan_pct: 100 * state.duty, alarm: alarm ? 1 : 0 } : {}),
        fan_V: value(plugV() + n * SENSOR.voltage * gauss()),
        fan_A: value(Math.max(0, amps() + n * SENSOR.current * gauss())),
      },
    }
  }
  return {
    now: () => now,
    controls,
    steering: () => (obeys() ? { duty: state.duty, alarm } : null),
    advance(seconds, rateHz) {
      const rows: BenchRow[] = []
      const end = now + seconds
      while (now < end - 1e-9) {
        step()
        for (; due <= now; due += 1 / rateHz) {
          const made = row()
          // a row that is lost on the way: its running number is missing afterwards
          if (random() >= controls.dropouts / 2) rows.push(made)
        }
      }
      return rows
    },
  }
}
