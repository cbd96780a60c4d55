import { DAY, dateAt, longDate, shift, timeAt } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { Link } from 'react-router'
import { useMinute } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { DateInput } from '../parts/date-field.tsx'
import { Labelled } from '../parts/labelled.tsx'
import { PageHead } from '../parts/page-head.tsx'
import { PlainChoice } from '../parts/plain-field.tsx'
import { counted, homeZone } from '../parts/words.ts'
import { type ComingMessage, comingMessages, grouped } from './coming.ts'
import { NotSent } from './gone.tsx'
import { failsWords, Steering } from './steer.tsx'
import { stepTitle } from './titles.ts'
import { ToEnquirers } from './to-enquirers.tsx'
import { ToWaiting } from './to-waiting.tsx'
import { WriteTo } from './write-to.tsx'

const SPANS = [
  { value: '3', name: 'three days' },
  { value: '7', name: 'a week' },
  { value: '30', name: 'thirty days' },
]
/** How many are listed before one asks for the rest. */
const SHOWN = 100

/** Everything that will go in the coming days, for all: held back, sent now, rewritten; and what could not be sent. */
export function Outbox() {
  const { practice } = useDesk()
  const now = useMinute()
  const [days, setDays] = useState('7')
  const [all, setAll] = useState(false)
  const found = useLiveQuery(() => comingMessages(db, practice, now, Number(days)), [practice, now, days])
  const where = homeZone(practice)
  const { coming = [], failed = [] } = found ?? {}
  const drafts = coming.filter(({ is, at }) => is === 'draft' && at <= now)
  const due = coming.filter((one) => !drafts.includes(one))
  const shown = all ? due : due.slice(0, SHOWN)
  const byDay = grouped(shown, ({ at }) => dateAt(where, at))
  return (
    <>
      <PageHead
        title="Outbox"
        line={`${counted(due.filter(({ to, is }) => to === 'client' && is === 'planned').length, 'message', 'messages')} to clients in the coming days${practice.messaging?.paused ? ' · all of it rests' : ''}`}
      >
        <Link className="press" to="/sent">
          What is sent, and when
        </Link>
      </PageHead>
      <div className="mt-5 grid max-w-[980px] gap-6">
        {failed.length > 0 && (
          <section aria-label="Not sent so far">
            <h2 className="mb-2">Not sent so far</h2>
            <ul className="sheet grid gap-2 p-4 text-[14px]">
              {failed.map(({ mail, booking }) => (
                <NotSent
                  key={mail.n}
                  className="grid gap-x-4 sm:grid-cols-[180px_1fr]"
                  practice={practice}
                  booking={booking}
                  mail={mail}
                />
              ))}
            </ul>
          </section>
        )}
        {drafts.length > 0 && (
          <section aria-label="Drafts for you">
            <h2 className="mb-2">Drafts for you</h2>
            <ul className="sheet divide-y divide-line">
              {drafts.map((one) => (
                <Line key={`${one.booking.id} ${one.message}`} one={one} time="" />
              ))}
            </ul>
          </section>
        )}
        <div className="flex flex-wrap items-end justify-between gap-4">
          <div className="w-48">
            <PlainChoice label="What goes within" value={days} options={SPANS} onChange={setDays} />
          </div>
          <WriteToDay />
        </div>
        {found && due.length === 0 && (
          <p className="sheet p-5">
            Nothing goes in these days. What is sent around a booking, and when, is written under{' '}
            <Link className="way" to="/sent">
              What is sent
            </Link>
            .
          </p>
        )}
        {[...byDay].map(([day, list]) => (
          <section key={day} aria-label={longDate(day)}>
            <h2 className="mb-2">{longDate(day)}</h2>
            <ul className="sheet divide-y divide-line">
              {list.map((one) => (
                <Line key={`${one.booking.id} ${one.message}`} one={one} time={timeAt(where, one.at)} />
              ))}
            </ul>
          </section>
        ))}
        <ToEnquirers practice={practice} now={now} days={Number(days)} />
        <ToWaiting practice={practice} now={now} />
        {!all && due.length > SHOWN && (
          <button type="button" className="press justify-self-start" onClick={() => setAll(true)}>
            Show all {due.length}
          </button>
        )}
      </div>
    </>
  )
}

function Line({ one, time }: { one: ComingMessage; time: string }) {
  const { practice } = useDesk()
  const { booking } = one
  return (
    <li className="grid items-center gap-x-4 gap-y-1 px-4 py-2.5 text-[14px] sm:grid-cols-[56px_1fr_auto]">
      <span className="figures text-soft">{time}</span>
      <span className="min-w-0">
        <b>{stepTitle(practice, one.step)}</b>
        {one.channel === 'text' ? ' (text)' : ''} ·{' '}
        <Link className="way" to={`/arrivals/${booking.id}`}>
          {booking.asked.person.name}
        </Link>
        {one.is === 'held' && <span className="tag tag-look ml-2">held back</span>}
        {one.is === 'draft' && <span className="tag tag-info ml-2">draft</span>}
        {failsWords(one) && <span className="block font-semibold text-clay">{failsWords(one)}</span>}
      </span>
      <Steering practice={practice} booking={booking} of={one} />
    </li>
  )
}

/** Writing to everybody of a day. */
function WriteToDay() {
  const { practice } = useDesk()
  const now = useMinute()
  const where = homeZone(practice)
  const [day, setDay] = useState<string>(dateAt(where, now))
  const [open, setOpen] = useState(false)
  const rows =
    useLiveQuery(
      () =>
        db.bookings
          .where('start')
          .above(shift(now, -7 * DAY))
          .toArray(),
      [now],
    ) ?? []
  const those = rows.filter(({ status, start }) => status === 'booked' && dateAt(where, start) === day)
  return (
    <div className="flex flex-wrap items-end gap-3">
      <div className="w-60">
        <Labelled
          label="Everybody of a day"
          field={(id) => <DateInput id={id} value={day} onChange={setDay} onDone={() => undefined} />}
        />
      </div>
      <button type="button" className="press" disabled={those.length === 0} onClick={() => setOpen(true)}>
        {those.length === 0 ? 'Nobody comes then' : `Write to ${counted(those.length, 'person', 'people')} …`}
      </button>
      {open && <WriteTo practice={practice} bookings={those} close={() => setOpen(false)} />}
    </div>
  )
}
