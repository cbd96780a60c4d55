import { PDFDocument } from '@cantoo/pdf-lib'
import fc from 'fast-check'
import jsQR from 'jsqr'
import { expect, it } from 'vitest'
import { qrCode, qrSvg } from '../../drawings/qr.ts'
import { leaflet } from './leaflet.ts'

/** Dots of a module, for the reader. */
const DOTS = 4

/** Draws the path of a code as a picture, as SVG says it, and lets another library read it. */
function readBack({ size, path }: ReturnType<typeof qrCode>): string | undefined {
  const side = size * DOTS
  const picture = new Uint8ClampedArray(side * side * 4).fill(255)
  for (const [, x, y, run] of path.matchAll(/M(\d+) (\d+)h(\d+)v1h-\d+z/g)) {
    for (let row = Number(y) * DOTS; row < (Number(y) + 1) * DOTS; row++) {
      for (let at = Number(x) * DOTS; at < (Number(x) + Number(run)) * DOTS; at++)
        picture.fill(0, (row * side + at) * 4, (row * side + at) * 4 + 3)
    }
  }
  return jsQR(picture, side, side)?.data
}

it('a QR code is read back by another library, whatever the address', () => {
  expect(readBack(qrCode('https://example.org/iria-montalvar'))).toBe('https://example.org/iria-montalvar')
  fc.assert(
    fc.property(fc.webUrl({ withQueryParameters: true }), (address) => {
      expect(readBack(qrCode(address))).toBe(address)
    }),
    { numRuns: 15 },
  )
})

it('as a file stands black on white with four light modules around (ISO/IEC 18004)', () => {
  const code = qrCode('https://example.org/')
  const svg = qrSvg(code)
  expect(svg).toContain(`viewBox="0 0 ${code.size} ${code.size}"`)
  const places = [...code.path.matchAll(/M(\d+) (\d+)h(\d+)/g)].map((one) => one.slice(1).map(Number))
  expect(Math.min(...places.map(([x]) => x!))).toBe(4)
  expect(Math.min(...places.map(([, y]) => y!))).toBe(4)
  expect(Math.max(...places.map(([x, , run]) => x! + run!))).toBe(code.size - 4)
  expect(() => qrCode('x'.repeat(3_000))).toThrow()
})

it('the sheet to print is one page of A4 with the address as its title', async () => {
  // The smallest PNG there is: one white dot.
  const dot = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGP4DwABAQEAGyC3lgAAAABJRU5ErkJggg==',
    'base64',
  )
  const address = 'https://example.org/iria-montalvar/first-conversation'
  const pdf = await PDFDocument.load(await leaflet(new Uint8Array(dot), qrCode(address), address))
  expect(pdf.getTitle()).toBe(address)
  expect(pdf.getPageCount()).toBe(1)
  expect(pdf.getPage(0).getSize()).toEqual({ width: 595.28, height: 841.89 })
})
