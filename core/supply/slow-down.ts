import {
  capacitorRating,
  choppedPeak,
  converterInputCurrent,
  diodeDrop,
  dividerVoltage,
  idealDuty,
  converterDefaults,
  junctionTemperature,
  nearestPreferred,
  resistorRating,
  SETTING_TOLERANCE,
} from '#core/power'
import { PWM_PIN_V } from '#core/control'
import { voltageForSpeed } from '#core/fan'
import {
  newConverter,
  sourceOf,
  type Converter,
  type StreamPlan,
  type Source,
  type ConverterKind,
  plannedFans,
} from '#core/document'
import { chosenResistor, convertOf, DIODE_LIGHT, diodeVolts } from './feed-build'
import { solveFrom } from './feed-tree'
import { loadedV, windowOf, type SourceWindow } from './source-window'
import { dutySpeed, driveSpeed, lowestDuty } from '#core/system'
import { arrayCurrent, arrayLaw, arrayLimits, arrayStart, membersOf, type FanArray } from '#core/system'

/** Ways to make a fan slower, side by side, for this fan on this source. */
export type SlowWay = ConverterKind | 'pwm-wire' | 'tap' | 'header' | 'under-run' | 'straight'

export interface SlowRow {
  way: SlowWay
  name: string
  /** voltage at the fan, and the highest that can reach it */
  fanV: number | null
  peakV: number | null
  /** speed over rated */
  speed: number | null
  starts: boolean | null
  /** volts to spare at the start */
  startMarginV: number | null
  heatW: number | null
  noise: string
  adjustable: boolean
  reversible: boolean
  /** rough price of the parts; common practice, no source */
  parts: number | null
  /** why it must not be done, or what is dangerous in it */
  hazard: { severity: 'stop' | 'fix' | 'note'; text: string } | null
  /** exactly what to do */
  setting: string
  /** the converter that would be taken; null where none is */
  take: Partial<Converter> | null
  /** on the PWM wire, where that is the way */
  duty: number | null
}

/** Price of the parts of each way. Common practice, no source. */
const PARTS = { buck: 2, boost: 2.5, linear: 1.2, resistor: 0.3, divider: 0.4, diode: 0.6, pwm: 3, pwmWire: 4 }
/** Thermal resistance of a bare TO-220 to air, K/W, and the junction to stay under, degC. From memory; handbook. */
const BARE_THETA = 60
const JUNCTION_LIMIT_C = 100
/** Current in the foot of a divider over the fan's, so that it holds its voltage at all. docs/physics.md, dividers. */
const STIFFNESS = 10
/** As a meter in a maker's hand shows it: a tenth, below 1 V a hundredth. */
const volts = (v: number) => `${v.toFixed(v < 1 ? 2 : 1)} V`

/** What every way is worked out from. */
interface Wish {
  plan: StreamPlan
  source: Source
  fanArray: FanArray
  /** wanted at the fan's terminals, V */
  targetV: number
  supply: number
  lowV: number
  highV: number
  maxV: number
  maxKnown: boolean
  startV: number
  startKnown: boolean
  /** of all fans at the target, running and at the start, A */
  amps: number
  startA: number
  /** what a way makes of the feed */
  behind: (take: Partial<Converter> | null) => Behind
}
/** The feed with a way in it: at the fans, in the way, from the source. */
interface Behind {
  fanV: number
  heatW: number
  inA: number
}

type Hazard = SlowRow['hazard']
const stop = (text: string): Hazard => ({ severity: 'stop', text })
const fix = (text: string): Hazard => ({ severity: 'fix', text })
const note = (text: string): Hazard => ({ severity: 'note', text })
/** A stop rests on what a sheet or a meter says; an assumption asks to be measured. */
const weighed = (known: boolean, text: string): Hazard =>
  known ? stop(text) : fix(`${text} (assumed, measure it)`)
const over = ({ maxV, maxKnown }: Wish, peak: number): Hazard =>
  peak > maxV ? weighed(maxKnown, `up to ${volts(peak)} on a fan for ${volts(maxV)}`) : null
const noStart = ({ startV, startKnown }: Wish, v: number): Hazard =>
  v < startV ? weighed(startKnown, `starts at ${volts(startV)}, would get ${volts(v)}`) : null

const drawsTooMuch = ({ source: { iMaxA } }: Wish, amps: number): Hazard =>
  iMaxA !== null && amps > iMaxA ? stop(`draws ${amps.toFixed(2)} A, the source gives ${iMaxA} A`) : null

/** Range that a meter may show after setting. */
const accepted = ({ targetV, maxV }: Wish) =>
  `${volts(targetV * (1 - SETTING_TOLERANCE))} to ${volts(Math.min(maxV, targetV * (1 + SETTING_TOLERANCE)))}`

