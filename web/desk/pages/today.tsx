import { readiness } from '@acolhida/core/booking'
import { ticksBefore } from '@acolhida/core/practice'
import {
  DAY,
  type DayNumber,
  dateAt,
  dayNumber,
  type Instant,
  lengthOf,
  localDate,
  longDate,
} from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { type FocusEvent, lazy, memo, Suspense, useCallback, useEffect, useRef, useState } from 'react'
import { Link } from 'react-router'
import { ReadinessTile } from '../../drawings/tile.tsx'
import { relayNow, useAt } from '../../relay-client/clock.ts'
import { awaitingWord } from '../data/awaiting.ts'
import { db } from '../data/db.ts'
import { type Desk, useDesk } from '../data/live.ts'
import type { BookingRow } from '../data/rows.ts'
import type { Intention } from '../data/tables.ts'
import { useTaken } from '../data/taken.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { ClosedDoor } from '../parts/closed-door.tsx'
import { Decide } from '../parts/decide.tsx'
import { DoorLink } from '../parts/door-link.tsx'
import { PageHead } from '../parts/page-head.tsx'
import { counted, homeZone, serviceName, when } from '../parts/words.ts'
import { dropIntention, personIn } from '../sync/acts.ts'

const HowTheyWent = lazy(async () => ({ default: (await import('../parts/how-it-went.tsx')).HowTheyWent }))
const TodaysMessages = lazy(async () => ({
  default: (await import('../messages/todays-messages.tsx')).TodaysMessages,
}))
const TodaysFollowUps = lazy(async () => ({
  default: (await import('../people/todays-follow-ups.tsx')).TodaysFollowUps,
}))
const TodaysPreparing = lazy(async () => ({
  default: (await import('../preparing/todays-preparing.tsx')).TodaysPreparing,
}))
const TodaysWaiting = lazy(async () => ({
  default: (await import('../waiting/todays-waiting.tsx')).TodaysWaiting,
}))
// The day stands beside what waits; who waits comes first.
const TodaysLine = lazy(async () => ({ default: (await import('../parts/todays-line.tsx')).TodaysLine }))
const CantToday = lazy(async () => ({ default: (await import('../parts/cant-today.tsx')).CantToday }))
const SeveralAtOnce = lazy(async () => ({ default: (await import('../parts/several.tsx')).SeveralAtOnce }))
const news = () => import('../parts/whats-new.tsx')
const WhatsNew = lazy(async () => ({ default: (await news()).WhatsNew }))
const NotChosenYet = lazy(async () => ({ default: (await news()).NotChosenYet }))
// What reads answers comes after the page is there.
const WhyHere = lazy(async () => ({ default: (await import('../request/why-here.tsx')).WhyHere }))

/** What awaits the practitioner's word, and the day. */
export function Today() {
  const desk = useDesk()
  const where = homeZone(desk.practice)
  const today = useAt((now) => dayNumber(dateAt(where, now)))
  const from = where.toInstant(today as DayNumber, 0)
  const to = where.toInstant((today + 1) as DayNumber, 0)
  const taken = useTaken(desk, from, to)
  // Drawn anew when somebody begins or ceases to wait, not each second.
  useAt((now) =>
    awaitingWord(desk.requested, now)
      .map((row) => row.id)
      .join(' '),
  )
  const waiting = awaitingWord(desk.requested, relayNow())
  const [away, setAway] = useState(false)
  const [chosen, setChosen] = useState<ReadonlySet<string>>()
  const choose = useCallback((id: string, on: boolean): void => {
    setChosen((now) => {
      const next = new Set(now)
      if (on) next.add(id)
      else next.delete(id)
      return next
    })
  }, [])
  const { list, heading, hold } = useGoOn(waiting.map(({ id }) => id).join(' '))
  const sessions = taken?.rows.filter(
    (row) => row.status === 'booked' && row.start >= from && row.start < to,
  ).length
  const parts = [
    waiting.length === 0
      ? 'Nobody is waiting for you'
      : waiting.length === 1
        ? 'One person waits for your answer'
        : `${waiting.length} people wait for your answer`,
    ...(sessions === undefined ? [] : [`${counted(sessions, 'session', 'sessions')} today`]),
    ...(desk.openEnquiries > 0 ? [`${counted(desk.openEnquiries, 'message', 'messages')} to answer`] : []),
  ]
  return (
    <>
      <PageHead title="Today" heading={longDate(localDate(today as DayNumber))} line={parts.join(' · ')}>
        <button type="button" className="press" onClick={() => setAway(true)}>
          I can’t today…
        </button>
        <DoorLink />
      </PageHead>
      {away && (
        <Suspense>
          <CantToday desk={desk} close={() => setAway(false)} />
        </Suspense>
      )}
      <ClosedDoor />
      <div className="mt-6 grid gap-6 lg:grid-cols-[1fr_332px]">
        <section>
          <Refusals desk={desk} />
          <div className="mb-2.5 flex flex-wrap items-baseline justify-between gap-3">
            <h2 ref={heading} tabIndex={-1}>
              Waiting for your answer
            </h2>
            {waiting.length > 1 && (
              <button
                type="button"
                className="way text-[14px]"
                aria-pressed={chosen !== undefined}
                onClick={() => setChosen((now) => (now ? undefined : new Set()))}
              >
                {chosen ? 'One by one' : 'Several at once'}
              </button>
            )}
          </div>
          {chosen && waiting.length > 1 && (
            <Suspense>
              <SeveralAtOnce waiting={waiting} chosen={chosen} done={() => setChosen(undefined)} />
            </Suspense>
          )}
          {waiting.length === 0 && (
            <p className="sheet p-5">
              Nobody waits. When somebody asks for your time, it will be here, with what they have told you.
            </p>
          )}
          <ul ref={list} className="grid gap-3" onFocus={hold}>
            {waiting.map((booking) => (
              <Waiting
                key={booking.id}
                desk={desk}
                booking={booking}
                chosen={chosen?.has(booking.id)}
                onChoose={choose}
              />
            ))}
          </ul>
          <Suspense>
            <TodaysWaiting desk={desk} />
            <TodaysMessages desk={desk} />
            <TodaysPreparing desk={desk} />
            <TodaysFollowUps desk={desk} />
            <HowTheyWent desk={desk} />
            <NotChosenYet desk={desk} />
            <WhatsNew desk={desk} />
          </Suspense>
        </section>
        <Suspense fallback={<div className="min-h-[60dvh]" aria-busy="true" />}>
          <TodaysLine desk={desk} taken={taken} from={from} to={to} />
        </Suspense>
      </div>
    </>
  )
}

