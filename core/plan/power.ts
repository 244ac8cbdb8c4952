import { allowedCurrent, awgAmpacity, awgArea, CONTACT_OHM, converterDefaults, converterInputCurrent, converterLoss, copperResistance, headroomVerdict, linearHeat, SETTING_TOLERANCE, voltageBehind } from '../power'
import type { PlanDocument } from './document'
import { groupCurrent as currentOf, groupStart, type Group } from './group'
import { figure, input, type Figure } from './figure'

/** Insulation and surroundings that the wire is judged by: PVC 70 degC at 30 degC. */
const INSULATION_C = 70
const WIRE_AMBIENT_C = 30
/** Plug and socket pairs between source and fan. */
const CONTACT_PAIRS = 2

export interface PowerReport {
  /** lowest, planned and highest voltage at the fan's terminals, V; null without a source or pick */
  fanLowV: number | null
  fanV: number | null
  fanHighV: number | null
  /** what leaves the converter, or the source when there is none */
  feedV: number | null
  fanRunA: number | null
  fanStartA: number | null
  wireDropV: number | null
  wireAmpacityA: number | null
  loadRunA: number | null
  loadStartA: number | null
  /** current out of the converter, A */
  converterOutA: number | null
  utilisation: number | null
  headroom: 'ok' | 'fix' | 'stop' | null
  figures: Figure[]
}

interface WireSide { ohm: number, ampacity: number | null }

function wire(plan: PlanDocument): WireSide {
  const { source } = plan
  if (!source?.wireAwg || !source.wireLengthM) return { ohm: 0, ampacity: null }
  const perMetre = copperResistance(awgArea(source.wireAwg))
  const plan30 = awgAmpacity[source.wireAwg]
  return {
    ohm: 2 * source.wireLengthM * perMetre + CONTACT_PAIRS * CONTACT_OHM,
    ampacity: plan30 === undefined ? null : allowedCurrent(plan30, 2, INSULATION_C, WIRE_AMBIENT_C),
  }
}

const none: PowerReport = {
  fanLowV: null, fanV: null, fanHighV: null, feedV: null, fanRunA: null, fanStartA: null, wireDropV: null, wireAmpacityA: null, loadRunA: null, loadStartA: null,
  converterOutA: null, utilisation: null, headroom: null, figures: [],
}

/**
 * From the source to the fan: voltages at the terminals, currents, wire drop, head-room.
 * Without a source the fan is taken at its picked drive voltage.
 */
