/** How the fans go into their place. */
export {
  holeOption,
  leastWeb,
  mountOf,
  screwHoleOf,
  type HoleOption,
  type Layer,
  type MountReport,
} from './mount'
export { countedGap, countGap, gapIsOff } from './gap'
