/** Styles that make a drawing look the same outside the page. */
const kept = [
  'fill',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'font-family',
  'font-size',
  'font-weight',
  'text-anchor',
  'opacity',
]

/** A colour as rgb, which every viewer of drawings knows: mixed colours are read back from a pixel. */
function plainColour(value: string): string {
  if (!/^(color|oklab|oklch|lab|lch)/.test(value)) return value
  const pen = document.createElement('canvas').getContext('2d')
  if (!pen) return value
  pen.fillStyle = value
  pen.fillRect(0, 0, 1, 1)
  const [r, g, b] = pen.getImageData(0, 0, 1, 1).data
  return `rgb(${r}, ${g}, ${b})`
}

/** A drawing of the page as text that stands alone: colours written in, what is only for clicking left out. */
export function standalone(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement
  const from = svg.querySelectorAll('*')
  copy.querySelectorAll('*').forEach((node, i) => {
    const style = getComputedStyle(from[i]!)
    for (const key of kept) {
      const value = style.getPropertyValue(key)
      if (value) node.setAttribute(key, plainColour(value))
    }
    for (const attribute of ['class', 'tabindex', 'role', 'data-v-inspector']) node.removeAttribute(attribute)
  })
  copy.querySelectorAll('[data-screen-only]').forEach((node) => node.remove())
  copy.removeAttribute('style')
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg')
  return new XMLSerializer().serializeToString(copy)
}

/** Saves a drawing of the page as an SVG file. */
export const saveSvg = (svg: SVGSVGElement, name: string) =>
  saveText(standalone(svg), `${fileWords(name)}.svg`, 'image/svg+xml')

/** Dots of a PNG over those of the drawing: sharp on paper. */
const PNG_SCALE = 2
/** Saves it as a PNG on the sheet's own ground. */
export async function savePng(svg: SVGSVGElement, name: string) {
  const { width, height } = svg.viewBox.baseVal
  const image = new Image()
  const loaded = new Promise((resolve, reject) => {
    image.onload = resolve
    image.onerror = () => reject(new Error('The drawing could not be turned into a picture.'))
  })
  const text = standalone(svg).replace('<svg', `<svg width="${width}" height="${height}"`)
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(text)}`
  await loaded
  const canvas = document.createElement('canvas')
  canvas.width = Math.ceil(width * PNG_SCALE)
  canvas.height = Math.ceil(height * PNG_SCALE)
  const pen = canvas.getContext('2d')
  if (!pen) return
  pen.fillStyle = getComputedStyle(document.documentElement).getPropertyValue('--sheet').trim() || '#ffffff'
  pen.fillRect(0, 0, canvas.width, canvas.height)
  pen.drawImage(image, 0, 0, canvas.width, canvas.height)
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'))
  if (blob) saveBlob(blob, `${fileWords(name)}.png`)
}
