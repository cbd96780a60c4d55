import type { Practice } from '@acolhida/core/practice'
import { DAY, type Instant, shift } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { Link } from 'react-router'
import { db } from '../data/db.ts'
import { when } from '../parts/words.ts'
import { enquirerLines } from './enquirer-lines.ts'
import { NotGone } from './gone.tsx'
import { stepTitle } from './titles.ts'

/** Messages to whoever has written or has a quote; nothing where there are none. */
export function ToEnquirers({
  practice,
  now,
  days,
}: {
  practice: Practice
  now: Instant
  /** How far ahead; nothing: only what needs a look. */
  days?: number
}) {
  const until = shift(now, (days ?? 0) * DAY)
  const found = useLiveQuery(() => enquirerLines(db, practice, now, until), [practice, now, until])
  const lines = days === undefined ? found?.filter(({ is }) => is !== 'planned') : found
  if (!lines?.length) return null
  return (
    <section aria-label="To whoever has not booked yet">
      <h2 className="mb-2">To whoever has not booked yet</h2>
      <ul className="sheet divide-y divide-line text-[14px]">
        {lines.map((line) => {
          const { is, enquiry } = line
          const { step, anchor, channel } = is === 'failed' ? line.mail : line.step
          return (
            <li key={`${enquiry.id} ${step} ${anchor} ${is}`} className="px-4 py-2.5">
              <b>{stepTitle(practice, step)}</b>
              {channel === 'text' ? ' (text)' : ''} ·{' '}
              <Link className="way" to={`/arrivals#enquiry-${enquiry.id}`}>
                {enquiry.name}
              </Link>
              {is === 'draft' && <span className="tag tag-info ml-2">draft</span>}
              {is === 'planned' && <span className="text-soft"> · {when(practice, line.step.at)}</span>}
              {is === 'failed' && <NotGone practice={practice} mail={line.mail} />}
            </li>
          )
        })}
      </ul>
    </section>
  )
}
