import { comesAndAsks } from '@acolhida/core/booking'
import { useLiveQuery } from 'dexie-react-hooks'
import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import { useAt } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import { type ArrivalsWish, arrivalsIn } from '../data/lists.ts'
import { type Desk, useDesk } from '../data/live.ts'
import type { BookingRow } from '../data/rows.ts'
import { EnquiryCard } from '../enquiry/card.tsx'
import { QuoteDialog } from '../enquiry/quote-dialog.tsx'
import { BookingTile } from '../parts/booking-tile.tsx'
import { among, FilterChoice, FindBar, SearchField, useFilters } from '../parts/find-bar.tsx'
import { FoundTable } from '../parts/found-table.tsx'
import type { Column } from '../parts/window-table.tsx'
import { serviceName, standingWords, when } from '../parts/words.ts'
import { Judged } from './judged.tsx'

const SHOWS = {
  all: 'All requests',
  requested: 'Waiting for a word',
  booked: 'Booked',
  declined: 'Turned down',
  lapsed: 'Lapsed',
  withdrawn: 'Withdrawn',
  cancelled: 'Cancelled',
  attended: 'Attended',
  missed: 'Missed',
} satisfies Record<ArrivalsWish['show'], string>

const ORDERS = { asked: 'Asked', start: 'For' } satisfies Record<ArrivalsWish['by'], string>

/** How many messages are shown at once. */
const MESSAGES = 20

/** Everybody who has come: requests and what became of them, and messages. */
export function Arrivals() {
  const desk = useDesk()
  const { filters, set } = useFilters({ q: '', show: 'all', by: 'asked', down: 'yes' })
  const [quoting, setQuoting] = useState(false)
  const wish: ArrivalsWish = {
    search: filters.q,
    show: among(SHOWS, filters.show, 'all'),
    by: among(ORDERS, filters.by, 'asked'),
    down: filters.down === 'yes',
  }
  const { search, show, by, down } = wish
  const keys = useLiveQuery(() => arrivalsIn(db, wish), [search, show, by, down])
  const columns = useMemo(() => columnsOf(desk), [desk])
  return (
    <>
      <title>Arrivals · Acolhida</title>
      <header className="flex flex-wrap items-start justify-between gap-4">
        <div>
          <h1>Arrivals</h1>
          <p className="mt-1 text-[14px] text-soft">Requests, messages, and what became of them</p>
        </div>
        <span className="flex flex-wrap gap-2.5">
          <Link className="press" to="/record">
            The record
          </Link>
          <button type="button" className="press" onClick={() => setQuoting(true)}>
            A quote for somebody …
          </button>
        </span>
      </header>
      {quoting && <QuoteDialog desk={desk} close={() => setQuoting(false)} />}
      <div className="grid gap-6 xl:grid-cols-[1fr_340px]">
        <section className="min-w-0">
          <FindBar count={keys ? `${keys.length.toLocaleString('en')} requests` : ''}>
            <h2>Requests</h2>
            <SearchField label="Name or mail address" value={filters.q} onSearch={(q) => set({ q })} />
            <FilterChoice
              label="Which requests"
              value={show}
              options={SHOWS}
              onChange={(next) => set({ show: next })}
            />
          </FindBar>
          <FoundTable
            label="Requests"
            columns={columns}
            keys={keys}
            rowsOf={rowsOf}
            order={{ by, down }}
            onOrder={(order) => set({ by: order.by, down: order.down ? 'yes' : 'no' })}
            nothing={
              search || show !== 'all' ? 'None of that kind.' : 'Requests from your door will be listed here.'
            }
          />
        </section>
        <Messages desk={desk} />
      </div>
    </>
  )
}

const rowsOf = (keys: string[]) => db.bookings.bulkGet(keys)

const columnsOf = ({ practice }: Desk): Column<BookingRow>[] => [
  {
    id: 'name',
    name: 'Who',
    cell: (booking) => (
      <Link
        to={`/arrivals/${booking.id}`}
        className="flex items-center gap-2.5 underline-offset-3 hover:underline"
      >
        <BookingTile practice={practice} booking={booking} size={30} />
        <span>
          <b>{comesAndAsks(booking)}</b>
          <span className="block text-[13px] text-soft">{serviceName(practice, booking.service)}</span>
          <span className="figures block text-[13px] md:hidden">{when(practice, booking.start)}</span>
        </span>
      </Link>
    ),
  },
  {
    id: 'start',
    name: 'For',
    width: 'w-[156px]',
    wide: true,
    sorts: true,
    cell: ({ start }) => <span className="figures text-[14px]">{when(practice, start)}</span>,
  },
  {
    id: 'state',
    name: 'How it stands',
    width: 'w-[112px] md:w-auto',
    cell: (booking) => (
      <span className="flex flex-wrap items-center gap-x-2 text-[14px] text-soft">
        <HowItStands booking={booking} /> <Judged practice={practice} booking={booking} />
      </span>
    ),
  },
  {
    id: 'asked',
    name: 'Asked',
    wide: true,
    width: 'w-[156px]',
    sorts: true,
    cell: ({ at }) => <span className="figures text-[14px] text-soft">{when(practice, at)}</span>,
  },
]

const HowItStands = ({ booking }: { booking: BookingRow }) => useAt((now) => standingWords(booking, now))

/** Messages instead of a booking, the newest first. */
function Messages({ desk }: { desk: Desk }) {
  const [most, setMost] = useState(MESSAGES)
  const enquiries =
    useLiveQuery(
      () =>
        db.enquiries
          .orderBy('at')
          .reverse()
          .limit(most + 1)
          .toArray(),
      [most],
    ) ?? []
  return (
    <section className="mt-5">
      <h2 className="mb-2.5">Messages</h2>
      {enquiries.length === 0 && <p className="sheet p-5">Messages instead of a booking will lie here.</p>}
      <ul className="grid gap-3">
        {enquiries.slice(0, most).map((enquiry) => (
          <EnquiryCard key={enquiry.id} desk={desk} enquiry={enquiry} />
        ))}
      </ul>
      {enquiries.length > most && (
        <button type="button" className="press mt-3" onClick={() => setMost(most + MESSAGES)}>
          Show earlier ones
        </button>
      )}
    </section>
  )
}
