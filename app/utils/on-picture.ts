import type { Pixel } from '#core/trace'

/**
 * Where the pointer is on a picture, held inside it.
 * @param shown what shows the picture, whatever size it has on the screen
 * @param picture its own width and height, px
 */
export function pointOn(
  shown: Element,
  { width, height }: { width: number; height: number },
  event: MouseEvent,
): Pixel {
  const box = shown.getBoundingClientRect()
  const share = (at: number, from: number, length: number) => Math.max(0, Math.min(1, (at - from) / length))
  return {
    x: share(event.clientX, box.left, box.width) * width,
    y: share(event.clientY, box.top, box.height) * height,
  }
}

/** How far an arrow key moves a point of a picture: 1 px, with shift 10; null for another key. */
export function arrowStep(event: KeyboardEvent): Pixel | null {
  const step = event.shiftKey ? 10 : 1
  const steps: Record<string, Pixel> = {
    ArrowLeft: { x: -step, y: 0 },
    ArrowRight: { x: step, y: 0 },
    ArrowUp: { x: 0, y: -step },
    ArrowDown: { x: 0, y: step },
  }
  return steps[event.key] ?? null
}
