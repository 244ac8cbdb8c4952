import { packVoltage, supplyDefaults } from '#core/power'
import { sourceOf, type Battery, type StreamPlan, type Source } from '#core/document'

/** What a source gives: its voltage without load, V, and what it loses for each ampere drawn, ohm. */
export interface Emf {
  volts: number
  ohm: number
}
/** Between what a source's voltage lies, V; `emf` at its lowest, as planned and at its highest. */
export interface SourceWindow {
  lowV: number
  nominalV: number
  highV: number
  emf: { low: Emf; nominal: Emf; high: Emf }
}

/** Open-circuit voltage of an unregulated adapter over its label at light load. Common practice, no source (1.3 to 1.5). */
const UNREGULATED = { low: 1.3, nominal: 1.4, high: 1.5 }
/** What a header gives that drives three-wire fans by its voltage, V, and its tolerance. From memory. */
const HEADER_LOW_V = 5
const HEADER_TOLERANCE = 0.1

/** Cells in a row as a window; null where chemistry or number is not known, or belongs to no cells of these. */
function ofCells(battery: Battery | null): { lowV: number; highV: number } | null {
  if (!battery?.cells || (battery.chemistry !== 'li-ion' && battery.chemistry !== 'lifepo4')) return null
  return {
    lowV: packVoltage(battery.chemistry, battery.cells, 'empty'),
    highV: packVoltage(battery.chemistry, battery.cells, 'full'),
  }
}

/** Nominal voltage of cells in a row, V; null where chemistry or number is not known. */
export const packNominal = (battery: Battery): number | null =>
  battery.cells && (battery.chemistry === 'li-ion' || battery.chemistry === 'lifepo4')
    ? Math.round(100 * packVoltage(battery.chemistry, battery.cells, 'nominal')) / 100
    : null

/** What is usual for a source where its ends are not typed, V. */
function usualWindow({ battery, wiring }: StreamPlan, source: Source, nominalV: number) {
  const cells = source.kind === 'pack' ? ofCells(battery) : null
  if (cells) return cells
  if (source.kind === 'header' && wiring.headerMode === 'voltage')
    return { lowV: Math.min(HEADER_LOW_V, nominalV), highV: nominalV * (1 + HEADER_TOLERANCE) }
  const usual = supplyDefaults.find((s) => s.kind === source.kind)
  const share = (end: 'lowV' | 'highV') => (usual ? (nominalV * usual[end]) / usual.nominalV : nominalV)
  if (source.kind === 'adapter' && source.regulated === false)
    return { lowV: share('lowV'), highV: nominalV * UNREGULATED.high }
  return { lowV: share('lowV'), highV: share('highV') }
}

/** A source that holds its voltage whatever is drawn. */
const firm = (volts: number): Emf => ({ volts, ohm: 0 })

/**
 * An unregulated adapter gives the voltage of its label at the current of its label, and more the less is drawn: a straight
 * line from its voltage without load. Its lowest and highest follow the mains as far as those of others of its kind do.
 * Where that voltage was not measured it is taken as usual; without the current of its label the slope is not known, and
 * the label's voltage is planned with.
 */
function emfOf(source: Source, ends: Pick<SourceWindow, 'lowV' | 'nominalV' | 'highV'>): SourceWindow['emf'] {
  const { lowV, nominalV, highV } = ends
  const { kind, regulated, iMaxA, openV } = source
  if (kind !== 'adapter' || regulated !== false || iMaxA === null)
    return { low: firm(lowV), nominal: firm(nominalV), high: firm(highV) }
  const line = (volts: number, atLabelV: number): Emf => ({
    volts,
    ohm: Math.max(0, volts - atLabelV) / iMaxA,
  })
  // a highest voltage that was typed is one that it does not pass
  const open = (end: keyof typeof UNREGULATED) => Math.min(highV, openV ?? UNREGULATED[end] * nominalV)
  const mains = lowV / nominalV
  return {
    low: line(Math.max(lowV, open('low') * mains), lowV),
    nominal: line(Math.max(nominalV, open('nominal')), nominalV),
    high: line(highV, Math.min(highV, nominalV * (2 - mains))),
  }
}

/**
 * What a source gives at a current, V, as planned.
 * @param window of the source
 * @param amps drawn from it, A, 0 and above
 */
export const loadedV = ({ emf: { nominal } }: SourceWindow, amps: number): number =>
  Math.max(0, nominal.volts - nominal.ohm * amps)

/**
 * The voltage window that a source is judged by: what is typed of it, else what is usual for its kind at its nominal
 * voltage: cells in a row by their chemistry and number, an unregulated adapter up to 1.5 times its label, a header in
 * three-pin mode from 5 V. What was measured without load counts as its highest.
 * @param source one of the plan's; that of the stream's fans where not given
 * @returns null without a source that has a voltage
 * Reference: docs/physics.md, sources (windows of common practice, batteries and USB from memory)
 */
export function windowOf(plan: StreamPlan, source = sourceOf(plan)): SourceWindow | null {
  if (!source || source.kind === 'none' || source.nominalV === null) return null
  const { nominalV } = source
  const usual = usualWindow(plan, source, nominalV)
  const lowV = Math.min(source.lowV ?? usual.lowV, nominalV)
  const highV = Math.max(source.highV ?? (source.openV === null ? usual.highV : source.openV), nominalV)
  const ends = { lowV, nominalV, highV: Math.max(highV, source.openV ?? 0) }
  return { ...ends, emf: emfOf(source, ends) }
}
