import type { Start } from '@acolhida/core/booking'
import {
  dateAt,
  type Instant,
  type LocalDate,
  longDate,
  shortDate,
  timeAt,
  type Zone,
} from '@acolhida/core/time'
import { useQuery } from '@tanstack/react-query'

/** How many other times can be offered at once. */
const MOST = 3

/** Open times to offer, by day; up to three are chosen. */
export function Times({
  look,
  home,
  place,
  chosen,
  onChoose,
}: {
  look: () => Promise<Instant[]>
  home: Zone
  place: string
  chosen: Start[]
  onChoose: (chosen: Start[]) => void
}) {
  const times = useQuery({ queryKey: ['times', place], queryFn: look })
  const days = new Map<LocalDate, Instant[]>()
  for (const start of times.data ?? []) {
    const day = dateAt(home, start)
    days.set(day, [...(days.get(day) ?? []), start])
  }
  if (times.error)
    return (
      <p role="alert" className="font-semibold text-clay">
        {times.error.message}
      </p>
    )
  if (!times.data) return <p className="text-soft">One moment …</p>
  if (days.size === 0) return <p>No time is open in the next three weeks.</p>
  const toggle = (start: Instant): void =>
    onChoose(
      chosen.some((one) => one.start === start)
        ? chosen.filter((one) => one.start !== start)
        : [...chosen, { start, place }].slice(-MOST).sort((a, b) => a.start - b.start),
    )
  return (
    <div className="grid max-h-[46dvh] gap-2 overflow-y-auto">
      {[...days].map(([day, starts]) => (
        <div key={day} className="grid grid-cols-[92px_1fr] gap-2 border-t border-line pt-2">
          <span className="pt-2 text-[14px] font-semibold">{shortDate(day)}</span>
          <span className="flex flex-wrap gap-1.5">
            {starts.map((start) => {
              const on = chosen.some((one) => one.start === start)
              return (
                <button
                  key={start}
                  type="button"
                  aria-pressed={on}
                  aria-label={`${longDate(day)}, ${timeAt(home, start)}`}
                  className={`press figures px-2.5 ${on ? 'press-go' : ''}`}
                  onClick={() => toggle(start)}
                >
                  {timeAt(home, start)}
                </button>
              )
            })}
          </span>
        </div>
      ))}
    </div>
  )
}
