import { money } from '@acolhida/core/money'
import { type Practice, type Service, waitlistOf } from '@acolhida/core/practice'
import { moment, timeAt } from '@acolhida/core/time'
import { wouldHaveGone } from '@acolhida/core/waiting'
import { useLiveQuery } from 'dexie-react-hooks'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { relayNow } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import type { LineRow } from '../data/tables.ts'
import { counted, currencyOf, homeZone } from '../parts/words.ts'
import { askerBy, thoseInLine } from './use-waiting.ts'

/** How many of the last freed times are gone through. */
const LAST = 10

/** Who has taken a freed time, as the records of those who wait tell. */
const whoTook = (lines: readonly LineRow[], freed: string): string[] =>
  lines.flatMap(({ events, line }) =>
    events.some((event) => event.type === 'taken' && event.freed === freed) ? [line.joined.person.name] : [],
  )

/** How the last freed times of a service would have gone by what is set now, beside how they went. */
export function LastTen({ practice, service }: { practice: Practice; service: Service }) {
  const found = useLiveQuery(async () => {
    const all = await db.freed.orderBy('at').reverse().toArray()
    const freed = all.filter((row) => row.freed.service === service.id).slice(0, LAST)
    const lines = freed.length > 0 ? await db.lines.toArray() : []
    return { freed, lines, ...(await thoseInLine(lines)) }
  }, [service.id])
  const list = waitlistOf(service)
  const gone = useMemo(() => {
    if (!found) return []
    const askerOf = askerBy(found, practice, relayNow())
    const startOf = (booking: string) => found.instead.get(booking)
    return found.freed.map(({ id, freed }) => ({
      id,
      freed,
      took: whoTook(found.lines, id),
      by: wouldHaveGone(practice, freed, found.lines, list, { askerOf, startOf }),
    }))
  }, [found, practice, list])
  if (!service.waitlist) return null
  const home = homeZone(practice)
  return (
    <section className="sheet p-5" aria-label="The last freed times">
      <h2>The last freed times</h2>
      <p className="mt-1 text-[14px] text-soft">
        How they would have gone by what is said here, among those who waited then, and how they went.
      </p>
      {gone.length === 0 ? (
        <p className="mt-2 text-[14px]">
          None yet that somebody waited for.{' '}
          <Link className="way" to="/waiting">
            See who waits
          </Link>
        </p>
      ) : (
        <ol className="mt-2 grid gap-2 text-[14px]">
          {gone.map(({ id, freed, took, by }) => (
            <li key={id}>
              <b className="font-semibold">{moment(freed.from, home)}</b>:{' '}
              {by.chosen.length === 0
                ? 'nobody could have come'
                : by.chosen
                    .map(({ line, start }) => `${line.joined.person.name} at ${timeAt(home, start)}`)
                    .join(', ')}
              {by.value > 0 && `, ${money(by.value, currencyOf(practice.profile.currency))}`}.{' '}
              <span className="text-soft">
                {counted(by.could, 'could have come', 'could have come')};{' '}
                {took.length > 0 ? `taken by ${took.join(' and ')}` : 'nobody took it'}.
              </span>
            </li>
          ))}
        </ol>
      )}
    </section>
  )
}
