import {
  behindResistor,
  capacitorRating,
  dividerHeat,
  linearHeat,
  converterDefaults,
  junctionTemperature,
  nearestPreferred,
  resistorRating,
  SETTING_TOLERANCE,
  type FanLoad,
} from '#core/power'
import { voltageForSpeed } from '#core/fan'
import type { Converter, PlanDocument } from '#core/document'
import { chosenResistor, DIODE_V } from './feed-build'
import { dutySpeed, driveSpeed, lowestDuty } from '#core/system'
import { arrayCurrent, arrayLimits, arrayStart, membersOf, type FanArray } from '#core/system'

/** Ways to make a fan slower, side by side, for this fan on this source. */
export type SlowWay = Converter['kind'] | 'pwm-wire' | 'tap' | 'header' | 'under-run' | 'straight'

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
const PARTS = { buck: 2, boost: 2.5, linear: 1.2, resistor: 0.3, divider: 0.4, diode: 0.6, pwm: 3 }
/** Thermal resistance of a bare TO-220 to air, K/W, and the junction to stay under, degC. From memory; handbook. */
const BARE_THETA = 60
const JUNCTION_LIMIT_C = 100
/** Current in the foot of a divider over the fan's, so that it holds its voltage at all. Handbook, dividers. */
const STIFFNESS = 10
const volts = (v: number) => `${v.toFixed(v < 10 ? 2 : 1)} V`

/**
 * The ways compared for a target voltage at the fan.
 * @param targetV V, at the fan's terminals
 * @returns nothing without a source with a voltage
 * Reference: handbook, slowing and stepping down
 */
