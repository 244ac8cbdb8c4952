import type { MountReport } from '#core/mount'
import type { PlacePlan } from '#core/document'
import { BEYOND_M, fanMarks, outline, ruler, together } from './marks'
import type { Template } from './template'

/**
 * The template of the whole panel: every fan where it stands, and the panel's edge. Null without a layout.
 * @param holeM diameter to cut, m
 */
export function panelTemplate(plan: PlacePlan, mount: MountReport, holeM: number): Template | null {
  const { panelWidthM, panelHeightM } = plan.place.fit ?? { panelWidthM: null, panelHeightM: null }
  if (!mount.layout || panelWidthM === null || panelHeightM === null) return null
  const fans = together(mount.layout.centres.map((at) => fanMarks(plan, mount, holeM, at)))
  const zones = plan.place.fit!.keepClear.map((z) => ({
    ...z,
    xM: z.leftM + z.widthM / 2 - panelWidthM / 2,
    yM: z.bottomM + z.heightM / 2 - panelHeightM / 2,
  }))
  const below = ruler(-panelHeightM / 2 - 2 * BEYOND_M)
  return {
    name: `${plan.job.name}, panel`,
    ...fans,
    strokes: [
      ...outline(0, 0, panelWidthM / 2, panelHeightM / 2),
      ...zones.flatMap((z) => outline(z.xM, z.yM, z.widthM / 2, z.heightM / 2)),
      ...fans.strokes,
      ...below.strokes,
    ],
    words: [
      ...below.words,
      ...zones.map((z) => ({ text: `${z.name}: keep clear`, atM: [z.xM, z.yM] as const })),
    ],
  }
}

/**
 * The template of one fan: its hole, its screw holes, its frame, the middle lines, and a ruler.
 * @param holeM diameter to cut, m
 */
export function fanTemplate(plan: PlacePlan, mount: MountReport, holeM: number): Template {
  const marks = fanMarks(plan, mount, holeM, { xM: 0, yM: 0 })
  const below = ruler(-mount.fan.frameM / 2 - 3 * BEYOND_M)
  return {
    name: `${plan.job.name}, ${mount.fan.model}`,
    ...marks,
    strokes: [...marks.strokes, ...below.strokes],
    words: below.words,
  }
}
