import type { AirState } from '../air'
import { REFERENCE_DENSITY } from '../air'
import {
  bFromK, bOpening, dischargeCoefficients, ductDrop, filterMedia, kElbow, kExpansion, kPerforated, surfaces, type GrillePlace,
} from '../airpath'
import type { Resistance } from '../fan'
import type { ElementBasis, PathElement } from './document'
import { elementNames } from './defaults'
import { figure, input, type Figure, type FigureInput } from './figure'

/** Straight duct friction, kept as a function of flow. */
interface Friction { diameter: number, length: number, roughness: number, density: number, viscosity: number, factor: number }

/** One element in the air of the place: dp = a Q + b Q^2 + friction(Q). */
export interface ElementModel {
  element: PathElement
  a: number
  b: number
  friction: Friction | null
  /** what is still missing before it counts */
  missing: string | null
  formula: string
  inputs: FigureInput[]
  source: string
  /** relative doubt of the drop */
  doubt: number
}

export interface PathModel {
  elements: ElementModel[]
  /** every element but the fan's place counts */
  complete: boolean
  /** relative doubt of the whole drop is weighted with each element's share */
  hasFriction: boolean
}

/** Doubt of an element's loss by what it rests on: sums of loss coefficients ±30 %, filters ±50 % until measured. Common practice, no source. */
const doubtOf: Record<ElementBasis, number> = { 'measured': 0.1, 'sheet': 0.2, 'good-guess': 0.3, 'rough-guess': 0.5 }

/** Entrance loss of a duct that begins flush in a wall, on the duct's velocity. Published. */
const K_ENTRANCE = 0.5

const circle = (diameter: number) => Math.PI / 4 * diameter ** 2

/** The neighbour in the row that shapes the flow: the fan's place counts as a neighbour of its own. */
function placeOf(path: readonly PathElement[], index: number): GrillePlace {
  const solid = (e: PathElement) => e.kind !== 'chamber'
  const before = path.slice(0, index).some(solid)
  const after = path.slice(index + 1).some(solid)
  const fromOpen = !before || path[index - 1]?.kind === 'chamber'
  const toOpen = !after || path[index + 1]?.kind === 'chamber'
  if (fromOpen && !toOpen) return 'intake'
  if (toOpen) return 'exhaust'
  return 'in-duct'
}

/** Loss coefficients of a duct's two ends: into and out of rooms and chambers. */
function endLosses(path: readonly PathElement[], index: number, area: number): number {
  const isDuct = (e: PathElement | undefined) => e?.kind === 'duct' || e?.kind === 'bend'
  const before = path[index - 1]
  const after = path[index + 1]
  let k = 0
  if (!before || before.kind === 'chamber') k += K_ENTRANCE
  else if (isDuct(before) && before.diameterM && circle(before.diameterM) > area) k += 0.5 * (1 - area / circle(before.diameterM))
  if (!after) k += 1
  else if (after.kind === 'chamber') k += kExpansion(area, Math.max(after.areaM2 ?? Infinity, area))
  else if (isDuct(after) && after.diameterM && circle(after.diameterM) > area) k += kExpansion(area, circle(after.diameterM))
  return k
}

