import { controlStep, newControl, type ControlSettings } from './step'

/** A day stepped through: parts that warm and cool, a control that looks at one of them, fans that follow its duty. */

/** One lumped part: C·dT/dt = P − G(Q)·(T − T_a) − Σ G_ij·(T − T_j). */
export interface ThermalPart {
  capacityJK: number
  /** to the surroundings without moving air, and at the reference flow, W/K */
  stillWK: number
  movedWK: number
  /** share of the load that it takes, 0..1 */
  loadShare: number
  /** index of the fans that move air over it; −1: none */
  group: number
}
/** What two parts pass to each other, W/K. */
export interface ThermalLink {
  from: number
  to: number
  conductanceWK: number
}
/** Flow, level and power of the fans over their duty, at evenly spaced duties from 0 to 1. */
export interface FanTable {
  flowM3s: ArrayLike<number>
  /** dB(A) at the listener; −Infinity: silent */
  levelDbA: ArrayLike<number>
  powerW: ArrayLike<number>
}
/** Fans that one control steers, and what it looks at. */
export interface DayGroup {
  fans: FanTable
  control: ControlSettings
  /** flow that `movedWK` of its parts belongs to, m3/s, above 0 */
  referenceM3s: number
  /** part that is sensed, and how late the sensor shows it, s */
  sensed: number
  sensorLagS: number
  /** what it looks at instead of a part, at a time, s */
  reading?: (timeS: number) => number
  /** whether air is asked for, at a time, s */
  demand?: (timeS: number) => boolean
}
export interface DayInput {
  parts: readonly ThermalPart[]
  links: readonly ThermalLink[]
  groups: readonly DayGroup[]
  /** conductance over flow: 0.5 laminar, 0.8 turbulent, 1 where the air itself is the limit */
  exponent: number
  /** surroundings, degC, and load, W, at a time, s */
  ambientC: (timeS: number) => number
  loadW: (timeS: number) => number
  startC: number
  /** run through before midnight, so that the day does not begin cold, s */
  leadS?: number
  seconds: number
  /** of the control, s */
  stepS: number
}
/** What the fans of a group did. */
export interface GroupLanes {
  sensorC: Float64Array
  duty: Float64Array
  flowM3s: Float64Array
  levelDbA: Float64Array
  onS: number
  starts: number
  energyJ: number
}
export interface DayLanes {
  stepS: number
  /** one row a step */
  parts: Float64Array[]
  ambientC: Float64Array
  loadW: Float64Array
  groups: GroupLanes[]
  /** all fans together */
  levelDbA: Float64Array
  /** the same as energy, of that of 0 dB(A) */
  sound: Float64Array
  powerW: Float64Array
  /** peaks of every part, degC */
  peakC: number[]
  energyJ: number
  /** over the whole day, and the loudest five minutes, dB(A); −Infinity: silent */
  leqDbA: number
  loudestDbA: number
  /** heat that was put in, stored and given off, J: what comes in is what goes out and stays */
  balance: { inJ: number; outJ: number; storedJ: number }
  /** steps inside one of the control's, so that the fastest part is followed */
  innerSteps: number
}

/** Inner steps are at most this share of the fastest part's time constant. */
const STEP_SHARE = 0.1
const WINDOW_S = 300

/** A value between the entries of an evenly spaced table. */
function tableAt(table: ArrayLike<number>, share: number): number {
  const at = Math.min(1, Math.max(0, share)) * (table.length - 1)
  const low = Math.min(table.length - 2, Math.floor(at))
  const a = table[low]!
  const b = table[low + 1]!
  return Number.isFinite(a) && Number.isFinite(b) ? a + (at - low) * (b - a) : at - low > 0 ? b : a
}
const energyOf = (levelDbA: number) => 10 ** (levelDbA / 10)
const levelOf = (energy: number) => 10 * Math.log10(energy)

/** Inner steps that follow the fastest part. */
function innerStepsOf({ parts, links, stepS }: DayInput): number {
  if (!parts.length) return 1
  const fastest = Math.min(
    ...parts.map((p, i) => {
      const linked = links.reduce((s, l) => s + (l.from === i || l.to === i ? l.conductanceWK : 0), 0)
      return p.capacityJK / (Math.max(p.stillWK, p.movedWK) + linked)
    }),
  )
  return Math.max(1, Math.ceil(stepS / (STEP_SHARE * fastest)))
}

