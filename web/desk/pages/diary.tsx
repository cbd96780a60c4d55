import type { Booking } from '@acolhida/core/booking'
import {
  type Ask,
  closureWords,
  type Entry,
  newClient,
  openStarts,
  type Diary as TakenDiary,
  why,
} from '@acolhida/core/openings'
import { placeOf, type Service, serviceOf, zoneOf } from '@acolhida/core/practice'
import {
  type DayNumber,
  date,
  dayNumber,
  type Instant,
  localDate,
  longMonthName,
  moment,
  span,
  weekday,
  weekdayName,
  weekStart,
  type Zone,
} from '@acolhida/core/time'
import { ChevronLeft, ChevronRight } from 'lucide-react'
import { useMemo, useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { type Band, DayBand } from '../../drawings/day-band.tsx'
import { useNow } from '../../relay-client/clock.ts'
import { type Desk, useDesk, useDiary } from '../data/live.ts'
import { bandOf, hoursShown } from '../parts/bands.ts'
import { BookIn } from '../parts/book-in.tsx'
import { RulesCost } from '../parts/cost.tsx'
import { Move } from '../parts/move.tsx'
import { entryTitle } from '../parts/todays-line.tsx'
import { homeZone } from '../parts/words.ts'

/** The week as day bands, with the openings a newcomer sees for one service laid over. */
export function Diary() {
  const desk = useDesk()
  const now = useNow()
  const { practice } = desk
  const [search, setSearch] = useSearchParams()
  const [booking, setBooking] = useState(false)
  const service = serviceOf(practice, search.get('service') ?? '') ?? practice.services[0]
  const where = service ? zoneOf(practice, placeOf(practice, service.places[0]!)) : homeZone(practice)
  const today = where.toWall(now).day
  const monday = weekStart(dayFrom(search.get('week')) ?? today, practice.profile.weekStart)
  const diary = useDiary(desk, now)
  const minute = (Math.floor(now / 60_000) * 60_000) as Instant
  const ask = useMemo<Ask | undefined>(
    () =>
      service && {
        service,
        place: service.places[0]!,
        minutes: service.minutes,
        asker: newClient,
        now: minute,
      },
    [service, minute],
  )
  const starts = useMemo(
    () => (ask ? openStarts(practice, diary, ask, localDate(monday), 7) : []),
    [practice, diary, ask, monday],
  )
  const go = (day: number): void => {
    search.set('week', localDate(day as DayNumber))
    setSearch(search)
  }
  return (
    <>
      <title>Diary · Acolhida</title>
      <header className="flex flex-wrap items-center justify-between gap-4">
        <h1>{weekName(monday)}</h1>
        <div className="flex gap-2.5">
          <button
            type="button"
            className="press px-2.5"
            aria-label="The week before"
            onClick={() => go(monday - 7)}
          >
            <ChevronLeft size={18} aria-hidden="true" />
          </button>
          <button type="button" className="press" onClick={() => go(today)}>
            This week
          </button>
          <button
            type="button"
            className="press px-2.5"
            aria-label="The week after"
            onClick={() => go(monday + 7)}
          >
            <ChevronRight size={18} aria-hidden="true" />
          </button>
          <button type="button" className="press press-go ml-3" onClick={() => setBooking(true)}>
            Book someone in
          </button>
          {booking && service && (
            <BookIn
              desk={desk}
              service={service.id}
              at={starts[0] ?? (minute as Instant)}
              close={() => setBooking(false)}
            />
          )}
        </div>
      </header>
      <div className="mt-3.5 mb-2 flex flex-wrap items-center gap-3 text-[14px] text-soft">
        <label htmlFor="diary-service">Openings a newcomer sees for</label>
        <select
          id="diary-service"
          className="field min-h-[34px] w-auto py-1 font-semibold"
          value={service?.id}
          onChange={(event) => {
            search.set('service', event.target.value)
            setSearch(search)
          }}
        >
          {practice.services.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name} · {one.minutes} min
            </option>
          ))}
        </select>
        <span role="status">
          {starts.length} {starts.length === 1 ? 'start' : 'starts'} · all times{' '}
          {where.name.split('/').at(-1)?.replaceAll('_', ' ')}
        </span>
      </div>
      {service && ask && (
        <Week
          desk={desk}
          diary={diary}
          ask={ask}
          service={service}
          starts={starts}
          monday={monday}
          now={now}
          where={where}
        />
      )}
    </>
  )
}

function dayFrom(text: string | null): DayNumber | undefined {
  try {
    return text ? dayNumber(date(text)) : undefined
  } catch {
    return undefined
  }
}

function weekName(monday: DayNumber): string {
  const [y1, m1, d1] = localDate(monday).split('-').map(Number) as [number, number, number]
  const [y2, m2, d2] = localDate((monday + 6) as DayNumber)
    .split('-')
    .map(Number) as [number, number, number]
  if (y1 !== y2) return `${d1} ${longMonthName(m1)} ${y1} – ${d2} ${longMonthName(m2)} ${y2}`
  return m1 === m2
    ? `${d1} – ${d2} ${longMonthName(m1)}`
    : `${d1} ${longMonthName(m1)} – ${d2} ${longMonthName(m2)}`
}

