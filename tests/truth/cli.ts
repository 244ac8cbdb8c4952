/**
 * npm run check:truth [-- SEED [PLANS]]: a thousand random plans against a second, slow solver and against what physics
 * demands; then two tables of simulated true worlds against the ranges and chances that were stated. Exit code 1 when a
 * goal is missed.
 */
import { complaintsOf } from './compare'
import { countWorlds, missedGoals, tableOf, type Delivery } from './worlds'

const from = Number(process.argv[2] ?? 1)
const plans = Number(process.argv[3] ?? 1000)
/** Plans of the tables, and worlds of each. */
const WORLD_PLANS = 1500
const WORLDS = 8
const SHOWN = 40

let bad = 0
for (let seed = from; seed < from + plans; seed++)
  for (const { what } of complaintsOf(seed)) {
    bad++
    if (bad <= SHOWN) console.log(`  plan ${seed}: ${what}`)
  }
console.log(`${plans} random plans from seed ${from}: ${bad} complaints\n`)

const names: Record<Delivery, string> = {
  stated: 'fan, path, heat, ambient drawn from the stated doubts',
  claims: 'the same, and all claimed fans deliver 80 to 105 % of their claim',
}
for (const delivery of ['stated', 'claims'] as const) {
  const tally = countWorlds(delivery, WORLD_PLANS, WORLDS, from)
  console.log(`${names[delivery]}, ${tally.worlds} worlds`)
  for (const line of tableOf(tally)) console.log(`  ${line}`)
  for (const goal of missedGoals(tally)) {
    bad++
    console.log(`  missed: ${goal}`)
  }
}
process.exitCode = bad ? 1 : 0
