import { type Booking, holdUntil, MOST_OFFERS, type Start } from '@acolhida/core/booking'
import { openStarts } from '@acolhida/core/openings'
import { placeOf, serviceOf, travelled, travelZoneOf, zoneOf } from '@acolhida/core/practice'
import { byPractitioner } from '@acolhida/core/request'
import {
  DAY,
  dateAt,
  type Instant,
  type LocalDate,
  longDate,
  moment,
  shift,
  shortDate,
  timeAt,
} from '@acolhida/core/time'
import { useMemo, useState } from 'react'
import { useAt, useMinute } from '../../relay-client/clock.ts'
import { isAwaiting } from '../data/awaiting.ts'
import type { Desk } from '../data/live.ts'
import { useTaken } from '../data/taken.ts'
import { decideFor } from '../sync/acts.ts'
import { ProblemNote, useAct } from './act.tsx'
import { Dialog } from './dialog.tsx'
import { WordWithIt } from './word.tsx'
import { serviceName, when } from './words.ts'

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
      {open === 'offer' && <OfferTimes desk={desk} booking={booking} close={() => setOpen(undefined)} />}
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

/** How many days ahead other times are looked for. */
const DAYS = 21

function OfferTimes({ desk, booking, close }: { desk: Desk; booking: Booking; close: () => void }) {
  const { practice } = desk
  const minute = useMinute()
  const act = useAct()
  const [chosen, setChosen] = useState<Start[]>([])
  const [text, setText] = useState('')
  const place = booking.place
  const where = zoneOf(practice, placeOf(practice, place))
  const taken = useTaken(desk, minute, shift(minute, DAYS * DAY), booking.id)
  const days = useMemo(() => {
    const own = serviceOf(practice, booking.service)
    if (!own || !taken) return []
    // The way there and back is kept clear at any other time, too.
    const service = travelled(own, travelZoneOf(placeOf(practice, place), booking.asked.travel))
    const ask = {
      service,
      place,
      minutes: booking.minutes,
      asker: byPractitioner,
      now: minute,
    }
    const groups = new Map<LocalDate, Instant[]>()
    for (const start of openStarts(practice, taken.diary, ask, dateAt(where, minute), DAYS)) {
      if (start === booking.start) continue
      const day = dateAt(where, start)
      groups.set(day, [...(groups.get(day) ?? []), start])
    }
    return [...groups]
  }, [taken, practice, place, booking, where, minute])
  const toggle = (start: Instant): void =>
    setChosen((before) =>
      before.some((other) => other.start === start)
        ? before.filter((other) => other.start !== start)
        : [...before, { start, place }].slice(-MOST_OFFERS),
    )
  const first = [...chosen].sort((a, b) => a.start - b.start)[0]
  const name = booking.asked.person.name
  return (
    <Dialog title={`Offer ${name} other times`} close={close} wide>
      <p className="text-soft">
        Choose up to {MOST_OFFERS}. They are kept until {name} has chosen; {when(practice, booking.start)}{' '}
        becomes free.
      </p>
      <div className="mt-3 grid max-h-[42dvh] gap-2 overflow-y-auto pr-1">
        {days.map(([day, starts]) => (
          <div key={day} className="grid grid-cols-[110px_1fr] items-start gap-3 border-t border-line pt-2">
            <span className="pt-1.5 text-[14px] font-semibold">{shortDate(day)}</span>
            <div className="flex flex-wrap gap-1.5">
              {starts.map((start) => {
                const on = chosen.some((other) => other.start === start)
                return (
                  <button
                    key={start}
                    type="button"
                    aria-pressed={on}
                    aria-label={`${longDate(day)}, ${timeAt(where, start)}`}
                    className={`press figures min-h-[30px] px-2.5 py-1 text-[13px] ${on ? 'press-go' : ''}`}
                    onClick={() => toggle(start)}
                  >
                    {timeAt(where, start)}
                  </button>
                )
              })}
            </div>
          </div>
        ))}
        {taken && days.length === 0 && <p>No time is open in the next three weeks.</p>}
      </div>
      <WordWithIt text={text} onChange={setText} />
      <div className="mt-3 flex flex-wrap items-center justify-between gap-3">
        <span className="text-[14px] text-soft" role="status">
          {chosen.length === 0
            ? 'Nothing chosen yet.'
            : `${chosen.length} of ${MOST_OFFERS} chosen, kept until ${moment(holdUntil(practice.answering, minute, first!.start, where), where)}.`}
        </span>
        <button
          type="button"
          className="press press-go"
          disabled={chosen.length === 0}
          onClick={() =>
            act.run(
              () =>
                decideFor(booking, {
                  do: 'offer',
                  starts: [...chosen].sort((a, b) => a.start - b.start),
                  text,
                }),
              close,
            )
          }
        >
          {chosen.length > 1 ? `Offer these ${chosen.length} times` : 'Offer this time'}
        </button>
      </div>
      <ProblemNote of={act} />
    </Dialog>
  )
}
