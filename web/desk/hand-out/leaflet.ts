import { PageSizes, PDFDocument, rgb, StandardFonts } from '@cantoo/pdf-lib'
import type { QrCode } from '../../drawings/qr.ts'

/** A millimetre in the points of PDF (1/72 inch). */
const MM = 72 / 25.4
const SIDE = 90 * MM
const WORDS = { width: 160 * MM, height: 40 * MM }

/**
 * A sheet of A4 to print: words, the code, and the address below it.
 * @param words the practitioner's words as a picture, since the fonts of PDF can't write every name
 */
export async function leaflet(words: Uint8Array, code: QrCode, address: string): Promise<Uint8Array> {
  const pdf = await PDFDocument.create()
  pdf.setTitle(address)
  const page = pdf.addPage(PageSizes.A4)
  const { width, height } = page.getSize()
  const font = await pdf.embedFont(StandardFonts.Helvetica)
  const picture = await pdf.embedPng(words)
  const top = height - 40 * MM
  page.drawImage(picture, { x: (width - WORDS.width) / 2, y: top - WORDS.height, ...WORDS })
  const codeTop = top - WORDS.height - 15 * MM
  page.drawSvgPath(code.path, {
    x: (width - SIDE) / 2,
    y: codeTop,
    scale: SIDE / code.size,
    color: rgb(0, 0, 0),
    borderWidth: 0,
  })
  // As large as it can be on one line, and never larger than a text.
  const across = font.widthOfTextAtSize(address, 1)
  const size = Math.min(13, (width - 30 * MM) / across)
  page.drawText(address, { x: (width - across * size) / 2, y: codeTop - SIDE - 12 * MM, size, font })
  return pdf.save()
}
