import { readiness, stateAt } from '@acolhida/core/booking'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { Link } from 'react-router'
import { ReadinessTile } from '../../drawings/tile.tsx'
import { useNow } from '../../relay-client/clock.ts'
import { db } from '../data/database.ts'
import { useDesk } from '../data/live.ts'
import { EnquiryCard } from '../enquiry/card.tsx'
import { QuoteDialog } from '../enquiry/quote-dialog.tsx'
import { STATE, serviceName, when } from '../parts/words.ts'
import { Judged } from '../request/judged.tsx'

const SHOWN = 40

/** Everybody who has come: requests and what became of them, and messages. */
export function Arrivals() {
  const desk = useDesk()
  const now = useNow()
  const [quoting, setQuoting] = useState(false)
  const [most, setMost] = useState(SHOWN)
  const enquiries = useLiveQuery(() => db.enquiries.orderBy('at').reverse().toArray()) ?? []
  const arrivals = [...desk.bookings].sort((a, b) => b.asked.at - a.asked.at)
  return (
    <>
      <title>Arrivals · Acolhida</title>
      <header className="flex flex-wrap items-start justify-between gap-4">
        <div>
          <h1>Arrivals</h1>
          <p className="mt-1 text-[14px] text-soft">Requests and messages, the newest first</p>
        </div>
        <button type="button" className="press" onClick={() => setQuoting(true)}>
          A quote for somebody …
        </button>
      </header>
      {quoting && <QuoteDialog desk={desk} close={() => setQuoting(false)} />}
      <div className="mt-6 grid gap-6 lg:grid-cols-[1fr_380px]">
        <section>
          <h2 className="mb-2.5">Requests</h2>
          {arrivals.length === 0 && <p className="sheet p-5">Requests from your door will be listed here.</p>}
          {arrivals.length > 0 && (
            <ul className="sheet divide-y divide-line px-4">
              {arrivals.slice(0, most).map((booking) => {
                const { service } = booking
                const { person } = booking.asked
                return (
                  <li key={booking.id}>
                    <Link
                      to={`/arrivals/${booking.id}`}
                      className="flex flex-wrap items-center gap-x-3 gap-y-1 py-2.5 hover:bg-leaf-soft/30"
                    >
                      <ReadinessTile readiness={readiness(booking)} size={30} />
                      <b>{person.name}</b>
                      <span className="text-[14px] text-soft">{serviceName(desk.practice, service)}</span>
                      <Judged practice={desk.practice} booking={booking} />
                      <span className="figures ml-auto text-[14px] text-soft">
                        {when(desk.practice, booking.start)} · {STATE[stateAt(booking, now).is]}
                      </span>
                    </Link>
                  </li>
                )
              })}
            </ul>
          )}
          {arrivals.length > most && (
            <button type="button" className="press mt-3" onClick={() => setMost(most + SHOWN)}>
              Show earlier ones
            </button>
          )}
        </section>
        <section>
          <h2 className="mb-2.5">Messages</h2>
          {enquiries.length === 0 && (
            <p className="sheet p-5">Messages instead of a booking will lie here.</p>
          )}
          <ul className="grid gap-3">
            {enquiries.map((enquiry) => (
              <EnquiryCard key={enquiry.id} desk={desk} enquiry={enquiry} />
            ))}
          </ul>
        </section>
      </div>
    </>
  )
}
