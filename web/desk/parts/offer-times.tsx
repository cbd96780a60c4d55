import { type Booking, holdUntil, MOST_OFFERS, type Start } from '@acolhida/core/booking'
import { openStarts } from '@acolhida/core/openings'
import { placeOf, serviceOf, travelled, travelZoneOf, zoneOf } from '@acolhida/core/practice'
import { byPractitioner } from '@acolhida/core/request'
import {
  DAY,
  dateAt,
  type Instant,
  type LocalDate,
  longDate,
  moment,
  shift,
  shortDate,
  timeAt,
} from '@acolhida/core/time'
import { useMemo, useState } from 'react'
import { useMinute } from '../../relay-client/clock.ts'
import type { Desk } from '../data/live.ts'
import { useTaken } from '../data/taken.ts'
import { decideFor } from '../sync/acts.ts'
import { ProblemNote, useAct } from './act.tsx'
import { Dialog } from './dialog.tsx'
import { givesUnlessTaken } from './gives.ts'
import { type GoesWith, goingWith, WordOrSilence } from './word.tsx'
import { when } from './words.ts'

/** How many days ahead other times are looked for. */
const DAYS = 21

/** Offers other times: up to three, kept until one is chosen. */
export function OfferTimes({ desk, booking, close }: { desk: Desk; booking: Booking; close: () => void }) {
  const { practice } = desk
  const minute = useMinute()
  const act = useAct()
  const [chosen, setChosen] = useState<Start[]>([])
  const [said, setSaid] = useState<GoesWith>({ text: '' })
  const place = booking.place
  const where = zoneOf(practice, placeOf(practice, place))
  const taken = useTaken(desk, minute, shift(minute, DAYS * DAY), [booking.id])
  const days = useMemo(() => {
    const own = serviceOf(practice, booking.service)
    if (!own || !taken) return []
    // The way there and back is kept clear at any other time, too.
    const service = travelled(own, travelZoneOf(placeOf(practice, place), booking.asked.travel))
    const ask = {
      service,
      place,
      minutes: booking.minutes,
      asker: byPractitioner,
      now: minute,
    }
    const groups = new Map<LocalDate, Instant[]>()
    for (const start of openStarts(practice, taken.diary, ask, dateAt(where, minute), DAYS)) {
      if (start === booking.start) continue
      const day = dateAt(where, start)
      groups.set(day, [...(groups.get(day) ?? []), start])
    }
    return [...groups]
  }, [taken, practice, place, booking, where, minute])
  const toggle = (start: Instant): void =>
    setChosen((before) =>
      before.some((other) => other.start === start)
        ? before.filter((other) => other.start !== start)
        : [...before, { start, place }].slice(-MOST_OFFERS),
    )
  const first = [...chosen].sort((a, b) => a.start - b.start)[0]
  const name = booking.asked.person.name
  return (
    <Dialog title={`Offer ${name} other times`} close={close} wide>
      <p className="text-soft">
        Choose up to {MOST_OFFERS}. They are kept until {name} has chosen; {when(practice, booking.start)}{' '}
        becomes free.
        {givesUnlessTaken(practice, booking, minute)}
      </p>
      <div className="mt-3 grid max-h-[42dvh] gap-2 overflow-y-auto pr-1">
        {days.map(([day, starts]) => (
          <div key={day} className="grid grid-cols-[110px_1fr] items-start gap-3 border-t border-line pt-2">
            <span className="pt-1.5 text-[14px] font-semibold">{shortDate(day)}</span>
            <div className="flex flex-wrap gap-1.5">
              {starts.map((start) => {
                const on = chosen.some((other) => other.start === start)
                return (
                  <button
                    key={start}
                    type="button"
                    aria-pressed={on}
                    aria-label={`${longDate(day)}, ${timeAt(where, start)}`}
                    className={`press figures min-h-[30px] px-2.5 py-1 text-[13px] ${on ? 'press-go' : ''}`}
                    onClick={() => toggle(start)}
                  >
                    {timeAt(where, start)}
                  </button>
                )
              })}
            </div>
          </div>
        ))}
        {taken && days.length === 0 && <p>No time is open in the next three weeks.</p>}
      </div>
      <WordOrSilence said={said} onChange={setSaid} />
      <div className="mt-3 flex flex-wrap items-center justify-between gap-3">
        <span className="text-[14px] text-soft" role="status">
          {chosen.length === 0
            ? 'Nothing chosen yet.'
            : `${chosen.length} of ${MOST_OFFERS} chosen, kept until ${moment(holdUntil(practice.answering, minute, first!.start, where), where)}.`}
        </span>
        <button
          type="button"
          className="press press-go"
          disabled={chosen.length === 0}
          onClick={() =>
            act.run(
              () =>
                decideFor(booking, {
                  do: 'offer',
                  starts: [...chosen].sort((a, b) => a.start - b.start),
                  ...goingWith(said),
                }),
              close,
            )
          }
        >
          {chosen.length > 1 ? `Offer these ${chosen.length} times` : 'Offer this time'}
        </button>
      </div>
      <ProblemNote of={act} />
    </Dialog>
  )
}
