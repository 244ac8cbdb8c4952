/** npm run report -- plan.json: a plan document (with its fans) in, the whole report out. The file: { "plan": ..., "fans": [...] }. */
import { readFileSync } from 'node:fs'
import { z } from 'zod'
import { completePlan, fanSchema, planSchema, seenFrom } from '#core/document'
import { computeReport } from '#core/plan'
import { findingMessage } from '#core/rules'
import { printQuantity, sayIn } from '#core/units'

const path = process.argv[2]
if (!path) {
  console.error('npm run report -- plan.json')
  process.exit(2)
}
const parsed = z
  .object({ plan: z.preprocess(completePlan, planSchema), fans: z.array(fanSchema) })
  .safeParse(JSON.parse(readFileSync(path, 'utf8')))
if (!parsed.success) {
  for (const issue of parsed.error.issues) console.error(`${issue.path.join('.')}: ${issue.message}`)
  process.exit(1)
}
const result = computeReport({ plan: seenFrom(parsed.data.plan), fans: parsed.data.fans, shown: null })
if (!result.ok) {
  console.error(result.reason)
  process.exit(1)
}
const { report } = result
for (const s of report.stations) console.log(`${s.title.padEnd(10)} ${s.state.padEnd(10)} ${sayIn(s.headline)}`)
for (const f of [
  report.need.flow,
  report.need.design,
  report.path.drop,
  ...(report.selection?.figures ?? []),
  ...report.power.figures,
]) {
  const print = (value: number | null) => printQuantity(value, f.quantity)
  const range = f.low === null ? '' : `  (${print(f.low)} to ${print(f.high)})`
  console.log(`  ${f.label.padEnd(38)} ${print(f.value)}${range}`)
}
for (const f of report.findings.findings)
  console.log(`  ${f.severity.padEnd(5)} ${f.id}: ${findingMessage(f)}. ${f.fix}.`)
