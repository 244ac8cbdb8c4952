import { describe, expect, test } from 'vitest'
import { airDensity, dewPoint, wetBulb } from '#core/air'
import {
  adapterLoss,
  frictionFactor,
  hydraulicDiameter,
  kExit,
  laminarConstant,
  meshFactor,
} from '#core/airpath'
import { evaporationRate, waterNetCooling } from '#core/need'
import { batteryForAutonomy } from '#core/power'
import { nodeFigures } from '#core/supply'
import type { Figure } from '#core/figure'
import type { StreamPlan } from '#core/document'
import { computeReport, type Report } from '#core/plan'
import { demoFans } from '../../demo/fans'
import { demoPlans } from '../../demo/jobs'

/**
 * Every figure of every demo job adds up: it is recomputed from the inputs that its working shows, by the formula that it
 * shows, and nothing else.
 */

const CP = 1006
const AIR = 287.05
const KELVIN = 273.15
const HOUR = 3600

/** Inputs by their symbol, as numbers; what is not known is NaN and makes the recomputed value so. */
type Values = Record<string, number>
const valuesOf = (f: Figure): Values => Object.fromEntries(f.inputs.map((i) => [i.symbol, i.value ?? NaN]))
const area = (d: number) => (Math.PI / 4) * d ** 2
const dynamic = (rho: number, v: number) => (rho / 2) * v * v

