import type { SentMail } from '@acolhida/core/formats'
import { money } from '@acolhida/core/money'
import type { Practice } from '@acolhida/core/practice'
import { moneyWith } from '@acolhida/core/preparing'
import { agreementsOf } from '@acolhida/core/waiting'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { Link } from 'react-router'
import { useMinute } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import { type AllOfTheirs, everythingOf, subjectsIn } from '../data/of-person.ts'
import type { PersonRow } from '../data/rows.ts'
import { GoneText } from '../messages/gone.tsx'
import { currencyOf, serviceName, termsTitle, when } from '../parts/words.ts'
import { Card } from '../request/card.tsx'

/** How many are listed before one asks for the rest. */
const SHOWN = 5

/** All that is somebody's, and what was written to them about it, the newest first. */
export interface TheirsAtHand {
  everything: AllOfTheirs
  mails: SentMail[]
}

/** All that is somebody's, live; nothing while it is looked up. */
export const useAllOfTheirs = (person: PersonRow | undefined): TheirsAtHand | undefined =>
  useLiveQuery(async () => {
    if (!person) return undefined
    const everything = await everythingOf(db, person)
    const mails = await db.mails.where('booking').anyOf(subjectsIn(everything)).toArray()
    return { everything, mails: mails.toSorted((a, b) => b.at - a.at) }
  }, [person?.id, person?.emails.join(' ')])

/** Money, agreements and messages of somebody. */
export function AllOfTheirsCards({ practice, all }: { practice: Practice; all: TheirsAtHand }) {
  return (
    <>
      <MoneyOf practice={practice} everything={all.everything} />
      <AgreedBy practice={practice} everything={all.everything} />
      <WrittenTo practice={practice} mails={all.mails} />
    </>
  )
}

/** What is open with somebody, and what has come in all. */
function MoneyOf({ practice, everything }: { practice: Practice; everything: AllOfTheirs }) {
  const now = useMinute()
  const { bookings, courses } = everything
  const { come, open } = moneyWith(
    bookings,
    courses.map(({ course }) => course),
    now,
  )
  const named = new Map([
    ...bookings.map(({ id, service }) => [id, serviceName(practice, service)] as const),
    ...courses.map(({ id, course }) => [id, course.given.path?.name ?? ''] as const),
  ])
  const all = [...come].map(([code, amount]) => money(amount, currencyOf(code)))
  return (
    <Card title="Money" {...(all.length > 0 ? { aside: `${all.join(', ')} has come` } : {})}>
      {open.length === 0 && <p className="mt-2 text-soft">Nothing is open.</p>}
      <ul className="mt-2 grid gap-1 text-[14px]">
        {open.map(({ of, id, at, open: amount, currency }) => (
          <li key={id} className="flex flex-wrap justify-between gap-x-3">
            <span className="min-w-0 wrap-anywhere">
              <Link className="way" to={of === 'booking' ? `/arrivals/${id}` : '/money'}>
                {named.get(id)}
              </Link>{' '}
              <span className="text-soft">{when(practice, at)}</span>
            </span>
            <span className="figures">
              {amount > 0
                ? `${money(amount, currencyOf(currency))} open`
                : `${money(-amount, currencyOf(currency))} to be given back`}
            </span>
          </li>
        ))}
      </ul>
    </Card>
  )
}

/** Everything that somebody has agreed to: which version, when, and in which name. */
function AgreedBy({ practice, everything }: { practice: Practice; everything: AllOfTheirs }) {
  const { bookings, lines, courses } = everything
  const own = new Set(bookings.map(({ id }) => id))
  const agreed = agreementsOf(bookings, lines, courses).toSorted((a, b) => b.agreement.at - a.agreement.at)
  return (
    <Card title="Agreed to">
      {agreed.length === 0 && <p className="mt-2 text-soft">Nothing so far.</p>}
      <ul className="mt-2 grid gap-1.5 text-[14px]">
        {agreed.map(({ of, agreement: { terms, version, at, name, previous } }) => (
          <li key={previous + terms} className="wrap-anywhere">
            {termsTitle(practice, terms, version)}, version {version}
            <span className="block text-[13px] text-soft">
              {own.has(of) ? (
                <Link className="way" to={`/arrivals/${of}`}>
                  {when(practice, at)}
                </Link>
              ) : (
                when(practice, at)
              )}
              , as {name}
            </span>
          </li>
        ))}
      </ul>
    </Card>
  )
}

/** What was written to somebody, about whatever it was; the newest first. */
function WrittenTo({ practice, mails }: { practice: Practice; mails: readonly SentMail[] }) {
  const [all, setAll] = useState(false)
  const shown = all ? mails : mails.slice(0, SHOWN)
  return (
    <Card title="Written to them">
      {mails.length === 0 && <p className="mt-2 text-soft">Nothing so far.</p>}
      <ul className="mt-2 grid gap-1.5 text-[14px]">
        {shown.map((mail) => (
          <li key={mail.n}>
            <GoneText practice={practice} mail={mail} />
          </li>
        ))}
      </ul>
      {shown.length < mails.length && (
        <button type="button" className="press mt-2" onClick={() => setAll(true)}>
          Show all {mails.length}
        </button>
      )}
    </Card>
  )
}
