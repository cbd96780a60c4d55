import {
  type Booking,
  comesAndAsks,
  isHeld,
  MARK_WORDS,
  othersOf,
  stateAt,
  whoComes,
} from '@acolhida/core/booking'
import { stepsOf } from '@acolhida/core/messages'
import { money } from '@acolhida/core/money'
import type { Practice } from '@acolhida/core/practice'
import { dateAt, shortDate, span } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { lazy, Suspense, useMemo, useState } from 'react'
import { Link, useParams } from 'react-router'
import { LeadLine, type LeadMark } from '../../drawings/lead-line.tsx'
import { relayNow, useAt, useMinute } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import { type Desk, useDesk } from '../data/live.ts'
import { bookingsOf, personOfMail } from '../data/people.ts'
import type { BookingRow } from '../data/rows.ts'
import { Move } from '../diary/move.tsx'
import { stepTitle } from '../messages/titles.ts'
import { MoneyCard } from '../money/money-card.tsx'
import { ActButton } from '../parts/act.tsx'
import { AnswerPlea } from '../parts/answer-plea.tsx'
import { BookingTile } from '../parts/booking-tile.tsx'
import { CancelSession } from '../parts/cancel.tsx'
import { Decide } from '../parts/decide.tsx'
import { SayHowItWent } from '../parts/how-it-went.tsx'
import { NotHere } from '../parts/not-here.tsx'
import { RunningLate } from '../parts/running-late.tsx'
import { asUri } from '../parts/uri.ts'
import {
  bookingLine,
  counted,
  currencyOf,
  endOf,
  homeZone,
  marksOf,
  serviceName,
  standingWords,
  when,
} from '../parts/words.ts'
import { wentWords } from '../people/went-words.ts'
import { ToPrepareWith } from '../preparing/theirs.tsx'
import { decideFor } from '../sync/acts.ts'
import { Agreed } from './agreed.tsx'
import { AnswersCard } from './answers.tsx'
import { Card } from './card.tsx'
import { Concerned, SayWhoElse } from './concerned.tsx'
import { Reasons } from './reasons.tsx'
import { WhatHappened } from './what-happened.tsx'

const PutInLine = lazy(async () => ({ default: (await import('../waiting/put-in-line.tsx')).PutInLine }))
const MessagesOf = lazy(async () => ({ default: (await import('../messages/of-booking.tsx')).MessagesOf }))

/** One request: its lead line, answers, reasons, agreement, and what can be said to it. */
export function RequestPage() {
  const desk = useDesk()
  const { id = '' } = useParams()
  const found = useLiveQuery(() => withOthers(id), [id])
  if (!found || found.id !== id) return <p className="text-soft">One moment …</p>
  const { booking, others, whose } = found
  if (!booking) return <NotHere what="request" />
  const { practice } = desk
  const where = homeZone(practice)
  return (
    <>
      <title>{`${whoComes(booking)} · Acolhida`}</title>
      <header className="flex flex-wrap items-start justify-between gap-4 lg:flex-nowrap">
        <div className="flex min-w-0 items-center gap-4">
          <BookingTile practice={desk.practice} booking={booking} size={58} />
          <div>
            <h1 className="wrap-anywhere">{comesAndAsks(booking)}</h1>
            <p className="mt-1 max-w-[560px] text-[14px] text-soft">
              <b className="text-ink">
                {shortDate(dateAt(where, booking.start))}, {span(booking.start, endOf(booking), where)}
              </b>{' '}
              · {serviceName(practice, booking.service)} · {bookingLine(practice, booking)}
            </p>
          </div>
        </div>
        <div className="lg:shrink-0 lg:pt-3">
          <Decide desk={desk} booking={booking} full />
        </div>
      </header>
      <State desk={desk} booking={booking} />
      <section className="sheet mt-5 px-4 pt-3 pb-2" aria-label="Deadlines">
        <LeadLineNow practice={practice} booking={booking} />
      </section>
      <div className="mt-[18px] grid gap-5 lg:grid-cols-[1fr_380px]">
        <div className="grid h-fit min-w-0 gap-4">
          <AnswersCard practice={practice} booking={booking} others={others} />
          <Suspense>
            <MessagesOf practice={practice} booking={booking} />
          </Suspense>
        </div>
        <div className="grid h-fit gap-4">
          <Concerned booking={booking} />
          <Reasons practice={practice} booking={booking} />
          <ToPrepareWith practice={practice} booking={booking} />
          <Quote booking={booking} />
          <MoneyCard desk={desk} booking={booking} />
          <Agreed desk={desk} booking={booking} />
          <Before practice={practice} booking={booking} others={others} whose={whose} />
          <WhatHappened practice={practice} booking={booking.id} />
        </div>
      </div>
    </>
  )
}

