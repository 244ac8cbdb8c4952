/**
 * npm run check:truth [-- SEED]: a thousand random plans against a second, slow solver and against what physics demands.
 * Exit code 1 when a goal is missed.
 */
import { complaintsOf } from './compare'

const from = Number(process.argv[2] ?? 1)
const PLANS = Number(process.argv[3] ?? 1000)

let bad = 0
for (let seed = from; seed < from + PLANS; seed++)
  for (const { what } of complaintsOf(seed)) {
    bad++
    if (bad <= 40) console.log(`  plan ${seed}: ${what}`)
  }
console.log(`${PLANS} random plans from seed ${from}: ${bad} complaints`)
process.exitCode = bad ? 1 : 0
