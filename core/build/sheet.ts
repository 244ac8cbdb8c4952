import { markdownText as md, printQuantity, sayIn, type UnitPreferences } from '#core/units'
import type { BuildReport } from './build'
import { toolNames } from './step'

/** The build as a sheet to be printed or kept: tick boxes, the plan's numbers, cautions before what they concern. */

export interface BuildSheet {
  title: string
  sittings: {
    name: string
    tools: string[]
    cautions: { say: string; rest: string }[]
    /** value: what was measured; '' where it is to be written in, null where nothing is measured */
    steps: { done: boolean; title: string; text: string; value: string | null; note: string }[]
  }[]
  notChecked: string[]
  last: string
}
const line = (text: string) => text.replaceAll('\n', ' ')

/** What was not checked: what nobody was asked, and what no plan can know. Cautions, deferral rule 2. */
export const notChecked = ({ unasked }: Pick<BuildReport, 'unasked'>): string[] => [
  ...unasked.map((c) => `${line(c.say)} Nobody said whether it applies.`),
  'Local rules, the equipment’s manual, the strength of what it hangs on.',
]
/** The last line of every sheet. Cautions, deferral rule 4. */
export const LAST_LINE = 'If you are not sure, stop and ask someone licensed for it.'

/** @param units the person's own */
export function buildSheet(name: string, build: BuildReport, units: UnitPreferences): BuildSheet {
  return {
    title: `Build: ${line(name)}`,
    sittings: build.sittings.map((s) => ({
      name: s.name,
      tools: s.tools.map((t) => toolNames[t]),
      cautions: s.cautions.map((c) => ({
        say: line(c.say),
        rest: [
          line(c.do),
          c.stop ? line(c.stop) : '',
          c.release ? `${line(c.release.who)} answers for it: ${line(c.release.reason)}` : '',
        ]
          .filter(Boolean)
          .join(' '),
      })),
      steps: s.steps.map((step) => ({
        done: step.state === 'done',
        title: line(step.title),
        text: line(sayIn(step.text, units)),
        value: step.look
          ? step.state === 'done'
            ? step.look.right
            : ''
          : !step.measure
            ? null
            : step.tick?.value == null || step.state !== 'done'
              ? ''
              : printQuantity(step.tick.value, step.measure.quantity, units),
        note: line(step.tick?.note ?? ''),
      })),
    })),
    notChecked: notChecked(build),
    last: LAST_LINE,
  }
}

/** The same as Markdown. */
export function buildMarkdown(sheet: BuildSheet): string {
  const sittings = sheet.sittings.flatMap((s) => [
    `## ${md(s.name)}`,
    '',
    ...(s.tools.length ? [`On the table: ${md(s.tools.join('; '))}.`, ''] : []),
    ...s.cautions.flatMap((c) => [`> **${md(c.say)}** ${md(c.rest)}`, '']),
    ...s.steps.map(({ done, title, text, value, note }) => {
      const found = value === null ? '' : `: ${value ? md(value) : '____'}`
      const end = found || !title.endsWith('?') ? '.' : ''
      return `- [${done ? 'x' : ' '}] **${md(title)}**${found}${end} ${md(text)}${note ? ` (${md(note)})` : ''}`
    }),
    '',
  ])
  return [
    `# ${md(sheet.title)}`,
    '',
    ...sittings,
    '## Not checked',
    '',
    ...sheet.notChecked.map((t) => `- ${md(t)}`),
    '',
    md(sheet.last),
    '',
  ].join('\n')
}
