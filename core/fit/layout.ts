/** Several fans in one panel. Lengths in m, from the panel's middle, x to the right and y upwards. */

/** Left between two frames, and between a frame and the edge of the panel, m. Common practice, no source. */
export const BETWEEN_M = 0.01

/** A rectangle, its lower left corner from the panel's. */
export interface Zone {
  leftM: number
  bottomM: number
  widthM: number
  heightM: number
}

/** What is left of a rectangle beside a zone: to its left, right, below and above, over the whole length each. */
function beside(rect: Zone, zone: Zone): Zone[] {
  const [right, top] = [rect.leftM + rect.widthM, rect.bottomM + rect.heightM]
  const [zoneRight, zoneTop] = [zone.leftM + zone.widthM, zone.bottomM + zone.heightM]
  const apart = zone.leftM >= right || zoneRight <= rect.leftM || zone.bottomM >= top || zoneTop <= rect.bottomM
  if (apart) return [rect]
  const parts = [
    { ...rect, widthM: zone.leftM - rect.leftM },
    { ...rect, leftM: zoneRight, widthM: right - zoneRight },
    { ...rect, heightM: zone.bottomM - rect.bottomM },
    { ...rect, bottomM: zoneTop, heightM: top - zoneTop },
  ]
  return parts.filter((p) => p.widthM > 0 && p.heightM > 0)
}
/** The rectangles of a panel in which nothing is to be kept clear. */
const freeParts = (widthM: number, heightM: number, zones: readonly Zone[]): Zone[] =>
  zones.reduce((parts, zone) => parts.flatMap((p) => beside(p, zone)), [
    { leftM: 0, bottomM: 0, widthM, heightM },
  ] as Zone[])

export interface PanelLayout {
  columns: number
  rows: number
  /** middle to middle, m */
  pitchXM: number
  pitchYM: number
  centres: { xM: number; yM: number }[]
}

/** How many frames go beside each other on a side. */
const across = (sideM: number, frameM: number, betweenM: number) =>
  Math.max(0, Math.floor((sideM - betweenM + ROUNDING_M) / (frameM + betweenM)))
const ROUNDING_M = 1e-9
const roomIn = (p: Zone, frameM: number, betweenM: number) =>
  across(p.widthM, frameM, betweenM) * across(p.heightM, frameM, betweenM)

/** Free parts that do not overlap, the one with the most room first, each with its room. */
function partsWithRoom(
  widthM: number,
  heightM: number,
  frameM: number,
  zones: readonly Zone[],
  betweenM: number,
): { part: Zone; room: number }[] {
  const taken = [...zones]
  const found: { part: Zone; room: number }[] = []
  for (;;) {
    const [best] = freeParts(widthM, heightM, taken)
      .map((part) => ({ part, room: roomIn(part, frameM, betweenM) }))
      .toSorted((a, b) => b.room - a.room)
    if (!best || best.room === 0) return found
    found.push(best)
    taken.push(best.part)
  }
}

/**
 * How many fans a panel has room for, in rows and columns in its free parts.
 * @param widthM m @param heightM m @param frameM side of a frame, m @param zones what is to be kept clear
 * @param betweenM left between frames and to the edges, m
 * Reference: 10 mm between frames and to the edges, common practice, no source
 */
export const panelRoom = (
  widthM: number,
  heightM: number,
  frameM: number,
  zones: readonly Zone[] = [],
  betweenM = BETWEEN_M,
): number => partsWithRoom(widthM, heightM, frameM, zones, betweenM).reduce((sum, { room }) => sum + room, 0)

/**
 * Fans spread evenly over the free part of a panel that leaves the most between them, or over several where one does not
 * take them all; a last row that is not full stands in the middle. Null where they do not go on it.
 * @param count fans, 1 or more @param widthM m @param heightM m @param frameM side of a frame, m
 * @param zones what is to be kept clear
 * Reference: equal cells; 10 mm between frames, common practice, no source
 */
