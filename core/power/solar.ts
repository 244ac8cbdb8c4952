/** Share of the panel's watts that arrive with a tracking controller. Common practice, no source (0.65 to 0.75). */
export const SYSTEM_EFFICIENCY = 0.7
/** What a tracking controller's other losses leave a series controller. Common practice, no source. */
const SERIES_OTHER = 0.75

/**
 * Panel power needed, W: energy a day over peak-sun time and efficiency. @param sunS peak-sun time of the worst month, s a day
 * @param efficiency 0..1
 * Reference: energy balance; docs/physics.md E10
 */
export const panelNeeded = (loadW: number, onS: number, sunS: number, efficiency: number) =>
  (loadW * onS) / (sunS * efficiency)
/**
 * What a panel brings in a day, J.
 * @param efficiency 0..1
 * Reference: energy balance; docs/physics.md E10
 */
export const panelHarvest = (panelW: number, sunS: number, efficiency: number) => panelW * sunS * efficiency
/**
 * Days that a battery carries alone. @param batteryJ nominal energy @param depth usable share @param dailyJ used a day
 * @param efficiency 0..1
 * Reference: energy balance; docs/physics.md E10
 */
export const autonomyDays = (batteryJ: number, depth: number, efficiency: number, dailyJ: number) =>
  (batteryJ * depth * efficiency) / dailyJ
/**
 * Battery for the days wished, J.
 * @param days how many
 * @param depth usable share, 0..1
 * @param efficiency 0..1
 * Reference: energy balance; docs/physics.md E10
 */
export const batteryForAutonomy = (days: number, dailyJ: number, depth: number, efficiency: number) =>
  (dailyJ * days) / (depth * efficiency)
/** System efficiency with a simple series controller: the panel works at the battery's voltage. Reference: docs/physics.md E10 */
export const seriesControllerEfficiency = (batteryV: number, panelV: number, other = SERIES_OTHER) =>
  (other * batteryV) / panelV
/**
 * Days to win a deficit back; null where the sun never does.
 * @param efficiency 0..1
 * Reference: energy balance; docs/physics.md E10
 */
export function recoveryDays(
  panelW: number,
  sunS: number,
  efficiency: number,
  dailyJ: number,
  deficitJ: number,
): number | null {
  const surplus = panelHarvest(panelW, sunS, efficiency) - dailyJ
  return surplus > 0 ? deficitJ / surplus : null
}
