import { figure, input, type Figure } from '#core/figure'
import type { Fit, PlacePlan } from '#core/document'
import { curtainDistance, curtainShare, endAreaOf } from '#core/fit'
import { impellerDiameter } from '#core/system'
import type { HoleOption } from './hole'
import type { MountReport } from './mount'
import type { SoftMount } from './soft'

/** Figures of a place, each with its working. */
export function figuresOf(
  { place }: PlacePlan,
  mount: Omit<MountReport, 'figures' | 'keeps'>,
  hole: HoleOption | null,
  screwHoleM: number | null,
): Figure[] {
  const { layers, neededM, leftM, screw, spacingM } = mount
  const inside = layers.filter((l) => !l.outside)
  const figures = [
    figure(
      'fit.needed',
      'Depth needed',
      'length',
      neededM,
      't = Σ tᵢ',
      'what lies behind the panel, piece by piece',
      {
        inputs: inside.map((l, i) => input(`t${i + 1}`, l.name, l.thicknessM, 'length')),
        note: place.stackExtraM === null ? '' : 'With the guards, gasket and heads as told together.',
      },
    ),
  ]
  if (place.stackExtraM !== null)
    figures[0]!.inputs.push(input('tₓ', 'told together', place.stackExtraM, 'length'))
  if (leftM !== null && place.fitDepthM !== null)
    figures.push(
      figure('fit.left', 'Left in the depth', 'length', leftM, 'x = d − t', 'difference', {
        inputs: [
          input('d', 'depth for the fan', place.fitDepthM, 'length'),
          input('t', 'depth needed', neededM, 'length'),
        ],
        note: leftM < 0 ? 'It does not go in.' : '',
      }),
    )
  if (hole && hole.webM !== null && spacingM !== null && place.holeM !== null)
    figures.push(
      figure(
        'fit.web',
        'Between hole and screw holes',
        'length',
        hole.webM,
        'w = s/√2 − D/2 − h/2',
        'half the diagonal less both radii',
        {
          inputs: [
            input('s', 'screw holes, centre to centre', spacingM, 'length'),
            input('D', 'hole', place.holeM, 'length'),
            input('h', 'screw hole', screwHoleM, 'length'),
          ],
          note: hole.webM < 0 ? 'They run into each other.' : '',
        },
      ),
    )
  if (screw)
    figures.push(
      figure(
        'fit.screw',
        'Screw, at least',
        'length',
        screw.leastM,
        'l = g + e',
        'clamped thickness, and what must stand beyond it: washers, nut and two pitches, or 5 mm of thread in the ear',
        {
          inputs: [
            input('g', 'everything clamped', screw.gripM, 'length'),
            input('e', 'beyond it', screw.engageM, 'length'),
          ],
        },
      ),
    )
  return [...figures, ...curtainFigure(mount), ...partFigures(place.fit, mount)]
}

/** Free ring at the gap over the opening that it serves. */
function curtainFigure({ leftM, fan }: Parameters<typeof figuresOf>[1]): Figure[] {
  if (leftM === null || !(leftM > 0)) return []
  const bladesM = impellerDiameter(fan)
  return [
    figure(
      'fit.curtain',
      'Free ring at the gap',
      'ratio',
      curtainShare(bladesM, leftM),
      's = min(1, 4·x/D)',
      'ring π·D·x over the disc π/4·D²; whole from a quarter of the diameter on, though losses begin earlier',
      {
        inputs: [input('x', 'left in the depth', leftM, 'length'), input('D', 'blades', bladesM, 'length')],
        note: leftM < curtainDistance(bladesM) ? 'Less than the blades sweep.' : '',
      },
    ),
  ]
}

/** Guard, filter, adapter and soft mounts. */
function partFigures(
  fit: Fit | null,
  { guardShare, filter, adapter, soft, flowOfOne, density }: Parameters<typeof figuresOf>[1],
): Figure[] {
  const figures: Figure[] = []
  if (fit && guardShare !== null)
    figures.push(
      figure('fit.guardShare', 'Guard, free', 'ratio', guardShare, guardFormula(fit), 'geometry', {
        inputs: [
          input('w', 'opening', fit.guardOpeningM, 'length'),
          input('t', 'between two', fit.guardBarM, 'length'),
        ],
      }),
    )
  if (filter?.faceMs != null)
    figures.push(
      figure('fit.faceSpeed', 'Through the filter', 'speed', filter.faceMs, 'v = Q/A', 'definition', {
        inputs: [
          input('Q', 'through it', filter.flow, 'flow'),
          input('A', 'face of the filter', filter.areaM2, 'area'),
        ],
        note: filter.faceMs > filter.ratedMs ? 'Faster than it is made for.' : '',
      }),
    )
  if (adapter?.k != null && adapter.dropPa !== null)
    figures.push(
      figure(
        'fit.adapterDrop',
        'Adapter costs',
        'pressure',
        adapter.dropPa,
        'Δp = K·ρ/2·(Q/A)²',
        'Borda-Carnot, times the share of a diffuser of its angle (from memory); narrowing: from memory',
        {
          inputs: [
            input('K', 'loss coefficient', adapter.k, 'number'),
            input('Q', 'through one fan', flowOfOne, 'flow'),
            input('A', 'narrow end', Math.min(endAreaOf(adapter.fanEnd), endAreaOf(adapter.farEnd)), 'area'),
            input('ρ', 'density', density, 'density'),
          ],
        },
      ),
    )
  if (soft && soft.ownHz !== null && fit)
    figures.push(
      figure(
        'fit.ownHz',
        'Mount swings at',
        'frequency',
        soft.ownHz,
        'f = √(g/δ)/2π',
        'single-degree isolator',
        {
          inputs: [input('δ', 'gives under the weight', fit.sinkM, 'length')],
          note: softWords(soft),
        },
      ),
    )
  return figures
}
const guardFormula = ({ guard }: Fit) =>
  guard === 'mesh' ? 's = (w/(w + t))²' : guard === 'perforated' ? 's = 0.9069·(w/(w + t))²' : 's = w/(w + t)'
/** What soft mounts do at the fan's turn. */
function softWords({ passes }: SoftMount): string {
  if (passes === null) return 'At the turn of the fan: it swings ever more.'
  const percent = Math.round(100 * passes)
  return passes >= 1
    ? `Makes it worse: ${percent} % of the shaking passes.`
    : `${percent} % of the shaking passes.`
}
