import type { AirState } from '#core/air'
import { filterMedia } from '#core/airpath'
import type { Goal, PathElement, StreamPlan } from '#core/document'
import { freeAreaOf } from '#core/system'
import { modelPath, pathDrop, scalePath, type PathModel } from '#core/system'

/** A change of one element with what it does. */
export interface WhatIf {
  key: string
  label: string
  /** the element after the change; null when it is taken out */
  element: PathElement | null
  /** whole path at the planned flow after it, Pa */
  dropPa: number
  /** flow of the picked fan after it, m3/s; null without a pick */
  flow: number | null
}

/** Larger by half: the next hole saw, the next size of grille. */
const ENLARGE = 1.5

/** Filter media from open to dense, to step down a grade. */
const grades = filterMedia.toSorted((a, b) => a.c1 - b.c1)

/** Media that hold fumes at all. */
const holdsFumes = (medium: string | null) => medium === 'carbonFoam' || medium === 'bed'

/**
 * Changes worth trying on an element.
 * @param goal of the job: a filter for fumes is not made coarser, and not taken out
 */
export function variants(
  e: PathElement,
  goal: Goal,
): { key: string; label: string; element: PathElement | null }[] {
  const list: { key: string; label: string; element: PathElement | null }[] = []
  const add = (key: string, label: string, change: Partial<PathElement>) =>
    list.push({ key, label, element: { ...e, ...change } })
  if (e.areaM2 && e.kind !== 'chamber') add('area', 'half again the area', { areaM2: e.areaM2 * ENLARGE })
  if (e.kind === 'grille') {
    const ratio = e.freeAreaRatio ?? (freeAreaOf(e) ?? 0) / (e.areaM2 ?? 1)
    if (ratio > 0 && ratio < 0.75)
      add('open', 'a wire guard, 85 % open', { freeAreaRatio: 0.85, pattern: null, style: 'guard' })
  }
  if (e.kind === 'filter') {
    const at = grades.findIndex((m) => m.key === e.medium)
    const coarser = grades[at - 1]
    const stays = goal === 'fume' && (holdsFumes(e.medium) || !holdsFumes(coarser?.key ?? null))
    if (at > 0 && coarser && !stays) add('grade', `a grade coarser: ${coarser.name}`, { medium: coarser.key })
    if ((e.loadFactor ?? 1) > 1) add('clean', 'a clean one', { loadFactor: 1 })
  }
  if (e.diameterM)
    add('bore', 'the bore a quarter wider', {
      diameterM: e.diameterM * 1.25,
      ...(e.diameter2M ? { diameter2M: e.diameter2M * 1.25 } : {}),
    })
  if (e.kind === 'duct') {
    if ((e.slack ?? 1) > 1) add('stretch', 'stretched and cut to length', { slack: 1 })
    if (e.surface === 'hose' || e.surface === 'corrugated')
      add('smooth', 'smooth pipe instead', { surface: 'pvc', slack: 1 })
    if (e.lengthM) add('half', 'half as long', { lengthM: e.lengthM / 2 })
  }
  if (e.kind === 'bend') {
    if (e.style && e.style !== 'round')
      add('round', 'a round bend, radius 1.5 bores', { style: 'round', radiusRatio: 1.5 })
    else if ((e.radiusRatio ?? 1) < 1.5) add('radius', 'radius of 1.5 bores', { radiusRatio: 1.5 })
    if ((e.count ?? 1) > 1) add('fewer', 'one bend less', { count: e.count! - 1 })
  }
  if (e.kind === 'slot' && e.gapM) add('gap', 'half again the width', { gapM: e.gapM * ENLARGE })
  if (e.kind === 'opening' && e.edge !== 'rounded') add('edge', 'rounded edge', { edge: 'rounded' })
  if (e.kind === 'hood' && e.style !== 'rounded') add('bell', 'a rounded bell', { style: 'rounded' })
  if (e.kind === 'outlet' && e.style === 'louvre')
    add('plain', 'a plain end with wide mesh', { style: 'free-exit' })
  if (e.kind === 'reducer' && (e.angleDeg ?? 180) > 20) add('gradual', 'gradual, 20° in all', { angleDeg: 20 })
  if (e.kind === 'damper' && ((e.angleDeg ?? 0) > 0 || (e.freeAreaRatio ?? 1) < 1))
    add('opened', 'fully open', { angleDeg: 0, freeAreaRatio: 1 })
  const needed = e.kind === 'filter' && goal === 'fume'
  if (!needed && e.kind !== 'chamber' && e.kind !== 'fan' && e.kind !== 'split')
    list.push({ key: 'remove', label: 'taken out', element: null })
  return list
}

/**
 * What each change of an element would do.
 * @param flowOn flow of the picked fan on another path, m3/s, or null
 * @param planFlow m3/s
 */
export function elementWhatIfs(
  plan: StreamPlan,
  air: AirState,
  path: PathModel,
  element: PathElement,
  planFlow: number | null,
  flowOn: (path: PathModel) => number | null,
): WhatIf[] {
  return variants(element, plan.job.goal).flatMap((v) => {
    const changed = v.element
      ? plan.path.map((e) => (e.id === element.id ? v.element! : e))
      : plan.path.filter((e) => e.id !== element.id)
    const part = { path: changed, branches: plan.branches }
    const guess = modelPath(part, air)
    if (!guess.complete) return []
    const next = path.factor === 1 ? guess : scalePath(part, guess, path.factor, path.calibrated)
    return [{ ...v, dropPa: planFlow === null ? 0 : pathDrop(next, planFlow), flow: flowOn(next) }]
  })
}
