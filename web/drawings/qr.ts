import { create } from 'qrcode'

/** Light modules around the symbol (ISO/IEC 18004: four on each side). */
const QUIET = 4

/** An address as a QR code (ISO/IEC 18004, level M). */
export interface QrCode {
  /** Modules on a side, the quiet zone included. */
  size: number
  /** The dark modules as an SVG path, a module being one unit. */
  path: string
}

/** Draws a text as a QR code. @throws Error when it is longer than a code can hold (2,331 bytes) */
export function qrCode(text: string): QrCode {
  const { size, data } = create(text, { errorCorrectionLevel: 'M' }).modules
  const runs: string[] = []
  for (let y = 0; y < size; y++) {
    for (let x = 0; x < size; x++) {
      if (!data[y * size + x]) continue
      const from = x
      while (x < size && data[y * size + x]) x++
      runs.push(`M${from + QUIET} ${y + QUIET}h${x - from}v1h${from - x}z`)
    }
  }
  return { size: size + 2 * QUIET, path: runs.join('') }
}

/** A QR code as an SVG file, black on white whatever it lies on. */
export const qrSvg = ({ size, path }: QrCode): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${size} ${size}" shape-rendering="crispEdges">` +
  `<path fill="#fff" d="M0 0h${size}v${size}H0z"/><path d="${path}"/></svg>\n`
