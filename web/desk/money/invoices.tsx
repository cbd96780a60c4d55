import { type Booking, type Invoice, invoiceInForce } from '@acolhida/core/booking'
import { accountOf } from '@acolhida/core/ledger'
import { money } from '@acolhida/core/money'
import { moment } from '@acolhida/core/time'
import { useState } from 'react'
import type { Desk } from '../data/live.ts'
import { ActButton, ProblemNote, useAct } from '../parts/act.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { saveFile } from '../parts/file.tsx'
import { PlainField } from '../parts/plain-field.tsx'
import { currencyOf, homeZone } from '../parts/words.ts'
import { decideFor } from '../sync/acts.ts'

/** The invoices of a booking: made by the relay, which alone gives numbers; saved as PDF; taken back by another. */
export function Invoices({ desk, booking }: { desk: Desk; booking: Booking }) {
  const [correcting, setCorrecting] = useState<Invoice>()
  const { practice } = desk
  const currency = currencyOf(booking.asked.currency)
  const inForce = invoiceInForce(booking)
  const { invoices = [] } = booking
  const waits = desk.intentions.some(
    (one) =>
      one.booking === booking.id &&
      !one.refused &&
      (one.command.do === 'invoice' || one.command.do === 'correct-invoice'),
  )
  const mayMake = !inForce && accountOf(booking).owed !== 0
  if (invoices.length === 0 && !mayMake && !waits) return null
  const save = async (invoice: Invoice): Promise<void> => {
    const [{ invoiceSheet }, { pdfOf }] = await Promise.all([
      import('../proof/invoice.ts'),
      import('../proof/pdf.ts'),
    ])
    const bytes = await pdfOf(invoiceSheet(practice, booking, invoice))
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
          {invoice === inForce && (
            <button type="button" className="press press-quiet px-2" onClick={() => setCorrecting(invoice)}>
              Take it back…
            </button>
          )}
        </div>
      ))}
      {waits ? (
        <p className="text-[14px] font-semibold text-sun-ink">An invoice is asked for; its number follows.</p>
      ) : (
        mayMake && (
          <span>
            <ActButton onAct={() => decideFor(booking, { do: 'invoice' })}>Make the invoice</ActButton>
          </span>
        )
      )}
      {correcting && (
        <TakeBack booking={booking} invoice={correcting} close={() => setCorrecting(undefined)} />
      )}
    </div>
  )
}

function TakeBack({ booking, invoice, close }: { booking: Booking; invoice: Invoice; close: () => void }) {
  const [text, setText] = useState('')
  const act = useAct()
  return (
    <Dialog title={`Take invoice ${invoice.number} back`} close={close}>
      <form
        noValidate
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          act.run(() => {
            if (!text.trim()) throw new Error('Please write why; it stands on what takes it back.')
            return decideFor(booking, { do: 'correct-invoice', number: invoice.number, text: text.trim() })
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
