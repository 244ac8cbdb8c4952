import * as fit from '#core/fit'
import { freeShare } from '#core/airpath'

/** The calculations of the chapter on fit, from a case's inputs in SI. */
interface Reader {
  has: (name: string) => boolean
  n: (name: string, otherwise?: number) => number
  list: (name: string) => number[]
  text: (name: string) => string
}

/** A thread is written in mm: M4 is 4. */
const thread = (i: Reader) => Math.round(i.n('thread') * 1e4) / 10

export const fitCalcs: Record<string, (i: Reader) => unknown> = {
  'fit.holeSpacing': (i) => fit.frameOf(i.n('frame'))?.spacingM ?? null,
  'fit.identifyFrame': (i) => fit.identifyFrame(i.n('measured_frame'), i.n('measured_spacing'))?.sideM ?? null,
  'fit.boltCircle': (i) => fit.boltCircle(i.n('hole_spacing')),
  'fit.webWidth': (i) => fit.webWidth(i.n('hole_spacing'), i.n('cutout'), i.n('hole')),
  'fit.areaShare': (i) => fit.areaShare(i.n('actual'), i.n('wanted')),
  'fit.holeSaw': (i) => fit.holeSaw(i.n('wanted'), i.list('available')),
  'fit.ellipseArea': (i) => fit.ellipseArea(i.n('width'), i.n('height')),
  'fit.slotArea': (i) => fit.slotArea(i.n('length'), i.n('width')),
  'fit.annulusArea': (i) => fit.annulusArea(i.n('diameter'), i.n('hub')),
  'fit.perforatedShareHex': (i) => freeShare('staggered', i.n('hole'), i.n('pitch')),
  'fit.perforatedShareSquare': (i) => freeShare('square', i.n('hole'), i.n('pitch')),
  'fit.meshShare': (i) => freeShare('mesh', i.n('opening'), i.n('opening') + i.n('wire')),
  'fit.clearanceHole': (i) => fit.threadOf(thread(i))?.clearanceM ?? null,
  'fit.pitch': (i) => fit.threadOf(thread(i))?.pitchM ?? null,
  'fit.nutHeight': (i) => fit.threadOf(thread(i))?.nutM ?? null,
  'fit.screwMinLength': (i) => fit.screwMinLength(i.list('stack'), i.n('washers'), thread(i)),
  'fit.screwLength': (i) => {
    const least = fit.screwMinLength(i.list('stack'), i.n('washers'), thread(i))
    return least === null ? null : fit.screwLength(least)
  },
  'fit.curtainDistance': (i) => fit.curtainDistance(i.n('diameter')),
  'fit.curtainShare': (i) => fit.curtainShare(i.n('diameter'), i.n('gap')),
  'fit.adapterLength': (i) => fit.adapterLength(i.n('d_large'), i.n('d_small'), i.n('half_angle')),
  'fit.guardDistance': (i) => fit.guardDistance(i.n('opening'), i.text('shape') as fit.GuardShape),
  'fit.ipProbe': (i) => fit.ipProbe(i.n('first_numeral')),
  'fit.filterArea': (i) => fit.filterArea(i.n('flow'), i.n('face_velocity')),
  'fit.faceVelocity': (i) => fit.faceVelocity(i.n('flow'), i.n('width') * i.n('height')),
}