/** The bookings of whoever asked, the newest first. */
async function withOthers(id: string): Promise<{
  id: string
  booking: BookingRow | undefined
  others: BookingRow[]
  whose: string | undefined
}> {
  const booking = await db.bookings.get(id)
  const person = booking && (await personOfMail(db, booking.mail))
  const own = person ? await bookingsOf(db, person) : []
  const others = own.filter((row) => row.id !== id).sort((a, b) => b.start - a.start)
  return { id, booking, others, whose: person?.id }
}

function LeadLineNow({ practice, booking }: { practice: Practice; booking: Booking }) {
  const now = useMinute()
  const marks = useMemo(
    () => [...marksOf(practice, booking), ...stepMarks(practice, booking)],
    [practice, booking],
  )
  return <LeadLine marks={marks} now={now} zone={homeZone(practice)} />
}

/** The messages that go before the session, against its deadlines. */
const stepMarks = (practice: Practice, booking: Booking): LeadMark[] =>
  stepsOf(booking, practice).flatMap(({ name, at, skipped, joins }) =>
    skipped || joins !== undefined || at >= booking.start || at <= booking.asked.at
      ? []
      : [{ at, name: stepTitle(practice, name), kind: 'message' as const }],
  )

/** What has become of it, when it no longer simply waits. */
function State({ desk, booking }: { desk: Desk; booking: BookingRow }) {
  // Drawn anew when it becomes another, not each second.
  useAt((now) => JSON.stringify(stateAt(booking, now)))
  const [doing, setDoing] = useState<'move' | 'cancel' | 'earlier'>()
  const { practice } = desk
  const state = stateAt(booking, relayNow())
  const close = (): void => setDoing(undefined)
  const marks = booking.marks.map((mark) => MARK_WORDS[mark])
  if (state.is === 'waiting' && marks.length === 0) return null
  return (
    <div className="note mt-4 flex flex-wrap items-center justify-between gap-3 bg-tile-soft text-tile-ink">
      <span>
        <b>{standingWords(booking, relayNow())}.</b> {marks.join(' ')}
        {state.is === 'unproved' &&
          `It is held until ${when(practice, state.until)}; once the link is opened, it waits for your word.`}
        {state.is === 'offered' &&
          `${state.starts.map((start) => when(practice, start.start)).join(' · ')}. Kept until ${when(practice, state.until)}.`}
        {state.is === 'unpaid' &&
          `The time is kept until ${when(practice, state.until)}; what must be paid first has not all come.`}
        {state.is === 'attended' && [late(booking), lasted(booking)].filter(Boolean).join(' ')}
        {state.is === 'cancelled' && `By the ${state.by}; ${state.share} % of the price is due.`}
        {booking.text && !isHeld(state) && ` “${booking.text}”`}
      </span>
      {state.is === 'booked' && !state.begun && (
        <span className="flex flex-wrap gap-2">
          <Link className="press" to={`/arrivals/${booking.id}/sheet`}>
            Sheet
          </Link>
          <button type="button" className="press" onClick={() => setDoing('move')}>
            Move…
          </button>
          <button type="button" className="press" onClick={() => setDoing('earlier')}>
            Wants it earlier…
          </button>
          <button type="button" className="press press-no" onClick={() => setDoing('cancel')}>
            Cancel…
          </button>
        </span>
      )}
      {state.is === 'unpaid' && (
        <ActButton onAct={() => decideFor(booking, { do: 'welcome' })}>Book it all the same</ActButton>
      )}
      <RunningLate booking={booking} />
      <SayHowItWent desk={desk} booking={booking} />
      <div className="basis-full empty:hidden">
        <AnswerPlea desk={desk} booking={booking} />
      </div>
      {doing === 'move' && <Move desk={desk} booking={booking} close={close} />}
      {doing === 'earlier' && (
        <Suspense>
          <PutInLine desk={desk} earlier={booking} close={close} />
        </Suspense>
      )}
      {doing === 'cancel' && <CancelSession desk={desk} booking={booking} close={close} />}
    </div>
  )
}

