import type { Carton } from '#core/document'
import { outline, ruler } from './marks'
import type { Template } from './template'

/** Room between two holes and to the edge, m: the card stays stiff, the jets do not meet. A choice of ours. */
const GAP_M = 0.015

/** Where the holes of a carton's wall are cut: rows from the widest to the smallest, m from the middle of the wall. */
export function holePlaces({ holesM, widthM }: Pick<Carton, 'holesM' | 'widthM'>) {
  const byWidth = holesM
    .map((diameterM, i) => ({ diameterM, hole: i + 1 }))
    .sort((a, b) => b.diameterM - a.diameterM)
  const rows: { heightM: number; widthM: number; holes: typeof byWidth }[] = []
  for (const hole of byWidth) {
    const row = rows.at(-1)
    const wide = hole.diameterM + GAP_M
    if (row && row.widthM + wide <= widthM - GAP_M) {
      row.holes.push(hole)
      row.widthM += wide
    } else rows.push({ heightM: hole.diameterM + GAP_M, widthM: wide, holes: [hole] })
  }
  const total = rows.reduce((s, r) => s + r.heightM, 0)
  let top = total / 2
  return rows.flatMap((row) => {
    let left = -row.widthM / 2
    const yM = top - row.heightM / 2
    top -= row.heightM
    return row.holes.map(({ diameterM, hole }) => {
      const xM = left + (diameterM + GAP_M) / 2
      left += diameterM + GAP_M
      return { hole, xM, yM, diameterM }
    })
  })
}

/** The wall with the holes at true scale, numbered in the order in which they are opened. */
export function cartonTemplate(carton: Pick<Carton, 'holesM' | 'widthM' | 'heightM'>, name: string): Template {
  const places = holePlaces(carton)
  const below = ruler(-carton.heightM / 2 - GAP_M)
  return {
    name,
    rounds: places.map(({ xM, yM, diameterM }) => ({ layer: 'cut', xM, yM, diameterM })),
    arcs: [],
    strokes: [...outline(0, 0, carton.widthM / 2, carton.heightM / 2), ...below.strokes],
    words: [
      ...places.map(({ hole, xM, yM, diameterM }) => ({
        text: `${hole}: ${Math.round(diameterM * 1000)} mm`,
        atM: [xM, yM] as const,
      })),
      ...below.words,
    ],
  }
}
