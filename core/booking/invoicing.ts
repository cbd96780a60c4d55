import { said, text } from '../shape/shape.ts'
import { type Commands, happened, refuse } from './command.ts'
import type { Booking, Invoice } from './record.ts'

/** The invoice of a booking that none has taken back. */
export const invoiceInForce = ({ invoices = [] }: Pick<Booking, 'invoices'>): Invoice | undefined =>
  invoices.find(({ number, corrects }) => !corrects && !invoices.some((one) => one.corrects === number))

/** Invoices, each with a running number of its own: made of what is owed, and taken back by another. */
export const INVOICING: Pick<Commands, 'invoice' | 'correct-invoice'> = {
  invoice: {
    shape: {},
    decide: (booking, _, __, about) => {
      if (invoiceInForce(booking)) return refuse('invoiced-already')
      const facts = about.invoice()
      return facts.total === 0
        ? refuse('nothing-to-invoice')
        : happened({ type: 'invoiced', at: about.now, ...about.nextInvoice(), ...facts })
    },
  },
  'correct-invoice': {
    shape: { number: text(60), text: said(2_000) },
    decide: (booking, { number, text: why }, _, about) => {
      const invoice = invoiceInForce(booking)
      if (invoice?.number !== number) return refuse('no-invoice')
      const { lines, total, tax } = invoice
      return happened({
        ...{ type: 'invoiced', at: about.now, ...about.nextInvoice(), corrects: number, text: why },
        lines: lines.map((line) => ({ ...line, amount: -line.amount })),
        total: -total,
        ...(tax ? { tax: { ...tax, amount: -tax.amount } } : {}),
      })
    },
  },
}
