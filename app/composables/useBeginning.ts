import { useSessionStorage } from '@vueuse/core'
import {
  assumptionsOf,
  beginPlan,
  sizesOf,
  unknownSizes,
  usualShape,
  type BeginFan,
  type BeginLabel,
  type PathSizes,
  type Shape,
} from '#core/begin'
import {
  newStreamPlan,
  seenFrom,
  wholePlan,
  type Fan,
  type Goal,
  type Job,
  type StreamPlan,
  type Uncertainty,
} from '#core/document'
import { computeReport } from '#core/plan'
import type { StoredPlan } from '#shared/api'

/** All that is answered before a job is there; kept in the browser until it is, so that nothing typed is lost. */
interface Answers {
  name: string
  job: Job
  uncertainties: Uncertainty[]
  levelDbA: number | null
  shape: Shape
  sizes: PathSizes
  copied: { id: string; path: StreamPlan['path']; branches: StreamPlan['branches'] } | null
  way: BeginFan['way']
  label: BeginLabel
  fanId: string | null
}
const unanswered = (): Answers => ({
  name: '',
  job: newStreamPlan('job-new', 'New job').job,
  uncertainties: [],
  levelDbA: null,
  shape: usualShape.cool,
  sizes: { ...unknownSizes },
  copied: null,
  way: 'label',
  label: { frameM: null, ratedV: null, ratedA: null, ratedRpm: null },
  fanId: null,
})

/** What a new job is begun with, its first plan and report as they stand, and the press that makes the job. */
export function useBeginning() {
  const shelf = useShelfStore()
  const answers = useSessionStorage('redpoll-new-job', unanswered(), { mergeDefaults: true })
  const problem = ref('')

  const change = (part: Partial<Answers>) => {
    answers.value = { ...answers.value, ...part }
  }
  const without = (key: string) => answers.value.uncertainties.filter((u) => u.id !== key)
  const set = (key: keyof Job, value: unknown) =>
    change({ job: { ...answers.value.job, [key]: value }, uncertainties: without(key) })
  const setRange = (entry: Uncertainty | null, key: string, value?: number) =>
    change({
      job: value === undefined ? answers.value.job : { ...answers.value.job, [key]: value },
      uncertainties: [...without(key), ...(entry ? [entry] : [])],
    })
  /** Another goal has its usual shape; facts that both ask for stay. */
  function setGoal(goal: Goal) {
    set('goal', goal)
    change({ shape: usualShape[goal] })
  }
  async function copyFrom(id: string | null) {
    problem.value = ''
    if (id === null) return change({ copied: null })
    const result = await api<StoredPlan>(`jobs/${id}`)
    if (!result.ok) {
      problem.value = result.message
      return
    }
    const { path, branches } = seenFrom(result.data.plan)
    change({ copied: { id, path, branches } })
  }
  // one of the shelf may still have to come here
  watch(
    () => answers.value.fanId,
    (id) => void shelf.ensure([id]),
    { immediate: true },
  )
  const fan = computed((): BeginFan => {
    const { way, label, fanId } = answers.value
    if (way === 'label') return { way, label }
    const known = shelf.known.find((f) => f.id === fanId)
    return way !== 'known' ? { way } : known ? { way, fan: known } : { way: 'shelf' }
  })
  const beginning = computed(() => ({ ...answers.value, path: answers.value.copied, fan: fan.value }))
  const assumptions = computed(() => assumptionsOf(answers.value.job))
  const first = computed(() => {
    let n = 0
    const { plan, made } = beginPlan(beginning.value, (kind) => `${kind}-first-${++n}`)
    const fans: Fan[] = made ? [made] : fan.value.way === 'known' ? [fan.value.fan] : []
    const result = computeReport({ plan, fans, shown: null })
    return { plan, made, report: result.ok ? result.report : null }
  })
  /** What was not said and is assumed. */
  const open = computed(() => ({
    facts: assumptions.value.filter((a) => answers.value.job[a.key] === null),
    sizes: sizesOf[answers.value.shape].filter((key) => answers.value.sizes[key] === null),
  }))

  /** Makes the job with its fan, in one request, and goes to its line-up. @param fallback its name where none was typed */
  async function begin(fallback: string) {
    const name = answers.value.name.trim() || fallback
    const { plan, made } = beginPlan({ ...beginning.value, job: { ...answers.value.job, name } }, newId)
    const result = await api<StoredPlan>('jobs/import', {
      method: 'POST',
      body: { plan: wholePlan(plan), fans: made ? [made] : [] },
    })
    if (!result.ok) {
      problem.value = result.message
      return
    }
    answers.value = unanswered()
    if (made) await shelf.load(true)
    await navigateTo(`/job/${result.data.plan.job.id}/line-up`)
    void landIn('#main')
  }
  /** A job of which only the name is known. */
  async function beginEmpty(fallback: string) {
    const body = { name: answers.value.name.trim() || fallback }
    const result = await api<StoredPlan>('jobs', { method: 'POST', body })
    if (!result.ok) {
      problem.value = result.message
      return
    }
    answers.value = unanswered()
    await navigateTo(`/job/${result.data.plan.job.id}/brief`)
    void landIn('#main')
  }
  return {
    answers,
    problem,
    assumptions,
    first,
    open,
    change,
    set,
    setRange,
    setGoal,
    copyFrom,
    begin,
    beginEmpty,
  }
}
