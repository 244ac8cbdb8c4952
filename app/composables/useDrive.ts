import { setDrive } from '#core/document'

/** The voltage of the pick as it is typed, and whether the feed gives another. */
export function useDrive() {
  const { store, plan, report } = useJob('power')
  /** Typed here, the voltage is that of the converter which is there; without one the feed follows. */
  function driveAt(volts: number | null) {
    if (volts === null) return
    const converterId = newId('converter')
    store.change((d) => setDrive(d, { volts, by: d.converter ? {} : 'auto', converterId }), 'selection.driveV')
  }
  const mismatch = computed(() => {
    const feed = report.value.power.feedV
    const drive = plan.value.selection?.driveV
    return feed !== null && drive !== undefined && Math.abs(feed - drive) > 0.03 * drive
      ? { feed, drive }
      : null
  })
  return { driveAt, mismatch }
}
