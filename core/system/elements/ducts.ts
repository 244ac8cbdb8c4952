import {
  adapterLoss,
  bFromK,
  ductDrop,
  FLAP_PRESSURE,
  flapPiece,
  hydraulicDiameter,
  kDamper,
  kElbow,
  kReducer,
  kSlideGate,
  laminarConstant,
  mitres,
  surfaces,
  wyes,
} from '#core/airpath'
import { input } from '#core/figure'
import { boreArea, circle, endLosses, lacks, rho, type Modeler } from './model'

/** Laminar friction constant f Re of a round duct. Published. */
const ROUND_CONSTANT = 64
const RE_LAMINAR = 2300

/** A straight duct or hose: friction, and the losses of its ends. */
export const duct: Modeler = (e, spot) => {
  const area = boreArea(e)
  if (!area) return lacks('its bore')
  if (!e.lengthM) return lacks('its length')
  const { density, viscosity } = spot.air
  const { lengthM: length, widthM: width, heightM: height } = e
  const rectangle = width && height
  const bore = rectangle ? hydraulicDiameter(width, height) : e.diameterM!
  const laminar = rectangle
    ? laminarConstant(Math.min(width, height) / Math.max(width, height)) / ROUND_CONSTANT
    : 1
  const surface = surfaces.find((s) => s.key === e.surface) ?? surfaces[1]!
  const slack = e.slack ?? 1
  const ends = endLosses(spot, area)
  // friction is taken at the flow of a round duct with the same mean velocity
  const same = circle(bore) / area
  return {
    b: bFromK(ends, area, density),
    extra: (q) => {
      const turbulent = ductDrop(q * same, bore, length, surface.roughness, density, viscosity)
      const reynolds = (((density * q) / area) * bore) / viscosity
      return slack * turbulent * (reynolds < RE_LAMINAR ? laminar : 1)
    },
    formula: 'Δp = (m·f(Re, e/D)·L/D + K) · ρ/2 · v²',
    source: 'Darcy-Weisbach; Colebrook 1939; 64/Re below Re 2300 (rectangles: Shah and London)',
    inputs: [
      input('D', rectangle ? 'hydraulic diameter' : 'bore', bore, 'length'),
      input('L', 'length', length, 'distance'),
      input('e', `roughness, ${surface.name.toLowerCase()}`, surface.roughness, 'length'),
      input('K', 'ends: entrance and exit', ends, 'number'),
      input('m', 'slack hose', slack, 'number'),
      rho(spot),
      input('μ', 'viscosity, µPa·s', viscosity * 1e6, 'number'),
    ],
  }
}

/** Bends of one kind. */
export const bend: Modeler = (e, spot) => {
  if (!e.diameterM) return lacks('its bore')
  const mitre = mitres.find((m) => m.key === e.style)
  const k = mitre ? mitre.k : kElbow(e.radiusRatio ?? 1, e.angleDeg ?? 90)
  if (k === null) return lacks('a radius of at least half the bore and an angle of at most 90°')
  const count = e.count ?? 1
  return {
    b: count * bFromK(k, circle(e.diameterM), spot.air.density),
    formula: mitre ? 'Δp = n · K · ρ/2 · v²' : 'Δp = n · K(r/D, angle) · ρ/2 · v²',
    source: mitre ? mitre.source : 'round bends, ASHRAE (from memory)',
    inputs: [
      input('K', 'loss coefficient of one', k, 'number'),
      input('n', 'how many', count, 'number'),
      input('D', 'bore', e.diameterM, 'length'),
      rho(spot),
    ],
  }
}

/** A narrowing or widening. */
export const reducer: Modeler = (e, spot) => {
  if (!e.diameterM) return lacks('the bore before it')
  if (!e.diameter2M) return lacks('the bore after it')
  const from = circle(e.diameterM)
  const to = circle(e.diameter2M)
  const angle = e.angleDeg ?? 180
  const k = kReducer(from, to, angle)
  return {
    b: bFromK(k, Math.min(from, to), spot.air.density),
    formula: 'Δp = K · ρ/2 · v², v in the narrow bore',
    source:
      to > from ? 'Borda-Carnot; diffuser share from memory' : 'narrowing: hydraulics handbooks (from memory)',
    inputs: [
      input('K', to > from ? 'widening' : 'narrowing', k, 'number'),
      input('D₁', 'bore before', e.diameterM, 'length'),
      input('D₂', 'bore after', e.diameter2M, 'length'),
      input('α', 'total angle, degrees (180 sudden)', angle, 'number'),
      rho(spot),
    ],
  }
}

/** Two streams that join or part. */
export const wye: Modeler = (e, spot) => {
  if (!e.diameterM) return lacks('its bore')
  const piece = wyes.find((w) => w.key === e.style) ?? wyes[0]!
  return {
    b: bFromK(piece.k, circle(e.diameterM), spot.air.density),
    formula: 'Δp = K · ρ/2 · v², v in this branch',
    source: piece.source,
    inputs: [
      input('K', piece.name.toLowerCase(), piece.k, 'number'),
      input('D', 'bore of the branch', e.diameterM, 'length'),
      rho(spot),
    ],
  }
}

/** A blade or slide that throttles. */
export const damper: Modeler = (e, spot) => {
  if (!e.diameterM) return lacks('its bore')
  const slide = e.style === 'slide'
  const k = slide ? kSlideGate(e.freeAreaRatio ?? 1) : kDamper(e.angleDeg ?? 0)
  if (k === null)
    return lacks(slide ? 'an open share of at least a quarter' : 'a blade angle of at most 70° from open')
  return {
    b: bFromK(k, circle(e.diameterM), spot.air.density),
    formula: slide ? 'Δp = K(open share) · ρ/2 · v²' : 'Δp = K(angle) · ρ/2 · v²',
    source: slide ? 'slide gate, from memory' : 'round blade damper after Weisbach (from memory)',
    inputs: [input('K', 'loss coefficient', k, 'number'), input('D', 'bore', e.diameterM, 'length'), rho(spot)],
  }
}

/** A one-way flap: nothing passes below the pressure that lifts it. */
export const flap: Modeler = (e, spot) => {
  if (!e.diameterM) return lacks('its bore')
  return {
    staticHead: FLAP_PRESSURE.value,
    b: bFromK(flapPiece.k, circle(e.diameterM), spot.air.density),
    formula: 'Δp = p₀ + K · ρ/2 · v²',
    source: flapPiece.source,
    uncertainty: 0.45,
    inputs: [
      input('p₀', 'holds it open (2 to 5 Pa)', FLAP_PRESSURE.value, 'pressure'),
      input('K', 'once open', flapPiece.k, 'number'),
      input('D', 'bore', e.diameterM, 'length'),
      rho(spot),
    ],
  }
}

/** A box between two bores: the jet is lost, then half a velocity head. */
export const adapter: Modeler = (e, spot) => {
  const inlet = boreArea(e)
  if (!inlet) return lacks('the opening it takes the air from')
  if (!e.diameter2M) return lacks('the round opening it ends in')
  const out = circle(e.diameter2M)
  return {
    b: (adapterLoss(inlet, out) * spot.air.density) / 2,
    formula: 'Δp = ρ/2 · (v₁² + 0.5·v₂²)',
    source: 'jet lost in the box (Borda-Carnot), sharp entrance to the second bore',
    uncertainty: 0.3,
    inputs: [
      input('A₁', 'opening into the box', inlet, 'area'),
      input('A₂', 'opening out of it', out, 'area'),
      rho(spot),
    ],
  }
}
