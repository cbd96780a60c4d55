import { invoicesInForce } from '../booking/index.ts'
import type { InvoiceLine } from '../booking/record.ts'
import { type Minor, splitTax } from '../money/index.ts'
import type { Instant } from '../time/index.ts'
import type { Course, PathInvoice } from './course.ts'
import { pathPays, paysAt } from './path.ts'

/** The part that stands for what was given back at the end of a path. */
const BACK = 'given-back'

/** Something of a path that an invoice can be made of. */
export interface InvoicePart {
  id: string
  amount: Minor
  due: Instant
  /** Which of its parts it is, of how many; nothing for what was given back. */
  n?: number
  of?: number
}

/** How an invoice of a path calls its lines. */
export interface PathInvoiceWords {
  part(about: { n: number; of: number }): string
  back: string
}

/** All that can stand on invoices of a path: the parts of its price (once it has ended, those due by then), and what was given back with its end. */
export function invoiceable(course: Course): InvoicePart[] {
  const { ended, back } = course
  const all = pathPays(course)
  const parts = all
    .map((pay, i) => ({ ...pay, n: i + 1, of: all.length }))
    .filter(({ due }) => ended === undefined || due <= ended)
  return ended !== undefined && back ? [...parts, { id: BACK, amount: -back, due: ended }] : parts
}

/** Those of which there is no invoice in force yet. */
export function notInvoiced(course: Course): InvoicePart[] {
  const made = new Set(invoicesInForce(course.invoices ?? []).flatMap(({ parts = [] }) => parts))
  return invoiceable(course).filter(({ id }) => !made.has(id))
}

/** What an invoice is for where nothing else is said: all that is due by now and not invoiced, or else the next part. */
export function dueToInvoice(course: Course, now: Instant): InvoicePart[] {
  const left = notInvoiced(course)
  const due = left.filter((part) => part.due <= now)
  return due.length > 0 ? due : left.slice(0, 1)
}

/** What an invoice of these parts says: a line for each, and what of it is tax. The price of a path holds its tax. */
export function invoiceOfPath(
  course: Course,
  parts: readonly InvoicePart[],
  words: PathInvoiceWords,
): Pick<PathInvoice, 'lines' | 'total' | 'tax' | 'parts'> {
  const { name = '', tax } = course.given.path ?? {}
  const called = ({ n, of }: InvoicePart): string => {
    if (n === undefined || of === undefined) return words.back
    return of === 1 ? name : words.part({ n, of })
  }
  const lines = parts.map((part): InvoiceLine => ({ name: called(part), quantity: 1, amount: part.amount }))
  const total = lines.reduce((sum, { amount }) => sum + amount, 0)
  return {
    ...{ lines, total, parts: parts.map(({ id }) => id) },
    ...(tax ? { tax: { ...tax, amount: splitTax(total, tax.rate).tax } } : {}),
  }
}

/** What of an invoice has not come: of its parts, as what comes goes to the earliest of all. */
export const openOfInvoice = (course: Course, { parts = [] }: PathInvoice, now: Instant): Minor =>
  paysAt(course, now).reduce((sum, pay) => (parts.includes(pay.id) ? sum + pay.open : sum), 0)
