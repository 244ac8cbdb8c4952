import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import type { Page } from '@playwright/test'

/** PDF files read back by a reader of their own, drawn in the browser and measured in pixels. */

const home = join(dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json')), 'legacy/build')
/** Pixels of a millimetre that pages are drawn with. */
const PER_MM = 8

export interface DrawnPage {
  /** size of the paper, mm */
  widthMm: number
  heightMm: number
  /** longest unbroken run of dark or coloured pixels in one row, mm: rulers and edges */
  runsMm: number[]
  text: string
  /** boxes of closed curves, mm: circles are as wide as they are high */
  roundsMm: { x: number; y: number; w: number; h: number }[]
}

/**
 * Every page of a PDF.
 * @param page any page of a browser: it is left for an empty one
 */
export async function drawPdf(page: Page, file: Buffer): Promise<DrawnPage[]> {
  await page.route('https://pdf.test/**', (route) => {
    const name = new URL(route.request().url()).pathname.slice(1)
    if (!name) return route.fulfill({ contentType: 'text/html', body: '<!doctype html><title>PDF</title>' })
    return route.fulfill({ contentType: 'text/javascript', body: readFileSync(join(home, name)) })
  })
  await page.goto('https://pdf.test/')
  return page.evaluate(
    async ({ data, scale }) => {
      const load = (url: string) => import(/* @vite-ignore */ url) as Promise<typeof import('pdfjs-dist')>
      const pdfjs = await load('https://pdf.test/pdf.mjs')
      pdfjs.GlobalWorkerOptions.workerSrc = 'https://pdf.test/pdf.worker.mjs'
      const bytes = Uint8Array.from(atob(data), (c) => c.codePointAt(0)!)
      const pdf = await pdfjs.getDocument({ data: bytes }).promise
      const POINT = 72 / 25.4
      const pages = []
      for (let i = 1; i <= pdf.numPages; i++) {
        const sheet = await pdf.getPage(i)
        const viewport = sheet.getViewport({ scale: scale / POINT })
        const canvas = Object.assign(document.createElement('canvas'), {
          width: Math.round(viewport.width),
          height: Math.round(viewport.height),
        })
        const context = canvas.getContext('2d', { willReadFrequently: true })!
        await sheet.render({ canvas, canvasContext: context, viewport }).promise
        const { data: pixels } = context.getImageData(0, 0, canvas.width, canvas.height)
        const runs = new Set<number>()
        for (let y = 0; y < canvas.height; y++) {
          let run = 0
          let longest = 0
          for (let x = 0; x < canvas.width; x++) {
            const at = 4 * (y * canvas.width + x)
            run = pixels[at]! < 170 ? run + 1 : 0
            longest = Math.max(longest, run)
          }
          if (longest > 20 * scale) runs.add(longest / scale)
        }
        const { fnArray, argsArray } = await sheet.getOperatorList()
        let matrix = [1, 0, 0, 1, 0, 0]
        const kept: number[][] = []
        const rounds = []
        const times = (m: number[], n: number[]) => [
          m[0]! * n[0]! + m[2]! * n[1]!,
          m[1]! * n[0]! + m[3]! * n[1]!,
          m[0]! * n[2]! + m[2]! * n[3]!,
          m[1]! * n[2]! + m[3]! * n[3]!,
          m[0]! * n[4]! + m[2]! * n[5]! + m[4]!,
          m[1]! * n[4]! + m[3]! * n[5]! + m[5]!,
        ]
        for (const [k, fn] of fnArray.entries()) {
          const args = argsArray[k] as unknown[]
          if (fn === pdfjs.OPS.save) kept.push(matrix)
          else if (fn === pdfjs.OPS.restore) matrix = kept.pop() ?? matrix
          else if (fn === pdfjs.OPS.transform) matrix = times(matrix, args as number[])
          else if (fn === pdfjs.OPS.constructPath) {
            const [x1, y1, x2, y2] = args[2] as number[]
            const point = (x: number, y: number) => [
              (matrix[0]! * x + matrix[2]! * y + matrix[4]!) / POINT,
              (matrix[1]! * x + matrix[3]! * y + matrix[5]!) / POINT,
            ]
            const [a, b] = [point(x1!, y1!), point(x2!, y2!)]
            const [w, h] = [Math.abs(b[0]! - a[0]!), Math.abs(b[1]! - a[1]!)]
            rounds.push({ x: (a[0]! + b[0]!) / 2, y: (a[1]! + b[1]!) / 2, w, h })
          }
        }
        const { items } = await sheet.getTextContent()
        pages.push({
          widthMm: viewport.width / scale,
          heightMm: viewport.height / scale,
          runsMm: [...runs],
          text: items.map((t) => ('str' in t ? t.str : '')).join(' '),
          roundsMm: rounds.filter((r) => r.w > 1 && Math.abs(r.w - r.h) < 0.02),
        })
      }
      return pages
    },
    { data: file.toString('base64'), scale: PER_MM },
  )
}
