import { blocksOn, missedLeast, readHours } from '@acolhida/core/openings'
import { serviceOf } from '@acolhida/core/practice'
import { dateAt, dayNumber, HOUR, type Instant, MINUTE, timeAt } from '@acolhida/core/time'
import { Link } from 'react-router'
import { lookOf } from '../../drawings/look.ts'
import { sideBySide } from '../../drawings/side-by-side.ts'
import { useMinute } from '../../relay-client/clock.ts'
import type { Desk } from '../data/live.ts'
import type { Taken } from '../data/taken.ts'
import { homeZone } from './words.ts'

const PX = 50 / HOUR

/** Today as a line from morning to evening. */
export function TodaysLine({
  desk,
  taken,
  from,
  to,
}: {
  desk: Desk
  /** Nothing while it loads. */
  taken: Taken | undefined
  from: Instant
  to: Instant
}) {
  const now = useMinute()
  const where = homeZone(desk.practice)
  const entries = (taken?.diary.entries ?? []).filter((entry) => entry.start < to && entry.end > from)
  const lanes = sideBySide(entries)
  const day = dayNumber(dateAt(where, from))
  const { hours } = desk.practice
  const blocks = blocksOn(readHours(hours), day).map((block) => ({
    from: where.toInstant(day, block.from),
    to: where.toInstant(day, block.to),
  }))
  const edges = [
    ...blocks.flatMap((block) => [block.from, block.to]),
    ...entries.flatMap((entry) => [entry.start, entry.end]),
  ]
  const first = Math.floor((Math.min(...edges, from + 9 * HOUR) - from) / HOUR - 0.5) * HOUR + from
  const last = Math.ceil((Math.max(...edges, from + 17 * HOUR) - from) / HOUR + 0.5) * HOUR + from
  const y = (at: number): number => (Math.min(Math.max(at, first), last) - first) * PX
  const hoursShown = Array.from(
    { length: Math.floor((last - first) / HOUR / 2) + 1 },
    (_, i) => first + i * 2 * HOUR,
  )
  return (
    <aside aria-labelledby="todays-line">
      <h2 id="todays-line" className="mb-2.5">
        Today’s line
      </h2>
      <div className="sheet p-4">
        <div className="relative" style={{ height: `${y(last)}px` }}>
          <div className="hatch absolute inset-y-0 right-0 left-12 rounded-lg opacity-60" />
          {blocks.map((block) => (
            <div
              key={block.from}
              className="absolute right-0 left-12 bg-card"
              style={{ top: `${y(block.from)}px`, height: `${y(block.to) - y(block.from)}px` }}
            />
          ))}
          {hoursShown.map((hour) => (
            <div
              key={hour}
              className="absolute right-0 left-0 flex -translate-y-1/2 items-center gap-2"
              style={{ top: `${y(hour)}px` }}
            >
              <span className="figures w-10 text-[12px] leading-none text-soft">
                {timeAt(where, hour as Instant)}
              </span>
              <span className="grow border-t border-line" />
            </div>
          ))}
          {entries.map((entry, i) => {
            const { title, line, booking } = taken!.title(entry)
            const held = entry.kind === 'hold'
            const service = serviceOf(desk.practice, entry.service ?? '')
            const off = service && entry.seats ? missedLeast(service, entry, where, now) : false
            const look = lookOf({
              look: held ? 'hold' : entry.kind === 'outside' ? 'outside' : 'session',
              ...(service ? { mark: service.colour } : {}),
              off,
            })
            const height = y(entry.end) - y(entry.start)
            const body = (
              <span
                className={`block truncate text-[13.5px] leading-tight ${height > 34 ? '' : 'flex gap-2'}`}
              >
                <b className="block truncate">{title}</b>
                <span className="block truncate text-[12.5px]">{off ? `${line}, called off` : line}</span>
              </span>
            )
            // What meets lies beside one another, right of the hours.
            const { lane, lanes: of } = lanes[i]!
            const across = {
              left: `calc(48px + (100% - 48px) * ${lane / of})`,
              width: `calc((100% - 48px) / ${of})`,
            }
            const style = { ...across, top: `${y(entry.start)}px`, height: `${Math.max(18, height)}px` }
            const box = `line-box absolute overflow-hidden rounded-lg px-3 py-1 ${look}`
            return (
              <div key={entry.id}>
                <div
                  className={`absolute rounded-lg ${held ? 'bg-sun-soft/50' : 'bg-leaf-soft'}`}
                  style={{
                    ...across,
                    top: `${y(entry.start - entry.clearBefore * MINUTE)}px`,
                    height: `${y(entry.end + entry.clearAfter * MINUTE) - y(entry.start - entry.clearBefore * MINUTE)}px`,
                  }}
                />
                {booking ? (
                  <Link to={`/arrivals/${booking.id}`} className={box} style={style}>
                    {body}
                  </Link>
                ) : (
                  <div className={box} style={style}>
                    {body}
                  </div>
                )}
              </div>
            )
          })}
          {now > first && now < last && (
            <div
              className="absolute right-0 left-10 flex -translate-y-1/2 items-center"
              style={{ top: `${y(now)}px` }}
            >
              <span className="-ml-1 size-2 rounded-full bg-clay" />
              <span className="grow border-t-[1.6px] border-clay" />
            </div>
          )}
        </div>
        {taken && entries.length === 0 && (
          <p className="mt-2 text-[14px] text-soft">Nothing is booked today.</p>
        )}
      </div>
    </aside>
  )
}