export function panelLayout(
  count: number,
  widthM: number,
  heightM: number,
  frameM: number,
  zones: readonly Zone[] = [],
): PanelLayout | null {
  const layoutOn = (part: Zone, n: number) => {
    const layout = layoutIn(n, part.widthM, part.heightM, frameM)
    const [dx, dy] = [part.leftM + part.widthM / 2 - widthM / 2, part.bottomM + part.heightM / 2 - heightM / 2]
    return layout && { ...layout, centres: layout.centres.map((c) => ({ xM: c.xM + dx, yM: c.yM + dy })) }
  }
  const inOne = freeParts(widthM, heightM, zones)
    .map((part) => layoutOn(part, count))
    .filter((layout) => layout !== null)
    .toSorted((a, b) => roomOf(b) - roomOf(a))[0]
  if (inOne) return inOne
  const parts = partsWithRoom(widthM, heightM, frameM, zones, BETWEEN_M)
  let room = parts.reduce((sum, p) => sum + p.room, 0)
  if (room < count) return null
  let left = count
  const layouts = parts.flatMap((p) => {
    // as many as its share of the room, rounded so that none is left over
    const n = Math.min(p.room, Math.ceil((left * p.room) / room))
    left -= n
    room -= p.room
    const layout = n > 0 ? layoutOn(p.part, n) : null
    return layout ? [layout] : []
  })
  return {
    columns: Math.max(...layouts.map((l) => l.columns)),
    rows: layouts.reduce((sum, l) => sum + l.rows, 0),
    pitchXM: Math.min(...layouts.map((l) => l.pitchXM)),
    pitchYM: Math.min(...layouts.map((l) => l.pitchYM)),
    centres: layouts.flatMap((l) => l.centres),
  }
}
const roomOf = ({ pitchXM, pitchYM }: Pick<PanelLayout, 'pitchXM' | 'pitchYM'>) => Math.min(pitchXM, pitchYM)

/** The same over one rectangle, from its middle. */
function layoutIn(count: number, widthM: number, heightM: number, frameM: number): PanelLayout | null {
  const choices = Array.from({ length: count }, (_, i) => i + 1).flatMap((columns) => {
    const rows = Math.ceil(count / columns)
    if (columns > across(widthM, frameM, BETWEEN_M) || rows > across(heightM, frameM, BETWEEN_M)) return []
    return [{ columns, rows, pitchXM: widthM / columns, pitchYM: heightM / rows }]
  })
  const [best] = choices.toSorted((a, b) => roomOf(b) - roomOf(a) || b.columns - a.columns)
  if (!best) return null
  const { columns, rows, pitchXM, pitchYM } = best
  const centres = Array.from({ length: count }, (_, i) => {
    const row = Math.floor(i / columns)
    const inRow = Math.min(columns, count - row * columns)
    return {
      xM: ((i % columns) - (inRow - 1) / 2) * pitchXM,
      yM: ((rows - 1) / 2 - row) * pitchYM,
    }
  })
  return { columns, rows, pitchXM, pitchYM, centres }
}

/** What is left round frames that were placed by hand; below 0 they overlap, or stand over the edge. */
export interface LayoutGaps {
  /** between the two nearest frames, m; null for one alone */
  frameM: number | null
  edgeM: number
  /** to the nearest zone, m; null without one */
  zoneM: number | null
}
/** Gap between two rectangles, m: along the axis on which they are further apart; below 0 they overlap. */
const gapBetween = (dx: number, dy: number, halfX: number, halfY: number) =>
  Math.max(Math.abs(dx) - halfX, Math.abs(dy) - halfY)
/**
 * The smallest gaps between square frames, to the panel's edge and to what is to be kept clear.
 * @param spots middles from the panel's lower left corner, m, one at least @param frameM side of a frame, m
 * Reference: rectangles side by side, geometry
 */
export function layoutGaps(
  spots: readonly { xM: number; yM: number }[],
  widthM: number,
  heightM: number,
  frameM: number,
  zones: readonly Zone[] = [],
): LayoutGaps {
  const half = frameM / 2
  const pairs = spots.flatMap((a, i) =>
    spots.slice(i + 1).map((b) => gapBetween(a.xM - b.xM, a.yM - b.yM, frameM, frameM)),
  )
  const edges = spots.flatMap(({ xM, yM }) => [xM - half, widthM - xM - half, yM - half, heightM - yM - half])
  const clear = spots.flatMap(({ xM, yM }) =>
    zones.map((z) =>
      gapBetween(
        xM - z.leftM - z.widthM / 2,
        yM - z.bottomM - z.heightM / 2,
        half + z.widthM / 2,
        half + z.heightM / 2,
      ),
    ),
  )
  return {
    frameM: pairs.length ? Math.min(...pairs) : null,
    edgeM: Math.min(...edges),
    zoneM: clear.length ? Math.min(...clear) : null,
  }
}
