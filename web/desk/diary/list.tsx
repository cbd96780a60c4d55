import { stateAt } from '@acolhida/core/booking'
import type { Diary } from '@acolhida/core/openings'
import { placeOf } from '@acolhida/core/practice'
import {
  type DayNumber,
  dateAt,
  type Instant,
  localDate,
  longDate,
  span,
  type Zone,
} from '@acolhida/core/time'
import { Link } from 'react-router'
import type { Desk } from '../data/live.ts'
import { entryTitle } from '../parts/todays-line.tsx'
import { STATE } from '../parts/words.ts'

/** What is in the diary, day by day, in words. */
export function List({
  desk,
  diary,
  first,
  days,
  now,
  where,
}: {
  desk: Desk
  diary: Diary
  first: DayNumber
  days: number
  now: Instant
  where: Zone
}) {
  const from = where.toInstant(first, 0)
  const to = where.toInstant((first + days) as DayNumber, 0)
  const entries = diary.entries.filter((entry) => entry.start >= from && entry.start < to)
  const dates = [...new Set(entries.map((entry) => dateAt(where, entry.start)))]
  if (entries.length === 0) {
    return (
      <p className="sheet p-5">Nothing is booked in these four weeks. Sessions and holds are listed here.</p>
    )
  }
  return (
    <div className="grid max-w-[860px] gap-4">
      {dates.map((date) => (
        <section key={date}>
          <h2 className={`mb-1.5 ${date === localDate(where.toWall(now).day) ? 'text-clay' : ''}`}>
            {longDate(date)}
          </h2>
          <ul className="sheet divide-y divide-line">
            {entries
              .filter((entry) => dateAt(where, entry.start) === date)
              .map((entry) => {
                const { title, line, booking } = entryTitle(desk, entry)
                return (
                  <li
                    key={`${entry.id} ${entry.start}`}
                    className="grid grid-cols-[120px_1fr_auto] items-baseline gap-3 px-4 py-2.5"
                  >
                    <span className="figures font-semibold">{span(entry.start, entry.end, where)}</span>
                    <span className="min-w-0">
                      {booking ? (
                        <Link className="way" to={`/arrivals/${booking.id}`}>
                          {title}
                        </Link>
                      ) : (
                        <b>{title}</b>
                      )}{' '}
                      <span className="text-soft">
                        {[line, placeOf(desk.practice, entry.place ?? '')?.name].filter(Boolean).join(' ')}
                      </span>
                    </span>
                    <span className="text-[14px] text-soft">
                      {entry.kind === 'hold'
                        ? 'held'
                        : entry.kind === 'outside'
                          ? 'another calendar'
                          : booking
                            ? STATE[stateAt(booking, now).is]
                            : ''}
                    </span>
                  </li>
                )
              })}
          </ul>
        </section>
      ))}
    </div>
  )
}
