import type { ElementKind, PathElement } from './path'
import type { Stream } from './stream'

/** Changes of a plan's path in place: the document's list keeps each row's order. */

/** What stands in a row: the main one (null) or a way. */
export const rowOf = (plan: Pick<Stream, 'path'>, branchId: string | null): PathElement[] =>
  plan.path.filter((e) => e.branchId === branchId)

/**
 * A split may not stand inside a way, nor a fan in one of several unlike ways: the path would go round in a loop. Where
 * a split has one way only, that of openings alike, each opening has its share of the fans.
 */
export function mayStandIn(
  { branches }: Pick<Stream, 'branches'>,
  { kind }: Pick<PathElement, 'kind'>,
  branchId: string | null,
): boolean {
  if (branchId === null) return true
  const splitId = branches.find((b) => b.id === branchId)?.splitId
  return kind === 'fan' ? branches.filter((b) => b.splitId === splitId).length === 1 : kind !== 'split'
}

/**
 * Puts an element, new or moved, at a place of a row.
 * @param index place in the row; at its end where null or beyond it
 */
export function placeElement(
  plan: Pick<Stream, 'path'>,
  element: PathElement,
  branchId: string | null,
  index: number | null,
): void {
  element.branchId = branchId
  plan.path = plan.path.filter((e) => e.id !== element.id)
  const next = index === null ? undefined : rowOf(plan, branchId)[index]
  plan.path.splice(next ? plan.path.indexOf(next) : plan.path.length, 0, element)
}

/** Kinds that have a bore: beside each other they usually have the same. */
const BORED: readonly ElementKind[] = ['duct', 'bend', 'hood', 'outlet', 'damper', 'flap', 'wye', 'reducer']
/**
 * The bore that a new element takes over: that of the nearest before it in its row, else of the nearest behind it.
 * @returns m; null where there is none, or the kind has no bore
 */
export function boreBeside(
  plan: Pick<Stream, 'path'>,
  kind: ElementKind,
  branchId: string | null,
  index: number | null,
): number | null {
  if (!BORED.includes(kind)) return null
  const row = rowOf(plan, branchId)
  const at = index ?? row.length
  const boreOf = (e: PathElement) => (BORED.includes(e.kind) ? (e.diameter2M ?? e.diameterM) : null)
  const before = row
    .slice(0, at)
    .map(boreOf)
    .findLast((d) => d !== null)
  return before ?? row.slice(at).find((e) => boreOf(e) !== null)?.diameterM ?? null
}

/** Takes an element out; a split goes with its ways and all that stands in them. */
export function removeElement(plan: Pick<Stream, 'path' | 'branches'>, id: string): void {
  const ways = plan.branches.filter((b) => b.splitId === id).map((b) => b.id)
  plan.path = plan.path.filter((e) => e.id !== id && !ways.includes(e.branchId ?? ''))
  plan.branches = plan.branches.filter((b) => b.splitId !== id)
}

/** Takes a way out with all that stands in it. */
export function removeBranch(plan: Pick<Stream, 'path' | 'branches'>, id: string): void {
  plan.path = plan.path.filter((e) => e.branchId !== id)
  plan.branches = plan.branches.filter((b) => b.id !== id)
}