/**
 * A way with what is usual.
 * @param fanV running, V; null where it cannot be told
 * @param atStart V left at the start; null where that cannot be told
 */
function rowOf(
  { fanArray, startV }: Wish,
  way: SlowWay,
  name: string,
  fanV: number | null,
  atStart: number | null,
  rest: Partial<SlowRow>,
): SlowRow {
  return {
    way,
    name,
    fanV,
    peakV: fanV,
    speed: fanV === null ? null : driveSpeed(fanArray.model, fanV),
    starts: atStart === null ? null : atStart >= startV,
    startMarginV: atStart === null ? null : atStart - startV,
    heatW: 0,
    noise: 'none',
    adjustable: false,
    reversible: true,
    parts: null,
    hazard: null,
    setting: '',
    take: null,
    duty: null,
    ...rest,
  }
}

/** Takes a converter that has to be set first. */
const toSet = (converterKind: ConverterKind, outV: number) => ({
  converterKind,
  outV,
  setFirst: false,
  measuredV: null,
})
const tooNear = (lowV: number) => fix(`input may fall to ${volts(lowV)}: too near`)

function buckRow(w: Wish): SlowRow {
  const { targetV, highV, lowV } = w
  const { dropoutV } = converterDefaults.buck
  const take = toSet('buck', targetV)
  const { fanV, heatW } = w.behind(take)
  return rowOf(w, 'buck', 'Step-down converter', fanV, fanV, {
    peakV: highV,
    heatW,
    adjustable: true,
    parts: PARTS.buck,
    take,
    hazard:
      noStart(w, targetV) ??
      (lowV >= targetV + dropoutV ? note('set it first, or the fan may get the full voltage') : tooNear(lowV)),
    setting: `Turn the screw, unloaded, until the meter reads ${volts(targetV)}, accept ${accepted(w)}, before the fan is connected.`,
  })
}

function linearRow(w: Wish): SlowRow {
  const { targetV, highV, lowV, plan } = w
  const take = toSet('linear', targetV)
  const { fanV, heatW } = w.behind(take)
  const tj = junctionTemperature(heatW, BARE_THETA, plan.job.ambientMaxC ?? plan.job.ambientC)
  const hot = tj > JUNCTION_LIMIT_C ? fix(`bare it reaches ${Math.round(tj)} °C inside: heat sink`) : null
  const near = lowV < targetV + converterDefaults.linear.dropoutV ? tooNear(lowV) : null
  return rowOf(w, 'linear', 'Linear regulator', fanV, fanV, {
    peakV: highV,
    heatW,
    adjustable: true,
    parts: PARTS.linear,
    take,
    hazard: noStart(w, targetV) ?? hot ?? near,
    setting: `Set to ${volts(targetV)}, accept ${accepted(w)}; its capacitors close to the pins.`,
  })
}

function resistorHazard(w: Wish, ohm: number | null, atStart: number | null, rating: number | null): Hazard {
  if (ohm === null) return note('the fan’s current is not known')
  if (atStart !== null && atStart < w.startV)
    return weighed(w.startKnown, `at the start only ${volts(Math.max(0, atStart))} are left`)
  return rating === null ? stop('more heat than a resistor should take') : null
}

function resistorRow(w: Wish): SlowRow {
  const { targetV, amps, startA, supply, lowV } = w
  const ohm = chosenResistor(supply, targetV, amps)
  const made = ohm === null ? null : w.behind({ converterKind: 'resistor', outV: targetV, ohm })
  const behind = made && made.fanV
  const heatW = made && made.heatW
  const rating = heatW === null ? null : resistorRating(heatW)
  const atStart = ohm === null ? null : lowV - ohm * startA
  const name = ohm === null ? 'Series resistor' : `Series resistor ${ohm} Ω`
  return rowOf(w, 'resistor', name, behind, atStart === null ? null : Math.max(0, atStart), {
    peakV: behind === null ? null : supply,
    heatW,
    parts: PARTS.resistor,
    take: ohm === null ? null : { converterKind: 'resistor', outV: targetV, ohm, ratingW: rating },
    hazard: resistorHazard(w, ohm, atStart, rating),
    setting:
      rating === null || ohm === null
        ? 'Not this way.'
        : `${ohm} Ω, ${rating} W part, away from plastic; each fan its own.`,
  })
}

