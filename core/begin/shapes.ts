import { newElement, type Goal, type PathElement } from '#core/document'

/** The few air paths that most jobs begin with. */
export type Shape = 'box' | 'hose' | 'heatsink' | 'open' | 'like'

/** What was said of the path; null is "do not know". SI. */
export interface PathSizes {
  /** free area of the holes, in and out alike */
  holesM2: number | null
  boreM: number | null
  hoseM: number | null
}
export const unknownSizes: PathSizes = { holesM2: null, boreM: null, hoseM: null }

/** The shape that a goal mostly has. */
export const usualShape: Record<Goal, Shape> = {
  cool: 'box',
  part: 'heatsink',
  ventilate: 'box',
  fume: 'hose',
  stir: 'open',
  chill: 'open',
  quieten: 'box',
}
/** Sizes that a shape is asked for. */
export const sizesOf: Record<Shape, (keyof PathSizes)[]> = {
  box: ['holesM2'],
  hose: ['boreM', 'hoseM'],
  heatsink: [],
  open: [],
  like: [],
}

/** Sizes that nobody knows, of the fan's frame: common practice, no source. */
const usualSizes = (frameM: number) => ({
  holesM2: 0.8 * frameM ** 2,
  boreM: 0.95 * frameM,
  hoseM: 2,
})
/** Fins of a usual small heatsink, m. Common practice, no source. */
const usualFins = { count: 12, heightM: 0.025, lengthM: 0.06, gapM: 0.004, finM: 0.001 }
/** Cross-section of the room inside over that of its holes: air stands still there. */
const CHAMBER = 12

/**
 * The elements of a shape, sized as told; what was not told is assumed from the fan's frame and marked so.
 * @param frameM side of the fan, m
 * @param id makes ids
 */
export function shapePath(
  shape: Exclude<Shape, 'like'>,
  goal: Goal,
  sizes: PathSizes,
  frameM: number,
  id: (kind: string) => string,
): PathElement[] {
  const usual = usualSizes(frameM)
  const make = (kind: PathElement['kind'], name: string, rest: Partial<PathElement>): PathElement => ({
    ...newElement(id(kind), kind),
    name,
    ...rest,
  })
  const basis = (told: number | null) => ({
    basis: told === null ? ('assumed' as const) : ('good-guess' as const),
  })
  const holes = sizes.holesM2 ?? usual.holesM2
  const bore = sizes.boreM ?? usual.boreM
  const hole = (name: string, areaM2: number, told: number | null) =>
    make('opening', name, { areaM2, ...basis(told) })
  const inside = (areaM2: number) => make('chamber', 'Inside', { areaM2: CHAMBER * areaM2, basis: 'assumed' })
  const fan = make('fan', 'Fan', {})
  const boreArea = (Math.PI / 4) * bore ** 2
  const hose = make('duct', 'Hose', {
    diameterM: bore,
    lengthM: sizes.hoseM ?? usual.hoseM,
    surface: 'hose',
    slack: 2,
    ...basis(sizes.boreM === null || sizes.hoseM === null ? null : bore),
  })
  const end = make('outlet', 'Free end', { diameterM: bore, ...basis(sizes.boreM) })
  switch (shape) {
    case 'box':
      return [
        hole('Holes in', holes, sizes.holesM2),
        inside(holes),
        fan,
        hole('Holes out', holes, sizes.holesM2),
      ]
    case 'hose':
      return goal === 'fume'
        ? [make('hood', 'Nozzle', { diameterM: bore, ...basis(sizes.boreM) }), fan, hose, end]
        : [hole('Gaps and holes in', 2 * boreArea, null), inside(2 * boreArea), fan, hose, end]
    case 'heatsink':
      return [fan, make('fins', 'Heatsink', { ...usualFins, basis: 'assumed' })]
    case 'open':
      return [make('grille', 'Guard', { areaM2: frameM ** 2, freeAreaRatio: 0.7, basis: 'assumed' }), fan]
  }
}
