import { transfer, wrap, type Remote } from 'comlink'
import { inPlane, lengthInPlane, planeOf, workshopGrille, type Pixel } from '#core/trace'
import type { GrilleRead, GrilleWorker } from '~/workers/grille.worker'

/** A card of the size that most people carry. Reference: ISO/IEC 7810, format ID-1 */
const CARD = { widthM: 0.0856, heightM: 0.05398 }
/** Wait after a corner moved before it is read again, ms. */
const AFTER_MS = 150
/** How far inside the picture the corners stand at first, share. */
const INSIDE = 0.12

export type Known = 'frame' | 'card'

/** How open a grille is, from a photo: corners of a known rectangle, what is counted, the mended mask. */
export function useGrille() {
  const thread = new Worker(new URL('../workers/grille.worker.ts', import.meta.url), { type: 'module' })
  const remote: Remote<GrilleWorker> = wrap<GrilleWorker>(thread)
  const picture = shallowRef<{ url: string; width: number; height: number } | null>(null)
  const problem = ref('')
  const busy = ref(false)
  const known = ref<Known>('frame')
  const size = reactive<{ widthM: number | null; heightM: number | null }>({ widthM: null, heightM: null })
  const openIs = ref<'dark' | 'bright'>('dark')
  /** four corners of the known rectangle, then two of what is counted, where that is not the rectangle itself */
  const corners = ref<Pixel[]>([])
  const counted = ref<Pixel[]>([])
  const read = shallowRef<GrilleRead | null>(null)
  /** open or closed, pixel by pixel, as mended by hand */
  const mask = shallowRef<Uint8Array | null>(null)
  const mended = ref(0)

  function inside(width: number, height: number): Pixel[] {
    const [l, t] = [INSIDE * width, INSIDE * height]
    return [
      { x: l, y: t },
      { x: width - l, y: t },
      { x: width - l, y: height - t },
      { x: l, y: height - t },
    ]
  }
  async function open(file: Blob) {
    const opened = await openPicture(file, 'the grille')
    problem.value = typeof opened === 'string' ? opened : ''
    if (typeof opened === 'string') return
    const { url, width, height, data } = opened
    await remote.setPicture(width, height, transfer(data, [data.buffer]))
    if (picture.value) URL.revokeObjectURL(picture.value.url)
    picture.value = { url, width, height }
    corners.value = inside(width, height)
    counted.value = [
      { x: 0.3 * width, y: 0.3 * height },
      { x: 0.7 * width, y: 0.7 * height },
    ]
    read.value = null
    mask.value = null
  }
  /** The workshop's made-up photo, its frame and size known. */
  async function tryMadeUp() {
    const { width, height, data } = await remote.madeUp()
    const canvas = document.createElement('canvas')
    canvas.width = width
    canvas.height = height
    canvas.getContext('2d')!.putImageData(new ImageData(new Uint8ClampedArray(data), width, height), 0, 0)
    const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'))
    if (!blob) return
    await open(blob)
    known.value = 'frame'
    openIs.value = 'dark'
    corners.value = workshopGrille.corners.map((c) => ({ ...c }))
    Object.assign(size, { widthM: workshopGrille.widthM, heightM: workshopGrille.heightM })
  }
  watch(known, (now) => {
    if (now === 'card' && size.widthM === null) Object.assign(size, CARD)
  })

  const plane = computed(() => planeOf(corners.value, size.widthM ?? 0, size.heightM ?? 0))
  let timer: ReturnType<typeof setTimeout> | undefined
  let asked = 0
  async function ask() {
    const { widthM, heightM } = size
    if (!picture.value || widthM === null || heightM === null) return
    const mine = ++asked
    busy.value = true
    const map = plane.value
    const part =
      known.value === 'card' && map
        ? { from: inPlane(map, counted.value[0]!), to: inPlane(map, counted.value[1]!) }
        : null
    const answer = await remote.read(
      toRaw(corners.value).map((c) => ({ ...c })),
      { widthM, heightM },
      part,
      openIs.value,
    )
    if (mine !== asked) return
    busy.value = false
    problem.value = typeof answer === 'string' ? answer : ''
    read.value = typeof answer === 'string' ? null : answer
    mask.value = typeof answer === 'string' ? null : answer.open.mask
    mended.value = 0
  }
  watch(
    [corners, counted, () => size.widthM, () => size.heightM, known, openIs],
    () => {
      clearTimeout(timer)
      timer = setTimeout(() => void ask(), AFTER_MS)
    },
    { deep: true },
  )

  /** Mends the mask around a place of the straightened picture. @param radius pixels @param to 1 open, 0 closed */
  function mend(at: Pixel, radius: number, to: 0 | 1) {
    const straight = read.value?.straight
    if (!straight || !mask.value) return
    const next = mended.value ? mask.value : mask.value.slice()
    for (let y = Math.max(0, Math.floor(at.y - radius)); y <= Math.min(straight.height - 1, at.y + radius); y++)
      for (
        let x = Math.max(0, Math.floor(at.x - radius));
        x <= Math.min(straight.width - 1, at.x + radius);
        x++
      )
        if (Math.hypot(x - at.x, y - at.y) <= radius) next[y * straight.width + x] = to
    mask.value = next
    mended.value++
    triggerRef(mask)
  }
  /** Open share with its range: what was mended moves both. */
  const result = computed(() => {
    const { open } = read.value ?? {}
    if (!open || !mask.value) return null
    let n = 0
    for (const m of mask.value) n += m
    const ratio = n / mask.value.length
    return {
      ratio,
      low: Math.max(0, ratio - (open.ratio - open.low)),
      high: Math.min(1, ratio + (open.high - open.ratio)),
      holes: open.holes,
    }
  })
  /** Area of what is counted, m2. */
  const areaM2 = computed(() => {
    if (!plane.value || size.widthM === null || size.heightM === null) return null
    if (known.value === 'frame') return size.widthM * size.heightM
    const [a, b] = counted.value.map((c) => inPlane(plane.value!, c))
    return Math.abs((a!.x - b!.x) * (a!.y - b!.y))
  })
  /** Length between the two marks of what is counted, m. */
  const between = computed(() =>
    plane.value ? lengthInPlane(plane.value, counted.value[0]!, counted.value[1]!) : null,
  )
  onBeforeUnmount(() => {
    clearTimeout(timer)
    thread.terminate()
    if (picture.value) URL.revokeObjectURL(picture.value.url)
  })
  return {
    picture,
    problem,
    busy,
    known,
    size,
    openIs,
    corners,
    counted,
    read,
    mask,
    mended,
    result,
    areaM2,
    between,
    open,
    tryMadeUp,
    mend,
  }
}
