import { partsBelow, type StreamPlan } from '#core/document'

/** What a part of the feed may hang on: the sources, and every other part that leads on and does not hang on it. */
export function parentOptions(plan: StreamPlan, id: string): Option[] {
  const below = new Set(partsBelow(plan, id))
  const part = plan.feed.find((p) => p.id === id)
  return [
    ...(part?.parentId == null ? [{ value: null, label: 'nothing yet' }] : []),
    ...plan.sources.map((s) => ({ value: s.id, label: s.name || 'Source' })),
    ...plan.feed.filter((p) => p.kind !== 'load' && !below.has(p)).map((p) => ({ value: p.id, label: p.name })),
  ]
}
