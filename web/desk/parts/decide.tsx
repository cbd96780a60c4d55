import type { Booking } from '@acolhida/core/booking'
import { zoneOf } from '@acolhida/core/practice'
import { dateAt, type Instant, shortDate, timeAt } from '@acolhida/core/time'
import { lazy, Suspense, useState } from 'react'
import { useAt } from '../../relay-client/clock.ts'
import { isAwaiting } from '../data/awaiting.ts'
import type { Desk } from '../data/live.ts'
import { decideFor } from '../sync/acts.ts'
import { ProblemNote, useAct } from './act.tsx'

// What is written comes when it is asked for, and so does looking for open times.
const words = () => import('./decide-words.tsx')
const TurnDown = lazy(async () => ({ default: (await words()).TurnDown }))
const AskSomething = lazy(async () => ({ default: (await words()).AskSomething }))
const WelcomeWith = lazy(async () => ({ default: (await words()).WelcomeWith }))
const OfferTimes = lazy(async () => ({ default: (await import('./offer-times.tsx')).OfferTimes }))

/** Welcome, offer other times, turn down: what can be said to a request. */
export function Decide({
  desk,
  booking,
  full = false,
  late = false,
}: {
  desk: Desk
  booking: Booking
  full?: boolean
  /** It has run out, and can be answered all the same. */
  late?: boolean
}) {
  const [open, setOpen] = useState<Way>()
  const waiting = useAt((now) => late || isAwaiting(booking, now))
  const act = useAct()
  const name = booking.asked.person.name
  const held = desk.intentions.some((intention) => intention.booking === booking.id && !intention.refused)
  if (held) return <p className="text-[14px] font-semibold text-sun-ink">Decided; it has not gone out yet.</p>
  if (!waiting) return null
  const ask = late ? undefined : () => setOpen('ask')
  return (
    <>
      <Question booking={booking} />
      {/* biome-ignore lint/a11y/noStaticElementInteractions: what is pressed are the buttons in it; these keys are a shorter way to them */}
      <div
        className={`flex flex-wrap items-center gap-2.5 ${full ? 'flex-row-reverse justify-start' : 'justify-between'}`}
        onKeyDown={(event) => {
          const way = event.ctrlKey || event.metaKey || event.altKey ? undefined : KEYS[event.key]
          if (!way || (late && way !== 'welcome' && way !== 'offer')) return
          event.preventDefault()
          // The same letters lead to pages elsewhere.
          event.stopPropagation()
          if (way === 'welcome') act.run(() => decideFor(booking, { do: 'welcome' }))
          else setOpen(way)
        }}
      >
        <div className={`flex flex-wrap gap-2.5 ${full ? 'flex-row-reverse' : ''}`}>
          <button
            type="button"
            className="press press-go"
            title="Key: w"
            onClick={() => act.run(() => decideFor(booking, { do: 'welcome' }))}
          >
            Welcome for {shortDayTime(desk, booking.start)}
            <span className="sr-only">, {name}</span>
          </button>
          <button type="button" className="press" title="Key: o" onClick={() => setOpen('offer')}>
            Offer other times
            <span className="sr-only"> to {name}</span>
          </button>
        </div>
        <div className="flex flex-wrap gap-1">
          <button type="button" className="press press-quiet px-2.5" onClick={() => setOpen('word')}>
            With a word…
            <span className="sr-only"> Welcome {name}</span>
          </button>
          {ask && (
            <button type="button" className="press press-quiet px-2.5" title="Key: a" onClick={ask}>
              Ask…
              <span className="sr-only"> {name} something</span>
            </button>
          )}
          {!late && (
            <button
              type="button"
              className="press press-no px-2.5"
              title="Key: d"
              onClick={() => setOpen('decline')}
            >
              Turn down…
              <span className="sr-only"> {name}</span>
            </button>
          )}
        </div>
      </div>
      <ProblemNote of={act} />
      {open && (
        <Suspense>
          {open === 'decline' && <TurnDown desk={desk} booking={booking} close={() => setOpen(undefined)} />}
          {open === 'ask' && <AskSomething desk={desk} booking={booking} close={() => setOpen(undefined)} />}
          {open === 'word' && <WelcomeWith booking={booking} close={() => setOpen(undefined)} />}
          {open === 'offer' && <OfferTimes desk={desk} booking={booking} close={() => setOpen(undefined)} />}
        </Suspense>
      )}
    </>
  )
}

type Way = 'offer' | 'decline' | 'ask' | 'word'

/** One key each, while the focus is on one of the buttons of a request. */
const KEYS: Readonly<Record<string, Way | 'welcome'>> = { w: 'welcome', o: 'offer', a: 'ask', d: 'decline' }

/** What was asked back, and what was answered. */
function Question({ booking: { question } }: { booking: Booking }) {
  if (!question) return null
  return (
    <div className="note mb-3 bg-tile-soft text-tile-ink">
      <p>You asked: “{question.text}”</p>
      <p className="mt-1 font-semibold wrap-anywhere" dir="auto">
        {question.reply ? question.reply.text : 'No answer yet.'}
      </p>
    </div>
  )
}

function shortDayTime(desk: Desk, start: Instant): string {
  const where = zoneOf(desk.practice, undefined)
  return `${shortDate(dateAt(where, start)).slice(0, 3)} ${timeAt(where, start)}`
}
