/** Measuring on a kitchen table: a fan on a carton, grilles from a photo, speed from sound. */
export { cartonCurve, cartonProblem, openArea, type CartonCurve, type Spanned } from './carton-curve'
export { cartonList, designCarton } from './carton-design'
export { nextReading, type Interest, type NextStep } from './next'
export { approachFactor, flowThrough, holeArea, SHARP } from './orifice'
export { readRig, readRigLeak, rigOf, truePressure, type Rig } from './rig'
