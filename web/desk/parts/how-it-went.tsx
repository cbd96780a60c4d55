import {
  type Booking,
  canBeMissed,
  comesAndAsks,
  hasBegun,
  isPlaced,
  MOST_LATE,
  MOST_LENGTH,
  stateAt,
  whoComes,
} from '@acolhida/core/booking'
import { DAY, shift } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { Link } from 'react-router'
import { useAt, useMinute } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import type { Desk } from '../data/live.ts'
import { keptBetween } from '../data/taken.ts'
import { decideFor } from '../sync/acts.ts'
import { decideForAll } from '../sync/together.ts'
import { ActButton, ProblemNote, useAct } from './act.tsx'
import { Dialog } from './dialog.tsx'
import { IfMissed } from './if-missed.tsx'
import { PlainField } from './plain-field.tsx'
import { serviceName, when } from './words.ts'

/** How long one is asked how a session went, in ms; later it is said on its own page. */
const ASKED_FOR = 14 * DAY

const isDecided = (desk: Desk, { id }: Booking): boolean =>
  desk.intentions.some((intention) => intention.booking === id && !intention.refused)

/** The sessions of the last days of which nobody has said how they went, the first first. */
export function HowTheyWent({ desk }: { desk: Desk }) {
  const now = useMinute()
  const rows = useLiveQuery(() => keptBetween(db, shift(now, -ASKED_FOR), now), [now]) ?? []
  const over = rows
    .filter((row) => {
      const state = stateAt(row, now)
      return state.is === 'booked' && state.over && row.start > now - ASKED_FOR && !isDecided(desk, row)
    })
    .sort((a, b) => a.start - b.start)
  if (over.length === 0) return null
  return (
    <section className="mt-6" aria-label="How did it go?">
      <div className="mb-2.5 flex items-baseline justify-between gap-3">
        <h2>How did it go?</h2>
        {over.length > 1 && (
          <ActButton className="way" onAct={() => decideForAll(over, { do: 'attend' })}>
            All attended
          </ActButton>
        )}
      </div>
      <ul className="sheet divide-y divide-line px-4">
        {over.map((row) => (
          <li
            key={row.id}
            className="flex flex-wrap items-center justify-between gap-3 py-2.5 sm:flex-nowrap"
          >
            <span className="min-w-0">
              <Link
                className="font-semibold wrap-anywhere underline-offset-3 hover:underline"
                to={`/arrivals/${row.id}`}
              >
                {comesAndAsks(row)}
              </Link>
              <span className="block text-[14px] text-soft">
                {serviceName(desk.practice, row.service)} · {when(desk.practice, row.start)}
              </span>
            </span>
            <SayHowItWent desk={desk} booking={row} />
          </li>
        ))}
      </ul>
    </section>
  )
}

/** Attended, with what was otherwise than planned, or missed: from the session's beginning, and put right at any time. */
export function SayHowItWent({ desk, booking }: { desk: Desk; booking: Booking }) {
  const [otherwise, setOtherwise] = useState(false)
  const begun = useAt((now) => hasBegun(booking, now))
  const missable = useAt((now) => canBeMissed(booking, now))
  const is = useAt((now) => stateAt(booking, now).is)
  const name = <span className="sr-only">, {booking.asked.person.name}</span>
  if (isDecided(desk, booking))
    return <span className="text-[14px] font-semibold text-sun-ink">Said; it has not gone out yet.</span>
  if (!begun || !isPlaced({ is })) return null
  return (
    <span className="flex flex-wrap gap-2 sm:shrink-0">
      {is !== 'attended' && (
        <ActButton onAct={() => decideFor(booking, { do: 'attend' })}>Attended{name}</ActButton>
      )}
      <button type="button" className="press press-quiet" onClick={() => setOtherwise(true)}>
        {is === 'attended' ? 'Late or longer…' : 'Attended, but…'}
        {name}
      </button>
      {is !== 'missed' && missable && (
        <ActButton className="press press-no" onAct={() => decideFor(booking, { do: 'miss' })}>
          Missed{name}
        </ActButton>
      )}
      {is !== 'missed' && missable && <IfMissed desk={desk} booking={booking} />}
      {otherwise && <Otherwise booking={booking} close={() => setOtherwise(false)} />}
    </span>
  )
}

/** Minutes late, and how long it really was. */
function Otherwise({ booking, close }: { booking: Booking; close: () => void }) {
  const act = useAct()
  const [late, setLate] = useState(booking.late ? String(booking.late) : '')
  const [minutes, setMinutes] = useState(String(booking.lasted ?? booking.minutes))
  const attend = (): Promise<void> => {
    const lateBy = minutesTyped(late || '0', {
      least: 0,
      most: MOST_LATE,
      otherwise: 'Say how many minutes late as a number, or leave the field empty.',
    })
    const long = minutesTyped(minutes, {
      least: 1,
      most: MOST_LENGTH,
      otherwise: 'Say how many minutes it lasted as a number, 1 or more.',
    })
    return decideFor(booking, {
      do: 'attend',
      ...(lateBy > 0 ? { late: lateBy } : {}),
      ...(long === booking.minutes ? {} : { minutes: long }),
    })
  }
  return (
    <Dialog title={`${whoComes(booking)} attended`} close={close}>
      <div className="grid gap-4 sm:grid-cols-2">
        <PlainField label="Minutes late" inputMode="numeric" value={late} onChange={setLate} />
        <PlainField label="Minutes it lasted" inputMode="numeric" value={minutes} onChange={setMinutes} />
      </div>
      <p className="mt-3 text-[14px] text-soft">
        {booking.minutes} minutes were planned. Nothing is sent, and the price stays as it was.
      </p>
      <button type="button" className="press press-go mt-3" onClick={() => act.run(attend, close)}>
        Attended
      </button>
      <ProblemNote of={act} />
    </Dialog>
  )
}

/** Minutes as they were typed. @throws Error with the sentence when they are none */
function minutesTyped(
  typed: string,
  { least, most, otherwise }: { least: number; most: number; otherwise: string },
) {
  const value = /^\s*\d{1,5}\s*$/.test(typed) ? Number(typed) : Number.NaN
  if (!(value >= least && value <= most)) throw new Error(otherwise)
  return value
}
