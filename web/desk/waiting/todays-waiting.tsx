import { moment } from '@acolhida/core/time'
import { lineAt } from '@acolhida/core/waiting'
import { Link } from 'react-router'
import { useMinute } from '../../relay-client/clock.ts'
import type { Desk } from '../data/live.ts'
import { counted, homeZone } from '../parts/words.ts'
import { inLineNow, useFreed, useInLine } from './use-waiting.ts'

/** What of waiting needs a look today: times that are free, and to whom they are held out; people to be looked at. */
export function TodaysWaiting({ desk: { practice } }: { desk: Desk }) {
  const now = useMinute()
  const waiting = useInLine()
  const freed = useFreed()
  if (!waiting || !freed) return null
  const rows = inLineNow(waiting.lines, now)
  const look = rows.filter(({ line }) => !line.looked).length
  if (freed.open.length === 0 && look === 0) return null
  const home = homeZone(practice)
  return (
    <section className="mt-6" aria-label="Waiting for a time">
      <h2 className="mb-2.5">Waiting for a time</h2>
      <ul className="sheet divide-y divide-line text-[14px]">
        {freed.open.map(({ id, freed: one }) => {
          const held = rows.filter(({ line }) => {
            const state = lineAt(line, now)
            return state.is === 'offered' && state.offer.freed === id
          })
          return (
            <li key={id} className="px-4 py-2.5">
              <b>{moment(one.from, home)}</b> is free:{' '}
              {held.length === 0
                ? 'nobody is asked until you say so'
                : `held out to ${held.map(({ line }) => line.joined.person.name).join(', ')}`}
            </li>
          )
        })}
        {look > 0 && (
          <li className="px-4 py-2.5">
            {counted(look, 'person in line is', 'people in line are')} to be looked at
          </li>
        )}
      </ul>
      <p className="mt-2 text-[14px]">
        <Link className="way" to="/waiting">
          Everybody who waits
        </Link>
      </p>
    </section>
  )
}
