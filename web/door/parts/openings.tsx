import {
  dateAt,
  dayNumber,
  type Instant,
  type LocalDate,
  monthName,
  timeAt,
  weekday,
  weekdayName,
  zone,
} from '@acolhida/core/time'

const PARTS = [
  ['Night', 0, 6],
  ['Morning', 6, 12],
  ['Afternoon', 12, 17],
  ['Evening', 17, 24],
] as const

/** Openings grouped by day and part of day, in the client's zone. */
export function Openings({
  starts,
  seats,
  lower,
  zoneName,
  chosen,
  busy,
  onPick,
}: {
  starts: readonly Instant[]
  seats: Record<string, number>
  /** Those that cost less. */
  lower: readonly Instant[]
  zoneName: string
  chosen: Instant | undefined
  busy: boolean
  onPick: (start: Instant) => void
}) {
  const where = zone(zoneName)
  const days = new Map<string, Instant[]>()
  for (const start of starts) {
    const day = dateAt(where, start)
    days.set(day, [...(days.get(day) ?? []), start])
  }
  return (
    <ul className="grid gap-3">
      {[...days].map(([day, times]) => {
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
                  const hour = Number(timeAt(where, start).slice(0, 2))
                  return hour >= from && hour < to
                })
                return here.length === 0 ? null : (
                  <div key={part} className="sm:flex sm:items-baseline">
                    <h3 className="mb-1 w-[84px] shrink-0 font-sans text-[13px] font-normal tracking-normal text-soft sm:mb-0">
                      {part}
                    </h3>
                    <div className="flex flex-wrap gap-2">
                      {here.map((start) => (
                        <button
                          key={start}
                          type="button"
                          aria-pressed={start === chosen}
                          disabled={busy}
                          className={`press figures min-w-[74px] px-2 ${start === chosen ? 'press-go' : ''}`}
                          onClick={() => onPick(start)}
                        >
                          {timeAt(where, start)}
                          {lower.includes(start) && (
                            <span className="text-[12px] font-normal">lower price</span>
                          )}
                          {seats[start] !== undefined && (
                            <span className="text-[12px] font-normal">
                              {seats[start]} {seats[start] === 1 ? 'seat' : 'seats'} left
                            </span>
                          )}
                        </button>
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
  )
}
