import { newTarget, type Job, type PathElement, type StreamPlan, type TargetKind } from '#core/document'
import type { Figure } from '#core/figure'
import type { Quantity } from '#core/units'

/** Where in a plan the result of a sum can go. */
export interface Place {
  key: string
  label: string
  /** writes the value, SI, with where it comes from */
  put: (plan: StreamPlan, value: number, working: string) => void
}

const jobFields: Partial<Record<Quantity, { key: keyof Job & string; label: string }[]>> = {
  flow: [{ key: 'typedFlowM3s', label: 'Airflow now, in Need' }],
  volume: [{ key: 'volumeM3', label: 'Free air volume, in Need' }],
  power: [{ key: 'heatW', label: 'Heat, in Need' }],
  speed: [{ key: 'captureSpeedMs', label: 'Air speed wanted at the source, in Need' }],
  duration: [{ key: 'clearS', label: 'Clear again within, in Need' }],
  perHour: [{ key: 'airChangesPerH', label: 'Air changes per hour, in Need' }],
  area: [{ key: 'nozzleAreaM2', label: 'Opening of the nozzle, in Need' }],
  temperature: [
    { key: 'insideMaxC', label: 'Highest temperature inside, in Need' },
    { key: 'surfaceC', label: 'Coldest surface, in Need' },
  ],
}
const targets: Partial<Record<Quantity, { kind: TargetKind; label: string }>> = {
  flow: { kind: 'flow', label: 'A target: airflow at least' },
  level: { kind: 'level', label: 'A target: at most this loud' },
  temperature: { kind: 'temperature', label: 'A target: at most this warm' },
  duration: { kind: 'runtime', label: 'A target: running at least' },
}
/** Elements that have an area of their own. */
const withArea: PathElement['kind'][] = ['opening', 'slot', 'grille', 'filter', 'chamber']

/**
 * The places of a plan that a figure can go to, by its quantity.
 * @param id makes the id of a new target
 */
export function placesFor(plan: StreamPlan, { quantity }: Figure, id: () => string): Place[] {
  const target = targets[quantity]
  return [
    ...(jobFields[quantity] ?? []).map(({ key, label }): Place => ({
      key,
      label,
      put: ({ job }, value, text) => {
        Object.assign(job, { [key]: value })
        job.workings = [...job.workings.filter((w) => w.key !== key), { key, value, text }]
      },
    })),
    ...(target
      ? [
          {
            key: target.kind,
            label: target.label,
            put: (p: StreamPlan, limit: number, why: string) => {
              p.targets.push(newTarget({ id: id(), kind: target.kind, limit, why }, p.stream))
            },
          },
        ]
      : []),
    ...(quantity === 'area'
      ? plan.path
          .filter((e) => withArea.includes(e.kind))
          .map(({ id: element, name }): Place => ({
            key: element,
            label: `Area of ${name || 'an element'}, in Air path`,
            put: (p, value) => {
              for (const e of p.path) if (e.id === element) e.areaM2 = value
            },
          }))
      : []),
  ]
}