/** Formulas by what they say; several figures share one. */
const formulas: Record<string, (v: Values, f: Figure) => number> = {
  'ρ = (p − pv)/(287.05·T) + pv/(461.52·T)': (v) => airDensity(v.t!, v.p!, v.RH!)!,
  'P = Q·ρ·cp·(tᵢ − tₐ) + ṁ_w·h': (v) => v.Q! * v.ρ! * CP * (v.tᵢ! - v.tₐ!) + v.ṁ_w! * v.h! * 1000,
  't = Σ tᵢ': (_, f) => f.inputs.reduce((s, i) => s + i.value!, 0),
  'x = d − t': (v) => v.d! - v.t!,
  'w = s/√2 − D/2 − h/2': (v) => v.s! / Math.SQRT2 - v.D! / 2 - v.h! / 2,
  'l = g + e': (v) => v.g! + v.e!,
  's = min(1, 4·x/D)': (v) => Math.min(1, (4 * v.x!) / v.D!),
  's = w/(w + t)': (v) => v.w! / (v.w! + v.t!),
  's = (w/(w + t))²': (v) => (v.w! / (v.w! + v.t!)) ** 2,
  's = 0.9069·(w/(w + t))²': (v) => 0.9069 * (v.w! / (v.w! + v.t!)) ** 2,
  't = x · 24 h': (v) => v.x! * 24 * HOUR,
  'E = P̄ · t': (v) => v['P̄']! * v.t!,
  'v = Q/A': (v) => v.Q! / v.A!,
  'Δp = K·ρ/2·(Q/A)²': (v) => v.K! * dynamic(v.ρ!, v.Q! / v.A!),
  'f = √(g/δ)/2π': (v) => Math.sqrt(9.80665 / v.δ!) / (2 * Math.PI),
  'Q = n · V': (v) => (v.n! * v.V!) / HOUR,
  'Q_plan = Q · (1 + m)': (v) => v.Q! * (1 + v.m!),
  'Q = Q_now · (P/(Δt + g) − UA) / (P/Δt − UA)': (v) =>
    (v.Q_now! * (v.P! / (v.Δt! + v.g!) - v.UA!)) / (v.P! / v.Δt! - v.UA!),
  'Q_plan = target': (v) => v.target!,
  'P = (UA + ρ·cp·Q_rises)·Δt': (v) => (v.UA! + v.ρ! * v.cp! * v.Q_rises!) * v.Δt!,
  'n = Q/V': (v) => (v.Q! * HOUR) / v.V!,
  't = V·K/Q · ln(1/share)': (v) => ((v.V! * v.K!) / v.Q!) * Math.log(1 / v.share!),
  't = K/n · ln(1/share)': (v) => ((v.K! * HOUR) / v.n!) * Math.log(1 / v.share!),
  'Q / Q_need − 1': (v) => v.Q! / v.Q_need! - 1,
  'L = max(15, L_claim + Δ_speed + Δ_distance + Δ_number + Δ_installed + Δ_tests)': (v) =>
    Math.max(15, v.L_claim! + v.Δ_speed! + v.Δ_distance! + v.Δ_number! + v.Δ_installed! + v.Δ_tests!),
  'L = max(15, 10·lg(10^(L₁/10) + 10^(L₂/10)))': (v) =>
    Math.max(15, 10 * Math.log10(10 ** (v['L₁']! / 10) + 10 ** (v['L₂']! / 10))),
  'Q_job = Q · (1 − leak share)': (v) => v.Q! * (1 - v.leak!),
  'Δp = ρ/2 · (Q/(Cd·A))²': (v) => dynamic(v.ρ!, v.Q! / (v.Cd! * v.A!)),
  'Δp = ρ/2 · (Q/(Cd·A))² + 12·μ·L·v/s²': (v) =>
    dynamic(v.ρ!, v.Q! / (v.Cd! * v.A!)) + (12 * v.μ! * 1e-6 * v.L! * (v.Q! / v.A!)) / v.s! ** 2,
  'Δp = K(s) · ρ/2 · (Q/A)²': (v) => v.K! * dynamic(v.ρ!, v.Q! / v.A!),
  'Δp = (K(s)·f(Re) + K_ends) · ρ/2 · (Q/A)², Re = ρ·v·d/μ': (v) => {
    const speed = v.Q! / v.A!
    return (v.K! * meshFactor((v.ρ! * speed * v.d!) / (v.μ! * 1e-6)) + v.K_ends!) * dynamic(v.ρ!, speed)
  },
  'Δp = (m·f(Re, e/D)·L/D + K) · ρ/2 · v²': (v, f) => {
    const speed = v.Q! / v.A!
    const reynolds = (v.ρ! * speed * v.D!) / (v.μ! * 1e-6)
    // a rectangle shows its hydraulic diameter: its sides follow from it and its area
    const round = Math.abs(area(v.D!) / v.A! - 1) < 1e-9
    const half = (2 * v.A!) / v.D! / 2
    const side = half + Math.sqrt(Math.max(0, half * half - v.A!))
    const laminar = round ? 64 : laminarConstant(v.A! / side / side)
    expect(round ? v.D! : hydraulicDiameter(side, v.A! / side)).toBeCloseTo(v.D!, 9)
    const twice = f.inputs.some((i) => i.symbol === 'K_out' && i.label.includes('twice'))
    const out = v.K_out! * (twice ? kExit(reynolds) : 1)
    const friction = (v.m! * frictionFactor(reynolds, v.e! / v.D!, laminar) * v.L!) / v.D!
    return (friction + v.K_in! + out) * dynamic(v.ρ!, speed)
  },
  'Δp = (n · K + K_in + K_out) · ρ/2 · v²': (v) =>
    (v.n! * v.K! + (v.K_in ?? 0) + (v.K_out ?? 0)) * dynamic(v.ρ!, v.Q! / area(v.D!)),
  'Δp = (K + K_in + K_out) · ρ/2 · v²': (v) =>
    (v.K! + (v.K_in ?? 0) + (v.K_out ?? 0)) * dynamic(v.ρ!, v.Q! / area(v.D!)),
  'Δp = (K + K_in + K_out) · ρ/2 · v², v in this branch': (v) =>
    (v.K! + (v.K_in ?? 0) + (v.K_out ?? 0)) * dynamic(v.ρ!, v.Q! / area(v.D!)),
  'Δp = (K + K_other) · ρ/2 · v²': (v) => (v.K! + (v.K_other ?? 0)) * dynamic(v.ρ!, v.Q! / area(v.D!)),
  'Δp = K · ρ/2 · v², v in the narrow bore; ways in and out on their own bores': (v) => {
    const [from, to] = [area(v['D₁']!), area(v['D₂']!)]
    return (
      v.K! * dynamic(v.ρ!, v.Q! / Math.min(from, to)) +
      (v.K_in ?? 0) * dynamic(v.ρ!, v.Q! / from) +
      (v.K_out ?? 0) * dynamic(v.ρ!, v.Q! / to)
    )
  },
  'Δp = p₀ + K · ρ/2 · v²': (v) => v['p₀']! + v.K! * dynamic(v.ρ!, v.Q! / area(v.D!)),
  'Δp = ρ/2 · (v₁² + (0.5 + K_out)·v₂²)': (v) =>
    (adapterLoss(v['A₁']!, v['A₂']!) + v.K_out! / v['A₂']! ** 2) * (v.ρ! / 2) * v.Q! ** 2,
  'Δp ≈ 0: the air is nearly at rest': () => 0,
  'where the fan sits': () => 0,
  'Δp = Σ Δpᵢ(Q)': (v) =>
    Object.entries(v)
      .filter(([k]) => k.startsWith('Δp'))
      .reduce((s, [, x]) => s + x, 0),
  '1 − ΣQ_leak / Q': (v) => 1 - v.Q_leak! / v.Q!,
  'Q = (P − UA·Δt) / (ρ·cp·Δt)': (v) => (v.P! - v.UA! * v.Δt!) / (v.ρ! * CP * v.Δt!),
  'Q = (P − UA·(tᵢ − tₐ)) / (ρ·cp·(tᵢ − tₐ))': (v) =>
    Math.max(0, v.P! - v.UA! * (v['tᵢ']! - v['tₐ']!)) / (v.ρ! * v.cp! * (v['tᵢ']! - v['tₐ']!)),
  'Δt = P/(UA + ρ·cp·Q)': (v) => v.P! / (v.UA! + v.ρ! * CP * v.Q!),
  'tᵢ = tₐ + P/(UA + ρ·cp·Q)': (v) => v['tₐ']! + v.P! / (v.UA! + v.ρ! * v.cp! * v.Q!),
  'tᵢ = tₐ + P/UA': (v) => v['tₐ']! + v.P! / v.UA!,
  't = tₐ + P·(R(Q·ρ/1.2) + R_inner)': (v) => v['tₐ']! + v.P! * (v['R(Q)']! + v.R_inner!),
  'R = 1/(ρ·cp·Q)': (v) => 1 / (v.ρ! * CP * v.Q!),
  'Q = V·(10·X² + A)': (v) => v.V! * (10 * v.X! ** 2 + v.A!),
  'Q = 0.75·V·(10·X² + A)': (v) => 0.75 * v.V! * (10 * v.X! ** 2 + v.A!),
  'V = Q / (0.75·(10·X² + A))': (v) => v.Q! / (0.75 * (10 * v.X! ** 2 + v.A!)),
  'X = √((Q/(0.75·V) − A)/10)': (v) => Math.sqrt((v.Q! / (0.75 * v.V!) - v.A!) / 10),
  'Q = G / (Cᵢ − Cₐ)': (v) => v.G! / (v['Cᵢ']! - v['Cₐ']!),
  'C = Cₐ + G/Q': (v) => v['Cₐ']! + v.G! / v.Q!,
  'ṁ_w = Q · (p − p_v)/(287.05·Tₐ) · (wᵢ − wₐ)': (v) =>
    (((v.Q! * (v.p! - v.p_v!)) / (AIR * (v['tₐ']! + KELVIN))) * (v['wᵢ']! - v['wₐ']!)) / 1000,
  'Magnus inverse': (v) => dewPoint(v.t!, v.RH!)!,
  'wet-bulb temperature': (v) => wetBulb(v.t!, v.RH!, v.p!)!,
  'x = 6.2·v₀·d/v, v₀ = Q/(π/4·d²)': (v) => (6.2 * (v.Q! / area(v.d!)) * v.d!) / v.v!,
  'v = 6.2·v₀·d/x, at most v₀ = Q/(π/4·d²)': (v) => (v.Q! / area(v.d!)) * Math.min(1, (6.2 * v.d!) / v.x!),
  'E = P·(1 + 1/COP)·24 h·duty': (v) => v.P! * (1 + 1 / v.COP!) * 24 * HOUR * v.duty!,
  'Δt = P·duty/UA': (v) => (v.P! * v.duty!) / v.UA!,
  't = C/UA · ln((P + UA·θ₀)/(P + UA·θ₁))': (v) =>
    (v.C! / v.UA!) * Math.log((v.P! + v.UA! * v['θ₀']!) / (v.P! + v.UA! * v['θ₁']!)),
  'Q = v · A_cross': (v) => v.v! * v.A_cross!,
  'days = reserve / litres a day': (v) => (v.V! * 1000) / (v.w! * 86400),
  'V_fan + R·I(V_fan) = V_feed': (v) => v.V_feed! - v.R! * v.I!,
  'V = V_above − R·I': (v) => v.V_above! - v.R! * v.I!,
  'I = I_fan + I_other': (v) => v.I_fan! + v.I_other!,
  'I = I_other + V_out·I_out / (η·V_in)': (v) => v.I_other! + (v.V_out! * v.I_out!) / (v.η! * v.V_in!),
  'u = I / I_source': (v) => v.I! / v.I_source!,
  'u = I_out / I_max': (v) => v.I_out! / v.I_max!,
  'ΔV = (2·L·r + n·contacts) · I': (v) => (2 * v.L! * v.r! + v.n! * v.contacts!) * v.I!,
  'ΔV = (2·L·r + n·contacts)·I': (v) => (2 * v.L! * v.r! + v.n! * v.contacts!) * v.I!,
  'L = ΔV / (2·r·I) for a loss of 5 %': (v) => v.ΔV! / (2 * v.r! * v.I!),
  'P = V · I': (v) => v.V! * v.I!,
  'P = V·I': (v) => v.V! * v.I!,
  'P = V_in·I_in − V_out·I_out': (v) => v.V_in! * v.I_in! - v.V_out! * v.I_out!,
  'E = Q · V_cell': (v) => v.Q! * HOUR * v.V!,
  't = Q·V·depth·cold / (P/η + P_idle) / duty': (v) =>
    (v.Q! * HOUR * v.V! * v.depth! * v.cold!) / (v.P! / v.η! + v.P_idle!) / v.duty!,
  't = Q·depth·cold / (b·(V₁ − V₂)) · ln((a + b·V₁)/(a + b·V₂)) / duty': (v) =>
    (((v.Q! * HOUR * v.depth! * v.cold!) / (v.b! * (v['V₁']! - v['V₂']!))) *
      Math.log((v.a! + v.b! * v['V₁']!) / (v.a! + v.b! * v['V₂']!))) /
    v.duty!,
  't = H·(Q·cold/(I·H))^k · depth / duty, at most Q·cold/I · depth / duty': (v) => {
    const rate = (v.Q! * HOUR * v.cold!) / (v.I! * v.H!)
    return (v.H! * Math.min(rate, rate ** v.k!) * v.depth!) / v.duty!
  },
  'Q = (P + P_idle)·t·duty / (depth·cold·V)': (v) =>
    ((v.P! + v.P_idle!) * v.t! * v.duty!) / (v.depth! * v.cold! * v.V!) / HOUR,
  'Q = (P/η + P_idle)·t·duty / (depth·cold·V)': (v) =>
    ((v.P! / v.η! + v.P_idle!) * v.t! * v.duty!) / (v.depth! * v.cold! * v.V!) / HOUR,
  'E = (P·duty + P_idle·(1 − duty)) · 24 h': (v) => (v.P! * v.duty! + v.P_idle! * (1 - v.duty!)) * 24 * HOUR,
  'Q_out = E·η / V_out': (v) => (v.E! * v.η!) / v.V_out! / HOUR,
  'N = E·depth·cold·η / E_day': (v) => Math.round((10 * v.E! * v.depth! * v.cold! * v.η!) / v.E_day!) / 10,
  'W_p = E_day / (PSH·η)': (v) => v.E_day! / (v.PSH! * HOUR * v.η!),
  'E = E_day·N / (depth·cold·η)': (v) => batteryForAutonomy(v.N!, v.E_day!, v.depth! * v.cold!, v.η!),
}

