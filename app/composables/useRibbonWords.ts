import type { RibbonSegment } from '#core/plan'
import { nameLines, type Lane } from '~/charts/ribbon-layout'

/** Below this a chamber is as good as level with the room, Pa. */
const LEVEL_PA = 0.05

/** A way, with how many alike it stands for. */
const wayName = ({ name, times }: { name: string; times: number }) => (times > 1 ? `${times} × ${name}` : name)

/** What the ribbon says of its pieces, in the person's units. */
export function useRibbonWords() {
  const { show, symbol, bare } = useUnits()

  /** −1 under, +1 over the room's pressure, 0 level with it. */
  const pressed = (s: RibbonSegment) =>
    s.kind !== 'chamber' || s.gaugePa === null || Math.abs(s.gaugePa) < LEVEL_PA ? 0 : Math.sign(s.gaugePa)
  const gaugeWords = (s: RibbonSegment) =>
    pressed(s)
      ? `${bare(Math.abs(s.gaugePa!), 'pressure')} ${symbol('pressure')} ${pressed(s) < 0 ? 'under' : 'over'}`
      : ''
  /** The one value above a piece. */
  const valueOf = (s: RibbonSegment) =>
    s.kind.startsWith('room')
      ? show(s.temperatureC, 'temperature')
      : s.missing
        ? 'size?'
        : s.kind === 'chamber'
          ? gaugeWords(s)
          : s.deltaPa === null
            ? ''
            : `${s.deltaPa > 0 ? '+' : ''}${bare(s.deltaPa, 'pressure')} ${symbol('pressure')}`
  /** Of a way its name with its flow, or what of it fits whole. */
  const laneWords = (lane: Lane) => {
    const name = wayName(lane)
    const { flow, width: room } = lane
    return (
      [flow === null ? name : `${name} ${show(flow, 'flow')}`, name].find(
        (w) => nameLines(w, room).length === 1,
      ) ?? ''
    )
  }
  /** All of a piece in one sentence. */
  function wordsOf(s: RibbonSegment): string {
    const parts = [s.name]
    if (s.areaM2) parts.push(`free area ${show(s.areaM2, 'area')}`)
    if (s.missing) parts.push('size missing')
    if (s.deltaPa !== null && s.kind !== 'chamber')
      parts.push(`${s.deltaPa > 0 ? 'gains' : 'loses'} ${show(Math.abs(s.deltaPa), 'pressure')}`)
    if (s.kind === 'chamber' && s.gaugePa !== null)
      parts.push(
        `${show(Math.abs(s.gaugePa), 'pressure')} ${s.gaugePa < 0 ? 'under' : 'over'} the room’s pressure`,
      )
    if (s.temperatureC !== null) parts.push(`air at ${show(s.temperatureC, 'temperature')}`)
    for (const b of s.branches)
      parts.push(`${b.leak ? 'leak ' : ''}${wayName(b)}${b.flow === null ? '' : ` ${show(b.flow, 'flow')}`}`)
    return parts.join(', ')
  }
  return { pressed, valueOf, laneWords, wordsOf }
}
