import { sayIn, printQuantity, type UnitPreferences } from '#core/units'
import type { BuildReport } from './build'

/** The build as a sheet to be printed or kept: tick boxes, the plan's numbers, cautions before what they concern. */

const line = (text: string) => text.replaceAll('\n', ' ')

/** @param units the person's own */
export function buildMarkdown(name: string, build: BuildReport, units: UnitPreferences): string {
  const sittings = build.sittings.flatMap((s) => [
    `## ${s.name}`,
    '',
    ...s.cautions.flatMap((c) => {
      const held = c.stop ? ` **${line(c.stop)}**` : ''
      const answered = c.release ? ` ${c.release.who} answers for it: ${line(c.release.reason)}` : ''
      return [`> **${line(c.say)}** ${line(c.do)}${held}${answered}`, '']
    }),
    ...s.steps.map((step) => {
      const value =
        step.tick && step.tick.value !== null && step.measure
          ? `: ${printQuantity(step.tick.value, step.measure.quantity, units)}`
          : step.measure
            ? ': ____'
            : ''
      const end = value ? '.' : step.title.endsWith('?') ? '' : '.'
      const box = step.state === 'done' ? 'x' : ' '
      return `- [${box}] **${line(step.title)}**${value}${end} ${line(sayIn(step.text, units))}`
    }),
    '',
  ])
  const unasked = build.unasked.map((c) => `- ${line(c.say)} Nobody said whether it applies.`)
  return [
    `# Build: ${line(name)}`,
    '',
    ...sittings,
    '## Not checked',
    '',
    ...unasked,
    '- Local rules, the equipment’s manual, the strength of what it hangs on.',
    '',
    'If you are not sure, stop and ask someone licensed for it.',
    '',
  ].join('\n')
}
