import { money } from '@acolhida/core/money'
import type { Practice } from '@acolhida/core/practice'
import { type Balance, balanceOf } from '@acolhida/core/preparing'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { Link } from 'react-router'
import { PathLine } from '../../drawings/path-line.tsx'
import { useMinute } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import type { CourseRow } from '../data/tables.ts'
import { ActButton } from '../parts/act.tsx'
import { counted, currencyOf, serviceName, when } from '../parts/words.ts'
import { doWithCourse } from '../sync/acts.ts'
import { EndPath, Extend, Pay } from './path-acts.tsx'
import { PathInvoices } from './path-invoices.tsx'

/** How a path stands with somebody, from its record and its bookings; nothing while they are looked up. */
export function useBalance({ course }: CourseRow): Balance | undefined {
  const now = useMinute()
  const ids = Object.values(course.booked ?? {})
  const bookings = useLiveQuery(() => db.bookings.bulkGet(ids), [ids.join(' ')])
  if (!bookings) return undefined
  const found = new Map(bookings.flatMap((row) => (row ? [[row.id, row]] : [])))
  return balanceOf(course, (id) => found.get(id), now)
}

/** A path somebody was given: its line, its balance, and what is done with it. */
export function PathOf({
  practice,
  row,
  person,
}: {
  practice: Practice
  row: CourseRow
  person: string | undefined
}) {
  const balance = useBalance(row)
  const [does, setDoes] = useState<'pay' | 'extend' | 'end'>()
  const { course } = row
  const { path } = course.given
  if (!path || !balance) return null
  const currency = currencyOf(path.currency)
  const { used, planned, left, open, overdue, paid } = balance
  const acting = { course: row.id, currency, balance, close: () => setDoes(undefined) }
  return (
    <div className="mt-2 rounded-lg border border-line p-3">
      <div className="flex flex-wrap items-baseline justify-between gap-x-3">
        <p className="serif text-[19px] font-semibold wrap-anywhere">{path.name}</p>
        {course.paused && <span className="tag tag-look">rests</span>}
        {course.ended !== undefined && <span className="tag">ended</span>}
      </div>
      <PathLine sessions={balance.sessions.map(({ is }) => is)} />
      <p className="text-[14px]">
        {used} used · {planned} planned · {left} left
      </p>
      {balance.price > 0 && (
        <p className="text-[14px]">
          {money(paid, currency)} of {money(balance.price, currency)} paid
          {overdue > 0 && course.ended === undefined && (
            <b className="text-clay"> · {money(overdue, currency)} overdue</b>
          )}
        </p>
      )}
      <ul className="mt-1.5 grid gap-0.5 text-[14px] text-soft">
        {balance.sessions
          .filter(({ booking }) => booking)
          .map(({ session, booking, is }) => (
            <li key={session.id}>
              <Link className="way" to={`/arrivals/${booking!.id}`}>
                {when(practice, booking!.start)}
              </Link>{' '}
              {serviceName(practice, session.service)}
              {is === 'used' ? ', used' : ''}
            </li>
          ))}
      </ul>
      <PathInvoices practice={practice} row={row} currency={currency} />
      {course.ended === undefined && (
        <div className="mt-2 flex flex-wrap gap-1.5">
          {left > 0 && !course.paused && person && (
            <Link className="press" to={`/people/${person}/plan?path=${row.id}`}>
              Plan {counted(left, 'session', 'sessions')}
            </Link>
          )}
          {balance.price > 0 && open > 0 && (
            <button type="button" className="press press-quiet px-2" onClick={() => setDoes('pay')}>
              Something has come…
            </button>
          )}
          <ActButton
            className="press press-quiet px-2"
            onAct={() => doWithCourse(row.id, course.paused ? { do: 'resume' } : { do: 'pause', text: '' })}
          >
            {course.paused ? 'Go on with it' : 'Let it rest'}
          </ActButton>
          <button type="button" className="press press-quiet px-2" onClick={() => setDoes('extend')}>
            Make it longer…
          </button>
          <button type="button" className="press press-quiet px-2" onClick={() => setDoes('end')}>
            End it early…
          </button>
        </div>
      )}
      {does === 'pay' && <Pay {...acting} />}
      {does === 'extend' && <Extend practice={practice} {...acting} />}
      {does === 'end' && <EndPath {...acting} />}
    </div>
  )
}
