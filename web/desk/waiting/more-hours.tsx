import { money } from '@acolhida/core/money'
import { shortDate } from '@acolhida/core/time'
import { hoursWorthOpening, type WorthOpening, withBlock } from '@acolhida/core/waiting'
import { useMemo } from 'react'
import { useMinute } from '../../relay-client/clock.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import type { Desk } from '../data/live.ts'
import type { Taken } from '../data/taken.ts'
import { ActButton } from '../parts/act.tsx'
import { currencyOf } from '../parts/words.ts'
import { askerBy, type InLine, waitingIn } from './use-waiting.ts'

/** How far ahead hours are looked for, in days, and how many are told. */
const DAYS = 21
const TOLD = 3

const nameOf = ({ date, from, to }: WorthOpening): string => `${shortDate(date)}, ${from} – ${to}`

/** What a few more hours would do for those who wait, with a button that opens them. */
export function MoreHours({ desk, taken, waiting }: { desk: Desk; taken: Taken; waiting: InLine }) {
  const { practice } = desk
  const now = useMinute()
  const line = useMemo(() => waitingIn(practice, waiting, now), [practice, waiting, now])
  const found = useMemo(
    () =>
      hoursWorthOpening(practice, taken.diary, line, {
        days: DAYS,
        now,
        askerOf: askerBy(waiting, practice, now),
      }).slice(0, TOLD),
    [practice, taken, line, waiting, now],
  )
  return (
    <section className="sheet p-5" aria-label="More hours">
      <h2>A few more hours</h2>
      {found.length === 0 ? (
        <p className="mt-1 text-[14px] text-soft">
          {line.length === 0
            ? 'When people wait, it stands here which hours would help most of them.'
            : 'No morning, afternoon or evening that is closed in the next three weeks would help those who wait.'}
        </p>
      ) : (
        <ul className="mt-2 grid gap-3">
          {found.map((one) => (
            <li key={nameOf(one)}>
              <p>
                Open <b>{nameOf(one)}</b>, and {one.fit} of {line.length} would fit
                {one.value > 0 && `, worth ${money(one.value, currencyOf(practice.profile.currency))}`}.
              </p>
              <ActButton
                className="press mt-1"
                onAct={() =>
                  changePractice(db, `hours on ${shortDate(one.date)}`, (p) => ({
                    ...p,
                    hours: withBlock(p.hours, one.date, { from: one.from, to: one.to }),
                  }))
                }
              >
                {`Open ${nameOf(one)}`}
              </ActButton>
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}
