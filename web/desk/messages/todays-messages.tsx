import { useLiveQuery } from 'dexie-react-hooks'
import { Link } from 'react-router'
import { useMinute } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import type { Desk } from '../data/live.ts'
import { comingMessages } from './coming.ts'
import { NotSent } from './gone.tsx'
import { failsWords, Steering } from './steer.tsx'
import { stepTitle } from './titles.ts'
import { ToEnquirers } from './to-enquirers.tsx'
import { ToWaiting } from './to-waiting.tsx'

/** How far ahead it is looked for what will fail, in days. */
const AHEAD = 3

/** What of messages needs a look today: drafts that wait, what could not be sent, and what will fail. */
export function TodaysMessages({ desk: { practice } }: { desk: Desk }) {
  const now = useMinute()
  const found = useLiveQuery(() => comingMessages(db, practice, now, AHEAD), [practice, now])
  if (!found) return null
  const drafts = found.coming.filter(({ is, at }) => is === 'draft' && at <= now)
  const failing = found.coming.filter(({ fails, is }) => fails !== undefined && is === 'planned')
  const others = (
    <div className="mt-6 grid gap-6 empty:hidden">
      <ToEnquirers practice={practice} now={now} />
      <ToWaiting practice={practice} now={now} />
    </div>
  )
  if (drafts.length + failing.length + found.failed.length === 0) return others
  return (
    <>
      <section className="mt-6" aria-label="Messages">
        <h2 className="mb-2.5">Messages</h2>
        <ul className="sheet divide-y divide-line text-[14px]">
          {[...drafts, ...failing.slice(0, SHOWN)].map((one) => (
            <li
              key={`${one.booking.id} ${one.message}`}
              className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1 px-4 py-2.5"
            >
              <span>
                <b>{stepTitle(practice, one.step)}</b>
                {one.is === 'draft' ? ', a draft for ' : ' to '}
                <Link className="way" to={`/arrivals/${one.booking.id}`}>
                  {one.booking.asked.person.name}
                </Link>
                {failsWords(one) && <span className="block font-semibold text-clay">{failsWords(one)}</span>}
              </span>
              <Steering practice={practice} booking={one.booking} of={one} />
            </li>
          ))}
          {found.failed.slice(0, SHOWN).map(({ mail, booking }) => (
            <NotSent key={mail.n} className="px-4 py-2.5" practice={practice} booking={booking} mail={mail} />
          ))}
        </ul>
        <p className="mt-2 text-[14px]">
          <Link className="way" to="/outbox">
            Everything that will go
          </Link>
        </p>
      </section>
      {others}
    </>
  )
}

/** How many that could not be sent are named here. */
const SHOWN = 5
