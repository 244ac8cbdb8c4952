const waiting: (() => void)[] = []
let going = false

function next() {
  const show = waiting.shift()
  going = show !== undefined
  if (!show) return
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
    setTimeout(next)
  }
  return () => {
    const at = waiting.indexOf(show)
    if (at >= 0) waiting.splice(at, 1)
  }
}
