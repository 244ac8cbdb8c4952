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
export interface DayInput {
  parts: readonly ThermalPart[]
  links: readonly ThermalLink[]
  /** flow that `movedWK` belongs to, m3/s, above 0 */
  referenceM3s: number
  /** conductance over flow: 0.5 laminar, 0.8 turbulent, 1 where the air itself is the limit */
  exponent: number
  fans: FanTable
  control: ControlSettings
  /** part that is sensed, and how late the sensor shows it, s */
  sensed: number
  sensorLagS: number
  /** surroundings, degC, and load, W, at a time, s */
  ambientC: (timeS: number) => number
  loadW: (timeS: number) => number
  startC: number
  seconds: number
  /** of the control, s */
  stepS: number
}
export interface DayLanes {
  stepS: number
  /** one row a step */
  parts: Float64Array[]
  sensorC: Float64Array
  duty: Float64Array
  flowM3s: Float64Array
  levelDbA: Float64Array
  powerW: Float64Array
  /** peaks of every part, degC */
  peakC: number[]
  onS: number
  starts: number
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
  const [a, b] = [table[low]!, table[low + 1]!]
  return Number.isFinite(a) && Number.isFinite(b) ? a + (at - low) * (b - a) : at - low > 0 ? b : a
}
const energyOf = (levelDbA: number) => 10 ** (levelDbA / 10)
const levelOf = (energy: number) => 10 * Math.log10(energy)

/** Inner steps that follow the fastest part. */
function innerStepsOf({ parts, links, stepS }: DayInput): number {
  const fastest = Math.min(
    ...parts.map((p, i) => {
      const linked = links.reduce((s, l) => s + (l.from === i || l.to === i ? l.conductanceWK : 0), 0)
      return p.capacityJK / (Math.max(p.stillWK, p.movedWK) + linked)
    }),
  )
  return Math.max(1, Math.ceil(stepS / (STEP_SHARE * fastest)))
}

/**
 * The day, step by step: midpoint rule inside, the control of `controlStep` at every step.
 * Reference: first-order balances (heat 2); handbook control 2
 */
export function simulateDay(input: DayInput): DayLanes {
  const { parts, links, fans, control, sensed, stepS, seconds, sensorLagS } = input
  const steps = Math.round(seconds / stepS)
  const inner = innerStepsOf(input)
  const h = stepS / inner
  const n = parts.length
  const lane = () => new Float64Array(steps)
  const lanes = parts.map(lane)
  const [sensorC, duty, flowM3s, levelDbA, powerW] = [lane(), lane(), lane(), lane(), lane()]
  const t = new Float64Array(n).fill(input.startC)
  const [mid, slope, conductance] = [new Float64Array(n), new Float64Array(n), new Float64Array(n)]
  const peakC = Array.from({ length: n }, () => input.startC)
  const balance = { inJ: 0, outJ: 0, storedJ: 0 }
  let [shown, state] = [input.startC, newControl]
  let [onS, starts, energyJ, sound, turned] = [0, 0, 0, 0, false]

  // plain arrays: the loop runs a million times
  const of = (key: keyof ThermalPart) => Float64Array.from(parts, (p) => p[key])
  const [capacity, still, movedBy, share] = [of('capacityJK'), of('stillWK'), of('movedWK'), of('loadShare')]
  const linkFrom = Int32Array.from(links, (l) => l.from)
  const linkTo = Int32Array.from(links, (l) => l.to)
  const linkWK = Float64Array.from(links, (l) => l.conductanceWK)
  const slopes = (at: Float64Array, ambient: number, load: number) => {
    for (let i = 0; i < n; i++) slope[i] = share[i]! * load - conductance[i]! * (at[i]! - ambient)
    for (let l = 0; l < linkWK.length; l++) {
      const [a, b] = [linkFrom[l]!, linkTo[l]!]
      const passed = linkWK[l]! * (at[a]! - at[b]!)
      slope[a] = slope[a]! - passed
      slope[b] = slope[b]! + passed
    }
    for (let i = 0; i < n; i++) slope[i] = slope[i]! / capacity[i]!
  }
  /** What follows from the duty: worked out when it changes. */
  const at = { duty: NaN, flow: 0, level: -Infinity, power: 0, sound: 0 }
  const follow = (wanted: number) => {
    if (wanted === at.duty) return
    at.duty = wanted
    at.flow = tableAt(fans.flowM3s, wanted)
    at.level = tableAt(fans.levelDbA, wanted)
    at.power = tableAt(fans.powerW, wanted)
    at.sound = energyOf(at.level)
    const moved = at.flow > 0 ? (at.flow / input.referenceM3s) ** input.exponent : 0
    for (let i = 0; i < n; i++) conductance[i] = still[i]! + (movedBy[i]! - still[i]!) * moved
  }
  const lag = sensorLagS > 0 ? 1 - Math.exp(-stepS / sensorLagS) : 1

  for (let k = 0; k < steps; k++) {
    const from = k * stepS
    const step = controlStep(control, state, shown, stepS)
    state = step.state
    follow(step.duty)
    for (let j = 0; j < inner; j++) {
      const time = from + (j + 0.5) * h
      const ambient = input.ambientC(time)
      const load = input.loadW(time)
      slopes(t, ambient, load)
      for (let i = 0; i < n; i++) mid[i] = t[i]! + (h / 2) * slope[i]!
      slopes(mid, ambient, load)
      for (let i = 0; i < n; i++) {
        t[i] = t[i]! + h * slope[i]!
        balance.outJ += h * conductance[i]! * (mid[i]! - ambient)
        balance.inJ += h * share[i]! * load
      }
    }
    shown += lag * (t[sensed]! - shown)
    const turns = step.duty > 0
    if (turns && !turned) starts++
    turned = turns
    if (turns) onS += stepS
    for (let i = 0; i < n; i++) {
      lanes[i]![k] = t[i]!
      if (t[i]! > peakC[i]!) peakC[i] = t[i]!
    }
    sensorC[k] = shown
    duty[k] = step.duty
    flowM3s[k] = at.flow
    levelDbA[k] = at.level
    powerW[k] = at.power
    energyJ += at.power * stepS
    sound += at.sound
  }
  for (let i = 0; i < n; i++) balance.storedJ += parts[i]!.capacityJK * (t[i]! - input.startC)
  return {
    stepS,
    parts: lanes,
    sensorC,
    duty,
    flowM3s,
    levelDbA,
    powerW,
    peakC,
    onS,
    starts,
    energyJ,
    leqDbA: levelOf(sound / steps),
    loudestDbA: loudestOf(levelDbA, Math.max(1, Math.round(WINDOW_S / stepS))),
    balance,
    innerSteps: inner,
  }
}

/** Equivalent level of the loudest so many steps in a row, dB(A). */
function loudestOf(levels: Float64Array, window: number): number {
  const wide = Math.min(window, levels.length)
  let sum = 0
  let most = 0
  for (let k = 0; k < levels.length; k++) {
    sum += energyOf(levels[k]!)
    if (k >= wide) sum -= energyOf(levels[k - wide]!)
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
const DAY_S = 86_400
/** Two hours after noon by the sun. Common practice, no source. */
const HIGHEST_AT_S = 14 * 3600
