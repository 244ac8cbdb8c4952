/** Specific heat, J/(kg·K). Handbooks of materials, rounded, from memory; electronics: a mixture, common practice. */
export const partHeats = {
  aluminium: 900,
  copper: 385,
  steel: 480,
  plastic: 1500,
  wood: 1700,
  water: 4186,
  glass: 800,
  electronics: 900,
} as const
