import type { ElementKind, PathElement } from '#core/document'
import { adapter, bend, damper, duct, flap, reducer, wye } from './ducts'
import { chamber, custom, fanPlace, filter, fins } from './media'
import { CROWDED_DOUBT, isCrowded } from './junctions'
import { uncertaintyOf, type ElementModel, type Modeler, type Spot } from './model'
import { grille, hood, opening, outlet, slot } from './openings'

const modelers: Record<Exclude<ElementKind, 'split'>, Modeler> = {
  opening,
  slot,
  grille,
  hood,
  filter,
  duct,
  bend,
  reducer,
  wye,
  damper,
  flap,
  fins,
  adapter,
  chamber,
  outlet,
  custom,
  fan: fanPlace,
}

/** Coefficients of one element (no split) in the given air, at its place in its row. */
export function modelElement(element: PathElement, spot: Spot): ElementModel {
  const blank: ElementModel = {
    element,
    a: 0,
    b: 0,
    staticHead: 0,
    extra: null,
    branches: null,
    missing: null,
    formula: '',
    inputs: [],
    source: '',
    uncertainty: uncertaintyOf[element.basis],
  }
  if (element.kind === 'split') return blank
  const made = modelers[element.kind](element, spot)
  if ('missing' in made) return { ...blank, missing: made.missing }
  const { doubt = 0, ...rest } = made
  const crowded = isCrowded(spot) ? CROWDED_DOUBT : 0
  return { ...blank, ...rest, uncertainty: Math.hypot(blank.uncertainty, doubt, crowded) }
}
