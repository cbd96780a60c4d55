import { readHours } from '@acolhida/core/openings'
import { hoursOf, placeOf, serviceOf, zoneOf } from '@acolhida/core/practice'
import {
  addDays,
  dateTimeAt,
  dayNumber,
  type Instant,
  longDate,
  MINUTE,
  moment,
  timeAt,
} from '@acolhida/core/time'
import { ChevronLeft, ChevronRight } from 'lucide-react'
import { type ReactNode, useState } from 'react'
import { DayBand } from '../../drawings/day-band.tsx'
import { HourMarks } from '../../drawings/hour-marks.tsx'
import { useMinute } from '../../relay-client/clock.ts'
import type { Desk } from '../data/live.ts'
import type { Taken } from '../data/taken.ts'
import { dayBandOf, hoursShown } from './band-of.ts'
import { type Chosen, dayOf, startIn } from './weigh.ts'

/** How many open starts of a day are shown as a list at once. */
const MOST = 36

/** The day a start is chosen on: its band, on which one picks or draws it, and its open starts as a list. */
export function DayToPick<C extends Chosen>({
  desk: { practice },
  chosen,
  weighed: { taken, open },
  onChange,
}: {
  desk: Desk
  chosen: C
  weighed: { taken: Taken | undefined; open: readonly Instant[] }
  onChange: (chosen: C) => void
}) {
  const now = useMinute()
  const [cursor, setCursor] = useState<Instant>()
  const place = placeOf(practice, chosen.place)
  const where = zoneOf(practice, place)
  const start = startIn(practice, chosen)
  const on = dayOf(chosen)
  if (!taken || !on) return null
  const day = dayNumber(on)
  const hours = hoursOf(practice, place)
  const shown = hoursShown(hours, taken, [day], where)
  const band = dayBandOf(practice, taken, day, shown, open, now, where, readHours(hours))
  const starts = serviceOf(practice, chosen.service)?.starts
  const choose = (at: Instant, minutes = chosen.minutes): void =>
    onChange({ ...chosen, at: dateTimeAt(where, at), minutes })
  const turn = (by: number): void => onChange({ ...chosen, at: `${addDays(on, by)}${chosen.at.slice(10)}` })
  const length = chosen.minutes * MINUTE
  const x = (at: number): number => ((at - band.from) / (band.to - band.from)) * 100
  return (
    <section className="mt-3" aria-label={`${longDate(on)}: what is open`}>
      <div className="mb-1 flex items-center justify-between gap-2">
        <Turn label="The day before" onClick={() => turn(-1)}>
          <ChevronLeft size={17} aria-hidden="true" />
        </Turn>
        <b>{longDate(on)}</b>
        <Turn label="The day after" onClick={() => turn(1)}>
          <ChevronRight size={17} aria-hidden="true" />
        </Turn>
      </div>
      <HourMarks {...shown} />
      <div className="relative">
        <DayBand
          band={band}
          cursor={cursor}
          step={starts?.kind === 'every' ? starts.minutes : 15}
          onCursor={setCursor}
          onChoose={(at) => choose(at)}
          onDraw={(from, to) => choose(from, Math.round((to - from) / MINUTE))}
          onGrab={() => undefined}
          onOpen={() => undefined}
          describe={(at) => `${moment(at, where)}, ${open.includes(at) ? 'open' : 'closed'}`}
          link={(_, className, name, children) => (
            <div className={className} title={name}>
              {children}
            </div>
          )}
        />
        {start !== undefined && start + length > band.from && start < band.to && (
          <div
            className="pointer-events-none absolute -inset-y-0.5 rounded-[7px] border-2 border-clay"
            style={{
              left: `${Math.max(0, x(start))}%`,
              width: `${Math.min(100, x(start + length)) - Math.max(0, x(start))}%`,
            }}
          />
        )}
      </div>
      <OpenStarts
        starts={open}
        chosen={start}
        name={(at) => timeAt(where, at)}
        none="Nothing is open on this day by your own rules."
        onChoose={(at) => choose(at)}
      />
    </section>
  )
}

const Turn = ({ label, onClick, children }: { label: string; onClick: () => void; children: ReactNode }) => (
  <button type="button" className="press press-quiet px-2" aria-label={label} onClick={onClick}>
    {children}
  </button>
)

/** Open starts of a day as a list, to be picked one by one. */
export function OpenStarts({
  starts,
  chosen,
  name,
  none,
  onChoose,
}: {
  starts: readonly Instant[]
  chosen: Instant | undefined
  name: (at: Instant) => string
  none: string
  onChoose: (at: Instant) => void
}) {
  if (starts.length === 0) return <p className="mt-2 text-[14px] text-soft">{none}</p>
  return (
    <ul className="mt-2 flex max-h-32 flex-wrap gap-1.5 overflow-y-auto" aria-label="Open starts">
      {starts.slice(0, MOST).map((at) => (
        <li key={at}>
          <button
            type="button"
            aria-pressed={at === chosen}
            className={`figures min-h-[30px] cursor-pointer rounded-lg border px-2 text-[14px] ${at === chosen ? 'border-leaf bg-leaf text-primary-content' : 'border-line hover:bg-shade'}`}
            onClick={() => onChoose(at)}
          >
            {name(at)}
          </button>
        </li>
      ))}
      {starts.length > MOST && (
        <li className="self-center text-[14px] text-soft">and {starts.length - MOST} more</li>
      )}
    </ul>
  )
}
