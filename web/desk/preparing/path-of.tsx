import type { PayWay } from '@acolhida/core/booking'
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
import { WAY_OPTIONS } from '../money/money-words.ts'
import { ActButton, ProblemNote, useAct } from '../parts/act.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { NumberField } from '../parts/number-field.tsx'
import { PlainChoice, PlainField } from '../parts/plain-field.tsx'
import { counted, currencyOf, serviceName, when } from '../parts/words.ts'
import { amount as amountTyped } from '../settings/setting.ts'
import { doWithCourse } from '../sync/acts.ts'

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
      {does === 'pay' && <Pay row={row} balance={balance} close={() => setDoes(undefined)} />}
      {does === 'extend' && (
        <Extend practice={practice} row={row} balance={balance} close={() => setDoes(undefined)} />
      )}
      {does === 'end' && <End row={row} balance={balance} close={() => setDoes(undefined)} />}
    </div>
  )
}

function Pay({ row, balance, close }: { row: CourseRow; balance: Balance; close: () => void }) {
  const { code, decimals } = currencyOf(row.course.given.path?.currency ?? 'EUR')
  const [much, setMuch] = useState(((balance.overdue || balance.open) / 10 ** decimals).toFixed(decimals))
  const [way, setWay] = useState<PayWay>('transfer')
  const [text, setText] = useState('')
  const act = useAct()
  return (
    <Dialog title="Something has come" close={close}>
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          act.run(
            () =>
              doWithCourse(row.id, {
                ...{ do: 'pay', amount: amountTyped(much, decimals), way },
                ...(text.trim() ? { text: text.trim() } : {}),
              }),
            close,
          )
        }}
      >
        <div className="grid gap-3">
          <PlainField label={`How much, in ${code}`} value={much} onChange={setMuch} focused />
          <PlainChoice
            label="How"
            value={way}
            options={WAY_OPTIONS}
            onChange={(to) => setWay(to as PayWay)}
          />
          <PlainField label="A note, if you like" value={text} onChange={setText} />
        </div>
        <ProblemNote of={act} />
        <button type="submit" className="press press-go mt-3" disabled={act.busy}>
          Note it
        </button>
      </form>
    </Dialog>
  )
}

function Extend({
  practice,
  row,
  balance,
  close,
}: {
  practice: Practice
  row: CourseRow
  balance: Balance
  close: () => void
}) {
  const { code, decimals } = currencyOf(row.course.given.path?.currency ?? 'EUR')
  const kinds = [
    ...new Map(
      balance.sessions.map(({ session }) => [`${session.service} ${session.minutes}`, session]),
    ).values(),
  ]
  const [like, setLike] = useState(kinds.at(-1)?.id ?? '')
  const [many, setMany] = useState(1)
  const chosen = kinds.find(({ id }) => id === like)
  const [price, setPrice] = useState<string>()
  const shown = price ?? (((chosen?.worth ?? 0) * many) / 10 ** decimals).toFixed(decimals)
  const act = useAct()
  return (
    <Dialog title="Make it longer" close={close}>
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          act.run(
            () => doWithCourse(row.id, { do: 'extend', like, many, price: amountTyped(shown, decimals) }),
            close,
          )
        }}
      >
        <div className="grid gap-3">
          <NumberField label="How many sessions more" value={many} most={60} onChange={setMany} />
          <PlainChoice
            label="Like"
            value={like}
            options={kinds.map(({ id, service, minutes }) => ({
              value: id,
              name: `${serviceName(practice, service)}, ${minutes} min`,
            }))}
            onChange={setLike}
          />
          <PlainField label={`What they cost together, in ${code}`} value={shown} onChange={setPrice} />
        </div>
        <ProblemNote of={act} />
        <button type="submit" className="press press-go mt-3" disabled={act.busy || !(many >= 1)}>
          Add {counted(many, 'session', 'sessions')}
        </button>
      </form>
    </Dialog>
  )
}

function End({ row, balance, close }: { row: CourseRow; balance: Balance; close: () => void }) {
  const currency = currencyOf(row.course.given.path?.currency ?? 'EUR')
  const act = useAct()
  const { used, left, planned, worth, back, paid } = balance
  return (
    <Dialog title="End it early" close={close}>
      <p>
        {counted(used, 'session is', 'sessions are')} used, worth {money(worth, currency)} by minutes;{' '}
        {money(paid, currency)} has come.
      </p>
      <p className="mt-2 font-semibold">
        {back > 0
          ? `${money(back, currency)} is to be given back.`
          : back < 0
            ? `${money(-back, currency)} is still to be paid for what was used.`
            : 'Nothing is to be paid or given back.'}
      </p>
      {planned > 0 && (
        <p className="mt-2 text-[14px] text-soft">
          {counted(planned, 'session stays', 'sessions stay')} booked; cancel what is not to take place on its
          own page, or under “End sessions from one on”.
        </p>
      )}
      {left > 0 && (
        <p className="mt-2 text-[14px] text-soft">
          {counted(left, 'session is', 'sessions are')} left and can be planned no more.
        </p>
      )}
      <ProblemNote of={act} />
      <div className="mt-4 flex flex-wrap gap-2">
        <button
          type="button"
          className="press press-go"
          data-first
          disabled={act.busy}
          onClick={() => act.run(() => doWithCourse(row.id, { do: 'end' }), close)}
        >
          End it
        </button>
        {back > 0 && (
          <button
            type="button"
            className="press"
            disabled={act.busy}
            onClick={() =>
              act.run(async () => {
                await doWithCourse(row.id, {
                  do: 'pay',
                  amount: -back,
                  way: 'transfer',
                  text: 'given back at the end',
                })
                await doWithCourse(row.id, { do: 'end' })
              }, close)
            }
          >
            End it, and note {money(back, currency)} as given back
          </button>
        )}
      </div>
    </Dialog>
  )
}
