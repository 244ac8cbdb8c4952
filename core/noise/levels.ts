/** Energy of a level, relative. */
const energy = (level: number) => 10 ** (level / 10)
const levelOf = (sum: number) => 10 * Math.log10(sum)

/**
 * Sum of incoherent sources, dB; null for an empty list.
 * @param levels dB
 * Reference: energy addition of levels. @example sumLevels([30, 30]) // 33.01
 */
export function sumLevels(levels: readonly number[]): number | null {
  return levels.length ? levelOf(levels.reduce((s, l) => s + energy(l), 0)) : null
}

/**
 * n equal sources, dB.
 * @param level dB
 * @param count how many, 1 or more
 */
export const identicalLevels = (level: number, count: number) => level + levelOf(count)

export type BackgroundClass = 'no-correction' | 'corrected' | 'survey' | 'invalid'

/**
 * How a reading stands above the background. Limits of ISO 3744 and ISO 3746 (from memory).
 * @param reading dB
 * @param background dB
 */
export function backgroundClass(reading: number, background: number): BackgroundClass {
  const d = reading - background
  if (d >= 15) return 'no-correction'
  if (d >= 6) return 'corrected'
  return d >= 3 ? 'survey' : 'invalid'
}

/**
 * Background correction K1, dB, for a difference above 0.
 * @param difference dB
 * Reference: ISO 3744.
 */
export const k1 = (difference: number) => -levelOf(1 - 10 ** (-difference / 10))

/**
 * Level without the background, dB; null when the difference is under 3 dB (then it is "at most" the reading).
 * @param reading dB
 * @param background dB
 * Reference: energy addition and level arithmetic; docs/physics.md, noise
 */
export function minusBackground(reading: number, background: number): number | null {
  const kind = backgroundClass(reading, background)
  if (kind === 'invalid') return null
  return kind === 'no-correction' ? reading : levelOf(energy(reading) - energy(background))
}

/** Nearest distance at which the distance law may be used, m (near field). Common practice, no source. */
export const NEAREST_M = 0.3
/** Distance beyond which the level in a room hardly falls, m. Common practice: 0.5 to 1.5 m. */
export const ROOM_LIMIT_M = 1.5

/**
 * Level at another distance in the free field: 6 dB per doubling.
 * @param level dB
 * @param from m, above 0
 * @param to m, above 0
 * Reference: energy addition and level arithmetic; docs/physics.md, noise
 */
export const atDistance = (level: number, from: number, to: number) => level - 20 * Math.log10(to / from)

/**
 * Sound power to pressure level: sphere, or hemisphere on a hard floor.
 * @param powerLevel dB re 1 pW
 * @param distance m, above 0
 * Reference: energy addition and level arithmetic; docs/physics.md, noise
 */
export function powerToPressure(powerLevel: number, distance: number, field: 'sphere' | 'hemisphere'): number {
  return powerLevel - levelOf((field === 'sphere' ? 4 : 2) * Math.PI * distance ** 2)
}

/** Room constant R = S alpha/(1 - alpha), m2. */
const roomConstant = (surface: number, absorption: number) => (surface * absorption) / (1 - absorption)

/**
 * Level in a room from sound power: q 1 free, 2 on a surface, 4 edge, 8 corner.
 * @param powerLevel dB re 1 pW
 * @param distance m, above 0
 * @param q directivity: 1 free, 2 floor, 4 edge, 8 corner
 * @param surface m2, above 0
 * @param absorption mean absorption coefficient, 0..1
 * Reference: diffuse-field theory.
 */
export function roomLevel(
  powerLevel: number,
  distance: number,
  q: number,
  surface: number,
  absorption: number,
): number {
  return powerLevel + levelOf(q / (4 * Math.PI * distance ** 2) + 4 / roomConstant(surface, absorption))
}

/**
 * Distance at which direct and diffuse sound are equal, m.
 * @param q directivity: 1 free, 2 floor, 4 edge, 8 corner
 * @param surface m2, above 0
 * @param absorption mean absorption coefficient, 0..1
 * Reference: energy addition and level arithmetic; docs/physics.md, noise
 */
export const criticalDistance = (q: number, surface: number, absorption: number) =>
  Math.sqrt((q * roomConstant(surface, absorption)) / (16 * Math.PI))

/** Exponent of the fan sound law. Published form; measured small fans 45 to 60. */
export const SPEED_EXPONENT = 50
/** Exponents that were measured on small fans. From memory. */
export const speedExponentBand = [45, 60] as const

/**
 * Level at another speed: L + 50 log10(n2/n1); null at standstill (no level is not 0 dB).
 * @param level dB
 * @param speed1 rpm, above 0
 * @param speed2 rpm
 * Reference: fan sound law.
 */
export function atSpeed(level: number, speed1: number, speed2: number): number | null {
  return speed2 > 0 ? level + SPEED_EXPONENT * Math.log10(speed2 / speed1) : null
}

/**
 * Blade-pass frequency, Hz.
 * @param rpm rpm, 0 or more
 * @param blades how many, 1 or more
 * @param harmonic 1 is the fundamental
 * Reference: energy addition and level arithmetic; docs/physics.md, noise
 */
export const bladePass = (rpm: number, blades: number, harmonic = 1) => (harmonic * blades * rpm) / 60

/**
 * How many times as loud: +10 dB is about twice. Common practice.
 * @param change dB
 */
export const loudnessRatio = (change: number) => 2 ** (change / 10)

/**
 * Loudness, sone, of a loudness level, phon.
 * @param phon phon
 * Reference: sone definition above 40 phon; power law below (from memory).
 */
export const phonToSone = (phon: number) => (phon >= 40 ? 2 ** ((phon - 40) / 10) : (phon / 40) ** 2.642)

/**
 * Fan industry's conversion of sone to dB(A), ±2 dB by its source, ±5 dB between spectra.
 * @param sone sone, above 0
 */
export const soneToDbA = (sone: number) => 28 + 33.2 * Math.log10(sone)

/**
 * A-weighting, dB, at a frequency in Hz.
 * @param f Hz, above 0
 * Reference: IEC 61672-1.
 */
export function aWeighting(f: number): number {
  const f2 = f * f
  const r =
    (12194 ** 2 * f2 * f2) /
    ((f2 + 20.6 ** 2) * Math.sqrt((f2 + 107.7 ** 2) * (f2 + 737.9 ** 2)) * (f2 + 12194 ** 2))
  return 20 * Math.log10(r) + 2
}

/**
 * Exact frequency of a nominal one-third-octave band: 1000 x 10^(k/10).
 * @param nominal nominal value
 * Reference: energy addition and level arithmetic; docs/physics.md, noise
 */
export const exactBand = (nominal: number) => 1000 * 10 ** (Math.round(10 * Math.log10(nominal / 1000)) / 10)

/**
 * A-weighted sum of a spectrum given at band frequencies, dB(A).
 * @param frequencies Hz
 * @param levels dB
 * Reference: energy addition and level arithmetic; docs/physics.md, noise
 */
export const spectrumToDbA = (frequencies: readonly number[], levels: readonly number[]) =>
  sumLevels(levels.map((l, i) => l + aWeighting(exactBand(frequencies[i]!))))

/**
 * Reading against the instrument's floor. Common practice, no source.
 * @param reading dB
 * @param floor lowest level shown, dB
 */
export function readingClass(reading: number, floor: number): 'implausible' | 'at-floor' | 'usable' {
  if (reading < floor - 1) return 'implausible'
  return reading < floor + 3 ? 'at-floor' : 'usable'
}