const late = ({ late: minutes }: Booking): string =>
  minutes ? `They came ${counted(minutes, 'minute', 'minutes')} late.` : ''
const lasted = ({ lasted: minutes, minutes: planned }: Booking): string =>
  minutes ? `It lasted ${minutes} minutes instead of ${planned}.` : ''

function Quote({ booking }: { booking: Booking }) {
  const { quote } = booking.asked.reading
  const currency = currencyOf(booking.asked.currency)
  if (quote.lines.length === 0) return null
  return (
    <Card title="Quote" aside={`${quote.minutes} min`}>
      <dl className="figures mt-2 grid gap-1">
        {quote.lines.map((line) => (
          <div key={line.name} className="flex justify-between gap-4">
            <dt>
              {line.quantity > 1 ? `${line.quantity} × ` : ''}
              {line.name}
            </dt>
            <dd>{money(line.amount, currency)}</dd>
          </div>
        ))}
        <div className="flex justify-between gap-4 border-t border-line pt-1 font-bold">
          <dt>Total</dt>
          <dd>{money(quote.price, currency)}</dd>
        </div>
        {booking.deposit > 0 && (
          <div className="flex justify-between gap-4 text-[14px] text-soft">
            <dt>Of that, asked beforehand</dt>
            <dd>{money(booking.deposit, currency)}</dd>
          </div>
        )}
      </dl>
    </Card>
  )
}

function Before({
  practice,
  booking,
  others,
  whose,
}: {
  practice: Practice
  booking: Booking
  others: readonly Booking[]
  /** Whose it is, by their id. */
  whose: string | undefined
}) {
  const now = useMinute()
  const { name, email, phone } = booking.asked.person
  const { comes, pays } = othersOf(booking)
  return (
    <Card title="Before, with you">
      {whose && (
        <p className="mt-1.5 py-1 text-[14px]">
          <Link className="way" to={`/people/${whose}`}>
            Everything with {name}
          </Link>
        </p>
      )}
      <p className="mt-1.5 text-[14px] wrap-anywhere">
        <a className="way" href={`mailto:${asUri(email)}`}>
          {email}
        </a>
        {phone && <span className="text-soft"> · {phone}</span>}
      </p>
      {!comes && !pays && <SayWhoElse booking={booking} />}
      {others.length === 0 && <p className="mt-1.5 text-[14px] text-soft">No earlier requests.</p>}
      <p className="mt-1.5 text-[14px] font-semibold empty:hidden">{wentWords(others, now)}</p>
      <ul className="mt-1.5 grid gap-1 text-[14px]">
        {others.slice(0, SHOWN_BEFORE).map((other) => (
          <li key={other.id}>
            <Link className="way" to={`/arrivals/${other.id}`}>
              {when(practice, other.start)}
            </Link>{' '}
            {serviceName(practice, other.service)} · {standingWords(other, now).toLowerCase()}
          </li>
        ))}
      </ul>
      {others.length > SHOWN_BEFORE && (
        <p className="mt-1 text-[14px] text-soft">and {others.length - SHOWN_BEFORE} more</p>
      )}
    </Card>
  )
}

/** How many earlier bookings of somebody are named. */
const SHOWN_BEFORE = 6
