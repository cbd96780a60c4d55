import type { Booking } from '@acolhida/core/booking'
import { type Ask, closureWords, type Entry, readHours, why } from '@acolhida/core/openings'
import { hoursOf, placeOf, zoneOf } from '@acolhida/core/practice'
import {
  type DayNumber,
  type Instant,
  localDate,
  MINUTE,
  moment,
  monthName,
  span,
  weekday,
  weekdayName,
  type Zone,
} from '@acolhida/core/time'
import { type PointerEvent, type ReactNode, useMemo, useRef, useState } from 'react'
import { Link } from 'react-router'
import { type BandItem, DayBand, type DrawnDay } from '../../drawings/day-band.tsx'
import { HourMarks } from '../../drawings/hour-marks.tsx'
import { useMinute } from '../../relay-client/clock.ts'
import type { Desk } from '../data/live.ts'
import { type Taken, takenOf } from '../data/taken.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { dayBandOf, hoursShown } from './band-of.ts'
import { drag } from './drag.ts'
import { GroupSession } from './group-session.tsx'
import { Legend } from './legend.tsx'
import { Move } from './move.tsx'
import { keepForMyself } from './own-time.ts'
import { Scales } from './weigh.ts'

/** Days as bands: a cursor asks about single starts, sessions are dragged, free ground is drawn on. */
export function Bands({
  desk,
  taken,
  ask,
  starts,
  first,
  days: count,
  where,
  onEnter,
  onKept,
}: {
  desk: Desk
  taken: Taken
  ask: Ask
  starts: readonly Instant[]
  first: DayNumber
  days: number
  where: Zone
  onEnter: (at: Instant) => void
  /** Time was kept for oneself; says which. */
  onKept: (words: string, from: Instant, to: Instant) => void
}) {
  const { practice } = desk
  const { service } = ask
  const [cursor, setCursor] = useState<Instant>()
  const [moving, setMoving] = useState<{ booking: Booking; to: Instant }>()
  const [group, setGroup] = useState<Entry>()
  const root = useRef<HTMLUListElement>(null)
  const label = useRef<HTMLDivElement>(null)
  const compact = count > 7
  const minute = useMinute()
  const { diary } = taken
  const hours = hoursOf(practice, placeOf(practice, ask.place))
  const days = useMemo(
    () => Array.from({ length: count }, (_, i) => (first + i) as DayNumber),
    [first, count],
  )
  const shown = useMemo(() => hoursShown(hours, taken, days, where), [hours, taken, days, where])
  const bands = useMemo(() => {
    const read = readHours(hours)
    return days.map((day) => dayBandOf(practice, taken, day, shown, starts, minute, where, read))
  }, [practice, taken, days, shown, starts, minute, where, hours])
  const words = (at: Instant): string[] =>
    why(practice, diary, ask, at).map((closure) =>
      closureWords(closure, {
        practice,
        start: at,
        minutes: ask.minutes,
        zone: where,
        nameOf: taken.name,
      }),
    )
  const describe = (at: Instant): string => {
    const closures = words(at)
    return closures.length === 0
      ? `${moment(at, where)} is open`
      : `${moment(at, where)} is closed: ${closures.join(' ')}`
  }
  const step = service.starts.kind === 'every' ? service.starts.minutes : 15

  const grab = (item: BandItem, event: PointerEvent<HTMLElement>): void => {
    const booking = item.booking === undefined ? undefined : taken.booking(item.booking)
    if (!booking || !root.current || !label.current) return
    const { asked, place, start } = booking
    const rows = taken.rows.filter((row) => row.id !== booking.id)
    const scales = new Scales(practice, takenOf(desk, rows, minute, ...taken.span), minute)
    const there = zoneOf(practice, placeOf(practice, place))
    drag(event, {
      root: root.current,
      label: label.current,
      start,
      length: asked.minutes * MINUTE,
      step: 5,
      consequences: (to) => {
        const weighed = scales.at({ ...asked, place }, to)
        const [one, two, ...more] = weighed.closures.map((closure) => closure.words)
        const reasons = [one, two, more.length > 0 ? `And ${more.length} more.` : ''].filter(Boolean)
        return {
          words: `${moment(to, there)}: ${reasons.length === 0 ? 'open.' : reasons.join(' ')}`,
          look: reasons.length === 0 ? 'fits' : weighed.clash ? 'closed' : 'look',
        }
      },
      onDrop: (to) => setMoving({ booking, to }),
    })
  }
  const act = useAct()
  const draw = (from: Instant, to: Instant): void =>
    act.run(
      () => keepForMyself(practice, from, to),
      () => onKept(`${moment(from, where)} is kept for yourself, ${span(from, to, where)}.`, from, to),
    )
  const open = (item: BandItem): void =>
    setGroup(diary.entries.find((entry) => `${entry.id} ${entry.start}` === item.id))
  const steady = useSteady({ onEnter, onDraw: draw, onGrab: grab, onOpen: open, describe })
  return (
    <div className="relative">
      <HourMarks {...shown} className="ml-24 hidden md:block" />
      <ul ref={root} className={`grid ${compact ? 'gap-1.5' : 'gap-[18px]'}`}>
        {bands.map((band, i) => {
          const day = days[i]!
          const mine = cursor !== undefined && where.toWall(cursor).day === day ? cursor : undefined
          const isToday = where.toWall(minute).day === day
          return (
            <li
              key={day}
              className={`grid items-center gap-x-0 md:grid-cols-[96px_1fr] ${
                compact && i > 0 && i % 7 === 0 ? 'mt-3' : ''
              }`}
            >
              <DayName
                day={day}
                isToday={isToday}
                withMonth={compact && (i === 0 || localDate(day).endsWith('-01'))}
              />
              {/* biome-ignore lint/a11y/noStaticElementInteractions: only puts the cursor away when the pointer leaves */}
              <div className="relative" onMouseLeave={() => setCursor(undefined)}>
                <DayBand
                  band={band}
                  compact={compact}
                  cursor={mine}
                  step={step}
                  onCursor={setCursor}
                  onChoose={steady.onEnter}
                  onDraw={steady.onDraw}
                  onGrab={steady.onGrab}
                  onOpen={steady.onOpen}
                  describe={steady.describe}
                  link={bandLink}
                />
                {mine !== undefined && (
                  <Why at={mine} closures={words(mine)} band={band} where={where} minutes={ask.minutes} />
                )}
              </div>
            </li>
          )
        })}
      </ul>
      <div
        ref={label}
        hidden
        role="status"
        className="drag-label pointer-events-none fixed top-0 left-0 z-30 w-[330px] rounded-lg px-3 py-2 text-[14px] shadow-lg"
      />
      <ProblemNote of={act} />
      <Legend />
      {moving && (
        <Move desk={desk} booking={moving.booking} to={moving.to} close={() => setMoving(undefined)} />
      )}
      {group && <GroupSession desk={desk} taken={taken} entry={group} close={() => setGroup(undefined)} />}
    </div>
  )
}