function dividerRow(w: Wish): SlowRow | null {
  const { targetV, amps, startA, supply } = w
  if (!(amps > 0)) return null
  const r1 = nearestPreferred((supply - targetV) / Math.max(1e-6, (STIFFNESS + 1) * amps), 'E12')
  const r2 = nearestPreferred(targetV / Math.max(1e-6, STIFFNESS * amps), 'E12')
  const take = { converterKind: 'divider' as const, outV: targetV, ohm: r1, ohm2: r2 }
  const { fanV, heatW, inA } = w.behind(take)
  const atStart = fanV - ((startA - amps) * r1 * r2) / (r1 + r2)
  const tooMuch = drawsTooMuch(w, inA)
  const burns = `burns ${heatW.toFixed(1)} W for ${(targetV * amps).toFixed(1)} W of use`
  return rowOf(w, 'divider', `Divider ${r1} / ${r2} Ω`, fanV, atStart, {
    // without a load
    peakV: dividerVoltage(supply, r1, r2, 0, 0),
    heatW,
    parts: PARTS.divider,
    take,
    hazard: tooMuch ? stop(`${tooMuch.text}, and ${burns}`) : (noStart(w, atStart) ?? fix(burns)),
    setting: 'A divider is for signals, not for fans.',
  })
}

function diodeRow(w: Wish, kind: keyof typeof diodeVolts): SlowRow {
  const drop = diodeVolts[kind]
  const { targetV, supply, lowV, highV } = w
  const n = Math.max(1, Math.round((supply - targetV) / drop))
  const take = { converterKind: 'diode' as const, outV: diodeDrop(supply, n, drop), diodes: n, diodeKind: kind }
  const { fanV, heatW } = w.behind(take)
  const atStart = diodeDrop(lowV, n, drop)
  return rowOf(w, 'diode', `${n} ${diodeNames[kind]} diode${n > 1 ? 's' : ''} in a row`, fanV, atStart, {
    peakV: highV,
    heatW,
    parts: PARTS.diode * Math.ceil(n / 4),
    take,
    hazard: noStart(w, atStart) ?? over(w, diodeDrop(highV, n, DIODE_LIGHT * drop)),
    setting: `${n} ${diodeNames[kind]} diodes of 1 A, ring end to the fan; the drop is smaller at a light load.`,
  })
}

const diodeNames = { silicon: 'silicon', schottky: 'Schottky' }

function choppedRow(w: Wish): SlowRow {
  const { targetV, supply, highV } = w
  const duty = idealDuty('buck', supply, targetV)
  const take = { converterKind: 'pwm' as const, outV: targetV, duty, pwmHz: 25000, switchSide: 'high' as const }
  const { fanV, heatW } = w.behind(take)
  return rowOf(w, 'pwm', `Switched supply (PWM), ${Math.round(100 * duty)} % on`, fanV, highV, {
    peakV: choppedPeak(highV),
    heatW,
    noise: 'whine from 0.1 to 18 kHz',
    adjustable: true,
    parts: PARTS.pwm,
    take,
    hazard: over(w, highV) ?? fix('the tach reads the chopping; a diode across the fan is needed'),
    setting:
      `The mean is ${volts(targetV)}, the peak stays ${volts(supply)}. Fast diode across the fan, ` +
      `capacitor of ${capacitorRating(highV) ?? 100} V.`,
  })
}

function boostRow(w: Wish): SlowRow {
  const { targetV, amps, lowV } = w
  const take = toSet('boost', targetV)
  const { fanV, heatW } = w.behind(take)
  const drawn = converterInputCurrent(lowV, targetV, amps, converterDefaults.boost.efficiency)
  return rowOf(w, 'boost', 'Step-up converter', fanV, fanV, {
    peakV: targetV * (1 + SETTING_TOLERANCE),
    heatW,
    adjustable: true,
    parts: PARTS.boost,
    take,
    hazard: drawsTooMuch(w, drawn),
    setting: `Turn the screw, unloaded, until the meter reads ${volts(targetV)}, accept ${accepted(w)}, before the fan is connected.`,
  })
}

/** The fourth wire, where every fan has one and stands the whole supply. */
function pwmWireRow(w: Wish): SlowRow | null {
  const { fanArray, targetV, supply, lowV, highV, maxV } = w
  const { model } = fanArray
  if (!membersOf(fanArray).every((m) => m.fan.wires === 4) || supply > maxV) return null
  const want = driveSpeed(model, targetV) / Math.max(1e-6, driveSpeed(model, supply))
  const low = lowestDuty(model)
  const line = low.duty + ((1 - low.duty) * (want - low.speed)) / (1 - low.speed)
  const duty = Math.min(1, Math.max(low.duty, line))
  return rowOf(w, 'pwm-wire', `PWM on the fourth wire, ${Math.round(100 * duty)} %`, supply, lowV, {
    peakV: highV,
    adjustable: true,
    parts: PARTS.pwmWire,
    duty: Math.round(100 * duty) / 100,
    speed: dutySpeed(model, duty) * driveSpeed(model, supply),
    hazard: over(w, highV),
    setting: `25 kHz, open drain, at most ${PWM_PIN_V} V on the pin; an open pin is full speed.`,
  })
}

