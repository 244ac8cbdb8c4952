/** Operating points: the core against a plain root-finder, and against the same arithmetic as a bare loop in C. */
import { execFileSync, spawnSync } from 'node:child_process'
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { asSheet, makeCurve, pressureAt, stableFlow, type FanCurve, type Resistance } from '#core/fan'
import { seeded } from '#core/numeric'
import { demoFans } from '../demo/fans'
import { line, time } from './measure'

interface Problem {
  curve: FanCurve
  path: Required<Resistance>
}

/** The plain way that finds every crossing: sample each interval in 32 parts, bisect each change of sign. */
function genericFlow(curve: FanCurve, path: Resistance): number {
  const f = (q: number) => pressureAt(curve, q)! - path.a * q - path.b * q * q
  for (let k = 0; k < curve.q.length - 1; k++) {
    const h = (curve.q[k + 1]! - curve.q[k]!) / 32
    for (let i = 0; i < 32; i++) {
      let low = curve.q[k]! + i * h
      let high = i === 31 ? curve.q[k + 1]! : low + h
      if (!(f(low) >= 0 && f(high) < 0)) continue
      while (high - low > 1e-9 * curve.q.at(-1)!) {
        const middle = (low + high) / 2
        if (f(middle) >= 0) low = middle
        else high = middle
      }
      return (low + high) / 2
    }
  }
  return curve.q.at(-1)!
}

function drawProblems(): Problem[] {
  const random = seeded(11)
  const fans = demoFans.filter((f) => f.points.length)
  return Array.from({ length: 2000 }, (_, i) => {
    const fan = fans[i % fans.length]!
    const made = makeCurve(fan.points.map((p) => ({ q: p.flowM3s, p: p.pressurePa })))
    if (!made.ok) throw new Error(made.message)
    const q = made.curve.q.at(-1)! * (0.2 + 0.7 * random())
    return { curve: made.curve, path: { a: 0, b: (made.curve.p[0]! * 0.5) / q ** 2, staticHead: 0 } }
  })
}

/** The same problems in C. @returns a run of them: its time, ms, and the flows; null where there is no compiler */
function inC(problems: readonly Problem[]): (() => { ms: number; flows: number[] }) | null {
  const folder = '.cache/bench'
  mkdirSync(folder, { recursive: true })
  const [program, file] = [join(folder, 'operating-points'), join(folder, 'operating-points.bin')]
  const built = spawnSync('cc', ['-O2', '-o', program, 'bench/operating-points.c', '-lm'])
  if (built.status !== 0) return null
  const numbers = problems.flatMap(({ curve: { q, p, m }, path }) => [
    q.length,
    path.a,
    path.b,
    path.staticHead,
    ...Array.from(q).flatMap((x, k) => [x, p[k]!, m[k]!]),
  ])
  writeFileSync(file, Float64Array.from([problems.length, ...numbers]))
  return () => {
    const [ms, ...flows] = execFileSync(program, [file], { encoding: 'utf8' }).trim().split('\n').map(Number)
    return { ms: ms!, flows }
  }
}

export function benchPoints(): void {
  const problems = drawProblems()
  const all = () => {
    for (const { curve, path } of problems) stableFlow(curve, path, asSheet)
  }
  const ours = time(all, 1501)
  const generic = time(() => {
    for (const { curve, path } of problems) genericFlow(curve, path)
  }, 5)
  const worst = Math.max(
    ...problems.map(({ curve, path }) =>
      Math.abs(stableFlow(curve, path, asSheet) / genericFlow(curve, path) - 1),
    ),
  )
  line(
    'operating points: core against a plain root-finder',
    `${(generic / ours).toFixed(0)} x`,
    'at least 20 x',
    generic / ours >= 20,
  )
  console.log(
    `      ${((problems.length / ours) * 1000).toFixed(0)} operating points a second; largest disagreement ${worst.toExponential(1)}`,
  )
  const bare = inC(problems)
  if (!bare) return console.log('      no C compiler here: not held against a bare loop in C')
  const { flows } = bare()
  const off = Math.max(
    ...problems.map(({ curve, path }, i) => Math.abs(stableFlow(curve, path, asSheet) / flows[i]! - 1)),
  )
  // in turn, so that what the machine does besides falls on both
  const ratios = Array.from({ length: 21 }, () => time(all, 201) / bare().ms)
  const ratio = ratios.sort((a, b) => a - b)[10]!
  line(
    'operating points: core against the same loop in C',
    `${ratio.toFixed(2)} x`,
    'within 1.2 x',
    ratio <= 1.2 && off < 1e-12,
  )
}
