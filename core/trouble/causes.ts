import type { Cause, Symptom } from './cause'
import { current, hot, warm } from './heating-causes'
import type { Known } from './known'
import { louder, whines } from './sounding-causes'
import { backwards, slow, still, stops } from './turning-causes'

const bySymptom: Record<Symptom, (known: Known) => Cause[]> = {
  still,
  backwards,
  slow,
  whines,
  current,
  hot,
  warm,
  louder,
  stops,
}
/** What may be behind a symptom in this plan. */
export const causesOf = (symptom: Symptom, known: Known): Cause[] =>
  bySymptom[symptom](known).filter((c) => c.share > 0)