function headerRow(w: Wish): SlowRow | null {
  const { source, targetV, supply, highV } = w
  if (source.kind !== 'header' || targetV > supply) return null
  return rowOf(w, 'header', 'The board lowers its header', targetV, targetV, {
    peakV: highV,
    adjustable: true,
    parts: 0,
    hazard: noStart(w, targetV),
    setting: `Voltage mode, ${volts(targetV)} for this speed; while the host sleeps nobody controls.`,
  })
}

const tapRows = (w: Wish): SlowRow[] =>
  [5, 12]
    .filter((tap) => w.source.kind === 'tap' && tap !== w.supply && tap <= w.maxV)
    .map((tap) =>
      rowOf(w, 'tap', `${tap} V of the same plug`, tap, tap, {
        parts: 0,
        hazard: noStart(w, tap),
        setting: `Take the ${tap} V pin; meter it before connecting.`,
      }),
    )

/** A fan is under-run where the source gives less than this share of its rated voltage. Common practice, no source. */
const UNDER_RUN = 0.7

function straightRow(w: Wish): SlowRow {
  const { supply, lowV, highV, fanArray } = w
  const { ratedV } = fanArray.model.fan
  return rowOf(w, 'straight', 'Straight on the source', w.behind(null).fanV, lowV, {
    peakV: highV,
    parts: 0,
    hazard: over(w, highV) ?? noStart(w, lowV),
    setting:
      supply < UNDER_RUN * ratedV
        ? `A ${volts(ratedV)} fan under-run: silent, lossless; try a cold start.`
        : 'Nothing between.',
  })
}

/** Another fan, whose rated voltage makes this supply slow. */
function underRunRow(w: Wish): SlowRow | null {
  const { fanArray, targetV, supply, lowV, highV } = w
  if (targetV >= supply || fanArray.model.fan.ratedV > supply) return null
  const speed = driveSpeed(fanArray.model, targetV)
  const wantedRated = supply / Math.max(0.2, speed)
  return rowOf(w, 'under-run', `A fan for about ${volts(wantedRated)} instead`, supply, lowV, {
    speed,
    starts: null,
    startMarginV: null,
    peakV: highV,
    setting:
      `On ${volts(supply)} it turns at ${Math.round(100 * speed)} %: silent and lossless. Line-up, ` +
      `“voltages that are there”, lists them.`,
  })
}

/** The feed with a way in it and nothing else on the source. */
function solveWay(window: SourceWindow, fanArray: FanArray, take: Partial<Converter> | null): Behind {
  const current = (volts: number) => arrayLaw(fanArray, { volts, duty: null }) ?? 0
  const made =
    take && convertOf({ ...newConverter('way', null, take.converterKind), ...take }, window.nominalV, current)
  const node = { id: '', ohm: 0, convert: null, current: null }
  const { states } = solveFrom(
    [
      { ...node, parent: -1 },
      ...(made ? [{ ...node, parent: 0, convert: made }] : []),
      { ...node, parent: made ? 1 : 0, current },
    ],
    window.emf.nominal,
  )
  return { fanV: states.at(-1)!.inV, heatW: made ? states[1]!.heatW : 0, inA: states[0]!.outA }
}

/**
 * The ways compared for a target voltage at the fan.
 * @param targetV V, at the fan's terminals
 * @returns nothing without a source with a voltage
 * Reference: docs/physics.md, slowing and stepping down
 */
export function slowDownWays(plan: StreamPlan, fanArray: FanArray, targetV: number): SlowRow[] {
  const source = sourceOf(plan)
  const window = windowOf(plan)
  if (!source || !window || !plannedFans(plan)) return []
  const amps = arrayCurrent(fanArray, { volts: targetV, duty: null }) ?? 0
  const startA = arrayStart(fanArray, targetV) ?? 0
  const { low } = window.emf
  const w: Wish = {
    plan,
    source,
    fanArray,
    targetV,
    supply: loadedV(window, amps),
    lowV: Math.max(0, low.volts - low.ohm * amps),
    highV: window.highV,
    ...arrayLimits(fanArray),
    amps,
    startA,
    behind: (take) => solveWay(window, fanArray, take),
  }
  const diodes = (['silicon', 'schottky'] as const).map((kind) => (x: Wish) => diodeRow(x, kind))
  const down = [buckRow, linearRow, resistorRow, dividerRow, ...diodes, choppedRow]
  const stepping = targetV < w.supply ? down : targetV > w.supply ? [boostRow] : []
  return [
    ...stepping.map((row) => row(w)),
    pwmWireRow(w),
    headerRow(w),
    ...tapRows(w),
    straightRow(w),
    underRunRow(w),
  ].filter((row) => row !== null)
}

/**
 * The voltage for a wished share of the rated speed, V.
 * @param share 0..1
 */
export const voltageForShare = (fanArray: FanArray, share: number) =>
  voltageForSpeed(share, fanArray.model.fan.ratedV, fanArray.model.interceptV)