/** The parts as plain arrays, for a loop that runs a million times. */
function network({ parts, links }: DayInput) {
  const of = (key: keyof ThermalPart) => Float64Array.from(parts, (p) => p[key])
  return {
    capacity: of('capacityJK'),
    still: of('stillWK'),
    moved: of('movedWK'),
    share: of('loadShare'),
    from: Int32Array.from(links, (l) => l.from),
    to: Int32Array.from(links, (l) => l.to),
    conductance: Float64Array.from(links, (l) => l.conductanceWK),
  }
}

/** The fans of a group at the duty they were last given. */
interface Running {
  duty: number
  flow: number
  level: number
  power: number
  sound: number
}

/**
 * The day, step by step: midpoint rule inside, the control of `controlStep` at every step.
 * Reference: first-order balances (heat 2); handbook control 2
 */
export function simulateDay(input: DayInput): DayLanes {
  const { parts, groups, stepS, seconds, leadS = 0 } = input
  const steps = Math.round(seconds / stepS)
  const lead = Math.ceil(leadS / stepS)
  const inner = innerStepsOf(input)
  const h = stepS / inner
  const n = parts.length
  const lane = () => new Float64Array(steps)
  const lanes = parts.map(lane)
  const [ambientC, loadW, levelDbA, sound, powerW] = [lane(), lane(), lane(), lane(), lane()]
  const made = groups.map((): GroupLanes => ({
    sensorC: lane(),
    duty: lane(),
    flowM3s: lane(),
    levelDbA: lane(),
    onS: 0,
    starts: 0,
    energyJ: 0,
  }))
  const t = new Float64Array(n).fill(input.startC)
  const startT = new Float64Array(n)
  const [mid, slope, conductance] = [new Float64Array(n), new Float64Array(n), new Float64Array(n)]
  const net = network(input)
  const balance = { inJ: 0, outJ: 0, storedJ: 0 }
  const shown = groups.map(() => input.startC)
  const states = groups.map(() => ({ ...newControl, timeS: -lead * stepS, readAtS: -lead * stepS }))
  const running = groups.map((): Running => ({ duty: NaN, flow: 0, level: -Infinity, power: 0, sound: 0 }))
  const lags = groups.map((g) => (g.sensorLagS > 0 ? 1 - Math.exp(-stepS / g.sensorLagS) : 1))
  const peakC = new Array<number>(n).fill(-Infinity)
  let heardAll = 0
  let heard = NaN
  let level = -Infinity
  for (let i = 0; i < n; i++) conductance[i] = net.still[i]!

  const slopes = (at: Float64Array, ambient: number, load: number) => {
    for (let i = 0; i < n; i++) slope[i] = net.share[i]! * load - conductance[i]! * (at[i]! - ambient)
    for (let l = 0; l < net.conductance.length; l++) {
      const a = net.from[l]!
      const b = net.to[l]!
      const passed = net.conductance[l]! * (at[a]! - at[b]!)
      slope[a] = slope[a]! - passed
      slope[b] = slope[b]! + passed
    }
    for (let i = 0; i < n; i++) slope[i] = slope[i]! / net.capacity[i]!
  }
  /** What follows from the duty: worked out when it changes. */
  const follow = (g: number, wanted: number) => {
    const at = running[g]!
    if (wanted === at.duty) return
    const { fans, referenceM3s } = groups[g]!
    at.duty = wanted
    at.flow = tableAt(fans.flowM3s, wanted)
    at.level = tableAt(fans.levelDbA, wanted)
    at.power = tableAt(fans.powerW, wanted)
    at.sound = energyOf(at.level)
    const moved = at.flow > 0 ? (at.flow / referenceM3s) ** input.exponent : 0
    for (let i = 0; i < n; i++)
      if (parts[i]!.group === g) conductance[i] = net.still[i]! + (net.moved[i]! - net.still[i]!) * moved
  }

  for (let k = -lead; k < steps; k++) {
    const from = k * stepS
    const counts = k >= 0
    if (k === 0) startT.set(t)
    let together = 0
    let power = 0
    // air and load of the middle of the step stand for it
    const middle = from + stepS / 2
    const ambient = input.ambientC(middle)
    const load = input.loadW(middle)
    for (let g = 0; g < groups.length; g++) {
      const { control, reading, demand } = groups[g]!
      const seen = reading ? reading(from) : shown[g]!
      const turned = states[g]!.duty > 0
      const step = controlStep(control, states[g]!, seen, stepS, demand?.(from) ?? false)
      states[g] = step.state
      follow(g, step.duty)
      const at = running[g]!
      together += at.sound
      power += at.power
      if (!counts) continue
      const own = made[g]!
      own.duty[k] = step.duty
      own.sensorC[k] = seen
      own.flowM3s[k] = at.flow
      own.levelDbA[k] = at.level
      own.energyJ += at.power * stepS
      if (step.duty > 0) {
        own.onS += stepS
        if (!turned) own.starts++
      }
    }
    for (let j = 0; j < inner; j++) {
      slopes(t, ambient, load)
      for (let i = 0; i < n; i++) mid[i] = t[i]! + (h / 2) * slope[i]!
      slopes(mid, ambient, load)
      for (let i = 0; i < n; i++) {
        t[i] = t[i]! + h * slope[i]!
        if (!counts) continue
        balance.outJ += h * conductance[i]! * (mid[i]! - ambient)
        balance.inJ += h * net.share[i]! * load
      }
    }
    for (let g = 0; g < groups.length; g++)
      if (n > 0) shown[g] = shown[g]! + lags[g]! * (t[groups[g]!.sensed]! - shown[g]!)
    if (!counts) continue
    for (let i = 0; i < n; i++) {
      lanes[i]![k] = t[i]!
      if (t[i]! > peakC[i]!) peakC[i] = t[i]!
    }
    ambientC[k] = ambient
    loadW[k] = load
    levelDbA[k] = together === heard ? level : levelOf(together)
    heard = together
    level = levelDbA[k]!
    powerW[k] = power
    sound[k] = together
    heardAll += together
  }
  for (let i = 0; i < n; i++) balance.storedJ += parts[i]!.capacityJK * (t[i]! - startT[i]!)
  return {
    stepS,
    parts: lanes,
    ambientC,
    loadW,
    groups: made,
    levelDbA,
    sound,
    powerW,
    peakC,
    energyJ: made.reduce((sum, g) => sum + g.energyJ, 0),
    leqDbA: levelOf(heardAll / steps),
    loudestDbA: loudestOf(sound, Math.max(1, Math.round(WINDOW_S / stepS))),
    balance,
    innerSteps: inner,
  }
}

