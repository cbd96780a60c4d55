import { readiness, stateAt } from '@acolhida/core/booking'
import { deskReading, questionsAsked } from '@acolhida/core/booking/judged'
import { openAnswers } from '@acolhida/core/questions'
import { DAY, type DayNumber, dateAt, dayNumber, type Instant, lengthOf, longDate } from '@acolhida/core/time'
import { Link } from 'react-router'
import { ReadinessTile } from '../../drawings/tile.tsx'
import { useNow } from '../../relay-client/clock.ts'
import { awaitingWord, type Desk, useDesk } from '../data/live.ts'
import { Decide } from '../parts/decide.tsx'
import { DoorLink } from '../parts/door-link.tsx'
import { TodaysLine } from '../parts/todays-line.tsx'
import { homeZone, reasonLine, serviceName, when } from '../parts/words.ts'
import { Judged } from '../request/judged.tsx'
import { dropIntention } from '../sync/acts.ts'

const plural = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`

/** What awaits the practitioner's word, and the day. */
export function Today() {
  const desk = useDesk()
  const now = useNow()
  const where = homeZone(desk.practice)
  const waiting = awaitingWord(desk, now)
  const today = dayNumber(dateAt(where, now))
  const from = where.toInstant(today, 0)
  const to = where.toInstant((today + 1) as DayNumber, 0)
  const sessions = desk.bookings.filter(
    (one) => stateAt(one, now).is === 'booked' && one.start >= from && one.start < to,
  )
  const parts = [
    waiting.length === 1 ? '1 person awaits your word' : `${waiting.length} people await your word`,
    `${plural(sessions.length, 'session', 'sessions')} today`,
    ...(desk.openEnquiries > 0 ? [`${plural(desk.openEnquiries, 'message', 'messages')} to answer`] : []),
  ]
  return (
    <>
      <title>Today · Acolhida</title>
      <header className="flex flex-wrap items-start justify-between gap-4">
        <div>
          <h1>{longDate(dateAt(where, now))}</h1>
          <p className="mt-1 text-[14px] text-soft">{parts.join(' · ')}</p>
        </div>
        <DoorLink />
      </header>
      <div className="mt-6 grid gap-6 lg:grid-cols-[1fr_332px]">
        <section>
          <Refusals desk={desk} />
          <h2 className="mb-2.5">Awaiting your word</h2>
          {waiting.length === 0 && (
            <p className="sheet p-5">
              Nobody waits. When somebody asks for your time, it will be here, with what they have told you.
            </p>
          )}
          <ul className="grid gap-3">
            {waiting.map((booking) => {
              const { service, minutes } = booking
              const { person } = booking.asked
              return (
                <li key={booking.id} className="sheet px-4 py-3.5">
                  <div className="flex items-start justify-between gap-4">
                    <div className="flex items-center gap-3.5">
                      <ReadinessTile readiness={readiness(booking)} size={42} />
                      <div>
                        <h3>
                          <Link to={`/arrivals/${booking.id}`} className="underline-offset-3 hover:underline">
                            {person.name}
                          </Link>
                        </h3>
                        <div className="text-[14px] text-soft">
                          {serviceName(desk.practice, service)} · {minutes} min
                        </div>
                      </div>
                    </div>
                    <div className="shrink-0 text-right">
                      <b className="figures">{when(desk.practice, booking.start)}</b>
                      <HoldLeft until={booking.until} now={now} />
                    </div>
                  </div>
                  <p className="mt-2.5 mb-3 flex items-baseline gap-3">
                    <Judged practice={desk.practice} booking={booking} />
                    <span className="line-clamp-2 text-[14px]">
                      {reasonLine(
                        booking,
                        deskReading(desk.practice, booking),
                        openAnswers(questionsAsked(desk.practice, booking), booking.asked.answers),
                      )}
                    </span>
                  </p>
                  <Decide desk={desk} booking={booking} />
                </li>
              )
            })}
          </ul>
        </section>
        <TodaysLine desk={desk} now={now} from={from} to={to} />
      </div>
    </>
  )
}

function HoldLeft({ until, now }: { until: Instant; now: Instant }) {
  const left = until - now
  const soon = left < DAY / 8
  return (
    <div className={`text-[14px] ${soon ? 'font-semibold text-clay' : 'text-soft'}`}>
      Hold lapses in {lengthOf(left)}
    </div>
  )
}

/** What the relay did not do, with the reason and what one can do. */
function Refusals({ desk }: { desk: Desk }) {
  const refused = desk.intentions.filter((one) => one.refused)
  return refused.map((one) => {
    const booking = desk.bookings.find((candidate) => candidate.id === one.booking)
    return (
      <div
        key={one.key}
        role="alert"
        className="note mb-3 flex flex-wrap items-center justify-between gap-3 bg-clay-soft text-clay-ink"
      >
        <span>
          <strong>
            {'body' in one.command && 'person' in one.command.body
              ? one.command.body.person.name
              : (booking?.asked.person.name ?? 'Somebody')}
            :
          </strong>{' '}
          your decision could not be carried out. {one.refused?.message}
        </span>
        <span className="flex gap-2">
          {booking && (
            <Link className="press" to={`/arrivals/${booking.id}`}>
              See the request
            </Link>
          )}
          <button type="button" className="press press-quiet" onClick={() => dropIntention(one.order)}>
            Put aside
          </button>
        </span>
      </div>
    )
  })
}
