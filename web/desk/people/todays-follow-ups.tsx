import { type DayNumber, dateAt, dayNumber, localDate, shortDate } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { Link } from 'react-router'
import { useAt } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import type { Desk } from '../data/live.ts'
import { followedUp } from '../data/people.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { homeZone } from '../parts/words.ts'

/** How many people are looked up at once. */
const MOST = 50

/** Whom there is something to come back to about by today. */
export function TodaysFollowUps({ desk: { practice } }: { desk: Desk }) {
  const where = homeZone(practice)
  const today = localDate(useAt((now) => dayNumber(dateAt(where, now))) as DayNumber)
  const people = useLiveQuery(
    () => db.people.where('follow').belowOrEqual(today).limit(MOST).toArray(),
    [today],
  )
  const act = useAct()
  const due = (people ?? [])
    .flatMap(({ id, name, followUps = [] }) =>
      followUps
        .filter(({ on, done }) => done === undefined && on <= today)
        .map((one) => ({ ...one, person: id, name })),
    )
    .sort((a, b) => (a.on < b.on ? -1 : 1))
  if (due.length === 0) return null
  return (
    <section className="mt-6" aria-label="To come back to">
      <h2 className="mb-2.5">To come back to</h2>
      <ul className="sheet divide-y divide-line">
        {due.map(({ id, on, text, person, name }) => (
          <li key={id} className="flex items-start justify-between gap-4 px-4 py-2.5">
            <span className="min-w-0 wrap-anywhere">
              <Link className="font-semibold underline-offset-3 hover:underline" to={`/people/${person}`}>
                {name}
              </Link>
              <span className="ml-2">{text}</span>
              {on < today && <span className="block text-[13px] text-soft">since {shortDate(on)}</span>}
            </span>
            <button
              type="button"
              className="press press-quiet"
              aria-label={`Done: ${text}`}
              onClick={() => act.run(() => followedUp(db, person, id, today))}
            >
              Done
            </button>
          </li>
        ))}
      </ul>
      <ProblemNote of={act} />
    </section>
  )
}
