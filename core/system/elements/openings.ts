import {
  bFromK,
  bOpening,
  dischargeCoefficients,
  freeShare,
  hoods,
  kMesh,
  meshFactor,
  kPerforated,
  outlets,
  slitDrop,
  USUAL_WIRE_M,
  type Piece,
} from '#core/airpath'
import type { PathElement } from '#core/document'
import { input } from '#core/figure'
import { boreArea, circle, entranceLoss, exitLoss, placeOf } from './junctions'
import { lacks, rho, type Made, type Modeler, type Spot } from './model'

/** Free-area ratio that was typed, or that the hole pattern gives. */
export function freeAreaRatioOf(e: PathElement): number | null {
  if (e.freeAreaRatio !== null) return e.freeAreaRatio
  return e.pattern && e.holeM && e.pitchM ? freeShare(e.pattern, e.holeM, e.pitchM) : null
}

/** A plain hole by its edge. */
export const opening: Modeler = (e, spot) => {
  if (!e.areaM2) return lacks('its free area')
  const cd = dischargeCoefficients[e.edge ?? 'sharp']
  return {
    b: bOpening(e.areaM2, cd, spot.air.density),
    formula: 'Δp = ρ/2 · (Q/(Cd·A))²',
    source: 'orifice equation; Cd published for sharp holes (from memory)',
    inputs: [
      rho(spot),
      input('A', 'free area', e.areaM2, 'area'),
      input('Cd', 'discharge coefficient', cd, 'number'),
    ],
  }
}

/** A slot: its edges as an orifice, and the plates' friction where it is deep. */
export const slot: Modeler = (e, spot) => {
  if (!e.widthM) return lacks('its length')
  if (!e.gapM) return lacks('its width')
  const { density, viscosity } = spot.air
  const area = e.widthM * e.gapM
  const { gapM: gap, lengthM: depth } = e
  return {
    b: bOpening(area, dischargeCoefficients.slot, density),
    ...(depth ? { extra: (q: number) => slitDrop(gap, depth, q / area, viscosity) } : {}),
    formula: depth ? 'Δp = ρ/2 · (Q/(Cd·A))² + 12·μ·L·v/s²' : 'Δp = ρ/2 · (Q/(Cd·A))²',
    source: 'orifice equation; plane Poiseuille flow for its depth',
    inputs: [
      rho(spot),
      input('A', 'free area', area, 'area'),
      input('s', 'width of the slot', gap, 'length'),
      input('Cd', 'discharge coefficient', dischargeCoefficients.slot, 'number'),
      ...(depth
        ? [input('L', 'depth', depth, 'length'), input('μ', 'viscosity, µPa·s', viscosity * 1e6, 'number')]
        : []),
    ],
  }
}

/** Diameter of the wires of a mesh, m: from its pattern, else what is usual. */
function wireOf(e: PathElement): { wire: number; known: boolean } {
  const wire = e.pattern === 'mesh' && e.holeM && e.pitchM ? e.pitchM - e.holeM : null
  return wire && wire > 0 ? { wire, known: true } : { wire: USUAL_WIRE_M, known: false }
}

/** Woven mesh: its own law with the factor of slow air past fine wires, and what its place adds. */
function mesh(e: PathElement, spot: Spot, s: number): Made {
  const place = placeOf(spot)
  const ends = place === 'in-duct' ? 0 : place === 'intake' ? 0.5 : 1
  const k = kMesh(s)
  if (k === null) return lacks('a free-area ratio above 0')
  const { density, viscosity } = spot.air
  const { wire, known } = wireOf(e)
  const area = e.areaM2!
  const b = bFromK(k, area, density)
  return {
    b: bFromK(ends, area, density),
    extra: (q) => (q > 0 ? b * q * q * meshFactor((density * q * wire) / (area * viscosity)) : 0),
    formula: 'Δp = (K(s)·f(Re) + K_ends) · ρ/2 · (Q/A)², Re = ρ·v·d/μ',
    source:
      'woven round wire, hydraulic-resistance handbook (from memory), with the entrance or exit of its place',
    inputs: [
      input('K', 'mesh', k, 'number'),
      input('K_ends', place, ends, 'number'),
      input('s', 'free-area ratio', s, 'ratio'),
      input('d', known ? 'wire' : 'wire, assumed', wire, 'length'),
      input('μ', 'viscosity, µPa·s', viscosity * 1e6, 'number'),
      rho(spot),
      input('A', 'gross area', area, 'area'),
    ],
  }
}

/** Grilles, guards, perforated sheets by their sharp-edged plate; woven mesh by its own law. */
export const grille: Modeler = (e, spot) => {
  if (!e.areaM2) return lacks('its gross area')
  const s = freeAreaRatioOf(e)
  if (s === null)
    return lacks(
      e.pattern ? 'holes that do not overlap: hole below pitch' : 'its free-area ratio, or its hole pattern',
    )
  if (e.style === 'mesh') return mesh(e, spot, s)
  const place = placeOf(spot)
  const k = kPerforated(s, place)
  if (k === null) return lacks('a free-area ratio above 0')
  return {
    b: bFromK(k, e.areaM2, spot.air.density),
    formula: 'Δp = K(s) · ρ/2 · (Q/A)²',
    source: 'sharp-edged plate, hydraulic-resistance handbook (from memory)',
    inputs: [
      input('K', `loss coefficient, ${place}`, k, 'number'),
      input('s', 'free-area ratio', s, 'ratio'),
      rho(spot),
      input('A', 'gross area', e.areaM2, 'area'),
    ],
  }
}

/** A piece at the end of a pipe; `more` is what its other side adds. */
function endPiece(list: readonly Piece[], e: PathElement, spot: Spot, more: (area: number) => number) {
  const area = boreArea(e)
  if (!area || !e.diameterM) return lacks('its bore')
  const piece = list.find((p) => p.key === e.style) ?? list[0]!
  const other = more(area)
  return {
    b: bFromK(piece.k + other, circle(e.diameterM), spot.air.density),
    formula: 'Δp = (K + K_other) · ρ/2 · v²',
    source: piece.source,
    doubt: piece.k > 0 ? (piece.high - piece.low) / 2 / piece.k : 0,
    inputs: [
      input('K', piece.name.toLowerCase(), piece.k, 'number'),
      ...(other > 0 ? [input('K_other', 'its other side', other, 'number')] : []),
      input('D', 'bore', e.diameterM, 'length'),
      rho(spot),
    ],
  }
}
/** The end of a pipe or a hood: what follows it pays the way on, or it opens into a room itself. */
export const hood: Modeler = (e, spot) => endPiece(hoods, e, spot, (area) => exitLoss(spot, area))
/** Where the air leaves; taken straight from a room it has an entrance as well. */
export const outlet: Modeler = (e, spot) => endPiece(outlets, e, spot, (area) => entranceLoss(spot, area))
