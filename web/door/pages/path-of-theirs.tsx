import type { CourseView, PathView, StationView } from '@acolhida/core/contract'
import { money } from '@acolhida/core/money'
import { lazy, type ReactNode, Suspense, useState } from 'react'
import { Link } from 'react-router'
import { PathLine } from '../../drawings/path-line.tsx'
import { clocksNamed, momentAt, sessionAt } from '../parts/clocks.ts'
import { say } from '../parts/say.ts'
import { WhereTo } from '../parts/where-to.tsx'
import { doorRelay } from '../visit/relay.ts'
import type { OnYours } from '../visit/yours.ts'
import { TillButton } from './at-till.tsx'

const PlanPath = lazy(() => import('./plan-path.tsx'))

/** How a path stands: its line in words, what has been paid, and planning what is left. */
export function PathHead({ course, path, doing }: { course: CourseView; path: PathView; doing: OnYours }) {
  const [plans, setPlans] = useState(false)
  const { used, planned, left, paid, price, currency, transfer } = path
  return (
    <div className="sheet mt-3 p-5">
      <PathLine sessions={path.sessions.map(({ is }) => is)} />
      <p>{say('yours.path-stands', { used, planned, left })}</p>
      {price > 0 && (
        <p className="text-soft">
          {say('yours.path-paid', { paid: money(paid, currency), price: money(price, currency) })}
        </p>
      )}
      {path.byCard !== undefined && (
        <div className="mt-3">
          <TillButton
            {...{ what: 'pay', amount: path.byCard, currency, last: path.till }}
            ask={() => doorRelay.payPath(doing.secret, { course: course.course, amount: path.byCard ?? 0 })}
          />
        </div>
      )}
      {transfer && <WhereTo transfer={transfer} />}
      {path.paused !== undefined && (
        <p className="note mt-3 bg-sun-soft text-sun-ink">
          {say('yours.path-rests')} {path.paused}
        </p>
      )}
      {path.plan && left > 0 && path.plan.places.length > 0 && (
        <>
          <button
            type="button"
            className={`press mt-3 ${plans ? '' : 'press-go'}`}
            aria-expanded={plans}
            onClick={() => setPlans(!plans)}
          >
            {plans ? say('yours.plan-leave') : say('yours.plan', { count: left })}
          </button>
          {plans && (
            <div className="mt-4 border-t border-line pt-4">
              <Suspense fallback={<p className="text-soft">{say('moment')}</p>}>
                <PlanPath
                  course={course.course}
                  path={{ ...path, plan: path.plan }}
                  zoneName={doing.view.clocks.first}
                  doing={doing}
                  onBooked={() => setPlans(false)}
                />
              </Suspense>
            </div>
          )}
        </>
      )}
    </div>
  )
}

/** What stands on the line of a path besides what there is to do. */
export interface OnTheLine {
  key: string
  state: StationView['state']
  body: ReactNode
}

/** Everything on the line of a path, in its order; sessions that are all still to be planned stand together. */
export function lineOf(
  { stations, path }: CourseView,
  { view, secret }: OnYours,
): (StationView | OnTheLine)[] {
  if (!path) return stations
  const own = new Map(stations.map((one) => [one.id, one]))
  const sessions = new Map(path.sessions.map((one) => [one.id, one]))
  const pays = new Map(path.pays.map((one) => [one.id, one]))
  const line: (StationView | OnTheLine)[] = []
  let waits: { key: string; name: string; minutes: number; count: number } | undefined
  const flush = (): void => {
    if (waits)
      line.push({
        key: waits.key,
        state: 'open',
        body: (
          <>
            <span className="font-semibold">
              {say('yours.sessions-left', { count: waits.count, name: waits.name })}
            </span>
            <span className="block text-[14px] text-soft">
              {say('yours.minutes-of', { minutes: waits.minutes })}
            </span>
          </>
        ),
      })
    waits = undefined
  }
  for (const id of path.order) {
    const session = sessions.get(id)
    if (session?.is === 'left') {
      const { name, minutes } = session
      if (waits && (waits.name !== name || waits.minutes !== minutes)) flush()
      waits = { key: waits?.key ?? id, name, minutes, count: (waits?.count ?? 0) + 1 }
      continue
    }
    flush()
    const station = own.get(id)
    const pay = pays.get(id)
    if (station) line.push(station)
    if (session) {
      const { booking, start, clocks, minutes, is } = session
      line.push({
        key: id,
        state: is === 'used' ? 'done' : 'begun',
        body: (
          <>
            <Link className="way" to={`/${view.slug}/my/${secret}?booking=${booking}`}>
              {session.name}
              {start !== undefined && clocks ? `, ${sessionAt(start, minutes, clocksNamed(clocks))}` : ''}
            </Link>
            <span className="block text-[14px] text-soft">
              {say(is === 'used' ? 'yours.used' : 'yours.planned')}
            </span>
          </>
        ),
      })
    }
    if (pay)
      line.push({
        key: id,
        state: pay.is === 'paid' ? 'done' : pay.is,
        body: (
          <>
            <span className="font-semibold">{money(pay.amount, path.currency)}</span>
            <span
              className={`block text-[14px] ${pay.is === 'overdue' ? 'font-semibold text-clay' : 'text-soft'}`}
            >
              {pay.is === 'paid'
                ? say('yours.paid')
                : say(pay.is === 'overdue' ? 'yours.overdue' : 'yours.by', {
                    when: momentAt(pay.due, clocksNamed(view.clocks)),
                  })}
            </span>
          </>
        ),
      })
  }
  flush()
  return line
}
