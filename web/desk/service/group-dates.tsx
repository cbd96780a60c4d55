import { missedLeast } from '@acolhida/core/openings'
import type { GroupDate, Practice, Service } from '@acolhida/core/practice'
import { placeOf, zoneOf } from '@acolhida/core/practice'
import {
  addDays,
  type Instant,
  instantOf,
  type LocalDate,
  localDate,
  longDate,
  splitDateTime,
  wallTime,
} from '@acolhida/core/time'
import { Plus, X } from 'lucide-react'
import { useState } from 'react'
import { useMinute } from '../../relay-client/clock.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import type { Desk } from '../data/live.ts'
import { useTaken } from '../data/taken.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { DateField, TimeField } from '../parts/date-field.tsx'
import { wholeTyped } from '../settings/setting.ts'
import { withService } from './with-service.ts'

/** More dates than anybody sets at once. */
const MOST = 60

/**
 * The dates of a group from a first one on.
 * @throws Error with a sentence when they can't be
 */
export function repeated(
  service: string,
  first: { day: string; clock: string; place: string },
  every: string,
  times: string,
): GroupDate[] {
  if (!first.day || !/^\d\d:\d\d$/.test(first.clock)) throw new Error('Please give a day and a time.')
  const count = wholeTyped(times || '1', 1)
  if (count > MOST) throw new Error(`${MOST} dates at once are the most.`)
  const weeks = count > 1 ? wholeTyped(every, 1) : 1
  return Array.from({ length: count }, (_, i) => {
    const day = addDays(first.day as LocalDate, i * weeks * 7)
    return {
      id: `${service}-${day}-${first.clock.replace(':', '')}`.slice(-64).replace(/^[^A-Za-z0-9]+/, ''),
      start: `${day}T${first.clock}` as GroupDate['start'],
      place: first.place,
    }
  })
}

const startOf = (practice: Practice, start: GroupDate['start'], place: string): Instant =>
  instantOf(zoneOf(practice, placeOf(practice, place)), start)

/** The dates on which a group takes place. */
export function GroupDates({ desk, service }: { desk: Desk; service: Service }) {
  const { practice } = desk
  const now = useMinute()
  const starts = service.groupDates.map(({ start, place }) => startOf(practice, start, place))
  const taken = useTaken(desk, now, Math.max(now, ...starts) as Instant)
  /** How many have come to a date so far, and whether it is called off for that. */
  const standing = ({ id, place }: GroupDate): string => {
    const entry = taken?.diary.entries.find((entry) => entry.id === id)
    if (!entry) return ''
    const off = missedLeast(service, entry, zoneOf(practice, placeOf(practice, place)), now)
    return off ? 'called off: too few came' : `${entry.taken ?? 0} of ${entry.seats ?? service.seats}`
  }
  const [day, setDay] = useState('')
  const [clock, setClock] = useState('11:00')
  const [place, setPlace] = useState(service.places[0] ?? '')
  const [every, setEvery] = useState('1')
  const [times, setTimes] = useState('1')
  const act = useAct()
  const change = (dates: (before: GroupDate[]) => GroupDate[]): Promise<void> =>
    changePractice(db, 'the dates of a group', (p) =>
      withService(p, service.id, (service) => ({ ...service, groupDates: dates(service.groupDates) })),
    )
  const add = async (): Promise<void> => {
    const dates = repeated(service.id, { day, clock, place }, every, times)
    await change((before) => {
      const fresh = dates.filter((date) => !before.some((other) => other.start === date.start))
      if (fresh.length === 0) throw new Error('Please give a day and a time that are not there yet.')
      return [...before, ...fresh].sort((a, b) => (a.start < b.start ? -1 : 1))
    })
  }
  return (
    <section className="sheet grid gap-2 p-5">
      <h2>Dates</h2>
      {service.groupDates.length === 0 && (
        <p className="text-[14px] text-soft">The group takes place on the dates you set here.</p>
      )}
      <ul className="grid gap-1">
        {service.groupDates.map((groupDate) => {
          const start = splitDateTime(groupDate.start)
          const name = `${longDate(localDate(start.day))}, ${wallTime(start.minutes)}`
          return (
            <li key={groupDate.id} className="flex items-center justify-between gap-3">
              <span>
                <span className={standing(groupDate).startsWith('called off') ? 'line-through' : ''}>
                  {name}
                </span>{' '}
                <span className="text-soft">
                  {[placeOf(practice, groupDate.place)?.name, standing(groupDate)]
                    .filter(Boolean)
                    .join(' · ')}
                </span>
              </span>
              <button
                type="button"
                className="press press-quiet px-2"
                aria-label={`Remove ${name}`}
                onClick={() =>
                  act.run(() => change((before) => before.filter((other) => other.id !== groupDate.id)))
                }
              >
                <X size={16} aria-hidden="true" />
              </button>
            </li>
          )
        })}
      </ul>
      <form
        className="grid grid-cols-2 items-start gap-2 border-t border-line pt-3"
        onSubmit={(event) => {
          event.preventDefault()
          act.run(add)
        }}
      >
        <DateField label="Day" value={day} onChange={setDay} />
        <TimeField label="Time" value={clock} onChange={setClock} />
        <label className="ask">
          Where
          <select className="field mt-1" value={place} onChange={(event) => setPlace(event.target.value)}>
            {service.places.map((place) => (
              <option key={place} value={place}>
                {placeOf(practice, place)?.name}
              </option>
            ))}
          </select>
        </label>
        <label className="ask">
          How many dates
          <input
            type="number"
            min={1}
            className="field mt-1"
            value={times}
            onChange={(event) => setTimes(event.target.value)}
          />
        </label>
        <label className={`ask ${Number(times) > 1 ? '' : 'invisible'}`}>
          Weeks between
          <input
            type="number"
            min={1}
            className="field mt-1"
            value={every}
            onChange={(event) => setEvery(event.target.value)}
          />
        </label>
        <button type="submit" className="press col-span-2 justify-self-start">
          <Plus size={16} aria-hidden="true" /> {Number(times) > 1 ? 'Add these dates' : 'Add this date'}
        </button>
      </form>
      <ProblemNote of={act} />
    </section>
  )
}
