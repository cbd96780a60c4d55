import { newClient, openStarts } from '@acolhida/core/openings'
import { placeOf, questionnaireOf, type Service, zoneOf } from '@acolhida/core/practice'
import { leastLength } from '@acolhida/core/questions/least'
import { DAY, dateAt, dayNumber, moment, shift } from '@acolhida/core/time'
import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import { useMinute } from '../../relay-client/clock.ts'
import type { Desk } from '../data/live.ts'
import { useTaken } from '../data/taken.ts'
import { RulesCost } from '../diary/cost.tsx'
import { counted } from '../parts/words.ts'

/** How many days what follows is worked out for. */
const DAYS = 28

/** What follows from what is set: how much is open for a newcomer in four weeks, when first, and what each limit costs. */
export function Follows({ desk, service }: { desk: Desk; service: Service }) {
  const { practice } = desk
  const now = useMinute()
  const [chosen, setPlace] = useState<string>()
  const place = service.places.find((id) => id === chosen) ?? service.places[0]!
  const where = zoneOf(practice, placeOf(practice, place))
  const from = dateAt(where, now)
  const begin = where.toInstant(dayNumber(from), 0)
  const taken = useTaken(desk, begin, shift(begin, DAYS * DAY))
  const minutes = leastLength(service, questionnaireOf(practice, service))
  const ask = useMemo(
    () => ({
      service,
      place,
      minutes,
      asker: { ...newClient, invited: [service.id] },
      now,
    }),
    [service, place, minutes, now],
  )
  const starts = useMemo(
    () => (taken ? openStarts(practice, taken.diary, ask, from, DAYS) : []),
    [practice, taken, ask, from],
  )
  return (
    <section className="sheet p-5" aria-label="What follows">
      <h2>What follows</h2>
      {service.places.length > 1 && (
        <label className="mt-2 flex items-center gap-2 text-[14px]">
          In the coming four weeks,
          <select
            className="field min-h-8 w-auto py-0.5"
            aria-label="Where"
            value={place}
            onChange={(event) => setPlace(event.target.value)}
          >
            {service.places.map((id) => (
              <option key={id} value={id}>
                {placeOf(practice, id)?.name}
              </option>
            ))}
          </select>
        </label>
      )}
      {!taken ? (
        <p className="mt-2 text-soft">One moment …</p>
      ) : (
        <>
          <p className="mt-2">
            A newcomer finds <b>{counted(starts.length, 'open start', 'open starts')}</b> in the coming four
            weeks{starts.length > 0 ? ', the first of them' : '.'}
          </p>
          <ul className="mt-1">
            {starts.slice(0, 3).map((at) => (
              <li key={at} className="figures">
                {moment(at, where)}
              </li>
            ))}
          </ul>
          <RulesCost practice={practice} diary={taken.diary} ask={ask} from={from} days={DAYS} />
          <p className="mt-3 text-[14px]">
            <Link className="way" to={`/diary?view=weeks&service=${service.id}&place=${place}`}>
              See them in the diary
            </Link>
          </p>
        </>
      )}
    </section>
  )
}