/**
 * Who has been answered goes from the list, and with them what was pressed: focus goes on to whoever stands in their
 * place, or to the heading when nobody does.
 * @param ids who is in the list
 */
function useGoOn(ids: string) {
  const list = useRef<HTMLUListElement>(null)
  const heading = useRef<HTMLHeadingElement>(null)
  const at = useRef<number>(undefined)
  const hold = (event: FocusEvent<HTMLUListElement>): void => {
    at.current = [...event.currentTarget.children].findIndex((item) => item.contains(event.target))
  }
  // biome-ignore lint/correctness/useExhaustiveDependencies: when somebody has gone from it, it is looked at
  useEffect(() => {
    if (at.current === undefined || document.activeElement !== document.body) return
    const items = list.current?.children ?? []
    const next = items[Math.min(at.current, items.length - 1)]?.querySelector<HTMLElement>('a')
    const to = next ?? heading.current
    to?.focus()
    at.current = undefined
  }, [ids])
  return { list, heading, hold }
}

/** Somebody who waits, with what matters for the word. */
const Waiting = memo(function Waiting({
  desk,
  booking,
  chosen,
  onChoose,
}: {
  desk: Desk
  booking: BookingRow
  /** Whether it is among those answered together; nothing where they are answered one by one. */
  chosen: boolean | undefined
  onChoose: (id: string, on: boolean) => void
}) {
  const { practice } = desk
  const { service, minutes } = booking
  const { person } = booking.asked
  return (
    <li className="sheet px-4 py-3.5">
      <div className="flex flex-wrap items-start justify-between gap-x-4 gap-y-2 min-[420px]:flex-nowrap">
        <div className="flex items-center gap-3.5">
          {chosen !== undefined && (
            <input
              type="checkbox"
              className="checkbox checkbox-primary"
              aria-label={`Answer ${person.name}, too`}
              checked={chosen}
              onChange={(event) => onChoose(booking.id, event.target.checked)}
            />
          )}
          <ReadinessTile readiness={readiness(booking, false, ticksBefore(practice, booking))} size={42} />
          <div>
            <h3>
              <Link to={`/arrivals/${booking.id}`} className="underline-offset-3 hover:underline">
                {person.name}
              </Link>
            </h3>
            <div className="text-[14px] text-soft">
              {serviceName(practice, service)} · {minutes} min
            </div>
          </div>
        </div>
        <div className="ml-auto shrink-0 text-right">
          <b className="figures">{when(practice, booking.start)}</b>
          <HoldLeft until={booking.until} />
        </div>
      </div>
      <div className="mt-2.5 mb-3 min-h-6">
        <Suspense>
          <WhyHere practice={practice} booking={booking} />
        </Suspense>
      </div>
      {chosen === undefined && <Decide desk={desk} booking={booking} />}
    </li>
  )
})

function HoldLeft({ until }: { until: Instant }) {
  const left = useAt((now) => lengthOf(until - now))
  const soon = useAt((now) => until - now < DAY / 8)
  return (
    <div className={`text-[14px] ${soon ? 'font-semibold text-clay' : 'text-soft'}`}>
      Hold lapses in {left}
    </div>
  )
}

/** What the relay did not do, with the reason and what one can do. */
function Refusals({ desk }: { desk: Desk }) {
  const refused = desk.intentions.filter((intention) => intention.refused)
  return refused.map((intention) => <Refused key={intention.key} intention={intention} />)
}

function Refused({ intention: { booking: id, order, command, refused } }: { intention: Intention }) {
  const act = useAct()
  const booking = useLiveQuery(() => db.bookings.get(id), [id])
  return (
    <div
      role="alert"
      className="note mb-3 flex flex-wrap items-center justify-between gap-3 bg-clay-soft text-clay-ink"
    >
      <span>
        <strong>{personIn(command) ?? booking?.asked.person.name ?? 'Somebody'}:</strong> your decision could
        not be carried out. {refused?.message}
      </span>
      <span className="flex gap-2">
        {booking && (
          <Link className="press" to={`/arrivals/${booking.id}`}>
            See the request
          </Link>
        )}
        <button
          type="button"
          className="press press-quiet"
          onClick={() => act.run(() => dropIntention(order))}
        >
          Put aside
        </button>
      </span>
      <ProblemNote of={act} />
    </div>
  )
}
