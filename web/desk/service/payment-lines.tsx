import { type Practice, payTimeOf, type Service } from '@acolhida/core/practice'
import { durationWords } from '@acolhida/core/time'
import { Link } from 'react-router'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ActButton } from '../parts/act.tsx'
import { Fields } from '../settings/fields.tsx'
import { LINE, MOST_LINES, withLine, withLineAt, withoutLine } from './payment.ts'

/** What it means that something must come before it is booked; and where nothing can. */
function First({ practice }: { practice: Practice }) {
  const within = payTimeOf(practice)
  return within ? (
    <p className="text-[14px] text-soft">
      The time is kept for {durationWords(within)} after your word; if the payment has not come by then, it is
      free again and nothing is owed.
    </p>
  ) : (
    <p role="alert" className="text-[14px] font-semibold text-clay-ink">
      Nobody can pay before they come: set up transfers or cards under{' '}
      <Link to="/money" className="way">
        Money
      </Link>
      . Until then it is booked without.
    </p>
  )
}

/** How the price of a service is paid, line by line. */
export function PaymentLines({ practice, service }: { practice: Practice; service: Service }) {
  const lines = service.payment ?? []
  if (service.price.kind === 'free' && lines.length === 0) return null
  return (
    <section className="sheet grid gap-3 p-5" aria-label="How it is paid">
      <h2>How it is paid</h2>
      <p className="text-[14px] text-soft">
        {lines.length === 0
          ? 'All of it on the day. What rules ask beforehand comes first.'
          : 'What no line names is paid on the day. What rules ask beforehand comes first. Earlier bookings keep the lines of their day.'}
      </p>
      {lines.map((line, i) => (
        <fieldset key={line.id} className="grid gap-2 border-t border-line pt-3">
          <legend className="sr-only">Line {i + 1}</legend>
          <Fields
            settings={LINE}
            of={line}
            practice={practice}
            change={(p, to) => withLineAt(p, service.id, line.id, to)}
          />
          <span>
            <ActButton
              className="press press-no"
              onAct={() => changePractice(db, 'how it is paid', (p) => withoutLine(p, service.id, line.id))}
            >
              Remove this line<span className="sr-only"> {i + 1}</span>
            </ActButton>
          </span>
        </fieldset>
      ))}
      {lines.some(({ first }) => first) && <First practice={practice} />}
      {lines.some(({ due }) => due.kind === 'before') && (
        <p className="text-[14px] text-soft">
          {lines.flatMap(({ due }) => (due.kind === 'before' ? [durationWords(due.by)] : [])).join(', ')}{' '}
          before the session: whoever books later than that pays at once.
        </p>
      )}
      {lines.length < MOST_LINES && (
        <span>
          <ActButton onAct={() => changePractice(db, 'how it is paid', (p) => withLine(p, service.id))}>
            Add a line
          </ActButton>
        </span>
      )}
    </section>
  )
}
