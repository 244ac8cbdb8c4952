import type { PathElement, StreamPlan } from '#core/document'
import { freeAreaRatioOf, endElements } from '#core/system'

type Which = (plan: StreamPlan) => PathElement[]
const ofKind =
  (...kinds: PathElement['kind'][]): Which =>
  (plan) =>
    plan.path.filter((e) => kinds.includes(e.kind))
const least = (list: PathElement[], of: (e: PathElement) => number | null) =>
  list
    .filter((e) => of(e) !== null)
    .toSorted((a, b) => of(a)! - of(b)!)
    .slice(0, 1)
const fanPlace = ofKind('fan')
const ends =
  (end: 'in' | 'out'): Which =>
  (plan) =>
    endElements(plan, end)

/** Which elements of the path a rule speaks of. Rules that concern none stand in the list only. */
const concerned: Record<string, Which> = {
  'air-no-way-in': ends('in'),
  'air-no-way-out': ends('out'),
  'air-inlet-small': ends('in'),
  'air-outlet-small': ends('out'),
  'air-intake-starved': fanPlace,
  'air-outlet-close': fanPlace,
  'air-wrong-way': fanPlace,
  'air-recirculates': ends('in'),
  'air-floor-no-filter': ends('in'),
  'air-short-circuit': (plan) => [...endElements(plan, 'in'), ...endElements(plan, 'out')],
  'air-out-below-in': ends('out'),
  'air-no-flap': ends('out'),
  'air-outlet-near-opening': ends('out'),
  'air-grille-closed': (plan) =>
    least(
      plan.path.filter((e) => e.kind === 'grille'),
      freeAreaRatioOf,
    ),
  'air-filter-not-counted': ofKind('filter'),
  'air-filter-loaded-short': ofKind('filter'),
  'air-carbon-spent': ofKind('filter'),
  'air-negative-dust': ofKind('filter'),
  'own-box-sucks-dust': ofKind('filter'),
  'own-fume-box-over': ofKind('chamber'),
  'own-openings-uneven': ofKind('fan'),
  'own-place-brakes': ofKind('fan'),
  'own-place-empty': ofKind('fan'),
  'air-filter-too-fast': (plan) =>
    least(
      plan.path.filter((e) => e.kind === 'filter'),
      (e) => e.areaM2,
    ),
  'air-duct-narrow': (plan) =>
    least(
      plan.path.filter((e) => e.kind === 'duct' || e.kind === 'bend'),
      (e) => e.diameterM,
    ),
  'air-duct-fast': (plan) =>
    least(
      plan.path.filter((e) => e.kind === 'duct' || e.kind === 'bend'),
      (e) => e.diameterM,
    ),
  'air-duct-slack': (plan) => plan.path.filter((e) => e.kind === 'duct' && (e.slack ?? 1) > 1),
  'air-hot-part-bypassed': ofKind('chamber', 'fins'),
  'air-fume-leaks': ofKind('duct', 'bend'),
  'port-intake-unserved': ends('in'),
  'port-outlet-unserved': ends('out'),
  'port-intake-starved': ends('in'),
  'port-outlet-starved': ends('out'),
}

/** Ids of the elements that a finding concerns. */
export const concernedElements = (plan: StreamPlan, ruleId: string): string[] =>
  (concerned[ruleId]?.(plan) ?? []).map((e) => e.id)
