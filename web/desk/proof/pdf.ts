import type { ProofPart, ProofSheet } from './proof.ts'

/** What lays a PDF out, and its fonts: large, so it comes when it is first wanted. */
async function maker() {
  const [{ default: pdfMake }, { default: fonts }] = await Promise.all([
    import('pdfmake/build/pdfmake.min.js'),
    import('pdfmake/build/vfs_fonts.js'),
  ])
  pdfMake.addVirtualFileSystem(fonts)
  return pdfMake
}

const INK = '#22302b'
const SOFT = '#5c6b64'

function partOf({ title, facts = [], words = [], rows, code }: ProofPart): object[] {
  return [
    { text: title, style: 'part' },
    ...facts.map(([name, value]) => ({
      text: [{ text: `${name}: `, color: SOFT }, { text: value }],
      margin: [0, 1, 0, 1],
    })),
    ...words.flatMap(({ heading, text }) => [
      ...(heading ? [{ text: heading, bold: true, margin: [0, 6, 0, 1] }] : []),
      { text, margin: [0, 1, 0, 3] },
    ]),
    ...(rows
      ? [
          {
            layout: 'lightHorizontalLines',
            margin: [0, 3, 0, 3],
            table: {
              headerRows: 1,
              widths: rows.head.map((_, i) => (i === 0 ? 'auto' : i === 1 ? '*' : 'auto')),
              body: [rows.head.map((text) => ({ text, bold: true })), ...rows.body],
            },
          },
        ]
      : []),
    ...(code ? [{ qr: code, fit: 110, margin: [0, 8, 0, 4] }] : []),
  ]
}

/** A sheet as a PDF of A4 pages; its text can be copied and searched. */
export async function pdfOf(sheet: ProofSheet): Promise<Uint8Array<ArrayBuffer>> {
  const pdfMake = await maker()
  const made = pdfMake.createPdf({
    pageSize: 'A4',
    pageMargins: [56, 56, 56, 56],
    info: { title: sheet.title, creator: 'Acolhida' },
    defaultStyle: { fontSize: 10, color: INK, lineHeight: 1.25 },
    styles: { part: { fontSize: 13, bold: true, margin: [0, 14, 0, 4] } },
    footer: (page: number, pages: number) => ({
      text: `${page} / ${pages}`,
      alignment: 'center',
      color: SOFT,
      fontSize: 9,
    }),
    content: [
      { text: sheet.title, fontSize: 18, bold: true },
      { text: sheet.line, color: SOFT, margin: [0, 2, 0, 4] },
      ...sheet.parts.flatMap(partOf),
    ],
  })
  return new Uint8Array(await made.getBuffer())
}
