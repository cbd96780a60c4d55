import { closureWords } from '@acolhida/core/openings'
import { type PlannedSession, type PlanWish, startsOn } from '@acolhida/core/planning'
import { type Practice, placeOf, zoneOf } from '@acolhida/core/practice'
import {
  dateAt,
  dayNumber,
  formatInstant,
  type Instant,
  type LocalDate,
  lengthOf,
  longWeekdayName,
  MINUTE,
  shortDate,
  timeAt,
  weekday,
} from '@acolhida/core/time'
import { useState } from 'react'
import type { Taken } from '../data/taken.ts'
import { DateField } from '../parts/date-field.tsx'
import { counted } from '../parts/words.ts'

/** One session of a plan as it is shown: where it lies now, be it planned or moved by hand. */
export interface PlanRow {
  planned: PlannedSession
  start: Instant | undefined
  byHand: boolean
}

const howFar = ({ days, minutes }: PlannedSession): string =>
  [
    days === 0 ? '' : `${counted(Math.abs(days), 'day', 'days')} ${days < 0 ? 'earlier' : 'later'}`,
    minutes === 0
      ? ''
      : `${lengthOf(Math.abs(minutes) * MINUTE)} ${minutes < 0 ? 'earlier' : 'later'} in the day`,
  ]
    .filter(Boolean)
    .join(', ')

/** One session of a plan, with why it is not where it was meant, and a way to move it. */
export function PlannedRow({
  practice,
  wish,
  taken,
  row: { planned, start, byHand },
  number,
  others,
  onMove,
}: {
  practice: Practice
  wish: PlanWish
  taken: Taken
  row: PlanRow
  number: number
  /** Where the other sessions of the plan lie. */
  others: readonly Instant[]
  /** Nothing: as it was planned. */
  onMove: (start: Instant | undefined) => void
}) {
  const [moving, setMoving] = useState(false)
  const where = zoneOf(practice, placeOf(practice, wish.place))
  const because = [
    ...(planned.outside ? ['They can’t come then.'] : []),
    ...planned.because.map((closure) =>
      closureWords(closure, {
        ...{ practice, start: planned.ideal, minutes: wish.minutes, zone: where, nameOf: taken.name },
      }),
    ),
  ]
  const far = howFar(planned)
  return (
    <li className="grid grid-cols-[34px_1fr_auto] gap-x-3 py-2.5">
      <span className="figures pt-0.5 text-right text-soft">{number}</span>
      <div className="min-w-0">
        {start === undefined ? (
          <p className="font-semibold text-clay">No room around {shortDate(planned.meant)}</p>
        ) : (
          <p>
            <time className="font-semibold" dateTime={formatInstant(start)}>
              {longWeekdayName(weekday(dayNumber(dateAt(where, start))))},{' '}
              {shortDate(dateAt(where, start)).slice(4)}
            </time>
            <span className="figures ml-2">{timeAt(where, start)}</span>
          </p>
        )}
        {byHand ? (
          <p className="text-[13px] text-soft">Moved by you; meant for {shortDate(planned.meant)}.</p>
        ) : (
          (far || because.length > 0) && (
            <p className="text-[13px] text-soft">
              {far && <b className="font-semibold text-sun-ink">{far}. </b>}
              {because.length > 0 ? because.join(' ') : 'So that the others have room.'}
            </p>
          )
        )}
        {moving && (
          <MoveTo
            practice={practice}
            wish={wish}
            taken={taken}
            day={dateAt(where, start ?? planned.ideal)}
            others={others}
            pick={(at) => {
              onMove(at)
              setMoving(false)
            }}
          />
        )}
      </div>
      <div className="flex flex-wrap items-start justify-end gap-1.5">
        {byHand && (
          <button type="button" className="press press-quiet" onClick={() => onMove(undefined)}>
            As planned
          </button>
        )}
        <button
          type="button"
          className="press press-quiet"
          aria-expanded={moving}
          onClick={() => setMoving(!moving)}
        >
          {moving ? 'Leave it' : 'Move'}
          <span className="sr-only"> session {number}</span>
        </button>
      </div>
    </li>
  )
}

/** The open starts of a day, to pick one from. */
function MoveTo({
  practice,
  wish,
  taken,
  day: first,
  others,
  pick,
}: {
  practice: Practice
  wish: PlanWish
  taken: Taken
  day: LocalDate
  others: readonly Instant[]
  pick: (start: Instant) => void
}) {
  const [day, setDay] = useState<LocalDate | ''>(first)
  const where = zoneOf(practice, placeOf(practice, wish.place))
  const long = wish.minutes * MINUTE
  const open = day
    ? startsOn(practice, taken.diary, wish, day).filter((start) =>
        others.every((other) => Math.abs(other - start) >= long),
      )
    : []
  return (
    <div className="mt-2 rounded-md border border-line bg-card p-3">
      <DateField label="To this day" value={day} onChange={setDay} />
      <p className="mt-2 text-[13px] text-soft" role="status">
        {open.length > 0
          ? `${counted(open.length, 'time is', 'times are')} open:`
          : 'Nothing is open on that day.'}
      </p>
      <div className="mt-1 flex flex-wrap gap-1.5">
        {open.map((start) => (
          <button key={start} type="button" className="press figures" onClick={() => pick(start)}>
            {timeAt(where, start)}
          </button>
        ))}
      </div>
    </div>
  )
}
