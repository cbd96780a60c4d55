import { type Currency, money } from '@acolhida/core/money'
import type { Practice } from '@acolhida/core/practice'
import { dueToInvoice, type InvoicePart, notInvoiced } from '@acolhida/core/preparing'
import { dateAt, dateWords } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { relayNow } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import type { CourseRow } from '../data/tables.ts'
import { InvoiceList, NumberFollows } from '../money/invoices.tsx'
import { FormDialog } from '../parts/form-dialog.tsx'
import { Tick } from '../parts/tick.tsx'
import { homeZone } from '../parts/words.ts'
import { doWithCourse } from '../sync/acts.ts'

/** The invoices of a path: of all of its price, or of one part or several. */
export function PathInvoices({
  practice,
  row,
  currency,
}: {
  practice: Practice
  row: CourseRow
  currency: Currency
}) {
  const [makes, setMakes] = useState(false)
  const { course, id } = row
  const { invoices = [] } = course
  const waits = useLiveQuery(
    () =>
      db.intentions
        .where('booking')
        .equals(id)
        .filter(
          ({ command, refused }) =>
            !refused &&
            command.do === 'course' &&
            (command.body.command.do === 'invoice' || command.body.command.do === 'correct-invoice'),
        )
        .count(),
    [id],
  )
  const left = notInvoiced(course)
  if (invoices.length === 0 && left.length === 0) return null
  return (
    <InvoiceList
      practice={practice}
      invoices={invoices}
      currency={currency}
      of={async (invoice) => (await import('../proof/invoice.ts')).invoicedPath(course, invoice, relayNow())}
      correct={({ number }, text) => doWithCourse(id, { do: 'correct-invoice', number, text })}
    >
      {waits ? (
        <NumberFollows />
      ) : (
        left.length > 0 && (
          <span>
            <button type="button" className="press press-quiet px-2" onClick={() => setMakes(true)}>
              Make an invoice…
            </button>
          </span>
        )
      )}
      {makes && <Make {...{ practice, row, left, currency }} close={() => setMakes(false)} />}
    </InvoiceList>
  )
}

/** Which parts an invoice is for: those due by now to begin with, or the next one. */
function Make({
  practice,
  row,
  left,
  currency,
  close,
}: {
  practice: Practice
  row: CourseRow
  left: readonly InvoicePart[]
  currency: Currency
  close: () => void
}) {
  const [chosen, setChosen] = useState(
    () => new Set(dueToInvoice(row.course, relayNow()).map(({ id }) => id)),
  )
  const parts = left.filter(({ id }) => chosen.has(id))
  const total = parts.reduce((sum, { amount }) => sum + amount, 0)
  const named = ({ n, of, due }: InvoicePart): string => {
    const on = dateWords(dateAt(homeZone(practice), due))
    if (n === undefined) return `What was given back, ${on}`
    return `${of === 1 ? 'All of it' : `Part ${n} of ${of}`}, due ${on}`
  }
  const choose = (id: string, on: boolean): void => {
    const next = new Set(chosen)
    if (on) next.add(id)
    else next.delete(id)
    setChosen(next)
  }
  return (
    <FormDialog
      title="Make an invoice"
      go={`Make it, of ${money(total, currency)}`}
      ready={parts.length > 0}
      does={() => doWithCourse(row.id, { do: 'invoice', parts: parts.map(({ id }) => id) })}
      close={close}
    >
      <fieldset>
        <legend className="ask">For which parts of the price</legend>
        {left.map((part) => (
          <Tick
            key={part.id}
            label={`${named(part)}: ${money(part.amount, currency)}`}
            on={chosen.has(part.id)}
            onChange={(on) => choose(part.id, on)}
          />
        ))}
      </fieldset>
      <p className="text-[14px] text-soft">
        They get it by mail, and it stands on the page of all that is theirs.
      </p>
    </FormDialog>
  )
}
