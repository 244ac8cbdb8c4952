import { REFERENCE_DENSITY } from '#core/air'
import { filterMedia, finDrop, fitResistance, mediumDoubt, packedBedDrop } from '#core/airpath'
import type { PathElement } from '#core/document'
import { input } from '#core/figure'
import { lacks, REFERENCE_VISCOSITY, rho, type Made, type Modeler } from './model'

/**
 * Void share of a bed of grains, 0.38 to 0.45, and what that band is worth in its loss: (1−ε)²/ε³ falls from 1.6 to 0.75
 * times. Common practice, no source.
 */
const BED_VOIDS = 0.42
const BED_DOUBT = 0.5
/** Real heatsinks with air passing beside their fins. Common practice, no source (±25 %). */
const FIN_DOUBT = 0.25

/** A filter by its table or sheet. */
export const filter: Modeler = (e, spot) => {
  if (!e.areaM2) return lacks('its face area')
  if (e.medium === 'bed') return bed(e, spot)
  const { density, viscosity } = spot.air
  const medium = filterMedia.find((m) => m.key === e.medium)
  const fitted = medium ? null : ofPoints(e)
  const c1 = medium?.c1 ?? (fitted ? fitted.a * e.areaM2 : e.c1)
  const c2 = medium?.c2 ?? (fitted ? fitted.b * e.areaM2 ** 2 : e.c2) ?? 0
  if (c1 === null) return lacks('its medium, or a point or c₁ of the data sheet')
  const load = e.loadFactor ?? 1
  return {
    a: (((load * c1) / e.areaM2) * viscosity) / REFERENCE_VISCOSITY,
    b: (((load * c2) / e.areaM2 ** 2) * density) / REFERENCE_DENSITY,
    formula: 'Δp = L · (c₁·Q/A + c₂·(Q/A)²)',
    source: medium ? 'typical clean medium: common practice, no source' : 'your data sheet',
    doubt: medium ? mediumDoubt(medium) : 0,
    inputs: [
      input('c₁', 'linear coefficient, Pa·s/m', c1, 'number'),
      input('c₂', 'quadratic coefficient, Pa·s²/m²', c2, 'number'),
      input('A', 'face area', e.areaM2, 'area'),
      input('L', 'load factor (1 clean)', load, 'number'),
    ],
  }
}

function bed(e: PathElement, spot: Parameters<Modeler>[1]): Made {
  if (!e.lengthM) return lacks('the depth of the bed')
  if (!e.grainM) return lacks('the size of its grains')
  const { density, viscosity } = spot.air
  const area = e.areaM2!
  // Ergun is exactly a v + b v^2: its two parts are read off at 1 m/s
  const at = (speed: number, rho_: number, mu: number) =>
    packedBedDrop(e.lengthM!, BED_VOIDS, e.grainM!, speed, rho_, mu)
  const load = e.loadFactor ?? 1
  return {
    a: (load * at(1, 0, viscosity)) / area,
    b: (load * at(1, density, 0)) / area ** 2,
    formula: 'Δp/L = 150·μ·(1−ε)²·v/(ε³·d²) + 1.75·ρ·(1−ε)·v²/(ε³·d)',
    source: 'Ergun 1952',
    doubt: BED_DOUBT,
    inputs: [
      input('L', 'depth of the bed', e.lengthM, 'length'),
      input('d', 'grain', e.grainM, 'length'),
      input('ε', 'share of voids', BED_VOIDS, 'ratio'),
      input('μ', 'viscosity, µPa·s', viscosity * 1e6, 'number'),
      input('A', 'face area', area, 'area'),
      rho(spot),
    ],
  }
}

/** Channels between fins. */
export const fins: Modeler = (e, spot) => {
  if (!e.gapM) return lacks('the gap between its fins')
  if (!e.heightM) return lacks('the height of its fins')
  if (!e.lengthM) return lacks('the length along the air')
  if (!e.count) return lacks('the number of channels')
  const { density, viscosity } = spot.air
  const shape = {
    gap: e.gapM,
    height: e.heightM,
    length: e.lengthM,
    channels: e.count,
    finThickness: e.finM ?? 0.001,
  }
  return {
    extra: (q) => finDrop(shape, q, density, viscosity),
    formula: 'Δp = (Kc + 4·f_app·L/D_h + Ke) · ρ/2 · v²',
    source:
      'developing laminar flow between fins, heatsink literature (from memory); above Re 2300 smooth-duct friction',
    doubt: FIN_DOUBT,
    inputs: [
      input('s', 'gap', shape.gap, 'length'),
      input('H', 'fin height', shape.height, 'length'),
      input('L', 'length', shape.length, 'length'),
      input('n', 'channels', shape.channels, 'number'),
      input('t', 'fin thickness', shape.finThickness, 'length'),
      rho(spot),
    ],
  }
}

/** Coefficients through an element's own points; null without any. */
export const ofPoints = (e: PathElement) =>
  e.points.length
    ? fitResistance(
        e.points.map((p) => p.flowM3s),
        e.points.map((p) => p.pressurePa),
      )
    : null

/** Own values or measured points. */
export const custom: Modeler = (e, spot) => {
  const fitted = ofPoints(e)
  const a = fitted?.a ?? e.a
  const b = fitted?.b ?? e.b
  if (a === null && b === null && e.headPa === null) return lacks('a measured or data-sheet point, or a head')
  const { density, viscosity } = spot.air
  return {
    a: ((a ?? 0) * viscosity) / REFERENCE_VISCOSITY,
    b: ((b ?? 0) * density) / REFERENCE_DENSITY,
    staticHead: e.headPa ?? 0,
    formula: e.headPa ? 'Δp = p₀ + a·Q + b·Q²' : 'Δp = a·Q + b·Q²',
    source: fitted
      ? `least squares through ${e.points.length} point${e.points.length > 1 ? 's' : ''} and the origin, scaled to this air`
      : 'your own values, scaled to this air',
    inputs: [
      input('a', 'viscous part', a ?? 0, 'linearDrag'),
      input('b', 'inertial part', b ?? 0, 'quadraticDrag'),
      ...(e.headPa ? [input('p₀', 'opposes before any air moves', e.headPa, 'pressure')] : []),
    ],
  }
}

/** A chamber loses nothing itself. */
export const chamber: Modeler = () => ({
  formula: 'Δp ≈ 0: the air is nearly at rest',
  source: 'free chamber; what enters and leaves is counted at its openings',
  inputs: [],
})
/** The place of the fan: it resists nothing. */
export const fanPlace: Modeler = () => ({ formula: 'where the fan sits', source: '', inputs: [] })
