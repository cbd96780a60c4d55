import { said, text } from '../shape/shape.ts'
import { type Commands, happened, refuse } from './command.ts'
import { othersOf } from './others.ts'
import type { Booking, Invoice } from './record.ts'

/** The invoices that none has taken back. */
export const invoicesInForce = <I extends Invoice>(invoices: readonly I[]): I[] =>
  invoices.filter(({ number, corrects }) => !corrects && !invoices.some((one) => one.corrects === number))

/** The invoice of a booking that none has taken back. */
export const invoiceInForce = ({ invoices = [] }: Pick<Booking, 'invoices'>): Invoice | undefined =>
  invoicesInForce(invoices)[0]

/** What an invoice says that takes another back: all of it, below nothing, and why. */
export function takenBack(
  { number, lines, total, tax, to }: Invoice,
  why: string,
): Omit<Invoice, 'number' | 'at'> {
  return {
    ...{ corrects: number, text: why },
    lines: lines.map((line) => ({ ...line, amount: -line.amount })),
    total: -total,
    ...(to ? { to } : {}),
    ...(tax ? { tax: { ...tax, amount: -tax.amount } } : {}),
  }
}

/** Who an invoice is made out to, where somebody else pays. */
function madeOutTo(booking: Booking): Pick<Invoice, 'to'> {
  const { pays } = othersOf(booking)
  return pays ? { to: { name: pays.name, ...(pays.email ? { email: pays.email } : {}) } } : {}
}

/** Invoices, each with a running number of its own: made of what is owed, and taken back by another. */
export const INVOICING: Pick<Commands, 'invoice' | 'correct-invoice'> = {
  invoice: {
    shape: {},
    decide: (booking, _, __, about) => {
      if (invoiceInForce(booking)) return refuse('invoiced-already')
      const facts = about.invoice()
      return facts.total === 0
        ? refuse('nothing-to-invoice')
        : happened({
            type: 'invoiced',
            at: about.now,
            ...about.nextInvoice(),
            ...madeOutTo(booking),
            ...facts,
          })
    },
  },
  'correct-invoice': {
    shape: { number: text(60), text: said(2_000) },
    decide: (booking, { number, text: why }, _, about) => {
      const invoice = invoiceInForce(booking)
      if (invoice?.number !== number) return refuse('no-invoice')
      return happened({ type: 'invoiced', at: about.now, ...about.nextInvoice(), ...takenBack(invoice, why) })
    },
  },
}
