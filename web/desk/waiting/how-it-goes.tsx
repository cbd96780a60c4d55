import { money } from '@acolhida/core/money'
import type { Practice } from '@acolhida/core/practice'
import { DAY, lengthOf, MINUTE, moment, shift } from '@acolhida/core/time'
import { waitingNumbers } from '@acolhida/core/waiting'
import { useLiveQuery } from 'dexie-react-hooks'
import { useMemo } from 'react'
import { useMinute } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import { ActButton } from '../parts/act.tsx'
import { counted, currencyOf, homeZone } from '../parts/words.ts'
import { doInLine } from '../sync/acts.ts'

/** For how long it is looked back, in ms. */
const BACK = 90 * DAY

/** How waiting has gone in the last three months; and who has just been taken out, with a way back. */
export function HowItGoes({ practice }: { practice: Practice }) {
  const now = useMinute()
  const found = useLiveQuery(async () => ({
    lines: await db.lines.toArray(),
    freed: (await db.freed.toArray()).map(({ freed }) => freed),
  }))
  const numbers = useMemo(
    () => found && waitingNumbers(found.lines, found.freed, shift(now, -BACK), now),
    [found, now],
  )
  if (!found || !numbers) return null
  const out = found.lines.filter(
    ({ line }) => line.status === 'ended' && line.ended?.why === 'out' && now <= (line.ended.settles ?? 0),
  )
  const cash = (amount: number): string => money(amount, currencyOf(practice.profile.currency))
  return (
    <section className="sheet p-5" aria-label="How it goes">
      <h2>How it goes</h2>
      <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-3 gap-y-1 text-[14px]">
        <dt className="figures text-right font-semibold">{numbers.taken}</dt>
        <dd>of {counted(numbers.freed, 'freed time', 'freed times')} found somebody in three months</dd>
        {numbers.taken > 0 && (
          <>
            <dt className="figures text-right font-semibold">{lengthOf(numbers.medianMinutes * MINUTE)}</dt>
            <dd>after it fell free, half of them</dd>
            <dt className="figures text-right font-semibold">{cash(numbers.worth)}</dt>
            <dd>these sessions were worth</dd>
          </>
        )}
        {numbers.waiting > 0 && (
          <>
            <dt className="figures text-right font-semibold">{counted(numbers.medianDays, 'day', 'days')}</dt>
            <dd>half of those who wait have waited so long, or longer</dd>
          </>
        )}
      </dl>
      {out.map(({ id, line }) => (
        <p key={id} role="status" className="mt-2 flex flex-wrap items-center gap-2 text-[14px]">
          {line.joined.person.name} was taken out, {moment(line.ended!.at, homeZone(practice))}.
          <ActButton className="press" onAct={() => doInLine(id, { do: 'back' })}>
            Undo
          </ActButton>
        </p>
      ))}
    </section>
  )
}
