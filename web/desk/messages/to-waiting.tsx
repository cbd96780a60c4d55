import type { Practice } from '@acolhida/core/practice'
import type { Instant } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { Link } from 'react-router'
import { db } from '../data/db.ts'
import { NotGone } from './gone.tsx'
import { notSentInLine } from './not-sent.ts'
import { stepTitle } from './titles.ts'

/** What could not be sent to those who wait for a time; nothing where all of it went. */
export function ToWaiting({ practice, now }: { practice: Practice; now: Instant }) {
  const found = useLiveQuery(() => notSentInLine(db, now), [now])
  if (!found?.length) return null
  return (
    <section aria-label="To those who wait for a time">
      <h2 className="mb-2">To those who wait for a time</h2>
      <ul className="sheet divide-y divide-line text-[14px]">
        {found.map(({ mail, row }) => (
          <li key={mail.n} className="px-4 py-2.5">
            <b>{stepTitle(practice, mail.step)}</b>
            {mail.channel === 'text' ? ' (text)' : ''} ·{' '}
            <Link className="way" to="/waiting">
              {row.line.joined.person.name}
            </Link>
            <NotGone practice={practice} mail={mail} />
          </li>
        ))}
      </ul>
    </section>
  )
}