/**
 * Equivalent level of a part of a day, dB(A); −Infinity: silent.
 * @param fromS seconds after midnight @param toS the same; before `fromS`: over midnight
 * Reference: handbook CT16
 */
export function leqBetween(
  { sound, stepS }: Pick<DayLanes, 'sound' | 'stepS'>,
  fromS: number,
  toS: number,
): number {
  let sum = 0
  let count = 0
  for (let k = 0; k < sound.length; k++) {
    const at = (k * stepS) % DAY_S
    if (fromS <= toS ? at < fromS || at >= toS : at < fromS && at >= toS) continue
    sum += sound[k]!
    count++
  }
  return count ? levelOf(sum / count) : -Infinity
}

/** Equivalent level of the loudest so many steps in a row, dB(A). */
function loudestOf(sound: Float64Array, window: number): number {
  const wide = Math.min(window, sound.length)
  let sum = 0
  let most = 0
  for (let k = 0; k < sound.length; k++) {
    sum += sound[k]!
    if (k >= wide) sum -= sound[k - wide]!
    if (k >= wide - 1 && sum > most) most = sum
  }
  return levelOf(Math.max(0, most) / wide)
}

/**
 * Ambient of a day from its lowest and highest, a sine with its highest at a given hour.
 * @param lowestC degC @param highestC degC @param highestAtS seconds after midnight
 * Reference: harmonic day (heat 7)
 */
export function dayAmbient(
  lowestC: number,
  highestC: number,
  highestAtS = HIGHEST_AT_S,
): (timeS: number) => number {
  const [mean, amplitude] = [(lowestC + highestC) / 2, (highestC - lowestC) / 2]
  return (timeS) => mean + amplitude * Math.cos((2 * Math.PI * (timeS - highestAtS)) / DAY_S)
}
export const DAY_S = 86_400
/** Two hours after noon by the sun. Common practice, no source. */
const HIGHEST_AT_S = 14 * 3600
