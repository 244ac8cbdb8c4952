import { packVoltage, supplyDefaults } from '#core/power'
import type { Battery, PlanDocument, Source } from '#core/document'

/** Between what a source's voltage lies, V. */
export interface SourceWindow {
  lowV: number
  nominalV: number
  highV: number
}

/** Open-circuit voltage of an unregulated adapter over its label at light load. Common practice, no source (1.3 to 1.5). */
const UNREGULATED = 1.5
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
function usualWindow({ battery, wiring }: PlanDocument, source: Source, nominalV: number) {
  const cells = source.kind === 'pack' ? ofCells(battery) : null
  if (cells) return cells
  if (source.kind === 'header' && wiring.headerMode === 'voltage')
    return { lowV: Math.min(HEADER_LOW_V, nominalV), highV: nominalV * (1 + HEADER_TOLERANCE) }
  const usual = supplyDefaults.find((s) => s.kind === source.kind)
  const share = (end: 'lowV' | 'highV') => (usual ? (nominalV * usual[end]) / usual.nominalV : nominalV)
  if (source.kind === 'adapter' && source.regulated === false)
    return { lowV: share('lowV'), highV: nominalV * UNREGULATED }
  return { lowV: share('lowV'), highV: share('highV') }
}

/**
 * The voltage window that a source is judged by: what is typed of it, else what is usual for its kind at its nominal
 * voltage: cells in a row by their chemistry and number, an unregulated adapter up to 1.5 times its label, a header in
 * three-pin mode from 5 V. What was measured without load counts as its highest.
 * @param source one of the plan's; the first one where not given
 * @returns null without a source that has a voltage
 * Reference: docs/physics.md, sources (windows of common practice, batteries and USB from memory)
 */
export function windowOf(plan: PlanDocument, source = plan.source): SourceWindow | null {
  if (!source || source.kind === 'none' || source.nominalV === null) return null
  const { nominalV } = source
  const usual = usualWindow(plan, source, nominalV)
  const lowV = Math.min(source.lowV ?? usual.lowV, nominalV)
  const highV = Math.max(source.highV ?? (source.openV === null ? usual.highV : source.openV), nominalV)
  return { lowV, nominalV, highV: Math.max(highV, source.openV ?? 0) }
}
