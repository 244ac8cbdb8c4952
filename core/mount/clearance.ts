import type { Fit, Thing } from '#core/document'

/** What is in the way of the fans on either side of the panel, fixed or moving. */

export interface ThingRoom {
  thing: Thing
  /** from the panel's face at its nearest, m; null: place or travel not told */
  nearestM: number | null
  /** between it and what stands on its side, m; below 0 they meet */
  roomM: number | null
}

/**
 * Room to everything in the way.
 * @param insideM depth that the fans take inside, m @param outsideM what stands before the panel, m
 * Reference: place less travel less what stands there, difference
 */
export const thingsOf = (fit: Fit | null, insideM: number, outsideM: number): ThingRoom[] =>
  (fit?.things ?? []).map((thing) => {
    const travelM = thing.moving ? thing.travelM : 0
    const taken = thing.side === 'inside' ? insideM : outsideM
    // what strikes where it rests strikes whatever its travel
    const restM = thing.fromPanelM === null ? null : thing.fromPanelM - taken
    if (restM === null || (travelM === null && restM >= 0)) return { thing, nearestM: null, roomM: null }
    const nearestM = thing.fromPanelM! - (travelM ?? 0)
    return { thing, nearestM, roomM: nearestM - taken }
  })
