import { type Booking, comesAndAsks } from '@acolhida/core/booking'
import { accountOf } from '@acolhida/core/ledger'
import { answersTold } from '@acolhida/core/messages'
import { money } from '@acolhida/core/money'
import { serviceOf } from '@acolhida/core/practice'
import { dateAt, longDate, span } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { Printer } from 'lucide-react'
import type { ReactNode } from 'react'
import { Link, useParams } from 'react-router'
import { useMinute } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import { type Desk, useDesk } from '../data/live.ts'
import { bookingsOf, personOfMail } from '../data/people.ts'
import type { BookingRow, PersonRow } from '../data/rows.ts'
import { useLacking } from '../parts/booking-tile.tsx'
import { NotHere } from '../parts/not-here.tsx'
import { bookingLine, currencyOf, endOf, homeZone, serviceName, standingWords, when } from '../parts/words.ts'
import { wentWords } from '../people/went-words.ts'

/** How many sessions before are named on a sheet. */
const SHOWN = 4

/** What one takes along into a session, on one page to read or to print: never a private answer. */
export function SessionSheet() {
  const desk = useDesk()
  const { id = '' } = useParams()
  const found = useLiveQuery(async () => {
    const booking = await db.bookings.get(id)
    const person = booking && (await personOfMail(db, booking.mail))
    const before = person ? await bookingsOf(db, person) : []
    return { booking, person, before: before.filter((one) => booking && one.start < booking.start) }
  }, [id])
  if (!found) return <p className="text-soft">One moment …</p>
  if (!found.booking) return <NotHere what="session" />
  return <Sheet desk={desk} booking={found.booking} person={found.person} before={found.before} />
}

function Sheet({
  desk: { practice },
  booking,
  person,
  before,
}: {
  desk: Desk
  booking: BookingRow
  person: PersonRow | undefined
  before: readonly BookingRow[]
}) {
  const now = useMinute()
  const where = homeZone(practice)
  const { asked } = booking
  const answers = answersTold(practice, booking, 'paper')
  const open = useOpen(practice, booking)
  const earlier = before.toSorted((a, b) => b.start - a.start)
  const tags = person?.allTags ?? []
  return (
    <>
      <title>{`Sheet for ${asked.person.name} · Acolhida`}</title>
      <p className="mb-4 flex flex-wrap items-center justify-between gap-3 print:hidden">
        <Link className="way" to={`/arrivals/${booking.id}`}>
          Everything about this session
        </Link>
        <button type="button" className="press" onClick={() => print()}>
          <Printer size={16} aria-hidden="true" /> Print
        </button>
      </p>
      <article className="sheet grid max-w-[760px] gap-5 px-6 py-5 print:border-0 print:p-0">
        <header>
          <h1 className="wrap-anywhere">{comesAndAsks(booking)}</h1>
          <p className="mt-1">
            <b>
              {longDate(dateAt(where, booking.start))}, {span(booking.start, endOf(booking), where)}
            </b>{' '}
            · {serviceName(practice, booking.service)}
          </p>
          <p className="text-[14px] text-soft">{bookingLine(practice, booking)}</p>
          <p className="text-[14px] wrap-anywhere text-soft">
            {[asked.person.phone, asked.person.email].filter(Boolean).join(' · ')}
          </p>
        </header>
        <Part title="What they have told">
          {answers.length === 0 ? (
            <p className="text-soft">Nothing.</p>
          ) : (
            <dl className="grid gap-2">
              {answers.map(({ question, answer }) => (
                <div key={question}>
                  <dt className="text-[14px] text-soft">{question}</dt>
                  <dd className="wrap-anywhere whitespace-pre-line">{answer}</dd>
                </div>
              ))}
            </dl>
          )}
        </Part>
        <Part title="What I have noted">
          <p className="wrap-anywhere whitespace-pre-line">{person?.note || 'Nothing yet.'}</p>
          {tags.length > 0 && <p className="mt-1 text-[14px] text-soft">{tags.join(' · ')}</p>}
        </Part>
        <Part title="Before, with me">
          {earlier.length === 0 ? (
            <p>It is the first time.</p>
          ) : (
            <>
              <p className="empty:hidden">{wentWords(earlier, now)}</p>
              <ul className="text-[14px]">
                {earlier.slice(0, SHOWN).map((one) => (
                  <li key={one.id}>
                    {when(practice, one.start)} · {serviceName(practice, one.service)} ·{' '}
                    {standingWords(one, now).toLowerCase()}
                  </li>
                ))}
              </ul>
            </>
          )}
        </Part>
        <Part title="What is open">
          <ul>
            {open.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
        </Part>
      </article>
    </>
  )
}

const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <section aria-label={title} className="break-inside-avoid border-t border-line pt-3">
    <h2 className="text-[17px]">{title}</h2>
    <div className="mt-1">{children}</div>
  </section>
)

/** What has not come, been done or been said, in sentences. */
function useOpen(practice: Desk['practice'], booking: Booking): string[] {
  const { open } = accountOf(booking)
  const lacking = useLacking(practice, booking)
  const before = serviceOf(practice, booking.service)?.before
  const sum = (amount: number): string => money(amount, currencyOf(booking.asked.currency))
  const all = [
    ...(open > 0 ? [`${sum(open)} to be paid.`] : open < 0 ? [`${sum(-open)} to be given back.`] : []),
    ...lacking.map(({ version }) => `“${version.title}” not agreed to.`),
    ...(before?.tick && booking.prepared === undefined ? [`Not done beforehand: ${before.text}`] : []),
    ...(booking.coming === undefined ? ['They have not said that they will be there.'] : []),
  ]
  return all.length > 0 ? all : ['Nothing.']
}
