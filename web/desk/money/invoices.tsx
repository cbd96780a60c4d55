import { type Booking, type Invoice, invoiceInForce, invoicesInForce } from '@acolhida/core/booking'
import { accountOf } from '@acolhida/core/ledger'
import { type Currency, money } from '@acolhida/core/money'
import type { Practice } from '@acolhida/core/practice'
import { moment } from '@acolhida/core/time'
import { type ReactNode, useState } from 'react'
import type { Desk } from '../data/live.ts'
import { ActButton, ProblemNote, useAct } from '../parts/act.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { saveFile } from '../parts/file.tsx'
import { PlainField } from '../parts/plain-field.tsx'
import { currencyOf, homeZone } from '../parts/words.ts'
import type { Invoiced } from '../proof/invoice.ts'
import { decideFor } from '../sync/acts.ts'

const sheets = () => import('../proof/invoice.ts')

/** The invoices of a booking: made by the relay, which alone gives numbers. */
export function Invoices({ desk, booking }: { desk: Desk; booking: Booking }) {
  const { practice } = desk
  const { invoices = [] } = booking
  const waits = desk.intentions.some(
    (one) =>
      one.booking === booking.id &&
      !one.refused &&
      (one.command.do === 'invoice' || one.command.do === 'correct-invoice'),
  )
  const mayMake = !invoiceInForce(booking) && accountOf(booking).owed !== 0
  if (invoices.length === 0 && !mayMake && !waits) return null
  return (
    <InvoiceList
      practice={practice}
      invoices={invoices}
      currency={currencyOf(booking.asked.currency)}
      of={async () => (await sheets()).invoicedBooking(practice, booking)}
      correct={({ number }, text) => decideFor(booking, { do: 'correct-invoice', number, text })}
    >
      {waits ? (
        <NumberFollows />
      ) : (
        mayMake && (
          <span>
            <ActButton onAct={() => decideFor(booking, { do: 'invoice' })}>Make the invoice</ActButton>
          </span>
        )
      )}
    </InvoiceList>
  )
}

/** An invoice made while the relay is away has no number yet. */
export const NumberFollows = () => (
  <p className="text-[14px] font-semibold text-sun-ink">An invoice is asked for; its number follows.</p>
)

/** Invoices, each saved as PDF, and taken back by another while it is in force. */
export function InvoiceList<I extends Invoice>({
  practice,
  invoices,
  currency,
  of,
  correct,
  children,
}: {
  practice: Practice
  invoices: readonly I[]
  currency: Currency
  /** What one of them is made of, for its sheet. */
  of: (invoice: I) => Promise<Invoiced>
  correct: (invoice: I, text: string) => Promise<void>
  /** How another is made. */
  children?: ReactNode
}) {
  const [correcting, setCorrecting] = useState<I>()
  const inForce = invoicesInForce(invoices)
  const save = async (invoice: I): Promise<void> => {
    const [{ invoiceSheet }, { pdfOf }] = await Promise.all([sheets(), import('../proof/pdf.ts')])
    const bytes = await pdfOf(invoiceSheet(practice, invoice, await of(invoice)))
    saveFile(`invoice-${invoice.number.replace(/[^A-Za-z0-9_-]+/g, '-')}.pdf`, 'application/pdf', bytes)
  }
  return (
    <div className="mt-3 grid gap-2 border-t border-line pt-3">
      {invoices.map((invoice) => (
        <div key={invoice.number} className="flex flex-wrap items-center gap-x-2">
          <span className="min-w-0 grow">
            {invoice.corrects
              ? `${invoice.number}, taking ${invoice.corrects} back`
              : `Invoice ${invoice.number}`}
            <span className="block text-[13px] text-soft">
              {moment(invoice.at, homeZone(practice))} · {money(invoice.total, currency)}
            </span>
          </span>
          <ActButton className="press press-quiet px-2" onAct={() => save(invoice)}>
            PDF<span className="sr-only"> of {invoice.number}</span>
          </ActButton>
          {inForce.includes(invoice) && (
            <button type="button" className="press press-quiet px-2" onClick={() => setCorrecting(invoice)}>
              Take it back…
            </button>
          )}
        </div>
      ))}
      {children}
      {correcting && (
        <TakeBack
          number={correcting.number}
          does={(text) => correct(correcting, text)}
          close={() => setCorrecting(undefined)}
        />
      )}
    </div>
  )
}

function TakeBack({
  number,
  does,
  close,
}: {
  number: string
  does: (text: string) => Promise<void>
  close: () => void
}) {
  const [text, setText] = useState('')
  const act = useAct()
  return (
    <Dialog title={`Take invoice ${number} back`} close={close}>
      <form
        noValidate
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          act.run(() => {
            if (!text.trim()) throw new Error('Please write why; it stands on what takes it back.')
            return does(text.trim())
          }, close)
        }}
      >
        <p>
          An invoice is never changed. One of its own, with the next number, takes all of it back; then you
          can make another.
        </p>
        <PlainField label="Why" value={text} onChange={setText} focused />
        <ProblemNote of={act} className="" />
        <button type="submit" className="press press-go justify-self-start">
          Take it back
        </button>
      </form>
    </Dialog>
  )
}
