import { type Booking, type DeskDoes, isHeld, type Start, stateAt } from '@acolhida/core/booking'
import { otherTimesFor } from '@acolhida/core/booking/other-times'
import type { Practice } from '@acolhida/core/practice'
import { freeId } from '@acolhida/core/questions'
import { addDays, at, DAY, dateAt, dayNumber, type LocalDate, shift, time } from '@acolhida/core/time'
import { useMemo, useState } from 'react'
import { useMinute } from '../../relay-client/clock.ts'
import type { Desk } from '../data/live.ts'
import { useTaken } from '../data/taken.ts'
import { idsOf } from '../service/make.tsx'
import { CLOSED_DAYS, decideEach } from '../sync/together.ts'
import { ProblemNote, useAct } from './act.tsx'
import { DateField } from './date-field.tsx'
import { Dialog } from './dialog.tsx'
import { givesNow, givesUnlessTaken, givesWords } from './gives.ts'
import { type GoesWith, goingWith, WordOrSilence } from './word.tsx'
import { counted, homeZone, serviceName, when } from './words.ts'

/** How far beyond the days other times are looked for. */
const AHEAD = 30 * DAY

/** One act for a day or some days that one can't keep: whom it touches, what each reads and is offered, and time away. */
export function CantToday({ desk, close }: { desk: Desk; close: () => void }) {
  const { practice } = desk
  const now = useMinute()
  const where = homeZone(practice)
  const today = dateAt(where, now)
  const [first, setFirst] = useState<LocalDate | ''>(today)
  const [last, setLast] = useState<LocalDate | ''>(today)
  const [all, setAll] = useState<GoesWith>({ text: 'I am sorry: I can’t be there.' })
  const { text } = all
  const [own, setOwn] = useState<Readonly<Record<string, string>>>({})
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set())
  const act = useAct()
  const valid = first !== '' && last !== '' && first <= last
  const [from, to] = useMemo(() => {
    const [a, z] = valid ? [first, last] : [today, today]
    const start = where.toInstant(dayNumber(a as LocalDate), 0)
    return [
      Math.max(start, now) as typeof now,
      where.toInstant(dayNumber(addDays(z as LocalDate, 1)), 0),
    ] as const
  }, [valid, first, last, today, where, now])
  const taken = useTaken(desk, from, shift(to, AHEAD))
  const touched = useMemo(
    () =>
      (taken?.rows ?? [])
        .filter((row) => {
          const state = stateAt(row, now)
          const open = state.is === 'booked' ? !state.begun : isHeld(state) && state.is !== 'unproved'
          const starts = isHeld(state) && row.offers.length > 0 ? row.offers : [row]
          return open && starts.some(({ start }) => start >= from && start < to)
        })
        .sort((a, b) => a.start - b.start),
    [taken, now, from, to],
  )
  const away = useMemo(
    () => (valid ? withAway(practice, first as LocalDate, last as LocalDate) : practice),
    [practice, valid, first, last],
  )
  const times = useMemo(() => {
    if (!taken || !valid) return new Map<string, Start[]>()
    const ids = new Set(touched.map(({ id }) => id))
    const others = taken.diary.entries.filter(({ request }) => !request || !ids.has(request))
    return otherTimesFor(away, others, touched, now, addDays(last as LocalDate, 1))
  }, [taken, touched, away, now, last, valid])
  const commandFor = (booking: Booking): DeskDoes => {
    const said = goingWith({ ...all, text: own[booking.id] ?? text })
    const starts = without.has(booking.id) ? undefined : times.get(booking.id)
    if (starts) return { do: 'offer', starts, ...said }
    return stateAt(booking, now).is === 'booked'
      ? { do: 'cancel', by: 'practitioner', ...said }
      : { do: 'decline', ...said }
  }
  return (
    <Dialog title="I can’t" close={close} wide>
      <div className="grid gap-3 sm:grid-cols-2">
        <DateField label="From" value={first} onChange={setFirst} />
        <DateField label="Until, that day included" value={last} onChange={setLast} />
      </div>
      {!valid && (
        <p role="alert" className="mt-2 font-semibold text-clay">
          It can’t end before it begins.
        </p>
      )}
      <p className="mt-3 text-soft" role="status">
        {!taken
          ? 'One moment …'
          : touched.length === 0
            ? 'Nobody is touched by it. The days close for new requests.'
            : `${counted(touched.length, 'person is', 'people are')} touched by it. They owe nothing; the days close for new requests.`}
      </p>
      {touched.length > 0 && <WordOrSilence label="What they all read" said={all} onChange={setAll} />}
      <ul className="mt-2 grid max-h-[38dvh] gap-2 overflow-y-auto">
        {touched.map((booking) => {
          const starts = times.get(booking.id)
          const { name } = booking.asked.person
          return (
            <li key={booking.id} className="border-t border-line pt-2">
              <b>{name}</b> · {serviceName(practice, booking.service)}, {when(practice, booking.start)}
              {starts ? (
                <label className="flex min-h-[32px] cursor-pointer items-center gap-2 text-[14px]">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-primary checkbox-sm"
                    checked={!without.has(booking.id)}
                    onChange={(event) =>
                      setWithout((before) => {
                        const next = new Set(before)
                        if (event.target.checked) next.delete(booking.id)
                        else next.add(booking.id)
                        return next
                      })
                    }
                  />
                  Offer {starts.map(({ start }) => when(practice, start)).join(' · ')}
                </label>
              ) : (
                <p className="text-[14px] text-soft">No other time to offer; it is cancelled.</p>
              )}
              <p className="text-[14px] text-soft">
                {starts && !without.has(booking.id)
                  ? givesUnlessTaken(practice, booking, now)
                  : givesWords(booking, givesNow(practice, booking, now))}
              </p>
              {!all.silent && (
                <details>
                  <summary className="way cursor-pointer text-[14px]">Other words for {name}</summary>
                  <textarea
                    className="field mt-1 min-h-16"
                    aria-label={`What ${name} reads`}
                    maxLength={5_000}
                    value={own[booking.id] ?? text}
                    onChange={(event) =>
                      setOwn((before) => ({ ...before, [booking.id]: event.target.value }))
                    }
                  />
                </details>
              )}
            </li>
          )
        })}
      </ul>
      <button
        type="button"
        className="press press-go mt-3"
        disabled={!valid || !taken || act.busy}
        onClick={() =>
          act.run(
            () =>
              decideEach(
                touched.map((booking) => ({ booking, command: commandFor(booking) })),
                {
                  what: CLOSED_DAYS,
                  change: (p) => withAway(p, first as LocalDate, last as LocalDate),
                },
              ),
            close,
          )
        }
      >
        {touched.length > 0
          ? all.silent
            ? 'Free them and close the days, and send nothing'
            : `Tell ${counted(touched.length, 'person', 'people')} and close the days`
          : 'Close the days'}
      </button>
      <ProblemNote of={act} />
    </Dialog>
  )
}

/** The practice with whole days away. */
function withAway(practice: Practice, first: LocalDate, last: LocalDate): Practice {
  const midnight = time('00:00')
  const id = freeId(idsOf(practice.away), 'away')
  const [from, to] = [at(first, midnight), at(addDays(last, 1), midnight)]
  return { ...practice, away: [...practice.away, { id, from, to, note: 'I can’t' }] }
}
