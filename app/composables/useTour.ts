import type { JobSummary } from '#shared/api'
import { tourAt } from '~/composables/useTourStep'

/**
 * The tour: the demo's film cabinet (or the job that is there), station by station, pointing at the parts of the screen
 * that one works with.
 */

export interface TourStep {
  station: string
  /** selector of what is pointed at */
  at: string
  title: string
  text: string
}
/** The job that it is told with, where it is there. */
const DEMO = 'job-film-cabinet'
let jobId = DEMO
export const tourSteps: TourStep[] = [
  {
    station: 'brief',
    at: 'nav[aria-label="Stations"]',
    title: 'Eight stations',
    text: 'From the complaint to the verdict. Each says its answer in one line, and its mark says how it stands. Number keys go there.',
  },
  {
    station: 'brief',
    at: '.ticks',
    title: 'What can hurt',
    text: 'Tick what applies before anything is opened: each tick brings its caution.',
  },
  {
    station: 'need',
    at: '[data-field="volumeM3"]',
    title: 'Any unit, or a range',
    text: 'Type as you would say it: 0.46 m3, 460 L, 400 to 500 L. What cannot be read says so beside the field.',
  },
  {
    station: 'need',
    at: '.figure',
    title: 'Every figure opens',
    text: 'Press one for its formula, its inputs, its source and its range. A tilde says: estimated.',
  },
  {
    station: 'air-path',
    at: '[aria-label="How the path answers"]',
    title: 'Fan against path',
    text: 'The fan’s curve falls, the path’s rises. Where they cross the fan runs: the operating point.',
  },
  {
    station: 'line-up',
    at: '.ranks',
    title: 'Which fan, how fast',
    text: 'Every fan of your shelf on this path, each at the lowest voltage that is enough. Pick one: power and wiring follow.',
  },
  {
    station: 'line-up',
    at: '.surer',
    title: 'What would make this surer',
    text: 'The measurement that takes away most of the doubt stands first. Press it to go there.',
  },
  {
    station: 'power',
    at: '[aria-label="Wiring diagram"]',
    title: 'Drawn from the plan',
    text: 'Press a part of the drawing: its form opens beside it. Connection order says what comes first.',
  },
  {
    station: 'log',
    at: 'form.line',
    title: 'A reading in one line',
    text: '31.8 31.3 dB(A) chair, working: what was understood is shown before it is taken.',
  },
  {
    station: 'verdict',
    at: 'main h2',
    title: 'Did it work?',
    text: 'The targets against what was measured, before against after, and whether the comparison is fair.',
  },
  {
    station: 'verdict',
    at: 'button[aria-label^="Findings:"]',
    title: 'Findings',
    text: 'What to stop for and what to fix, with why, what to do and where. Key i opens them everywhere.',
  },
]

const show = async (step: number) => {
  const { station } = tourSteps[step]!
  await navigateTo(`/job/${jobId}/${station}`)
  tourAt.value = step
}
export async function beginTour() {
  const result = await api<JobSummary[]>('jobs?soon=1')
  const jobs = result.ok ? result.data : []
  const open = useJobStore().plan?.job.id
  const told = [DEMO, open].find((id) => jobs.some((j) => j.id === id)) ?? jobs[0]?.id
  if (!told) return useToast().show('The tour points at the parts of a job: begin one first.')
  jobId = told
  await show(0)
}
export const goInTour = (step: number) => (step >= 0 && step < tourSteps.length ? show(step) : endTour())
export function endTour() {
  tourAt.value = null
}
