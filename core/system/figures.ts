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

/** Residence time that odours want in carbon, s, and the usual highest speed through a bed, m/s. Common practice, no source. */
const RESIDENCE_S = 0.05
const BED_SPEED_MS = 0.4
/** What a bed of carbon does at a flow: its face speed and how long the air stays in it. */
function bedNote({ element }: ElementModel, q: number | null): string {
  const { kind, medium, areaM2, lengthM } = element
  if (kind !== 'filter' || medium !== 'bed' || !areaM2 || !lengthM || !q) return ''
  const speed = q / areaM2
  const stays = lengthM / speed
  const verdict =
    stays < RESIDENCE_S || speed > BED_SPEED_MS
      ? `too fast for odours, which want ${RESIDENCE_S} to 0.1 s at up to ${BED_SPEED_MS} m/s: a larger or deeper bed`
      : 'enough for odours (0.05 to 0.1 s)'
  return `Through the bed at ${speed.toFixed(2)} m/s the air stays ${stays.toFixed(3)} s in it: ${verdict}.`
}

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
      note: e.missing ? `Not counted yet: it lacks ${e.missing}.` : bedNote(e, q),
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