/** Coefficients of one element in the given air. */
export function modelElement(path: readonly PathElement[], index: number, air: AirState): ElementModel {
  const element = path[index]!
  const { density, viscosity } = air
  const model: ElementModel = { element, a: 0, b: 0, friction: null, missing: null, formula: '', inputs: [], source: '', doubt: doubtOf[element.basis] }
  const lacks = (text: string): ElementModel => ({ ...model, missing: text })
  const rho = input('ρ', 'air density', density, 'density')
  const area = element.areaM2
  switch (element.kind) {
    case 'opening': {
      if (!area) return lacks('its free area')
      const cd = dischargeCoefficients[element.edge ?? 'sharp']
      const inputs = [rho, input('A', 'free area', area, 'area'), input('Cd', 'discharge coefficient', cd, 'number')]
      return { ...model, b: bOpening(area, cd, density), formula: 'Δp = ρ/2 · (Q/(Cd·A))²', inputs, source: 'orifice equation; Cd published for sharp holes (from memory)' }
    }
    case 'grille': {
      if (!area) return lacks('its gross area')
      const s = element.freeAreaRatio
      const place = placeOf(path, index)
      const k = s ? kPerforated(s, place) : null
      if (k === null) return lacks('its free-area ratio')
      const inputs = [input('K', `loss coefficient, ${place}`, k, 'number'), input('s', 'free-area ratio', s, 'ratio'), rho, input('A', 'gross area', area, 'area')]
      return { ...model, b: bFromK(k, area, density), formula: 'Δp = K(s) · ρ/2 · (Q/A)²', inputs, source: 'sharp-edged plate, hydraulic-resistance handbook (from memory)' }
    }
    case 'filter': {
      if (!area) return lacks('its face area')
      const medium = filterMedia.find(m => m.key === element.medium)
      const c1 = medium?.c1 ?? element.c1
      const c2 = medium?.c2 ?? element.c2 ?? 0
      if (c1 === null) return lacks('its medium, or c1 from the data sheet')
      const load = element.loadFactor ?? 1
      const inputs = [
        input('c₁', 'linear coefficient, Pa·s/m', c1, 'number'), input('c₂', 'quadratic coefficient, Pa·s²/m²', c2, 'number'),
        input('A', 'face area', area, 'area'), input('L', 'load factor (1 clean)', load, 'number'),
      ]
      return {
        ...model, a: load * c1 / area * viscosity / 1.81e-5, b: load * c2 / area ** 2 * density / REFERENCE_DENSITY, formula: 'Δp = L · (c₁·Q/A + c₂·(Q/A)²)', inputs,
        source: medium ? 'typical clean medium: common practice, no source' : 'your data sheet', doubt: medium ? Math.max(0.5, model.doubt) : model.doubt,
      }
    }
    case 'duct': {
      if (!element.diameterM) return lacks('its bore')
      if (!element.lengthM) return lacks('its length')
      const surface = surfaces.find(s => s.key === element.surface) ?? surfaces[1]!
      const bore = circle(element.diameterM)
      const ends = endLosses(path, index, bore)
      const inputs = [
        input('D', 'bore', element.diameterM, 'length'), input('L', 'length', element.lengthM, 'distance'), input('e', `roughness, ${surface.name.toLowerCase()}`, surface.roughness, 'length'),
        input('K', 'ends: entrance and exit', ends, 'number'), input('m', 'slack hose', element.slack ?? 1, 'number'), rho, input('μ', 'viscosity, µPa·s', viscosity * 1e6, 'number'),
      ]
      return {
        ...model, b: bFromK(ends, bore, density), formula: 'Δp = (m·f(Re, e/D)·L/D + K) · ρ/2 · v²', inputs, source: 'Darcy-Weisbach; Colebrook 1939; 64/Re below Re 2300',
        friction: { diameter: element.diameterM, length: element.lengthM, roughness: surface.roughness, density, viscosity, factor: element.slack ?? 1 },
      }
    }
    case 'bend': {
      if (!element.diameterM) return lacks('its bore')
      const k = kElbow(element.radiusRatio ?? 1, element.angleDeg ?? 90)
      if (k === null) return lacks('a radius of at least half the bore and an angle of at most 90°')
      const count = element.count ?? 1
      const inputs = [input('K', 'loss coefficient of one', k, 'number'), input('n', 'how many', count, 'number'), input('D', 'bore', element.diameterM, 'length'), rho]
      return { ...model, b: count * bFromK(k, circle(element.diameterM), density), formula: 'Δp = n · K(r/D, angle) · ρ/2 · v²', inputs, source: 'round bends, ASHRAE (from memory)' }
    }
    case 'custom': {
      if (element.a === null && element.b === null) return lacks('a measured or data-sheet point')
      const inputs = [input('a', 'viscous part', element.a ?? 0, 'linearDrag'), input('b', 'inertial part', element.b ?? 0, 'quadraticDrag')]
      return { ...model, a: (element.a ?? 0) * viscosity / 1.81e-5, b: (element.b ?? 0) * density / REFERENCE_DENSITY, formula: 'Δp = a·Q + b·Q²', inputs, source: 'your own values, scaled to this air' }
    }
    case 'chamber':
      return { ...model, formula: 'Δp ≈ 0: the air is nearly at rest', source: 'free chamber; what enters and leaves is counted at its openings' }
    case 'fan':
      return { ...model, formula: 'where the fan sits', source: '' }
  }
}

/** The whole path in the given air. */
export function modelPath(path: readonly PathElement[], air: AirState): PathModel {
  const elements = path.map((_, i) => modelElement(path, i, air))
  const counted = elements.filter(e => e.element.kind !== 'fan')
  return { elements, complete: counted.length > 0 && counted.every(e => !e.missing), hasFriction: elements.some(e => e.friction) }
}

const frictionDrop = (f: Friction, q: number) => f.factor * ductDrop(q, f.diameter, f.length, f.roughness, f.density, f.viscosity)

/** Drop of one element at a flow, Pa. */
export function elementDrop(e: ElementModel, q: number): number {
  return (e.a + e.b * q) * q + (e.friction ? frictionDrop(e.friction, q) : 0)
}

/** Drop of the whole path at a flow, Pa. */
export const pathDrop = (path: PathModel, q: number): number => path.elements.reduce((s, e) => s + elementDrop(e, q), 0)

/**
 * Coefficients a, b that meet the path's drop and slope at a flow. Exact for a Q + b Q^2; for duct friction it is the
 * local fit, so that a solver which re-fits at its answer ends on the true curve.
 * @param q m3/s, > 0
 */
export function localResistance(path: PathModel, q: number): Resistance {
  let a = 0
  let b = 0
  for (const e of path.elements) {
    a += e.a
    b += e.b
    if (!e.friction) continue
    const step = 1e-4 * q
    const drop = frictionDrop(e.friction, q)
    const slope = (frictionDrop(e.friction, q + step) - frictionDrop(e.friction, q - step)) / (2 * step)
    a += 2 * drop / q - slope
    b += (slope * q - drop) / q ** 2
  }
  return { a, b }
}

/** Relative doubt of the whole drop at a flow: the elements' doubts weighted by their drops (they may all err the same way). */
export function pathDoubt(path: PathModel, q: number): number {
  const total = pathDrop(path, q)
  return total > 0 ? path.elements.reduce((s, e) => s + e.doubt * elementDrop(e, q), 0) / total : 0
}

/** Figure of one element's drop. */
export function elementFigure(e: ElementModel, q: number | null): Figure {
  const drop = q === null || e.missing ? null : elementDrop(e, q)
  return figure(`path.${e.element.id}`, e.element.name || elementNames[e.element.kind], 'pressure', drop, e.formula, e.source, {
    basis: e.element.basis === 'measured' ? 'measured' : e.element.basis === 'sheet' ? 'curve' : 'estimated',
    inputs: [...e.inputs, input('Q', 'flow', q, 'flow')], low: drop === null ? null : drop * (1 - e.doubt), high: drop === null ? null : drop * (1 + e.doubt),
    note: e.missing ? `Not counted yet: it lacks ${e.missing}.` : '',
  })
}
