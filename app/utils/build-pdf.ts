import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import type { BuildSheet } from '#core/build'
import type { Label } from '#core/print'
import type { Sentence } from '#core/units'
import { pdfMaker } from './pdf'
import { saveBlob } from './save-file'

/** The build and its labels as PDF. */

/** The fonts of the PDF have no arrow. */
const known = (text: string) => text.replaceAll('→', '›')
const MARGIN = 40
const WIDTH = 595 - 2 * MARGIN
const BOX = 9
/** A box to tick, with a cross where it is done. */
function box(done: boolean): Content {
  const cross = [
    { type: 'line' as const, x1: 1.5, y1: 1.5, x2: BOX - 1.5, y2: BOX - 1.5 },
    { type: 'line' as const, x1: 1.5, y1: BOX - 1.5, x2: BOX - 1.5, y2: 1.5 },
  ]
  return {
    canvas: [{ type: 'rect', x: 0, y: 0, w: BOX, h: BOX, lineWidth: 0.8 }, ...(done ? cross : [])],
    margin: [0, 1, 0, 0],
  }
}
const THUMB = 160

function sittingContent(s: BuildSheet['sittings'][number]): Content[] {
  return [
    { text: s.name, style: 'heading' },
    ...(s.tools.length
      ? [{ text: `On the table: ${s.tools.join('; ')}.`, margin: [0, 0, 0, 4] as const }]
      : []),
    ...s.cautions.map((c): Content => ({
      text: [{ text: `${c.say} `, bold: true }, c.rest],
      fillColor: '#f6e9ea',
      margin: [6, 0, 0, 4],
    })),
    ...s.steps.map((step): Content => ({
      unbreakable: true,
      margin: [0, 2, 0, 2],
      columns: [
        { width: 16, stack: [box(step.done)] },
        {
          width: '*',
          text: [
            { text: `${known(step.title)}${step.title.endsWith('?') ? '' : '.'} `, bold: true },
            step.text,
            step.note ? { text: ` ${step.note}`, italics: true } : '',
          ],
        },
        { width: 70, text: step.value === null ? '' : step.value || '_________', alignment: 'right' },
      ],
      columnGap: 4,
    })),
  ] as Content[]
}

/**
 * The whole sheet as a PDF.
 * @param wiring the diagram as SVG text; '' without one @param templates each with its name
 */
export async function saveBuildPdf(
  sheet: BuildSheet,
  wiring: string,
  templates: readonly { name: string; svg: string }[],
  name: string,
): Promise<void> {
  const maker = await pdfMaker()
  const definition: TDocumentDefinitions = {
    pageSize: 'A4',
    pageMargins: [MARGIN, MARGIN, MARGIN, MARGIN],
    info: { title: sheet.title, creator: 'Redpoll' },
    content: [
      { text: sheet.title, style: 'title' },
      ...sheet.sittings.flatMap(sittingContent),
      ...(wiring
        ? [
            { text: 'Wiring', style: 'heading' },
            { svg: wiring, fit: [WIDTH, 420] as [number, number] },
          ]
        : []),
      ...(templates.length ? [{ text: 'Templates, not to scale', style: 'heading' }] : []),
      ...templates.map((t): Content => ({
        unbreakable: true,
        stack: [
          { svg: t.svg, fit: [THUMB, THUMB] as [number, number] },
          { text: t.name, fontSize: 8, margin: [0, 0, 0, 6] },
        ],
      })),
      { text: 'Not checked', style: 'heading' },
      { ul: [...sheet.notChecked] },
      { text: sheet.last, bold: true, margin: [0, 8, 0, 0] },
    ],
    defaultStyle: { fontSize: 9.5, lineHeight: 1.15 },
    styles: {
      title: { fontSize: 17, bold: true },
      heading: { fontSize: 12.5, bold: true, margin: [0, 10, 0, 4] },
    },
    footer: (page, pages) => ({
      text: `${sheet.last} Page ${page} of ${pages}`,
      alignment: 'center',
      fontSize: 8,
      color: '#4d5963',
    }),
  }
  saveBlob(await maker.createPdf(definition).getBlob(), name)
}

const ACROSS = 3
/** The labels as a sheet to cut apart. */
export async function saveLabelPdf(
  labels: readonly Label[],
  say: (words: Sentence) => string,
  name: string,
): Promise<void> {
  const maker = await pdfMaker()
  const cells = labels.map((l): Content => ({
    stack: [
      {
        columns: [
          { width: '*', text: say(l.big), fontSize: 15, bold: true },
          ...(l.arrow
            ? [
                {
                  width: 44,
                  canvas: [
                    { type: 'line' as const, x1: 0, y1: 9, x2: 34, y2: 9, lineWidth: 3 },
                    {
                      type: 'polyline' as const,
                      closePath: true,
                      color: '#000000',
                      points: [
                        { x: 30, y: 2 },
                        { x: 43, y: 9 },
                        { x: 30, y: 16 },
                      ],
                    },
                  ],
                },
              ]
            : []),
        ],
      },
      ...l.lines.map((line) => ({ text: say(line), fontSize: 9 })),
    ],
    margin: [4, 4, 4, 6],
  }))
  const rows: Content[][] = []
  for (let i = 0; i < cells.length; i += ACROSS)
    rows.push([
      ...cells.slice(i, i + ACROSS),
      ...Array<Content>(Math.max(0, i + ACROSS - cells.length)).fill(''),
    ])
  const definition: TDocumentDefinitions = {
    pageSize: 'A4',
    pageMargins: [MARGIN, MARGIN, MARGIN, MARGIN],
    info: { title: 'Labels', creator: 'Redpoll' },
    content: [{ table: { widths: Array<'*'>(ACROSS).fill('*'), body: rows, dontBreakRows: true } }],
  }
  saveBlob(await maker.createPdf(definition).getBlob(), name)
}
