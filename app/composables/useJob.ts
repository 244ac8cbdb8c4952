import type { Job, Place } from '#core/document'
import type { StationKey } from '#core/rules'

/** What every station of the open job needs: document, report, a setter for the job's own fields, its findings. */
export function useJob(station: StationKey) {
  const store = useJobStore()
  const plan = computed(() => store.plan!)
  const report = computed(() => store.report!)
  const set =
    <K extends keyof Job>(key: K, label = '') =>
    (value: Job[K]) => {
      store.change(
        (draft) => {
          draft.job[key] = value
        },
        `job.${key}`,
        label,
      )
    }
  /** The same for a form: the key tells which, its label what undo calls it. */
  const put = (key: keyof Job, value: unknown, label = '') => set(key, label)(value as never)
  /** The same for a field of the place of the fans that is shown. */
  const putPlace = (key: keyof Place, value: unknown, label = '') =>
    store.change((d) => assign(d.place, key, value), `place.${plan.value.place.id}.${key}`, label)
  const findings = computed(() => report.value.findings.findings.filter((f) => f.station === station))
  return { store, plan, report, set, put, putPlace, findings }
}

/** A short id for a new row of the document. */
export const newId = (prefix: string) => `${prefix}-${crypto.randomUUID().slice(0, 8)}`
