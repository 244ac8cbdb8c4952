import type { AirState } from '#core/air'
import { elementNames, type Job } from '#core/document'
import { figure, input, type Figure, type FigureBasis } from '#core/figure'
import type { ElementModel } from './elements/model'
import { elementDrop, pathDrop, usefulShare, type PathModel } from './path'
import { dropRange, elementUncertainty, pathUncertainty } from './path-uncertainty'

/** Density of the air at the site. */
export const densityFigure = (job: Job, air: AirState): Figure =>
  figure(
    'air.density',
    'Air density',
    'density',
    air.density,
    'ρ = (p − pv)/(287.05·T) + pv/(461.52·T)',
    'ideal mixture; pressure from ISO 2533, saturation after ASHRAE',
    {
      inputs: [
        input('t', 'air', job.ambientC, 'temperature'),
        input('h', 'altitude', job.altitudeM, 'altitude'),
        input('RH', 'relative humidity', job.humidity, 'ratio'),
        input('p', 'pressure', air.pressurePa, 'pressure'),
      ],
    },
  )

const basisOf = (e: ElementModel): FigureBasis =>
  e.element.basis === 'measured' ? 'measured' : e.element.basis === 'sheet' ? 'curve' : 'estimated'

/**
 * Figure of one element's drop at the flow through it.
 * @param q flow, m3/s, 0 or more
 * @param factor that a measurement scales the path by; 1 without
 */
export function elementFigure(e: ElementModel, q: number | null, factor = 1): Figure {
  const drop = q === null || e.missing ? null : elementDrop(e, q)
  return figure(
    `path.${e.element.id}`,
    e.element.name || elementNames[e.element.kind],
    'pressure',
    drop,
    factor === 1 ? e.formula : `${e.formula}, all of it times k`,
    e.source,
    {
      basis: basisOf(e),
      inputs: [
        ...e.inputs,
        ...(factor === 1 ? [] : [input('k', 'real path over the guess, as measured', factor, 'number')]),
        input('Q', 'flow through it', q, 'flow'),
      ],
      ...(drop === null ? {} : dropRange(drop, elementUncertainty(e, q!))),
      note: e.missing ? `Not counted yet: it lacks ${e.missing}.` : '',
    },
  )
}

const missingWords = (path: PathModel): string =>
  path.elements.length ? 'An element still lacks its size.' : 'The path has no elements yet.'
const scaledWords = ({ factor }: PathModel): string =>
  factor === 1 ? '' : `Scaled by ${factor.toPrecision(2)} after your measurement.`

/**
 * Drop of the whole path.
 * @param flow fan-side flow that it is told at, m3/s; null where none is known
 * @param operating the flow is that of an operating point, not the planned one
 */
export function dropFigure(path: PathModel, flow: number | null, operating: boolean): Figure {
  const total = flow === null || !path.complete ? null : pathDrop(path, flow)
  const uncertainty = flow ? pathUncertainty(path, flow) : 0
  return figure(
    'path.drop',
    operating ? 'Whole path at the operating point' : 'Whole path at the planned flow',
    'pressure',
    total,
    'Δp = Σ Δpᵢ(Q)',
    'elements in series add',
    {
      basis: 'estimated',
      ...(total === null ? {} : dropRange(total, uncertainty)),
      inputs: [
        input('Q', 'flow', flow, 'flow'),
        ...(total === null
          ? []
          : path.main.map((e, i) =>
              input(
                `Δp${i + 1}`,
                e.element.name || elementNames[e.element.kind],
                elementDrop(e, flow!),
                'pressure',
              ),
            )),
      ],
      note: path.complete ? scaledWords(path) : missingWords(path),
    },
  )
}

/** Share of the fan's flow that does the job. @param flow through the fan, m3/s */
export function usefulFigure(path: PathModel, flow: number): Figure {
  const share = usefulShare(path, flow)
  return figure(
    'path.useful',
    'Air that does the job',
    'ratio',
    share,
    '1 − ΣQ_leak / Q',
    'ways side by side share one pressure drop',
    {
      basis: 'estimated',
      inputs: [
        input('Q', 'through the fan', flow, 'flow'),
        input('Q_leak', 'past the job', (1 - share) * flow, 'flow'),
      ],
    },
  )
}
