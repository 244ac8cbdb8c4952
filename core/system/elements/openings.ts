import {
  bFromK,
  bOpening,
  dischargeCoefficients,
  freeShare,
  hoods,
  kMesh,
  kPerforated,
  outlets,
  slitDrop,
  type Piece,
} from '#core/airpath'
import type { PathElement } from '#core/document'
import { input } from '#core/figure'
import { circle, lacks, placeOf, rho, type Modeler, type Spot } from './model'

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
      ...(depth ? [input('L', 'depth', depth, 'length')] : []),
    ],
  }
}

/** Grilles, guards, perforated sheets by their sharp-edged plate; woven mesh by its own law plus what its place adds. */
export const grille: Modeler = (e, spot) => {
  if (!e.areaM2) return lacks('its gross area')
  const s = freeAreaRatioOf(e)
  if (s === null)
    return lacks(
      e.pattern ? 'holes that do not overlap: hole below pitch' : 'its free-area ratio, or its hole pattern',
    )
  const place = placeOf(spot)
  const woven = e.style === 'mesh'
  const ends = place === 'in-duct' ? 0 : place === 'intake' ? 0.5 : 1
  const k = woven ? (kMesh(s) ?? 0) + ends : kPerforated(s, place)
  if (k === null) return lacks('a free-area ratio above 0')
  return {
    b: bFromK(k, e.areaM2, spot.air.density),
    formula: 'Δp = K(s) · ρ/2 · (Q/A)²',
    source: woven
      ? 'woven round wire, hydraulic-resistance handbook (from memory), with the entrance or exit of its place'
      : 'sharp-edged plate, hydraulic-resistance handbook (from memory)',
    inputs: [
      input('K', `loss coefficient, ${place}`, k, 'number'),
      input('s', 'free-area ratio', s, 'ratio'),
      rho(spot),
      input('A', 'gross area', e.areaM2, 'area'),
    ],
  }
}

function endPiece(list: readonly Piece[], e: PathElement, spot: Spot) {
  if (!e.diameterM) return lacks('its bore')
  const piece = list.find((p) => p.key === e.style) ?? list[0]!
  const band = piece.k > 0 ? (piece.high - piece.low) / 2 / piece.k : 0
  return {
    b: bFromK(piece.k, circle(e.diameterM), spot.air.density),
    formula: 'Δp = K · ρ/2 · v²',
    source: piece.source,
    ...(band > 0.3 ? { uncertainty: band } : {}),
    inputs: [
      input('K', piece.name.toLowerCase(), piece.k, 'number'),
      input('D', 'bore', e.diameterM, 'length'),
      rho(spot),
    ],
  }
}
/** The end of a pipe or a hood. */
export const hood: Modeler = (e, spot) => endPiece(hoods, e, spot)
/** Where the air leaves. */
export const outlet: Modeler = (e, spot) => endPiece(outlets, e, spot)
