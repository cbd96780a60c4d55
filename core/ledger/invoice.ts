import type { Booking, Invoice, InvoiceLine } from '../booking/index.ts'
import { type Minor, splitTax } from '../money/rounding.ts'
import { accountOf, type LedgerLine } from './ledger.ts'

/** What lines of an invoice are called that are no lines of a quote. */
export interface InvoiceWords {
  service: string
  share(booking: Booking): string
  mine: string
}

const sumOf = (lines: readonly { amount: Minor }[]): Minor =>
  lines.reduce((sum, { amount }) => sum + amount, 0)

/** The lines of what is owed: those of the quote where its price is, and what was changed, with its reason. */
function linesFor(booking: Booking, owed: LedgerLine, words: InvoiceWords): InvoiceLine[] {
  const { amount, text = '' } = owed
  const { quote } = booking.asked.reading
  switch (owed.what) {
    case 'price':
      return sumOf(quote.lines) === amount ? quote.lines : [{ name: words.service, quantity: 1, amount }]
    case 'share':
      return [{ name: words.share(booking), quantity: 1, amount }]
    case 'mine':
      return [{ name: words.mine, quantity: 1, amount }]
    case 'adjusted':
      return [{ name: text, quantity: 1, amount }]
    default:
      return []
  }
}

/**
 * What an invoice of a booking says: everything owed by its record, and what of that is tax by the tax of the day one
 * asked. A tax on top is a line of the quote; of all else it is in the amount.
 */
export function invoiceOf(booking: Booking, words: InvoiceWords): Pick<Invoice, 'lines' | 'total' | 'tax'> {
  const { tax, reading } = booking.asked
  const { lines: owed } = accountOf(booking)
  const lines = owed.flatMap((line) => linesFor(booking, line, words))
  const total = sumOf(lines)
  if (!tax) return { lines, total }
  // On top it is the last line of the quote, where the price is owed as quoted; all else holds it.
  const quoted = owed.find(({ what, amount }) => what === 'price' && amount === sumOf(reading.quote.lines))
  const onTop = tax.onTop && quoted ? (reading.quote.lines.at(-1)?.amount ?? 0) : 0
  const holding = tax.onTop && quoted ? total - quoted.amount : total
  const { name, rate } = tax
  return { lines, total, tax: { name, rate, amount: onTop + splitTax(holding, rate).tax } }
}
