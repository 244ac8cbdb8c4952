/** Runs that say that the voltage was what was changed: then it has to differ, and nothing is corrected for it. */
export function useVoltageChange() {
  const store = useJobStore()
  return (ids: readonly string[]) => {
    store.change((d) => {
      for (const run of d.runs) if (ids.includes(run.id)) run.changed = 'voltage'
    })
    useToast().show('The voltage counts as the change now.', { action: { label: 'Undo', run: store.undo } })
  }
}
