import { movedOn } from '@acolhida/core/planning'
import { type Practice, placeOf, zoneOf } from '@acolhida/core/practice'
import {
  clockTyped,
  DAY,
  dateAt,
  dayNumber,
  type Instant,
  type LocalDate,
  shift,
  timeAt,
} from '@acolhida/core/time'
import { useMemo, useState } from 'react'
import { relayNow } from '../../relay-client/clock.ts'
import type { Desk } from '../data/live.ts'
import type { BookingRow } from '../data/rows.ts'
import { useTaken } from '../data/taken.ts'
import { Scales, type Weighed } from '../diary/weigh.ts'
import { DateField } from '../parts/date-field.tsx'
import { FormDialog } from '../parts/form-dialog.tsx'
import { PlainChoice, PlainField } from '../parts/plain-field.tsx'
import { type GoesWith, goingWith, WordOrSilence } from '../parts/word.tsx'
import { counted, serviceName, when } from '../parts/words.ts'
import { moveSessions } from '../sync/acts.ts'

/** One session with where it would go; nothing where that can't be told yet. */
interface Going {
  booking: BookingRow
  to?: Weighed
}

/** Where they go; nowhere while the time is half typed. */
function targetsOf(practice: Practice, moving: readonly BookingRow[], days: number, time: string): Instant[] {
  try {
    return movedOn(practice, moving, days, clockTyped(time))
  } catch {
    return []
  }
}

/** How far around what moves the diary is looked at. */
const AROUND = 8 * DAY

/** Moves what is booked with somebody from one session on: by so many days, to another time of day. */
export function MoveSessions({
  desk,
  coming,
  close,
}: {
  desk: Desk
  /** What is booked and still to come, in order. */
  coming: readonly BookingRow[]
  close: () => void
}) {
  const { practice } = desk
  const [head] = coming as [BookingRow]
  const zoneAt = (place: string) => zoneOf(practice, placeOf(practice, place))
  const [from, setFrom] = useState(head.id)
  const [said, setSaid] = useState<GoesWith>({ text: '' })
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set())
  const at = Math.max(
    0,
    coming.findIndex(({ id }) => id === from),
  )
  const first = coming[at]!
  const [day, setDay] = useState<LocalDate | ''>(dateAt(zoneAt(head.place), head.start))
  const [time, setTime] = useState<string>(timeAt(zoneAt(head.place), head.start))
  const moving = coming.slice(at)
  const last = moving.at(-1)!
  const byDays = day ? dayNumber(day) - dayNumber(dateAt(zoneAt(first.place), first.start)) : 0
  const taken = useTaken(
    desk,
    shift(first.start, Math.min(0, byDays) * DAY - AROUND),
    shift(last.start, Math.max(0, byDays) * DAY + AROUND),
    moving.map(({ id }) => id),
  )
  const going = useMemo((): Going[] => {
    const moving = coming.slice(at)
    const targets = day ? targetsOf(practice, moving, byDays, time) : []
    const scales = taken && new Scales(practice, taken, relayNow())
    return moving.map((booking, i): Going => {
      const to = targets[i]
      return to === undefined || !scales ? { booking } : { booking, to: scales.at(booking, to) }
    })
  }, [coming, at, byDays, day, time, taken, practice])
  // What would lie in something else stays where it is.
  const goes = going.flatMap(({ booking, to }) =>
    to?.start !== undefined && !to.clash && !left.has(booking.id) && to.start !== booking.start
      ? [{ booking, start: to.start }]
      : [],
  )
  const { name } = first.asked.person
  return (
    <FormDialog
      title={`Move sessions with ${name}`}
      go={`Move ${counted(goes.length, 'session', 'sessions')}`}
      ready={goes.length > 0}
      wide
      does={() => {
        const { text, silent } = goingWith(said)
        return moveSessions(goes, silent ? { silent } : text.trim() ? { text: text.trim() } : {})
      }}
      close={close}
    >
      <PlainChoice
        label="From this one on"
        value={from}
        options={coming.map(({ id, start, service }) => ({
          value: id,
          name: `${when(practice, start)}, ${serviceName(practice, service)}`,
        }))}
        onChange={(id) => {
          const next = coming.find((one) => one.id === id) ?? head
          setFrom(id)
          setDay(dateAt(zoneAt(next.place), next.start))
          setTime(timeAt(zoneAt(next.place), next.start))
        }}
      />
      <div className="mt-3 grid gap-3 sm:grid-cols-2">
        <DateField label="It goes to this day" value={day} onChange={setDay} />
        <PlainField label="All of them at" value={time} onChange={setTime} />
      </div>
      <p className="mt-2 text-[14px] text-soft">
        The others move by as many days. {name}{' '}
        {said.silent ? 'is not told' : 'is told of all of them at once'}; price and rules go with them.
      </p>
      <ul className="mt-2 max-h-[280px] overflow-y-auto border-t border-line" aria-label="What moves">
        {going.map(({ booking, to }) => (
          <MovedRow
            key={booking.id}
            desk={desk}
            booking={booking}
            to={to}
            on={goes.some((one) => one.booking === booking)}
            onChange={(on) =>
              setLeft(new Set(on ? [...left].filter((id) => id !== booking.id) : [...left, booking.id]))
            }
          />
        ))}
      </ul>
      <WordOrSilence said={said} onChange={setSaid} />
    </FormDialog>
  )
}

/** One session, with where it goes, and what that breaks. */
function MovedRow({
  desk: { practice },
  booking,
  to,
  on,
  onChange,
}: {
  desk: Desk
  booking: BookingRow
  to: Weighed | undefined
  on: boolean
  onChange: (on: boolean) => void
}) {
  const stays = to?.start === undefined || to.clash || to.start === booking.start
  return (
    <li className="border-b border-line py-1.5 text-[14px]">
      <label className="flex min-h-[32px] cursor-pointer items-center gap-3">
        <input
          type="checkbox"
          className="checkbox checkbox-primary checkbox-sm"
          checked={on}
          disabled={stays}
          onChange={(event) => onChange(event.target.checked)}
        />
        <span className="figures">
          {when(practice, booking.start)}
          {to?.start !== undefined && to.start !== booking.start && <b> → {when(practice, to.start)}</b>}
        </span>
      </label>
      {to?.clash && <p className="pl-8 font-semibold text-clay">It stays where it is.</p>}
      {to?.closures.map(({ closure, words }) => (
        <p key={`${closure.rule} ${words}`} className="pl-8 text-soft">
          {words}
        </p>
      ))}
    </li>
  )
}
