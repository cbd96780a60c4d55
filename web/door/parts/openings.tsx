import type { DoorOpenings } from '@acolhida/core/contract'
import { money } from '@acolhida/core/money'
import {
  type Clocks,
  dateAt,
  dayNumber,
  type Instant,
  type LocalDate,
  longDate,
  monthName,
  shortDate,
  timeAt,
  weekday,
  weekdayName,
  zonePlace,
} from '@acolhida/core/time'
import { useDoor } from '../visit/follow.ts'
import { otherClock } from './clocks.ts'
import { say } from './say.ts'

const PARTS = [
  ['time.night', 0, 6],
  ['time.morning', 6, 12],
  ['time.afternoon', 12, 17],
  ['time.evening', 17, 24],
] as const

type Told = Pick<DoorOpenings, 'seats' | 'lower' | 'near' | 'lowerPrice'>

/** Openings grouped by day and part of day, by the clock that counts; the client's own stands beside it. */
export function Openings({
  starts,
  told,
  clocks,
  chosen,
  busy,
  full = [],
  onWait = () => undefined,
  onPick,
}: {
  starts: readonly Instant[]
  told: Told
  clocks: Clocks
  chosen: Instant | undefined
  busy: boolean
  /** Days on which everything is taken, and for which one can wait. */
  full?: readonly LocalDate[]
  onWait?: (day: LocalDate) => void
  onPick: (start: Instant) => void
}) {
  const { first } = clocks
  const days = new Map<string, Instant[]>()
  for (const start of starts) {
    const day = dateAt(first, start)
    days.set(day, [...(days.get(day) ?? []), start])
  }
  for (const day of full) if (!days.has(day)) days.set(day, [])
  return (
    <>
      {told.near.length > 0 && <p className="mb-3 text-[14px] text-soft">{say('time.near')}</p>}
      <ul className="grid gap-3">
        {[...days]
          .toSorted(([a], [b]) => (a < b ? -1 : 1))
          .map(([day, times]) => {
            if (times.length === 0) return <FullDay key={day} day={day as LocalDate} onWait={onWait} />
            const [, month, number] = day.split('-').map(Number) as [number, number, number]
            const name = `${weekdayName(weekday(dayNumber(day as LocalDate)))}, ${monthName(month)}`
            return (
              <li
                key={day}
                className="sheet grid grid-cols-[58px_1fr] gap-3 px-4 py-3.5 sm:grid-cols-[76px_1fr] sm:px-[18px]"
              >
                <h2 className="font-normal">
                  <span className="serif block text-[28px] leading-none">{number}</span>
                  <span className="mt-0.5 block font-sans text-[13px] tracking-normal text-soft">{name}</span>
                </h2>
                <div className="grid gap-2">
                  {PARTS.map(([part, from, to]) => {
                    const here = times.filter((start) => {
                      const hour = Number(timeAt(first, start).slice(0, 2))
                      return hour >= from && hour < to
                    })
                    return here.length === 0 ? null : (
                      <div key={part} className="sm:flex sm:items-baseline">
                        <h3 className="mb-1 w-[84px] shrink-0 font-sans text-[13px] font-normal tracking-normal text-soft sm:mb-0">
                          {say(part)}
                        </h3>
                        <div className="flex flex-wrap gap-2">
                          {here.map((start) => (
                            <Start
                              key={start}
                              start={start}
                              told={told}
                              clocks={clocks}
                              chosen={start === chosen}
                              busy={busy}
                              onPick={onPick}
                            />
                          ))}
                        </div>
                      </div>
                    )
                  })}
                </div>
              </li>
            )
          })}
      </ul>
    </>
  )
}

/** A day on which everything is taken. */
function FullDay({ day, onWait }: { day: LocalDate; onWait: (day: LocalDate) => void }) {
  return (
    <li className="flex flex-wrap items-center justify-between gap-x-4 rounded-lg border border-dashed border-line px-4 py-1">
      <span className="text-soft">{say('time.full', { day: longDate(day) })}</span>
      <button type="button" className="way min-h-[44px]" onClick={() => onWait(day)}>
        {say('time.full-tell', { day: shortDate(day) })}
      </button>
    </li>
  )
}

/** One start, with everything that makes it differ from the others. */
function Start({
  start,
  told: { seats, lower, lowerPrice, near },
  clocks,
  chosen,
  busy,
  onPick,
}: {
  start: Instant
  told: Told
  clocks: Clocks
  chosen: boolean
  busy: boolean
  onPick: (start: Instant) => void
}) {
  const { currency } = useDoor()
  const other = otherClock(clocks, start)
  const left = seats[start]
  const isNear = near.includes(start)
  const small = [
    lower.includes(start) && lowerPrice !== undefined
      ? say('time.lower', { price: money(lowerPrice, currency) })
      : '',
    left === undefined ? '' : say('time.seats', { seats: left }),
  ].filter(Boolean)
  return (
    <button
      type="button"
      aria-pressed={chosen}
      disabled={busy}
      className={`press figures min-w-[74px] flex-col gap-0 px-2 ${chosen ? 'press-go' : ''}`}
      onClick={() => onPick(start)}
    >
      <span className={isNear ? 'underline decoration-clay decoration-2 underline-offset-4' : ''}>
        {timeAt(clocks.first, start)}
      </span>
      {other && (
        <span className="text-[12px] font-normal">
          <span aria-hidden="true">{timeAt(other, start)}</span>
          <span className="sr-only">
            {say('time.beside', { time: timeAt(other, start), place: zonePlace(other.name) })}
          </span>
        </span>
      )}
      {small.map((text) => (
        <span key={text} className="text-[12px] font-normal">
          {text}
        </span>
      ))}
      {isNear && <span className="sr-only">{say('time.near-one')}</span>}
    </button>
  )
}