const bandLink = (booking: string, className: string, name: string, children: ReactNode): ReactNode => (
  <Link to={`/arrivals/${booking}`} className={className} aria-label={name} draggable={false}>
    {children}
  </Link>
)

/** The same functions at every drawing, which call the newest of those given: so that bands can stay as they are. */
function useSteady<F extends Record<string, (...args: never[]) => unknown>>(newest: F): F {
  const latest = useRef(newest)
  latest.current = newest
  const [steady] = useState(
    () =>
      Object.fromEntries(
        Object.keys(newest).map((name) => [name, (...args: never[]) => latest.current[name]!(...args)]),
      ) as F,
  )
  return steady
}

function DayName({ day, isToday, withMonth }: { day: DayNumber; isToday: boolean; withMonth: boolean }) {
  const [, month, date] = localDate(day).split('-').map(Number) as [number, number, number]
  return (
    <h2 className={`flex items-baseline gap-2 font-normal ${isToday ? 'text-clay' : ''}`}>
      <span className="serif text-[19px] font-[560]">{date}</span>
      <span className="font-sans text-[14px] tracking-normal text-soft">
        {withMonth ? `${monthName(month)} ` : ''}
        {weekdayName(weekday(day))}
      </span>
    </h2>
  )
}

/** Why the start under the cursor is closed, or that it is open. */
function Why({
  at,
  closures,
  band,
  where,
  minutes,
}: {
  at: Instant
  closures: string[]
  band: DrawnDay
  where: Zone
  minutes: number
}) {
  const share = (at - band.from) / (band.to - band.from)
  return (
    <div
      className="sheet pointer-events-none absolute top-full z-10 mt-2 w-[330px] max-w-full px-4 py-3 shadow-lg"
      style={share > 0.6 ? { right: `${(1 - share) * 100}%` } : { left: `${share * 100}%` }}
    >
      <b>
        {moment(at, where)} is {closures.length === 0 ? 'open' : 'closed'}
      </b>
      {closures.length === 0 ? (
        <p className="text-[14px] text-soft">{span(at, (at + minutes * MINUTE) as Instant, where)}</p>
      ) : (
        <ol className="mt-1 list-decimal pl-[18px] text-[14px]">
          {closures.map((closure) => (
            <li key={closure} className="mt-1">
              {closure}
            </li>
          ))}
        </ol>
      )}
    </div>
  )
}
