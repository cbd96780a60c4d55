import type { Practice } from '@acolhida/core/practice'
import { DAY, dateAt, dayNumber, type Instant, moment, shift } from '@acolhida/core/time'
import { lineAt } from '@acolhida/core/waiting'
import { useState } from 'react'
import { Link } from 'react-router'
import { useMinute } from '../../relay-client/clock.ts'
import { useDesk } from '../data/live.ts'
import type { FreedRow, LineRow } from '../data/tables.ts'
import { useTaken } from '../data/taken.ts'
import { ActButton } from '../parts/act.tsx'
import { PageHead } from '../parts/page-head.tsx'
import { counted, homeZone, serviceName } from '../parts/words.ts'
import { doInLine, doWithFreed } from '../sync/acts.ts'
import { FreedCard } from './freed-card.tsx'
import { HowItGoes } from './how-it-goes.tsx'
import { MoreHours } from './more-hours.tsx'
import { OfService, WAIT_DAYS } from './of-service.tsx'
import { PutInLine } from './put-in-line.tsx'
import { ToLookAt } from './to-look-at.tsx'
import { inLineNow, useFreed, useInLine } from './use-waiting.ts'

/** Everybody who waits, what is free for them just now, and what would help. */
export function WaitingPage() {
  const desk = useDesk()
  const { practice } = desk
  const now = useMinute()
  const home = homeZone(practice)
  const begin = home.toInstant(dayNumber(dateAt(home, now)), 0)
  const taken = useTaken(desk, begin, shift(begin, WAIT_DAYS * DAY))
  const waiting = useInLine()
  const freed = useFreed()
  const [adding, setAdding] = useState(false)
  const rows = waiting ? inLineNow(waiting.lines, now) : []
  const held = rows.filter(({ line }) => lineAt(line, now).is === 'offered').length
  return (
    <>
      <PageHead
        title="Waiting"
        line={[
          rows.length === 0
            ? 'Nobody waits for a time'
            : `${counted(rows.length, 'person waits', 'people wait')} for a time`,
          ...(held > 0 ? [`${counted(held, 'freed time is', 'freed times are')} held out`] : []),
        ].join(' · ')}
      >
        <button type="button" className="press" onClick={() => setAdding(true)}>
          Put somebody in line…
        </button>
      </PageHead>
      {adding && <PutInLine desk={desk} close={() => setAdding(false)} />}
      {!waiting || !freed || !taken ? (
        <p className="mt-6 text-soft">One moment …</p>
      ) : (
        <div className="mt-6 grid gap-6 lg:grid-cols-[1fr_300px]">
          <div className="grid h-fit min-w-0 gap-6">
            {freed.open.length > 0 && (
              <section aria-label="Free just now">
                <h2 className="mb-2">Free just now</h2>
                <ul className="grid gap-3">
                  {freed.open.map((row) => (
                    <FreedCard key={row.id} desk={desk} taken={taken} waiting={waiting} row={row} />
                  ))}
                </ul>
              </section>
            )}
            <StillThere practice={practice} past={freed.past} now={now} />
            {practice.services.map((service) => (
              <OfService key={service.id} desk={desk} taken={taken} waiting={waiting} service={service} />
            ))}
            <NoLongerOffered practice={practice} rows={rows} />
            {rows.length === 0 && (
              <p className="sheet p-5">
                When nothing suits somebody at your door, they can wait for a time; it is said with each
                service whether they can.{' '}
                <Link className="way" to="/services">
                  See your services
                </Link>
              </p>
            )}
          </div>
          <div className="grid h-fit gap-4">
            <ToLookAt desk={desk} waiting={waiting} />
            <MoreHours desk={desk} taken={taken} waiting={waiting} />
            <HowItGoes practice={practice} />
          </div>
        </div>
      )}
    </>
  )
}

/** Those who wait for what is not offered any more: nothing can be held out to them. */
function NoLongerOffered({ practice, rows }: { practice: Practice; rows: readonly LineRow[] }) {
  const lost = rows.filter((row) => !practice.services.some(({ id, on }) => id === row.service && on))
  if (lost.length === 0) return null
  return (
    <section className="sheet p-5" aria-label="Not offered any more">
      <h2>Not offered any more</h2>
      <p className="mt-1 text-[14px] text-soft">
        What they wait for is not at your door, so nothing is held out to them.
      </p>
      <ul className="mt-2 grid gap-1.5 text-[14px]">
        {lost.map(({ id, service, line }) => (
          <li key={id} className="flex flex-wrap items-center justify-between gap-2">
            <span>
              {line.joined.person.name}, {serviceName(practice, service)}
            </span>
            <ActButton className="press press-no" onAct={() => doInLine(id, { do: 'out', text: '' })}>
              Take out<span className="sr-only"> {line.joined.person.name}</span>
            </ActButton>
          </li>
        ))}
      </ul>
    </section>
  )
}

/** Freed times that are stopped, or found nobody, and have not begun: people can be asked for them once more. */
function StillThere({
  practice,
  past,
  now,
}: {
  practice: Practice
  past: readonly FreedRow[]
  now: Instant
}) {
  const rows = past.filter(
    ({ freed: { ended, from } }) => (ended?.how === 'stopped' || ended?.how === 'nobody') && from > now,
  )
  if (rows.length === 0) return null
  const home = homeZone(practice)
  return (
    <details>
      <summary className="way cursor-pointer text-[14px]">
        {counted(rows.length, 'freed time', 'freed times')} to come that nobody is asked for any more
      </summary>
      <ul className="mt-1 grid gap-1 text-[14px]">
        {rows.map(({ id, freed }) => (
          <li key={id} className="flex flex-wrap items-center gap-2">
            {moment(freed.from, home)}:{' '}
            {freed.ended?.how === 'stopped' ? 'stopped by you' : 'nobody was left'}
            <ActButton className="press" onAct={() => doWithFreed(id, { do: 'go', ask: 1 })}>
              Ask again<span className="sr-only"> for {moment(freed.from, home)}</span>
            </ActButton>
          </li>
        ))}
      </ul>
    </details>
  )
}
