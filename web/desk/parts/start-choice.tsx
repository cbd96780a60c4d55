import { blockingMove } from '@acolhida/core/booking'
import { type Closure, closureWords, makeDiary, newClient, openStarts, why } from '@acolhida/core/openings'
import { placeOf, serviceOf, zoneOf } from '@acolhida/core/practice'
import {
  DAY,
  dateAt,
  dateTimeAt,
  type Instant,
  instantOf,
  type LocalDateTime,
  moment,
  shift,
} from '@acolhida/core/time'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { useNow } from '../../relay-client/clock.ts'
import { type Desk, entriesOf } from '../data/live.ts'
import { closureHref, closureLinkWords } from './closure-link.ts'
import { entryTitle } from './todays-line.tsx'

/** A start as it is being chosen. */
export interface Chosen {
  service: string
  place: string
  /** Local date-time at the place; may be half typed. */
  at: string
  minutes: number
}

export interface Weighed {
  start: Instant | undefined
  closures: { closure: Closure; words: string }[]
  /** Can't be done at all; `clash`: only after saying so. */
  blocked: boolean
  clash: boolean
  /** The nearest open starts, before and after. */
  nearest: Instant[]
}

/** What would follow from a start: every rule it breaks, whether it clashes, and the nearest open ones. */
export function useWeighed(desk: Desk, chosen: Chosen, but?: string): Weighed {
  const now = useNow()
  const minute = (Math.floor(now / 60_000) * 60_000) as Instant
  return useMemo(() => {
    const none: Weighed = { start: undefined, closures: [], blocked: true, clash: false, nearest: [] }
    const { practice } = desk
    const service = serviceOf(practice, chosen.service)
    if (!service || !(chosen.minutes > 0)) return none
    const where = zoneOf(practice, placeOf(practice, chosen.place))
    let start: Instant
    try {
      start = instantOf(where, chosen.at as LocalDateTime)
    } catch {
      return none
    }
    const others = { ...desk, bookings: desk.bookings.filter((one) => one.id !== but) }
    const diary = makeDiary(practice, entriesOf(others, minute))
    const ask = {
      service,
      place: chosen.place,
      minutes: chosen.minutes,
      asker: { ...newClient, who: 'practitioner' as const },
      now: minute,
    }
    const found = why(practice, diary, ask, start)
    const nameOf = (entry: Parameters<typeof entryTitle>[1]): string => {
      const { title, line } = entryTitle(desk, entry)
      return line && line !== title ? `${line} with ${title}` : title
    }
    const near = openStarts(practice, diary, ask, dateAt(where, shift(start, -3 * DAY)), 7).filter(
      (one) => one !== start,
    )
    const before = near.filter((one) => one < start).at(-1)
    const after = near.find((one) => one > start)
    return {
      start,
      closures: found.map((closure) => ({
        closure,
        words: closureWords(closure, { practice, start, minutes: chosen.minutes, zone: where, nameOf }),
      })),
      blocked: blockingMove(found, true).length > 0,
      clash: blockingMove(found, false).length > 0,
      nearest: [before, after].filter((one) => one !== undefined),
    }
  }, [desk, chosen, but, minute])
}

/** Fields for service, place, day, time and length, with the consequences beside them. */
export function StartChoice({
  desk,
  chosen,
  weighed,
  onChange,
  fixedService = false,
}: {
  desk: Desk
  chosen: Chosen
  weighed: Weighed
  onChange: (chosen: Chosen) => void
  fixedService?: boolean
}) {
  const { practice } = desk
  const service = serviceOf(practice, chosen.service)
  const where = zoneOf(practice, placeOf(practice, chosen.place))
  return (
    <>
      <div className="grid grid-cols-2 gap-3">
        {!fixedService && (
          <label className="ask col-span-2">
            Service
            <select
              className="field mt-1"
              value={chosen.service}
              onChange={(event) => {
                const next = serviceOf(practice, event.target.value)
                if (next)
                  onChange({ ...chosen, service: next.id, place: next.places[0]!, minutes: next.minutes })
              }}
            >
              {practice.services.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </select>
          </label>
        )}
        <label className="ask">
          When
          <input
            type="datetime-local"
            className="field mt-1"
            value={chosen.at}
            onChange={(event) => onChange({ ...chosen, at: event.target.value.slice(0, 16) })}
          />
        </label>
        <label className="ask">
          Length in minutes
          <input
            type="number"
            min={1}
            className="field mt-1"
            value={chosen.minutes || ''}
            onChange={(event) => onChange({ ...chosen, minutes: Number(event.target.value) })}
          />
        </label>
        <label className="ask col-span-2">
          Where
          <select
            className="field mt-1"
            value={chosen.place}
            onChange={(event) => onChange({ ...chosen, place: event.target.value })}
          >
            {practice.places
              .filter((one) => service?.places.includes(one.id) || one.id === chosen.place)
              .map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
          </select>
        </label>
      </div>
      <div
        role="status"
        className={`note mt-3 ${weighed.closures.length === 0 ? 'tag-fits' : weighed.clash ? 'tag-closed' : 'tag-look'}`}
      >
        {weighed.start === undefined && 'Please give a day, a time and a length.'}
        {weighed.start !== undefined &&
          weighed.closures.length === 0 &&
          `${moment(weighed.start, where)} is open.`}
        {weighed.closures.length > 0 && (
          <>
            <b>
              {weighed.blocked
                ? 'That can not be:'
                : weighed.clash
                  ? 'That would be a clash:'
                  : 'You may; your own rules say otherwise:'}
            </b>
            <ul className="list-disc pl-5">
              {weighed.closures.map(({ closure, words }) => (
                <li key={words}>
                  {words}{' '}
                  {closureHref(closure) && (
                    <Link className="way" to={closureHref(closure)!}>
                      {closureLinkWords(closure)}
                    </Link>
                  )}
                </li>
              ))}
            </ul>
          </>
        )}
        {weighed.closures.length > 0 && weighed.nearest.length > 0 && (
          <p className="mt-1.5 flex flex-wrap gap-x-3">
            Nearest open:
            {weighed.nearest.map((one) => (
              <button
                key={one}
                type="button"
                className="way"
                onClick={() => onChange({ ...chosen, at: dateTimeAt(where, one) })}
              >
                {moment(one, where)}
              </button>
            ))}
          </p>
        )}
      </div>
    </>
  )
}
