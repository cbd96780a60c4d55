import { addDays, dayNumber, type LocalDate, weekday, weekdayName } from '@acolhida/core/time'
import { partOn, type WaitingWindow } from '@acolhida/core/waiting'

/** The hours of a day that are drawn: what lies outside is rarely waited for, and is drawn at its edge. */
const FROM = 7 * 60
const TO = 22 * 60

const share = (minutes: number): number =>
  ((Math.min(Math.max(minutes, FROM), TO) - FROM) / (TO - FROM)) * 100

/** One day of the drawing: whether anything is open on it, and how many could come. */
export interface WaitDay {
  date: LocalDate
  /** A start is open on it for whoever comes. */
  open: boolean
}

/** The days of the coming weeks as they are numbered above the bands; hatched where the week has no room. */
export function WaitHead({ days, many }: { days: readonly WaitDay[]; many: readonly number[] }) {
  const most = Math.max(1, ...many)
  return (
    <div className="flex gap-px" aria-hidden="true">
      {days.map(({ date, open }, i) => (
        <div key={date} className="flex min-w-0 flex-1 flex-col items-center text-[11px] leading-tight">
          <span className="flex h-7 w-full items-end">
            <span
              className={`w-full rounded-t-[2px] ${open ? 'bg-leaf' : 'bg-sun'}`}
              style={{ height: `${((many[i] ?? 0) / most) * 100}%` }}
            />
          </span>
          <span className={`mt-0.5 h-1.5 w-full ${open ? '' : 'hatch'}`} />
          <span className="text-soft">{weekdayName(weekday(dayNumber(date))).slice(0, 1)}</span>
          <span className="figures h-3.5">
            {i === 0 || weekday(dayNumber(date)) === 1 ? Number(date.slice(8)) : ''}
          </span>
        </div>
      ))}
    </div>
  )
}

/** When one person could come in the coming weeks: a column for each day, from seven in the morning down to ten at night. */
export function WaitBand({ days, windows }: { days: readonly WaitDay[]; windows: readonly WaitingWindow[] }) {
  return (
    <div className="flex h-9 gap-px" aria-hidden="true">
      {days.map(({ date, open }) => {
        const parts =
          windows.length === 0
            ? [[0, 1_440] as [number, number]]
            : windows.flatMap((window) => {
                const part = partOn(window, date)
                return part ? [part] : []
              })
        return (
          <span key={date} className={`relative min-w-0 flex-1 rounded-[2px] ${open ? 'bg-shade' : 'hatch'}`}>
            {parts.map(([from, to]) => (
              <span
                key={`${from}-${to}`}
                className="absolute inset-x-0 rounded-[2px] bg-leaf/65"
                style={{ top: `${share(from)}%`, bottom: `${100 - share(to)}%` }}
              />
            ))}
          </span>
        )
      })}
    </div>
  )
}

/** So many days from one on. */
export const daysFrom = (first: LocalDate, many: number): LocalDate[] =>
  Array.from({ length: many }, (_, i) => addDays(first, i))
