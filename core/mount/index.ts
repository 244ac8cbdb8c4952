/** How the fans go into their place. */
export {
  holeOption,
  leastWeb,
  mountOf,
  screwHoleOf,
  wantedCutout,
  type HoleOption,
  type Layer,
  type MountReport,
} from './mount'
