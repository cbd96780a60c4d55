import type { Booking, Invoice } from '@acolhida/core/booking'
import { accountOf, ibanWords, referenceOf, transferPayload } from '@acolhida/core/ledger'
import { type Currency, type Minor, money } from '@acolhida/core/money'
import { type Practice, taxWords } from '@acolhida/core/practice'
import { type Course, openOfInvoice, type PathInvoice } from '@acolhida/core/preparing'
import { dateAt, type Instant } from '@acolhida/core/time'
import { currencyOf, homeZone, serviceName } from '../parts/words.ts'
import type { ProofPart, ProofSheet } from './proof.ts'

/** What an invoice is made of: whose it is, of what, and what of it is open. */
export interface Invoiced {
  to: { name: string; email?: string }
  what: string
  currency: Currency
  open: Minor
  reference: string
}

/** A booking as its invoices tell of it. */
export function invoicedBooking(practice: Practice, booking: Booking): Invoiced {
  const { person, currency } = booking.asked
  const day = dateAt(homeZone(practice), booking.start)
  return {
    ...{ to: person, what: `${serviceName(practice, booking.service)} of ${day}` },
    ...{ currency: currencyOf(currency), open: accountOf(booking).open, reference: referenceOf(booking) },
  }
}

/** A path as one of its invoices tells of it: open is what has not come of the parts it is for. */
export function invoicedPath(course: Course, invoice: PathInvoice, now: Instant): Invoiced {
  const { person, path } = course.given
  const open = openOfInvoice(course, invoice, now)
  return {
    ...{ to: person, what: path?.name ?? '', currency: currencyOf(path?.currency ?? '') },
    ...{ open, reference: referenceOf(course) },
  }
}

/** An invoice as it is laid out: who, to whom, for what, its tax, and how it is paid. */
export function invoiceSheet(practice: Practice, invoice: Invoice, of: Invoiced): ProofSheet {
  const { currency, open, reference, what } = of
  // With its year, as it may be read much later.
  const day = (moment: Instant): string => dateAt(homeZone(practice), moment)
  const { profile, invoicing = {}, transfer } = practice
  const { number, at, lines, total, tax, corrects, text } = invoice
  const { name, email } = invoice.to ?? of.to
  const cash = (amount: number): string => money(amount, currency)
  const toPay = corrects ? 0 : Math.max(0, Math.min(open, total))
  const payload = transfer && transferPayload(transfer, toPay, currency.code, reference)
  const from: [string, string][] = [
    ['Name', profile.name],
    ...(invoicing.title ? ([['Title', invoicing.title]] as [string, string][]) : []),
    ...(invoicing.registration
      ? ([['Registration number', invoicing.registration]] as [string, string][])
      : []),
    ...(invoicing.address ? ([['Address', invoicing.address]] as [string, string][]) : []),
    ['Mail', profile.email],
  ]
  const paying: ProofPart[] = [
    {
      title: toPay > 0 ? 'To be paid' : 'Paid',
      facts: [
        [toPay > 0 ? 'Open' : 'Still open', cash(toPay)],
        ...(toPay > 0 && transfer
          ? ([
              ['To', transfer.name],
              ['IBAN', ibanWords(transfer.iban)],
              ['Reference', reference],
            ] as [string, string][])
          : []),
      ],
      ...(payload ? { code: payload } : {}),
    },
  ]
  return {
    title: corrects ? `${number}: takes invoice ${corrects} back` : `Invoice ${number}`,
    line: `${day(at)} · ${what}`,
    parts: [
      { title: 'From', facts: from },
      {
        title: 'To',
        facts: [['Name', name], ...(email ? ([['Mail', email]] as [string, string][]) : [])],
      },
      {
        title: 'For',
        ...(text ? { words: [{ text }] } : {}),
        rows: {
          head: ['Times', 'What', 'Amount'],
          body: [
            ...lines.map(({ name, quantity, amount }) => [String(quantity), name, cash(amount)]),
            ['', 'In all', cash(total)],
            ...(tax ? [['', `Of that ${taxWords(tax)}`, cash(tax.amount)]] : []),
            ...(tax ? [['', 'Without it', cash(total - tax.amount)]] : []),
          ],
        },
      },
      ...(corrects ? [] : paying),
    ],
  }
}
