import { useLocalStorage } from '@vueuse/core'
import { judge, tickStep, untickStep, type BuiltStep } from '#core/build'
import { newBuild, type StreamPlan, type Tick } from '#core/document'

/**
 * The build of the open job: ticks with what was measured, taken back, cautions answered for. A tick is a change of the
 * plan like any other: kept in the browser and sent again when the server answers.
 */
export function useBuild() {
  const { store, plan, report } = useJob('build')
  const who = useLocalStorage('redpoll.who', '')
  const build = computed(() => report.value.build)
  const changed = (mutate: (d: StreamPlan) => void) => (d: StreamPlan) => {
    d.build ??= newBuild(newId('build'))
    mutate(d)
  }
  /** Ticks a step. @returns what is wrong with the value; '' where it is ticked */
  function tick(step: BuiltStep, value: number | null, note: string, photoId: string | null): string {
    if (step.measure && value !== null) {
      const judged = judge(step.measure, value)
      if (!judged.ok) return judged.message
    }
    store.change(
      changed((d) =>
        tickStep(d, step, { at: new Date().toISOString(), who: who.value.trim(), value, note, photoId }),
      ),
      '',
      `the step “${step.title}”`,
    )
    return ''
  }
  const untick = (step: BuiltStep) =>
    store.removeWithUndo(
      `“${step.title}” is open again.`,
      changed((d) => untickStep(d, step.key)),
    )
  /** Words or a photo for a step that is ticked: when and by whom stays as it is. */
  const annotate = (step: BuiltStep, more: Partial<Pick<Tick, 'note' | 'photoId'>>) =>
    store.change(
      changed((d) => {
        const found = d.build!.ticks.find((t) => t.id === step.key)
        if (found) Object.assign(found, more)
      }),
      `build.${step.key}.note`,
      `note or photo of “${step.title}”`,
    )
  const release = (id: string, reason: string, name: string) =>
    store.change(
      changed((d) => {
        const rest = d.build!.releases.filter((r) => r.id !== id)
        d.build!.releases = [...rest, { id, at: new Date().toISOString(), who: name, reason }]
      }),
      '',
      'the caution answered for',
    )
  const holdAgain = (id: string) =>
    store.removeWithUndo(
      'The caution holds again.',
      changed((d) => {
        d.build!.releases = d.build!.releases.filter((r) => r.id !== id)
      }),
    )
  return { store, plan, report, build, who, tick, untick, annotate, release, holdAgain }
}