/** By their key, where the formula speaks of more than one case. */
const byKey: [RegExp, (v: Values, f: Figure, plan: StreamPlan) => number][] = [
  [/^need\.waterCooling$/, (v, _, { job }) => waterNetCooling(surface(v, job))!],
  [
    /^need\.water\.(open|mesh|still)$/,
    (v, f, { job }) => {
      const lid = f.key.split('.').at(-1)!
      const running = surface(v, { ...job, lid: lid as 'open' })
      const resting = { ...surface(v, { ...job, lid: 'still' }), airSpeed: 0 }
      return (evaporationRate(running)! * v.h! + evaporationRate(resting)! * (24 - v.h!)) / 24
    },
  ],
  [/^selection\.life$/, (v) => Math.sqrt(life(v, 10) * life(v, 15))],
  [/^path\.[^.]+$/, (v, f) => (f.formula.startsWith('Δp = L ·') ? medium(v) : v.a! * v.Q! + v.b! * v.Q! ** 2)],
]
const life = (v: Values, k: number) => v.L10! * 2 ** ((v.T_ref! - v.T!) / k)
const medium = (v: Values) => v.L! * (v['c₁']! * (v.Q! / v.A!) + v['c₂']! * (v.Q! / v.A!) ** 2)
const surface = (v: Values, { lid, crossAreaM2 }: Pick<StreamPlan['job'], 'lid' | 'crossAreaM2'>) => ({
  areaM2: v.A!,
  waterC: v.t_w!,
  airC: v.t_a!,
  relativeHumidity: v.RH!,
  pressurePa: v.p ?? 101325,
  airSpeed: (v.Q! / crossAreaM2!) * { open: 1, mesh: 0.5, still: 0 }[lid],
  activity: lid === 'still' ? 0.5 : 1,
})

