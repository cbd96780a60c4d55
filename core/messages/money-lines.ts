import { type Invoice, openOnAsking, planOf, stillFirst } from '../booking/index.ts'
import { accountOf, ibanWords, referenceOf } from '../ledger/index.ts'
import { placeOf, taxWords, zoneOf } from '../practice/index.ts'

import { by, timeOf, type Words } from './lines.ts'

/** What a booking costs, when it is paid where that is more than once, and where a transfer goes. */
export function priceLine(w: Words): string {
  const { practice, booking } = w
  const { price } = booking
  const { path } = booking.asked
  if (path) return w.say('price-of-path', { path: path.name, price: price > 0 ? w.money(price) : 'none' })
  if (price === 0) return w.say('free-of-charge')
  const plan = planOf(booking, zoneOf(practice, placeOf(practice, booking.place)))
  return [
    w.say('price', { price: w.money(price) }),
    ...(plan.length > 1
      ? plan.map(({ amount, due }) => w.say('price-line', { amount: w.money(amount), when: by(w, due) }))
      : []),
    transferLine(w),
  ]
    .filter(Boolean)
    .join('\n')
}

const transferLine = (w: Words): string => {
  const { transfer } = w.practice
  return transfer
    ? w.say('transfer', {
        ...{ name: transfer.name, iban: ibanWords(transfer.iban) },
        reference: referenceOf(w.booking),
      })
    : ''
}

/** What must come before it is booked, by when, and how. */
export function firstLine(w: Words): string {
  const { practice, booking } = w
  const first = stillFirst(booking, zoneOf(practice, placeOf(practice, booking.place)))
  if (!first) return ''
  const sum = { amount: w.money(first.amount), until: by(w, first.until) }
  return [w.say(practice.cards ? 'to-pay.first-card' : 'to-pay.first', sum), transferLine(w)]
    .filter(Boolean)
    .join('\n')
}

/** What is asked for on asking, and how it can come. */
export function onAskingLine(w: Words): string {
  const amount = openOnAsking(w.booking)
  return amount > 0
    ? [w.say('asked.pay', { amount: w.money(amount) }), transferLine(w)].filter(Boolean).join('\n')
    : ''
}

/** What stands on an invoice, a line each. @param cash an amount in words */
export function invoiceRows(
  { lines, total, tax }: Pick<Invoice, 'lines' | 'total' | 'tax'>,
  say: Words['say'],
  cash: (amount: number) => string,
): string {
  return [
    ...lines.map(({ name, quantity, amount }) =>
      say('invoice.line', { name: quantity === 1 ? name : `${quantity} × ${name}`, amount: cash(amount) }),
    ),
    say('invoice.total', { amount: cash(total) }),
    tax ? say('invoice.tax', { tax: taxWords(tax), amount: cash(tax.amount) }) : '',
  ]
    .filter(Boolean)
    .join('\n')
}

/** The newest invoice: what it is for, line by line, and what is to be done about it. */
export function invoiceLines(w: Words): string[] {
  const { booking } = w
  const invoice = booking.invoices?.at(-1)
  if (!invoice) return []
  const { number, corrects, text = '' } = invoice
  const open = accountOf(booking).open
  return [
    corrects
      ? w.say('invoice.back', { number, corrects, service: w.service, when: timeOf(w) })
      : w.say('invoice', { number, service: w.service, when: timeOf(w) }),
    text,
    invoiceRows(invoice, w.say, w.money),
    open > 0
      ? [w.say('invoice.open', { amount: w.money(open) }), transferLine(w)].filter(Boolean).join('\n')
      : w.say('invoice.settled'),
  ]
}