function Week({
  desk,
  diary,
  ask,
  service,
  starts,
  monday,
  now,
  where,
}: {
  desk: Desk
  diary: TakenDiary
  ask: Ask
  service: Service
  starts: readonly Instant[]
  monday: DayNumber
  now: Instant
  where: Zone
}) {
  const [cursor, setCursor] = useState<Instant>()
  const [moving, setMoving] = useState<{ booking: Booking; to: Instant }>()
  const [entering, setEntering] = useState<Instant>()
  const days = [0, 1, 2, 3, 4, 5, 6].map((i) => (monday + i) as DayNumber)
  const shown = hoursShown(desk.practice, diary, days, where)
  const nameOf = (entry: Entry): string => {
    const { title, line } = entryTitle(desk, entry)
    return line && title !== line ? `${line} with ${title}` : title
  }
  const words = (at: Instant): string[] =>
    why(desk.practice, diary, ask, at).map((closure) =>
      closureWords(closure, {
        practice: desk.practice,
        start: at,
        minutes: ask.minutes,
        zone: where,
        nameOf,
      }),
    )
  const describe = (at: Instant): string => {
    const closures = words(at)
    return closures.length === 0
      ? `${moment(at, where)} is open`
      : `${moment(at, where)} is closed: ${closures.join(' ')}`
  }
  const step = service.starts.kind === 'every' ? service.starts.minutes : 15
  return (
    <div className="relative">
      <div className="ml-24 hidden h-6 text-[12px] text-soft md:block" aria-hidden="true">
        <div className="relative h-full">
          {Array.from({ length: (shown.to - shown.from) / 120 + 1 }, (_, i) => shown.from + i * 120)
            .filter((minutes) => minutes <= shown.to)
            .map((minutes) => (
              <span
                key={minutes}
                className={`figures absolute ${minutes === shown.to ? '-translate-x-full' : '-translate-x-1/2'}`}
                style={{ left: `${((minutes - shown.from) / (shown.to - shown.from)) * 100}%` }}
              >
                {minutes / 60}:00
              </span>
            ))}
        </div>
      </div>
      <ul className="grid gap-[18px]">
        {days.map((day) => {
          const band = bandOf(desk, diary, day, shown, starts, now, where)
          const mine = cursor !== undefined && where.toWall(cursor).day === day ? cursor : undefined
          const isToday = where.toWall(now).day === day
          return (
            <li key={day} className="grid items-center gap-x-0 md:grid-cols-[96px_1fr]">
              <h2 className={`flex items-baseline gap-2 font-normal ${isToday ? 'text-clay' : ''}`}>
                <span className="serif text-[19px] font-[560]">{Number(localDate(day).slice(8))}</span>
                <span className="font-sans text-[14px] tracking-normal text-soft">
                  {weekdayName(weekday(day))}
                </span>
              </h2>
              {/* biome-ignore lint/a11y/noStaticElementInteractions: only puts the cursor away when the pointer leaves */}
              <div className="relative" onMouseLeave={() => setCursor(undefined)}>
                <DayBand
                  band={band}
                  cursor={mine}
                  step={step}
                  onCursor={setCursor}
                  onChoose={setEntering}
                  onDrag={(item, to) => {
                    const booking = desk.bookings.find((one) => item.href === `/arrivals/${one.id}`)
                    if (booking) setMoving({ booking, to })
                  }}
                  describe={describe}
                  link={(href, className, style, children) => (
                    <Link to={href} className={className} style={style} draggable={false}>
                      {children}
                    </Link>
                  )}
                />
                {mine !== undefined && (
                  <Why at={mine} closures={words(mine)} band={band} where={where} minutes={ask.minutes} />
                )}
              </div>
            </li>
          )
        })}
      </ul>
      <Legend />
      <RulesCost practice={desk.practice} diary={diary} ask={ask} from={localDate(monday)} days={7} />
      {moving && (
        <Move desk={desk} booking={moving.booking} to={moving.to} close={() => setMoving(undefined)} />
      )}
      {entering !== undefined && (
        <BookIn desk={desk} service={service.id} at={entering} close={() => setEntering(undefined)} />
      )}
    </div>
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
  band: Band
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
        <p className="text-[14px] text-soft">{span(at, (at + minutes * 60_000) as Instant, where)}</p>
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

const Legend = () => (
  <ul className="mt-5 flex flex-wrap gap-x-5 gap-y-1 text-[13px] text-soft">
    <li className="flex items-center gap-1.5">
      <span className="hatch inline-block h-3.5 w-6 rounded-sm" /> closed
    </li>
    <li className="flex items-center gap-1.5">
      <span className="inline-block h-3.5 w-6 rounded-sm bg-leaf" /> session
    </li>
    <li className="flex items-center gap-1.5">
      <span className="inline-block h-3.5 w-6 rounded-sm bg-tile" /> group
    </li>
    <li className="flex items-center gap-1.5">
      <span className="inline-block h-3.5 w-6 rounded-sm border-[1.6px] border-dashed border-sun bg-sun-soft" />{' '}
      hold
    </li>
    <li className="flex items-center gap-1.5">
      <span className="inline-block h-3.5 w-6 rounded-sm bg-leaf-soft" /> kept clear
    </li>
    <li className="flex items-center gap-1.5">
      <span className="inline-block size-[7px] rounded-full bg-leaf" /> opening
    </li>
    <li className="flex items-center gap-1.5">
      <span className="inline-block h-3.5 w-0.5 bg-clay" /> now
    </li>
  </ul>
)