/** Found by a solver, not by a formula: the truth tests hold them against a second one. */
const solved = [
  's²·ρ/1.2·p(Q/(n·s)) = Δp_path(Q)',
  'Δp_path(Q)',
  'p_fan(Q) = Δp_path(Q) with the fan that is in it now',
  'ΣQᵢ(Δp) = Q',
  'L at that voltage',
  'I = ΣI_start through converters and leads',
  'I_in from the power balance or Kirchhoff',
  'I(V) of the load',
  'I_start at that voltage',
  'R(Q·ρ/1.2) = (t_part − tₐ)/P − R_inner',
  // stepped through a day: held against an ODE package in core/control/day.test.ts
  'C·dT/dt = P − G(Q)·(T − T_a) − Σ G_ij·(T − T_j), stepped over the day',
  'L_eq = 10·lg(Σ Δt·10^(L/10)/Σ Δt)',
]

/** A medium's or own values' drop is scaled to the air of the place: viscous and inertial parts by a few per cent. */
const SCALED = 0.06

const figuresOf = (r: Report): Figure[] =>
  [
    r.density,
    r.need.flow,
    r.need.design,
    ...r.need.extras,
    ...(r.selection?.figures ?? []),
    r.selection?.served,
    r.selection?.life,
    ...r.path.elements.map((e) => e.figure),
    r.path.drop,
    r.path.useful,
    ...(r.mount?.figures ?? []),
    ...r.power.figures,
    ...r.runtime.figures,
    ...(r.day?.figures ?? []),
    ...r.power.feed.nodes.flatMap(nodeFigures),
  ].filter((f) => f !== null && f !== undefined)