export function slowDownWays(plan: PlanDocument, fanArray: FanArray, targetV: number): SlowRow[] {
  const { source, selection, job } = plan
  if (!source || source.nominalV === null || !selection) return []
  const supply = source.nominalV
  const highV = source.highV ?? supply
  const lowV = source.lowV ?? supply
  const { maxV, startV } = arrayLimits(fanArray)
  const amps = arrayCurrent(fanArray, { volts: targetV, duty: null }) ?? 0
  const startA = arrayStart(fanArray, targetV) ?? 0
  const load: FanLoad = {
    kind: 'power-law',
    ratedA: arrayCurrent(fanArray, { volts: fanArray.model.fan.ratedV, duty: null }) ?? 0,
    ratedV: fanArray.model.fan.ratedV,
    exponent: 1.3,
  }
  const over = (peak: number): SlowRow['hazard'] =>
    peak > maxV ? { severity: 'stop', text: `up to ${volts(peak)} on a fan for ${volts(maxV)}` } : null
  const noStart = (v: number): SlowRow['hazard'] =>
    v < startV ? { severity: 'stop', text: `starts at ${volts(startV)}, would get ${volts(v)}` } : null
  const row = (
    way: SlowWay,
    name: string,
    fanV: number | null,
    atStart: number | null,
    rest: Partial<SlowRow>,
  ): SlowRow => ({
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
  })
  const rows: SlowRow[] = []
  const accept = `${volts(targetV * (1 - SETTING_TOLERANCE))} to ${volts(Math.min(maxV, targetV * (1 + SETTING_TOLERANCE)))}`

  const buckRoom = lowV >= targetV + converterDefaults.buck.dropoutV
  if (targetV < supply) {
    rows.push(
      row('buck', 'Step-down converter', targetV, targetV, {
        peakV: highV,
        heatW: targetV * amps * (1 / converterDefaults.buck.efficiency - 1),
        adjustable: true,
        parts: PARTS.buck,
        take: { kind: 'buck', outV: targetV, setFirst: false, measuredV: null },
        hazard:
          noStart(targetV) ??
          (buckRoom
            ? { severity: 'note', text: 'unset it may hand on the whole input' }
            : { severity: 'fix', text: `input may fall to ${volts(lowV)}: too near` }),
        setting: `Turn the screw, unloaded, until the meter reads ${volts(targetV)}, accept ${accept}, before the fan is connected.`,
      }),
    )
    const tj = junctionTemperature(
      linearHeat(supply, targetV, amps, 0),
      BARE_THETA,
      job.ambientMaxC ?? job.ambientC,
    )
    rows.push(
      row('linear', 'Linear regulator', targetV, targetV, {
        peakV: highV,
        heatW: linearHeat(supply, targetV, amps, 0),
        adjustable: true,
        parts: PARTS.linear,
        take: { kind: 'linear', outV: targetV, setFirst: false, measuredV: null },
        hazard:
          noStart(targetV) ??
          (tj > JUNCTION_LIMIT_C
            ? { severity: 'fix', text: `bare it reaches ${Math.round(tj)} °C inside: heat sink` }
            : lowV < targetV + converterDefaults.linear.dropoutV
              ? { severity: 'fix', text: `input may fall to ${volts(lowV)}: too near` }
              : null),
        setting: `Set to ${volts(targetV)}, accept ${accept}; its capacitors close to the pins.`,
      }),
    )
    const ohm = chosenResistor(supply, targetV, amps)
    const behind = ohm === null ? null : behindResistor(supply, ohm, load)
    const heat = behind === null || ohm === null ? null : (supply - behind) ** 2 / ohm
    const rating = heat === null ? null : resistorRating(heat)
    const atStart = ohm === null ? null : lowV - ohm * startA
    rows.push(
      row(
        'resistor',
        ohm === null ? 'Series resistor' : `Series resistor ${ohm} Ω`,
        behind,
        atStart === null ? null : Math.max(0, atStart),
        {
          peakV: behind === null ? null : supply,
          heatW: heat,
          parts: PARTS.resistor,
          take: ohm === null ? null : { kind: 'resistor', outV: targetV, ohm, ratingW: rating },
          hazard:
            ohm === null
              ? { severity: 'note', text: 'the fan’s current is not known' }
              : atStart !== null && atStart < startV
                ? { severity: 'stop', text: `at the start only ${volts(Math.max(0, atStart))} are left` }
                : rating === null
                  ? { severity: 'stop', text: 'more heat than a resistor should take' }
                  : null,
          setting:
            rating === null || ohm === null
              ? 'Not this way.'
              : `${ohm} Ω, ${rating} W part, away from plastic; each fan its own.`,
        },
      ),
    )
    const foot = targetV / Math.max(1e-6, STIFFNESS * amps)
    const top = (supply - targetV) / Math.max(1e-6, (STIFFNESS + 1) * amps)
    if (amps > 0) {
      const [r1, r2] = [nearestPreferred(top, 'E12'), nearestPreferred(foot, 'E12')]
      rows.push(
        row('divider', `Divider ${r1} / ${r2} Ω`, targetV, targetV - ((startA - amps) * r1 * r2) / (r1 + r2), {
          peakV: (supply * r2) / (r1 + r2),
          heatW: dividerHeat(supply, r1, r2, targetV),
          parts: PARTS.divider,
          take: { kind: 'divider', outV: targetV, ohm: r1, ohm2: r2 },
          hazard: {
            severity: 'fix',
            text: `burns ${dividerHeat(supply, r1, r2, targetV).toFixed(1)} W for ${(targetV * amps).toFixed(1)} W of use`,
          },
          setting: 'A divider is for signals, not for fans.',
        }),
      )
    }
    const n = Math.max(1, Math.round((supply - targetV) / DIODE_V))
    rows.push(
      row('diode', `${n} diode${n > 1 ? 's' : ''} in a row`, supply - n * DIODE_V, lowV - n * DIODE_V, {
        peakV: highV,
        heatW: n * DIODE_V * amps,
        parts: PARTS.diode * Math.ceil(n / 4),
        take: { kind: 'diode', outV: supply - n * DIODE_V, diodes: n },
        hazard: noStart(lowV - n * DIODE_V) ?? over(highV - n * 0.6),
        setting: `${n} silicon diodes of 1 A, ring end to the fan; the drop is smaller at a light load.`,
      }),
    )
    const duty = targetV / supply
    rows.push(
      row('pwm', `Chopped supply, ${Math.round(100 * duty)} % on`, targetV, highV, {
        peakV: highV,
        heatW: 0.02 * supply * amps,
        noise: 'whine from 0.1 to 18 kHz',
        adjustable: true,
        parts: PARTS.pwm,
        take: { kind: 'pwm', outV: targetV, duty, pwmHz: 25000, switchSide: 'high' },
        hazard: over(highV) ?? {
          severity: 'fix',
          text: 'the tach reads the chopping; a diode across the fan is needed',
        },
        setting: `The mean is ${volts(targetV)}, the peak stays ${volts(supply)}. Fast diode across the fan, capacitor of ${capacitorRating(highV) ?? 100} V.`,
      }),
    )
  } else if (targetV > supply) {
    rows.push(
      row('boost', 'Step-up converter', targetV, targetV, {
        peakV: targetV * (1 + SETTING_TOLERANCE),
        heatW: targetV * amps * (1 / converterDefaults.boost.efficiency - 1),
        adjustable: true,
        parts: PARTS.boost,
        take: { kind: 'boost', outV: targetV, setFirst: false, measuredV: null },
        hazard:
          source.iMaxA !== null && (targetV * amps) / (converterDefaults.boost.efficiency * lowV) > source.iMaxA
            ? {
                severity: 'stop',
                text: `draws ${((targetV * amps) / (converterDefaults.boost.efficiency * lowV)).toFixed(2)} A, the source gives ${source.iMaxA} A`,
              }
            : null,
        setting: `Turn the screw, unloaded, until the meter reads ${volts(targetV)}, accept ${accept}, before the fan is connected.`,
      }),
    )
  }
  if (membersOf(fanArray).every((m) => m.fan.wires === 4) && supply <= maxV) {
    const want = driveSpeed(fanArray.model, targetV) / Math.max(1e-6, driveSpeed(fanArray.model, supply))
    const low = lowestDuty(fanArray.model)
    const duty = Math.min(
      1,
      Math.max(low.duty, low.duty + ((1 - low.duty) * (want - low.speed)) / (1 - low.speed)),
    )
    rows.push({
      ...row('pwm-wire', `PWM on the fourth wire, ${Math.round(100 * duty)} %`, supply, lowV, {
        peakV: highV,
        adjustable: true,
        parts: 4,
        duty: Math.round(100 * duty) / 100,
        hazard: over(highV),
        setting: '25 kHz, open drain, at most 5.25 V on the pin; an open pin is full speed.',
      }),
      speed: dutySpeed(fanArray.model, duty) * driveSpeed(fanArray.model, supply),
    })
  }
  if (source.kind === 'header' && targetV <= supply) {
    rows.push(
      row('header', 'The board lowers its header', targetV, targetV, {
        peakV: highV,
        adjustable: true,
        parts: 0,
        hazard: noStart(targetV),
        setting: `Voltage mode, ${volts(targetV)} for this speed; while the host sleeps nobody controls.`,
      }),
    )
  }
  for (const tap of [5, 12]) {
    if (source.kind !== 'tap' || tap === supply || tap > maxV) continue
    rows.push(
      row('tap', `${tap} V of the same plug`, tap, tap, {
        parts: 0,
        hazard: noStart(tap),
        setting: `Take the ${tap} V pin; meter it before connecting.`,
      }),
    )
  }
  rows.push(
    row('straight', 'Straight on the source', supply, lowV, {
      peakV: highV,
      parts: 0,
      hazard: over(highV) ?? noStart(lowV),
      setting:
        supply < 0.7 * fanArray.model.fan.ratedV
          ? `A ${volts(fanArray.model.fan.ratedV)} fan under-run: silent, lossless; try a cold start.`
          : 'Nothing between.',
    }),
  )
  if (targetV < supply && fanArray.model.fan.ratedV <= supply) {
    // the speed that is wanted from this supply asks for a fan of this voltage
    const wantedRated = supply / Math.max(0.2, driveSpeed(fanArray.model, targetV))
    rows.push(
      row('under-run', `A fan for about ${volts(wantedRated)} instead`, supply, lowV, {
        speed: driveSpeed(fanArray.model, targetV),
        starts: null,
        startMarginV: null,
        peakV: highV,
        setting: `On ${volts(supply)} it turns at ${Math.round(100 * driveSpeed(fanArray.model, targetV))} %: silent and lossless. Line-up, “voltages that are there”, lists them.`,
      }),
    )
  }
  return rows
}

/** The voltage for a wished share of the rated speed, V. */
export const voltageForShare = (fanArray: FanArray, share: number) =>
  voltageForSpeed(share, fanArray.model.fan.ratedV, fanArray.model.interceptV)
