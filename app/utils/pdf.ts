import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import type { Paper, Sheets } from '#core/drawing'
import type { PrintReport } from '#core/print'
import { drawChart } from '~/charts/print-chart'

/** Points between the edge of the paper and the text. */
const MARGIN = 48
const WIDTH = 595 - 2 * MARGIN

function contentOf({ title, subtitle, blocks }: PrintReport): Content[] {
  const body = blocks.map((b): Content => {
    if (b.kind === 'heading') return { text: b.text, style: 'heading' }
    if (b.kind === 'text') return { text: b.text, margin: [0, 0, 0, 6] }
    // the library writes into the lists that it is given: it gets its own
    if (b.kind === 'list') return { ul: [...b.items], margin: [0, 0, 0, 6] }
    if (b.kind === 'chart') return { svg: drawChart(b.chart), width: WIDTH, margin: [0, 4, 0, 8] }
    return {
      margin: [0, 0, 0, 8],
      layout: 'lightHorizontalLines',
      fontSize: 9,
      table: {
        headerRows: 1,
        widths: b.head.map((_, i) => (i === b.head.length - 1 ? '*' : 'auto')),
        body: [
          b.head.map((text, i) => ({
            text,
            bold: true,
            alignment: b.numbers.includes(i) ? ('right' as const) : ('left' as const),
          })),
          ...b.rows.map((r) =>
            r.map((text, i) => ({
              text,
              alignment: b.numbers.includes(i) ? ('right' as const) : ('left' as const),
            })),
          ),
        ],
      },
    }
  })
  return [{ text: title, style: 'title' }, { text: subtitle, color: '#4d5963', margin: [0, 0, 0, 10] }, ...body]
}

/** The library and its fonts, which come when they are wanted. */
export async function pdfMaker() {
  const [{ default: pdfMake }, { default: fonts }] = await Promise.all([
    import('pdfmake/build/pdfmake'),
    import('pdfmake/build/vfs_fonts'),
  ])
  const maker = pdfMake as unknown as {
    addVirtualFileSystem: (files: unknown) => void
    createPdf: (definition: TDocumentDefinitions) => { getBlob: () => Promise<Blob> }
  }
  maker.addVirtualFileSystem(fonts)
  return maker
}

/** Points of a millimetre. */
const POINT = 72 / 25.4

/** Sheets whose unit is a millimetre as pages of a PDF, at true scale, each in the middle of its page. */
export async function saveTrueScale(
  { sheets, landscape }: Sheets,
  title: string,
  name: string,
  pageSize: Paper,
): Promise<void> {
  const [maker, { papers }] = await Promise.all([pdfMaker(), import('#core/drawing')])
  const [short, long] = papers[pageSize]
  const [page, tall] = landscape ? [long, short] : [short, long]
  const content = sheets.map(({ svg }, i): Content => {
    const [w, h] = /width="([\d.]+)mm" height="([\d.]+)mm"/.exec(svg)!.slice(1).map(Number)
    return {
      svg,
      width: w! * POINT,
      height: h! * POINT,
      absolutePosition: { x: ((page - w!) / 2) * POINT, y: Math.min(EDGE_MM, (tall - h!) / 2) * POINT },
      ...(i > 0 ? { pageBreak: 'before' as const } : {}),
    }
  })
  const definition: TDocumentDefinitions = {
    pageSize,
    pageOrientation: landscape ? 'landscape' : 'portrait',
    pageMargins: 0,
    info: { title, creator: 'Redpoll' },
    content,
  }
  saveBlob(await maker.createPdf(definition).getBlob(), name)
}
/** From the upper edge of the page, mm. */
const EDGE_MM = 5

/** The report as a PDF. */
export async function savePdf(printed: PrintReport, name: string): Promise<void> {
  const maker = await pdfMaker()
  const definition: TDocumentDefinitions = {
    pageSize: 'A4',
    pageMargins: [MARGIN, MARGIN, MARGIN, MARGIN],
    info: { title: printed.title, creator: 'Redpoll' },
    content: contentOf(printed),
    defaultStyle: { fontSize: 10, lineHeight: 1.15 },
    styles: {
      title: { fontSize: 18, bold: true },
      heading: { fontSize: 12.5, bold: true, margin: [0, 10, 0, 4] },
    },
    footer: (page, pages) => ({
      text: `${printed.title}, page ${page} of ${pages}`,
      alignment: 'center',
      fontSize: 8,
      color: '#4d5963',
    }),
  }
  saveBlob(await maker.createPdf(definition).getBlob(), name)
}
