import { until } from '@vueuse/core'
import { buildSheet } from '#core/build'
import { seenAt, seenFrom, wholePlan } from '#core/document'

/** The sheet of a build with its drawings, made when somebody prints it. */
const WAIT_MS = 3000

export function useBuildSheet(wiring: () => SVGSVGElement | null) {
  const { plan, report } = useJob('build')
  const { units } = useUnits()
  const toast = useToast()
  const shown = ref(false)
  const making = ref(false)
  const templates = shallowRef<{ name: string; svg: string }[]>([])
  const sheet = computed(() => buildSheet(plan.value.job.name, report.value.build, units.value))
  const wired = computed(() => report.value.power.feed.nodes.length > 0)
  const name = computed(() => fileWords(plan.value.job.name))

  async function drawn() {
    const { fanTemplate, panelTemplate, templateSvg } = await import('#core/drawing')
    templates.value = report.value.streams.flatMap((s) =>
      s.asIs
        ? []
        : s.mounts.map((mount) => {
            // each place has a panel of its own
            const face = seenAt(seenFrom(wholePlan(plan.value), s.id), mount.place)
            const hole = mount.holeM ?? mount.wantedM
            const made = panelTemplate(face, mount, hole) ?? fanTemplate(face, mount, hole)
            return { name: made.name, svg: templateSvg(made) }
          }),
    )
    shown.value = true
    if (wired.value) {
      // the diagram is laid out by a worker of its own
      const there = ref(false)
      const timer = setInterval(() => (there.value = wiring() !== null), 50)
      await until(there).toBe(true, { timeout: WAIT_MS })
      clearInterval(timer)
    }
    await nextTick()
  }
  async function print() {
    making.value = true
    try {
      await drawn()
    } finally {
      making.value = false
    }
    window.print()
  }
  async function pdf() {
    making.value = true
    try {
      await drawn()
      const drawing = wiring()
      await saveBuildPdf(
        sheet.value,
        drawing ? standalone(drawing) : '',
        templates.value,
        `${name.value}-build.pdf`,
      )
    } catch (error) {
      toast.show(`The PDF could not be made: ${error instanceof Error ? error.message : 'unknown reason'}`, {
        tone: 'bad',
      })
    }
    making.value = false
  }
  return { sheet, shown, making, templates, wired, name, print, pdf }
}
