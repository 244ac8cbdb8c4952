/** How often a place is looked for, every 30 ms: what is worked out first may be late. */
const TRIES = 25
/** What can take the focus, in the order in which it is wanted: a field that is empty, else the first of anything. */
const FIELD = 'input:not([type="hidden"]):not([disabled]), textarea, select'
const ANY = `${FIELD}, button:not([disabled]), a[href], [tabindex="0"]`

/**
 * After an action the focus lands where the work goes on: at the first empty field of a place, else its first field, else
 * whatever there can be pressed. Without this it would fall back to the page's beginning when a pressed button goes away.
 * @param place selector of it; it may only now be coming into the page
 */
export async function landIn(place: string): Promise<void> {
  for (let tries = 0; tries < TRIES; tries++) {
    await nextTick()
    const found = document.querySelector<HTMLElement>(place)
    const fields = [...(found?.querySelectorAll<HTMLInputElement>(FIELD) ?? [])].filter((f) => f.offsetParent)
    const wanted =
      fields.find((f) => f.value === '' && f.readOnly === false) ??
      fields[0] ??
      found?.querySelector<HTMLElement>(ANY) ??
      found
    if (wanted) {
      wanted.focus()
      return
    }
    await new Promise((resolve) => setTimeout(resolve, 30))
  }
}
