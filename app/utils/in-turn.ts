const waiting: (() => void)[] = []
let going = false

/** The page says that it is not whole yet: to who reads it aloud, and to who looks it over. */
const tell = (busy: boolean) =>
  busy
    ? document.documentElement.setAttribute('aria-busy', 'true')
    : document.documentElement.removeAttribute('aria-busy')

function next() {
  const show = waiting.shift()
  going = show !== undefined
  if (!show) return tell(false)
  show()
  setTimeout(next)
}

/**
 * Shows parts of a page one after the other, each in a task of its own: a key or a press in between is heard.
 * @returns takes the part out again that has not had its turn yet
 */
export function inTurn(show: () => void): () => void {
  waiting.push(show)
  if (!going) {
    going = true
    tell(true)
    setTimeout(next)
  }
  return () => {
    const at = waiting.indexOf(show)
    if (at >= 0) waiting.splice(at, 1)
  }
}
