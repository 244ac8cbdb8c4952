import type { StationKey } from '#core/rules'

declare module '#app' {
  interface PageMeta {
    /** the station that a page of a job belongs to: the rail marks it */
    station?: StationKey
  }
}
