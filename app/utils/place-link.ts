import type { Where } from '#core/rules'

/** The address of a place in a job: its station, what is opened there, and the field that is to be filled in. */
export const placeLink = (jobId: string, { station, element, part, run, field, stream, place }: Where) => ({
  path: `/job/${jobId}/${station}`,
  query: {
    ...(element ? { element } : {}),
    ...(part ? { part } : {}),
    ...(run ? { run } : {}),
    ...(stream ? { stream } : {}),
    ...(place ? { place: String(place + 1) } : {}),
  },
  hash: field ? `#field-${field}` : '',
})

const stationNames: Record<Where['station'], string> = {
  brief: 'Brief',
  need: 'Need',
  'air-path': 'Air path',
  'line-up': 'Line-up',
  fit: 'Fit',
  power: 'Power',
  control: 'Control',
  build: 'Build',
  log: 'Log',
  verdict: 'Verdict',
}
export const stationName = ({ station }: Pick<Where, 'station'>) => stationNames[station]
