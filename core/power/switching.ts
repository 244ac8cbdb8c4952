/**
 * Ripple of an L-C filtered chopped supply in continuous current, V peak to peak.
 * @param supply V
 * @param duty 0..1
 * @param henry H
 * @param farad F
 * @param hertz Hz, above 0
 * Reference: buck converter theory (docs/physics.md E27)
 */
export const filterRipple = (supply: number, duty: number, henry: number, farad: number, hertz: number) =>
  (supply * duty * (1 - duty)) / (8 * henry * farad * hertz ** 2)
/**
 * Corner of an L-C filter, Hz.
 * @param henry H
 * @param farad F
 * Reference: circuit theory; docs/physics.md, power and wiring
 */
export const filterCorner = (henry: number, farad: number) => 1 / (2 * Math.PI * Math.sqrt(henry * farad))
/**
 * Dip of a capacitor that feeds a current through an off-time, V.
 * @param current A, 0 or more
 * @param farad F
 * Reference: circuit theory; docs/physics.md, power and wiring
 */
export const holdUpDip = (current: number, offS: number, farad: number) => (current * offS) / farad
/**
 * Energy that a switch must take when an inductive current is opened, J.
 * @param henry H
 * @param current A, 0 or more
 * Reference: circuit theory; docs/physics.md, power and wiring
 */
export const flybackEnergy = (henry: number, current: number) => 0.5 * henry * current ** 2
/**
 * Snubber across a contact, F and ohm.
 * @param volts V
 * @param current A, 0 or more
 * Reference: classic rule (from memory): C[uF] = I²/10, R = V/(10 I^(1+50/V)).
 */
export const snubber = (volts: number, current: number) => ({
  farad: (current ** 2 / 10) * 1e-6,
  ohm: volts / (10 * current ** (1 + 50 / volts)),
})

export type FuseStandard = 'iec60127' | 'ul248' | 'blade'
/** Standard fuse values, A. Reference: IEC 60127 series; ISO 8820-3 for blades (from memory). */
const FUSES: Record<'iec' | 'blade', readonly number[]> = {
  iec: [0.1, 0.125, 0.16, 0.2, 0.25, 0.315, 0.4, 0.5, 0.63, 0.8, 1, 1.25, 1.6, 2, 2.5, 3.15, 4, 5, 6.3, 8, 10],
  blade: [1, 2, 3, 4, 5, 7.5, 10, 15, 20, 25, 30],
}
/** Share of its rating that a fuse carries for ever: UL 248-14 and blade types 75 % (from memory). */
const CARRIES: Record<FuseStandard, number> = { iec60127: 1, ul248: 0.75, blade: 0.75 }

/**
 * Smallest standard fuse for a running current that still protects its wire, A; null where the wire is too thin for it.
 * @param ampacity A
 * Reference: circuit theory; docs/physics.md, power and wiring
 */
export function fuseChoice(runA: number, ampacity: number, standard: FuseStandard): number | null {
  const wanted = runA / CARRIES[standard]
  const fuse = FUSES[standard === 'blade' ? 'blade' : 'iec'].find((f) => f >= wanted - 1e-9)
  return fuse === undefined || fuse > ampacity ? null : fuse
}
