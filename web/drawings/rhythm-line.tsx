import { dayNumber, type LocalDate, shortDate } from '@acolhida/core/time'

/** One session of a plan on the line: the date it was meant for, and the one it has. */
export interface RhythmMark {
  meant: LocalDate
  /** Where it lies; nothing where there is no room. */
  lies?: LocalDate
  /** Whether it lies where it was meant, in time of day, too. */
  asMeant: boolean
}

const WIDTH = 1000
const EDGE = 24
const BASE = 30

/**
 * The rhythm line: every session a plan means as a tick on one line of time, and where it came to lie as a dot; a dot
 * beside its tick leans from it, and a tick with an empty ring has no room.
 */
export function RhythmLine({ marks }: { marks: readonly RhythmMark[] }) {
  const days = marks.flatMap(({ meant, lies }) => [dayNumber(meant), ...(lies ? [dayNumber(lies)] : [])])
  const first = Math.min(...days)
  const span = Math.max(1, Math.max(...days) - first)
  const x = (date: LocalDate): number => EDGE + ((WIDTH - 2 * EDGE) * (dayNumber(date) - first)) / span
  const begin = marks[0]!.meant
  const end = marks.at(-1)!.meant
  return (
    <div>
      <svg viewBox={`0 0 ${WIDTH} 46`} className="mt-2 block w-full" aria-hidden="true">
        <line x1={EDGE} x2={WIDTH - EDGE} y1={BASE} y2={BASE} className="stroke-line" strokeWidth="2" />
        {marks.map(({ meant, lies, asMeant }) => {
          const at = x(meant)
          const there = lies ? x(lies) : at
          return (
            <g key={meant}>
              <line x1={at} x2={at} y1={BASE - 13} y2={BASE + 13} className="stroke-soft" strokeWidth="1.4" />
              {lies && there !== at && (
                <path
                  d={`M${at} ${BASE - 13} Q${(at + there) / 2} ${BASE - 28} ${there} ${BASE - 7}`}
                  className="fill-none stroke-sun"
                  strokeWidth="1.6"
                />
              )}
              <circle
                cx={there}
                cy={BASE}
                r="9"
                strokeWidth="2"
                strokeDasharray={lies ? undefined : '3 2.5'}
                className={
                  !lies ? 'fill-card stroke-clay' : asMeant ? 'fill-leaf stroke-leaf' : 'fill-sun stroke-sun'
                }
              />
            </g>
          )
        })}
      </svg>
      <p className="flex justify-between text-[13px] text-soft">
        <span>{shortDate(begin)}</span>
        <span>{shortDate(end)}</span>
      </p>
    </div>
  )
}