export function computePower(plan: PlanDocument, group: Group | null): PowerReport {
  const { source, converter, pick } = plan
  if (!pick || !group) return none
  if (!source || source.kind === 'none' || source.nominalV === null) return { ...none, fanV: pick.driveV }
  const { ohm, ampacity } = wire(plan)
  const lowV = source.lowV ?? source.nominalV
  const highV = source.highV ?? source.nominalV
  const usual = converter ? converterDefaults[converter.kind] : null
  const dropout = converter?.dropoutV ?? usual?.dropoutV ?? 0
  const efficiency = converter?.efficiency ?? usual?.efficiency ?? 1
  const out = converter ? converter.measuredV ?? converter.outV : source.nominalV
  const stepsDown = converter?.kind === 'buck' || converter?.kind === 'linear'
  const outLow = converter ? Math.min(out, stepsDown ? lowV - dropout : out) : lowV
  const outHigh = converter ? out * (1 + SETTING_TOLERANCE) : highV
  const groupCurrent = (v: number) => currentOf(group, { volts: v, duty: pick.duty }) ?? 0
  const behind = (v: number) => voltageBehind(Math.max(0, v), ohm, groupCurrent)
  const fanV = behind(out)
  const fanRunA = currentOf(group, { volts: fanV, duty: pick.duty })
  const fanStartA = groupStart(group, fanV)
  const others = (after: boolean, which: 'run' | 'start') => plan.loads.filter(l => l.afterConverter === after)
    .reduce((s, l) => s + l.count * (which === 'start' ? l.startA ?? l.currentA : l.currentA), 0)
  const inputOf = (amps: number) => !converter ? amps : converter.kind === 'linear' ? amps : converterInputCurrent(source.nominalV!, out, amps, efficiency)
  const throughConverter = fanRunA === null ? null : fanRunA + (converter ? others(true, 'run') : 0)
  const direct = (which: 'run' | 'start') => others(false, which) + (converter ? 0 : others(true, which))
  const loadRunA = throughConverter === null ? null : inputOf(throughConverter) + direct('run')
  const loadStartA = fanStartA === null ? null : inputOf(fanStartA + (converter ? others(true, 'start') : 0)) + direct('start')
  const utilisation = loadRunA !== null && source.iMaxA ? loadRunA / source.iMaxA : null
  const drop = fanRunA === null || !ohm ? null : out - fanV
  const heat = !converter || throughConverter === null ? null : converter.kind === 'linear' ? linearHeat(source.nominalV, out, throughConverter, 0) : converterLoss(out, throughConverter, efficiency)

  const figures: Figure[] = [
    figure('power.fanV', 'At the fan', 'voltage', fanV, 'V_fan + R·I(V_fan) = V_feed', 'Kirchhoff', {
      low: behind(outLow), high: outHigh, inputs: [input('V_feed', converter ? 'converter output' : 'source, nominal', out, 'voltage'), input('R', 'wire both ways and contacts', ohm, 'resistance')],
      note: ohm ? '' : 'No wire given yet: its drop is not counted.',
    }),
    figure('power.load', 'Drawn from the source', 'current', loadRunA, converter && converter.kind !== 'linear' ? 'I = ΣI_direct + V_out·I_out / (η·V_in)' : 'I = ΣI', 'sum of the loads; converter power balance', {
      basis: 'estimated', note: fanRunA === null ? 'The fan’s current is not known.' : 'Fan current at its driven voltage: I_r·(V/V_r)^1.3, common practice.',
      inputs: [
        input('I_fan', `${group.count} fan${group.count > 1 ? 's' : ''} at the driven voltage`, fanRunA, 'current'), input('I_other', 'other loads', others(true, 'run') + others(false, 'run'), 'current'),
        ...(converter ? [input('η', 'converter efficiency', efficiency, 'ratio'), input('V_in', 'source', source.nominalV, 'voltage'), input('V_out', 'converter output', out, 'voltage')] : []),
      ],
    }),
    figure('power.start', 'At the start', 'current', loadStartA, 'I_start = 2 · I_label · V/V_r', 'start current unmeasured: twice the label (common practice)', { basis: 'estimated', inputs: [input('I_start', 'fans together', fanStartA, 'current')] }),
    figure('power.use', 'Share of the source', 'ratio', utilisation, 'u = I / I_source', 'good to 80 % (common practice)', { inputs: [input('I', 'drawn', loadRunA, 'current'), input('I_source', 'source can give', source.iMaxA, 'current')], note: source.iMaxA ? '' : 'The source’s current is not known.' }),
    figure('power.drop', 'Lost in the wire', 'voltage', drop, 'ΔV = (2·L·r + contacts) · I', 'ASTM B258, IEC 60028', {
      inputs: [input('L', 'one way', source.wireLengthM, 'distance'), input('r', 'per metre of conductor', source.wireAwg ? copperResistance(awgArea(source.wireAwg)) : null, 'resistance'), input('I', 'fan current', fanRunA, 'current')],
      note: ohm ? '' : 'No wire given yet.',
    }),
    figure('power.watts', 'Power of the fans', 'power', fanRunA === null ? null : fanRunA * fanV, 'P = V · I', 'definition', { basis: 'estimated', inputs: [input('V', 'at the fan', fanV, 'voltage'), input('I', 'fans together', fanRunA, 'current')] }),
    ...(converter ? [figure('power.heat', 'Heat in the converter', 'power', heat, converter.kind === 'linear' ? 'P = (V_in − V_out) · I' : 'P = V·I·(1/η − 1)', 'power balance', { basis: 'estimated', inputs: [input('I', 'out of the converter', throughConverter, 'current')] })] : []),
  ]
  return {
    fanLowV: behind(outLow), fanV, fanHighV: outHigh, feedV: out, fanRunA, fanStartA, wireDropV: drop, wireAmpacityA: ampacity, loadRunA, loadStartA,
    converterOutA: converter ? throughConverter : null, utilisation, headroom: utilisation === null ? null : headroomVerdict(utilisation), figures,
  }
}
