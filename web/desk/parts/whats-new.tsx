import { type Booking, comesAndAsks, stateAt } from '@acolhida/core/booking'
import type { Instant } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { X } from 'lucide-react'
import { Link } from 'react-router'
import { useMinute } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import type { Desk } from '../data/live.ts'
import { isFresh } from '../data/news.ts'
import type { BookingRow } from '../data/rows.ts'
import type { News, NewsRow } from '../data/tables.ts'
import { ActButton } from './act.tsx'
import { AnswerPlea } from './answer-plea.tsx'
import { Decide } from './decide.tsx'
import { serviceName, when } from './words.ts'

/** What happened, as one says it of somebody. */
const WORDS: Record<News, string> = {
  withdrawn: 'has withdrawn the request for',
  refused: 'can come at none of the times you offered for',
  cancelled: 'has cancelled',
  lapsed: 'was not answered in time:',
  'not-paid': 'has not paid in time, and the time is free again:',
  paid: 'has paid by card for',
  straight: 'has booked, straight in:',
  accepted: 'has taken a time you offered:',
  moved: 'has moved a session to another time:',
  'called-off': 'will not come, too few did:',
  pleaded: 'asks for an exception from the rules for',
  away: 'has your answer, given away from the desk:',
}

/** Who was offered other times and has not chosen yet, or must pay first and has not; the most urgent first. */
export function NotChosenYet({ desk }: { desk: Desk }) {
  return (
    <>
      <Awaited
        desk={desk}
        is="offered"
        title="Other times offered, and no answer yet"
        times={(row) => row.offers}
      />
      <Awaited desk={desk} is="unpaid" title="Welcome, once they have paid" times={(row) => [row]} />
    </>
  )
}

function Awaited({
  desk,
  is,
  title,
  times,
}: {
  desk: Desk
  is: 'offered' | 'unpaid'
  title: string
  /** The times that are kept for it. */
  times: (row: Booking) => readonly { start: Instant }[]
}) {
  const minute = useMinute()
  const rows = desk.requested
    .filter((row) => stateAt(row, minute).is === is)
    .sort((a, b) => a.until - b.until)
  if (rows.length === 0) return null
  return (
    <section className="mt-6" aria-label={title}>
      <h2 className="mb-2.5">{title}</h2>
      <ul className="sheet divide-y divide-line px-4">
        {rows.map((row) => (
          <li key={row.id} className="py-2.5">
            <Link to={`/arrivals/${row.id}`} className="font-semibold underline-offset-3 hover:underline">
              {comesAndAsks(row)}
            </Link>
            <span className="block text-[14px] text-soft">
              {serviceName(desk.practice, row.service)} ·{' '}
              {times(row)
                .map(({ start }) => when(desk.practice, start))
                .join(' · ')}{' '}
              · kept until {when(desk.practice, row.until)}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}

/** What has happened since one last looked, newest first; each stands here until it is put away. */
export function WhatsNew({ desk }: { desk: Desk }) {
  const minute = useMinute()
  const news = useLiveQuery(async () => {
    const rows = await db.news.orderBy('at').reverse().limit(50).toArray()
    const bookings = await db.bookings.bulkGet(rows.map(({ id }) => id))
    return rows.flatMap((row, i) => (bookings[i] ? [{ row, booking: bookings[i] }] : []))
  }, [])
  const fresh = (news ?? []).filter(({ row }) => isFresh(row.at, minute))
  if (fresh.length === 0) return null
  return (
    <section className="mt-6" aria-label="Since you last looked">
      <div className="mb-2.5 flex items-baseline justify-between gap-3">
        <h2>Since you last looked</h2>
        {fresh.length > 1 && (
          <ActButton className="way text-[14px]" onAct={() => db.news.clear()}>
            Put all away
          </ActButton>
        )}
      </div>
      <ul className="grid gap-2">
        {fresh.map(({ row, booking }) => (
          <One key={row.id} desk={desk} row={row} booking={booking} />
        ))}
      </ul>
    </section>
  )
}

function One({ desk, row, booking }: { desk: Desk; row: NewsRow; booking: BookingRow }) {
  const { name } = booking.asked.person
  return (
    <li className="sheet px-4 py-3">
      <div className="flex items-start justify-between gap-3">
        <p>
          <Link to={`/arrivals/${booking.id}`} className="font-semibold underline-offset-3 hover:underline">
            {name}
          </Link>{' '}
          {WORDS[row.what]} {serviceName(desk.practice, booking.service)},{' '}
          <span className="figures">{when(desk.practice, booking.start)}</span>
          <span className="block text-[13px] text-soft">{when(desk.practice, row.at)}</span>
        </p>
        <ActButton
          className="press press-quiet px-2"
          aria-label={`Put away: ${name}`}
          onAct={() => db.news.delete(row.id)}
        >
          <X size={16} aria-hidden="true" />
        </ActButton>
      </div>
      {row.what === 'pleaded' && <AnswerPlea desk={desk} booking={booking} />}
      {(row.what === 'lapsed' || row.what === 'not-paid') && (
        <div className="mt-2">
          <Decide desk={desk} booking={booking} late />
        </div>
      )}
    </li>
  )
}
