import type { Booking } from '@acolhida/core/booking'
import { zoneOf } from '@acolhida/core/practice'
import { dateAt, type Instant, shortDate, timeAt } from '@acolhida/core/time'
import { lazy, Suspense, useState } from 'react'
import { useAt } from '../../relay-client/clock.ts'
import { isAwaiting } from '../data/awaiting.ts'
import type { Desk } from '../data/live.ts'
import { decideFor } from '../sync/acts.ts'
import { ProblemNote, useAct } from './act.tsx'
import { Dialog } from './dialog.tsx'
import { serviceName } from './words.ts'

// Looking for open times comes when it is asked for.
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
  const [open, setOpen] = useState<'offer' | 'decline'>()
  const waiting = useAt((now) => late || isAwaiting(booking, now))
  const act = useAct()
  const name = booking.asked.person.name
  const held = desk.intentions.some((intention) => intention.booking === booking.id && !intention.refused)
  if (held) return <p className="text-[14px] font-semibold text-sun-ink">Decided; it has not gone out yet.</p>
  if (!waiting) return null
  return (
    <>
      <div
        className={`flex flex-wrap items-center gap-2.5 ${full ? 'flex-row-reverse justify-start' : 'justify-between'}`}
      >
        <div className={`flex flex-wrap gap-2.5 ${full ? 'flex-row-reverse' : ''}`}>
          <button
            type="button"
            className="press press-go"
            onClick={() => act.run(() => decideFor(booking, { do: 'welcome' }))}
          >
            Welcome for {shortDayTime(desk, booking.start)}
            <span className="sr-only">, {name}</span>
          </button>
          <button type="button" className="press" onClick={() => setOpen('offer')}>
            Offer other times
            <span className="sr-only"> to {name}</span>
          </button>
        </div>
        {!late && (
          <button type="button" className="press press-no" onClick={() => setOpen('decline')}>
            Turn down…
            <span className="sr-only"> {name}</span>
          </button>
        )}
      </div>
      <ProblemNote of={act} />
      {open === 'decline' && <TurnDown desk={desk} booking={booking} close={() => setOpen(undefined)} />}
      {open === 'offer' && (
        <Suspense>
          <OfferTimes desk={desk} booking={booking} close={() => setOpen(undefined)} />
        </Suspense>
      )}
    </>
  )
}

function shortDayTime(desk: Desk, start: Instant): string {
  const where = zoneOf(desk.practice, undefined)
  return `${shortDate(dateAt(where, start)).slice(0, 3)} ${timeAt(where, start)}`
}

function TurnDown({ desk, booking, close }: { desk: Desk; booking: Booking; close: () => void }) {
  const name = booking.asked.person.name
  const service = serviceName(desk.practice, booking.service)
  const act = useAct()
  const [text, setText] = useState(
    `Thank you for asking and for telling me about yourself. I am sorry: ${service} with me is not what I can offer you just now. I wish you well.`,
  )
  return (
    <Dialog title={`Turn ${name} down`} close={close}>
      <p className="text-soft">The time becomes free again. {name} gets these words by mail:</p>
      <label className="sr-only" htmlFor="decline-text">
        What {name} will read
      </label>
      <textarea
        id="decline-text"
        className="field mt-2 min-h-36"
        maxLength={5_000}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <button
        type="button"
        className="press press-go mt-3"
        onClick={() => act.run(() => decideFor(booking, { do: 'decline', text }), close)}
      >
        Turn down and send this
      </button>
      <ProblemNote of={act} />
    </Dialog>
  )
}