describe('a working adds up to its figure', () => {
  const reports = demoPlans().flatMap((plan) => {
    const made = computeReport({ plan, fans: demoFans, shown: null })
    return made.ok ? [{ plan, report: made.report }] : []
  })
  test.each(reports.map(({ plan, report }) => [plan.job.name, plan, report] as const))(
    '%s',
    (_, plan, report) => {
      for (const f of figuresOf(report)) {
        if (f.value === null || solved.includes(f.formula)) continue
        const values = valuesOf(f)
        const formula = f.formula.replace(/, all of it times k$/, '')
        const recompute = formulas[formula] ?? byKey.find(([key]) => key.test(f.key))?.[1]
        expect(recompute, `${f.key}: nobody recomputes ${f.formula}`).toBeDefined()
        const value = recompute!(values, f, plan) * (formula === f.formula ? 1 : values.k!)
        const scaled = /^Δp = (L ·|a·Q|p₀ \+ a)/.test(f.formula) ? SCALED : 1e-6
        const off = Math.abs(value - f.value) / Math.max(1e-12, Math.abs(f.value), Math.abs(value))
        expect(
          f.value === 0 ? Math.abs(value) : off,
          `${f.key}: ${value} against ${f.value}, ${f.formula}`,
        ).toBeLessThan(scaled)
      }
    },
  )
  test('every working of the demo is either recomputed or solved, and the table above has no dead row', () => {
    const shown = new Set(
      reports.flatMap(({ report }) =>
        figuresOf(report).map((f) => f.formula.replace(/, all of it times k$/, '')),
      ),
    )
    const dead = Object.keys(formulas).filter((k) => !shown.has(k))
    // forms that other plans than the demo's show
    const others = [
      'Q_plan = target',
      'L = max(15, 10·lg(10^(L₁/10) + 10^(L₂/10)))',
      'Δp = (K + K_in + K_out) · ρ/2 · v²',
    ]
    expect(
      dead.filter((k) => !others.includes(k) && !k.includes('this branch') && !k.includes('(0.5 + K_out)')),
    ).toEqual(['Q = V·(10·X² + A)'])
  })
})
