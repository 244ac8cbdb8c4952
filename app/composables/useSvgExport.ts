/** Styles that make a drawing look the same outside the page. */
const kept = ['fill', 'stroke', 'stroke-width', 'stroke-dasharray', 'font-family', 'font-size', 'font-weight', 'text-anchor', 'opacity']

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

/** Saves a drawing of the page as an SVG file with its colours written in; what is only for clicking is left out. */
export function saveSvg(svg: SVGSVGElement, name: string) {
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
  copy.querySelectorAll('[data-screen-only]').forEach(node => node.remove())
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg')
  saveText(new XMLSerializer().serializeToString(copy), `${name.replaceAll(/[^\p{L}\p{N}]+/gu, '-')}.svg`, 'image/svg+xml')
}
