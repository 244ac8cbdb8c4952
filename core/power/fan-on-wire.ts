/**
 * Voltage at a fan that hangs on a source through a resistance: V_f + R I(V_f) = V_s, by bisection on 0..V_s
 * (the left side rises when I does).
 * @param supply V
 * @param resistance ohm, both ways and contacts
 * @param current I(V), A, not falling with V
 * Reference: Kirchhoff; docs/physics.md, series resistor
 */
export function voltageBehind(supply: number, resistance: number, current: (v: number) => number): number {
  if (resistance <= 0) return supply
  let low = 0
  let high = supply
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2
    if (middle + resistance * current(middle) < supply) low = middle
    else high = middle
  }
  return (low + high) / 2
}
