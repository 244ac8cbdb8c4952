import {
  adapterLoss,
  bFromK,
  ductDrop,
  FLAP_PRESSURE,
  flapPiece,
  hydraulicDiameter,
  kDamper,
  kElbow,
  kExit,
  kReducer,
  kSlideGate,
  laminarConstant,
  mitres,
  ROUND_LAMINAR,
  slackDoubt,
  surfaces,
  wyes,
} from '#core/airpath'
import { input } from '#core/figure'
import { boreArea, circle, entranceLoss, exitLoss } from './junctions'
import { lacks, rho, type Modeler, type Spot } from './model'

/** Doubt of a piece's loss coefficient: half its band over its middle. */
const pieceDoubt = ({ low, high, k }: { low: number; high: number; k: number }) =>
  k > 0 ? (high - low) / 2 / k : 0

/** Coefficient b of the ends of a fitting, Pa.s2/m6, and the two coefficients as inputs. */
function ends(spot: Spot, inArea: number, outArea = inArea) {
  const into = entranceLoss(spot, inArea)
  const out = exitLoss(spot, outArea)
  const { density } = spot.air
  return {
    b: bFromK(into, inArea, density) + bFromK(out, outArea, density),
    inputs: [
      ...(into > 0 ? [input('K_in', 'way in', into, 'number')] : []),
      ...(out > 0 ? [input('K_out', 'way out', out, 'number')] : []),
    ],
  }
}

/** A straight duct or hose: friction, and the losses of its ends. */
export const duct: Modeler = (e, spot) => {
  const area = boreArea(e)
  if (!area) return lacks('its bore')
  if (!e.lengthM) return lacks('its length')
  const { density, viscosity } = spot.air
  const { lengthM: length, widthM: width, heightM: height } = e
  const rectangle = width && height
  const bore = rectangle ? hydraulicDiameter(width, height) : e.diameterM!
  const laminar = rectangle ? laminarConstant(Math.min(width, height) / Math.max(width, height)) : ROUND_LAMINAR
  const surface = surfaces.find((s) => s.key === e.surface) ?? surfaces[1]!
  const slack = e.slack ?? 1
  const into = entranceLoss(spot, area)
  const free = exitLoss(spot, area, 2) > exitLoss(spot, area)
  const out = exitLoss(spot, area)
  // friction is taken at the flow of a round duct with the same mean velocity
  const same = circle(bore) / area
  const reynolds = (q: number) => (((density * q) / area) * bore) / viscosity
  return {
    b: bFromK(into + (free ? 0 : out), area, density),
    extra: (q) =>
      slack * ductDrop(q * same, bore, length, surface.roughness, density, viscosity, laminar) +
      (free && q > 0 ? bFromK(out * kExit(reynolds(q)), area, density) * q * q : 0),
    doubt: slackDoubt(slack),
    formula: 'Δp = (m·f(Re, e/D)·L/D + K) · ρ/2 · v²',
    source:
      'Darcy-Weisbach; Colebrook 1939; 64/Re below Re 2300 (rectangles: Shah and London), straight between 2300 and 4000',
    inputs: [
      input('D', rectangle ? 'hydraulic diameter' : 'bore', bore, 'length'),
      input('A', 'cross-section', area, 'area'),
      input('L', 'length', length, 'distance'),
      input('e', `roughness, ${surface.name.toLowerCase()}`, surface.roughness, 'length'),
      input('K_in', 'way in', into, 'number'),
      input('K_out', free ? 'way out (twice that below Re 2300)' : 'way out', out, 'number'),
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
  const ended = ends(spot, circle(e.diameterM))
  return {
    b: count * bFromK(k, circle(e.diameterM), spot.air.density) + ended.b,
    doubt: mitre ? pieceDoubt(mitre) : 0,
    formula: 'Δp = (n · K + K_in + K_out) · ρ/2 · v²',
    source: mitre ? mitre.source : 'round bends, ASHRAE (from memory)',
    inputs: [
      input('K', 'loss coefficient of one', k, 'number'),
      input('n', 'how many', count, 'number'),
      ...ended.inputs,
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
  const ended = ends(spot, from, to)
  return {
    b: bFromK(k, Math.min(from, to), spot.air.density) + ended.b,
    formula: 'Δp = K · ρ/2 · v², v in the narrow bore; ways in and out on their own bores',
    source:
      to > from ? 'Borda-Carnot; diffuser share from memory' : 'narrowing: hydraulics handbooks (from memory)',
    inputs: [
      input('K', to > from ? 'widening' : 'narrowing', k, 'number'),
      input('D₁', 'bore before', e.diameterM, 'length'),
      input('D₂', 'bore after', e.diameter2M, 'length'),
      input('α', 'total angle, degrees (180 sudden)', angle, 'number'),
      ...ended.inputs,
      rho(spot),
    ],
  }
}

/** Two streams that join or part. */
export const wye: Modeler = (e, spot) => {
  if (!e.diameterM) return lacks('its bore')
  const piece = wyes.find((w) => w.key === e.style) ?? wyes[0]!
  const ended = ends(spot, circle(e.diameterM))
  return {
    b: bFromK(piece.k, circle(e.diameterM), spot.air.density) + ended.b,
    doubt: pieceDoubt(piece),
    formula: 'Δp = (K + K_in + K_out) · ρ/2 · v², v in this branch',
    source: piece.source,
    inputs: [
      input('K', piece.name.toLowerCase(), piece.k, 'number'),
      ...ended.inputs,
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
  const ended = ends(spot, circle(e.diameterM))
  return {
    b: bFromK(k, circle(e.diameterM), spot.air.density) + ended.b,
    formula: 'Δp = (K + K_in + K_out) · ρ/2 · v²',
    source: slide ? 'slide gate, from memory' : 'round blade damper after Weisbach (from memory)',
    inputs: [
      input('K', slide ? 'by the open share' : 'by the angle', k, 'number'),
      ...ended.inputs,
      input('D', 'bore', e.diameterM, 'length'),
      rho(spot),
    ],
  }
}

/** A one-way flap: nothing passes below the pressure that lifts it. */
export const flap: Modeler = (e, spot) => {
  if (!e.diameterM) return lacks('its bore')
  const opensAt = e.headPa ?? FLAP_PRESSURE.value
  return {
    staticHead: opensAt,
    b: bFromK(flapPiece.k, circle(e.diameterM), spot.air.density),
    formula: 'Δp = p₀ + K · ρ/2 · v²',
    source: flapPiece.source,
    doubt: pieceDoubt(flapPiece),
    inputs: [
      input(
        'p₀',
        e.headPa === null ? 'holds it open, usual (2 to 5 Pa)' : 'holds it open',
        opensAt,
        'pressure',
      ),
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
  const away = exitLoss(spot, out)
  return {
    b: (adapterLoss(inlet, out) * spot.air.density) / 2 + bFromK(away, out, spot.air.density),
    formula: 'Δp = ρ/2 · (v₁² + (0.5 + K_out)·v₂²)',
    source: 'jet lost in the box (Borda-Carnot), sharp entrance to the second bore',
    doubt: 0.3,
    inputs: [
      input('A₁', 'opening into the box', inlet, 'area'),
      input('A₂', 'opening out of it', out, 'area'),
      input('K_out', 'way out', away, 'number'),
      rho(spot),
    ],
  }
}
