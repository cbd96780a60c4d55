import type { Booking, BookingEvent } from '@acolhida/core/booking'
import type { Instant } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { useEffect, useState } from 'react'
import { relayNow, useAt } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import type { Desk } from '../data/live.ts'
import type { CourseRow, Intention } from '../data/tables.ts'
import { decideFor, doWithCourse, dropIntention, personIn } from '../sync/acts.ts'
import { takeAllBack } from '../sync/together.ts'
import { useAct } from './act.tsx'

const DONE: Partial<Record<Intention['command']['do'], string>> = {
  welcome: 'Welcomed',
  decline: 'Turned down',
  offer: 'Other times offered to',
  cancel: 'Cancelled:',
  move: 'Moved',
  attend: 'Attended:',
  miss: 'Missed:',
  forgive: 'Forgiven:',
  ask: 'Asked:',
  'run-late': 'Told that you come late:',
  except: 'Answered:',
  sign: 'To sign:',
  pay: 'Paid:',
  'give-back': 'Given back:',
  adjust: 'Adjusted:',
  charge: 'Charging the card of',
  invoice: 'Invoice for',
  'correct-invoice': 'Invoice taken back for',
  enter: 'Booked in',
  series: 'Sessions booked for',
  'end-series': 'Sessions cancelled for',
  'move-series': 'Sessions moved for',
  overrule: 'Decided differently for',
  answer: 'Answered',
  quote: 'Quote for',
  waiting: 'In line:',
  freed: 'A freed time for',
  course: 'To prepare:',
  forget: 'Forgotten:',
}

/** What was decided, by the event that it has become. */
const SAID: Partial<Record<BookingEvent['type'], string>> = {
  welcomed: 'Welcomed',
  declined: 'Turned down',
  offered: 'Other times offered to',
  moved: 'Moved',
  cancelled: 'Cancelled:',
  attended: 'Attended:',
  missed: 'Missed:',
  forgiven: 'Forgiven:',
  questioned: 'Asked:',
  'running-late': 'Told that you come late:',
  excepted: 'Answered:',
  'asked-to-sign': 'To sign:',
  concerns: 'Who it concerns:',
  paid: 'Paid:',
  'given-back': 'Given back:',
  adjusted: 'Adjusted:',
  charged: 'Charging the card of',
}

function said({ unsettled, asked }: Booking): string {
  const what = unsettled?.what as BookingEvent['type'] | undefined
  if (what === 'welcomed' && asked.proof === 'hand') return 'Booked in'
  return (what && SAID[what]) ?? 'Decided for'
}

/** How many decisions can be undone one by one; more, as of a whole plan, together. */
const ONE_BY_ONE = 3

/** How long a decision may be on its way before one is told that it has not gone out, in ms. */
const ON_ITS_WAY = 1_500

/** What was just decided and can still be taken back; a decision's message waits as long. */
export function UndoBar({ desk }: { desk: Desk }) {
  const [since] = useState(relayNow)
  const undoable = useLiveQuery(() => db.bookings.where('undo').above(since).reverse().toArray()) ?? []
  const still = undoable.filter(({ unsettled }) => unsettled && unsettled.until >= relayNow())
  const outstanding = desk.intentions.filter((intention) => !intention.refused)
  const ids = [...new Set(outstanding.map(({ booking }) => booking))]
  const decided = useLiveQuery(() => db.bookings.bulkGet(ids), [JSON.stringify(ids)]) ?? []
  const given = useLiveQuery(() => db.courses.where('undo').above(since).toArray()) ?? []
  const waits = useLiveQuery(() => db.lines.bulkGet(ids), [JSON.stringify(ids)]) ?? []
  return (
    <div
      role="status"
      className="fixed right-5 bottom-5 left-5 z-10 grid justify-items-end gap-2 md:left-auto"
    >
      {outstanding.map((intention) => (
        <Held
          key={intention.key}
          intention={intention}
          name={
            decided.find((row) => row?.id === intention.booking)?.asked.person.name ??
            waits.find((row) => row?.id === intention.booking)?.line.joined.person.name
          }
        />
      ))}
      {undoable.length > 1 && <UndoAll bookings={undoable} />}
      {given.map((row) => (
        <UndoableCourse key={row.id} row={row} />
      ))}
      {still.length <= ONE_BY_ONE &&
        undoable.map((booking) => <Undoable key={booking.id} booking={booking} />)}
    </div>
  )
}

function Held({ intention, name: known }: { intention: Intention; name: string | undefined }) {
  const shown = useAt((now) => now - intention.at > ON_ITS_WAY)
  const { command } = intention
  if (!shown) return null
  const name = personIn(command) ?? known ?? 'somebody'
  return (
    <Bar
      text={`${DONE[command.do] ?? 'Decided for'} ${name}: not gone out yet`}
      undo={() => dropIntention(intention.order)}
    />
  )
}

/** What was decided for several at once, as for a day one can't keep, is taken back at once. */
function UndoAll({ bookings }: { bookings: readonly Booking[] }) {
  const still = bookings.filter(({ unsettled }) => unsettled && unsettled.until >= relayNow())
  const first = Math.min(...still.map(({ unsettled }) => unsettled!.until)) as Instant
  const left = useSecondsLeft(still.length > 1 ? first : undefined)
  if (left === undefined) return null
  return (
    <Bar
      text={`${still.length} decisions that can be undone`}
      all
      left={left}
      undo={() => takeAllBack(still)}
    />
  )
}

function Undoable({ booking }: { booking: Booking }) {
  const until = booking.unsettled?.until
  const left = useSecondsLeft(until)
  if (left === undefined) return null
  const of = booking.unsettled!.seq
  return (
    <Bar
      text={`${said(booking)} ${booking.asked.person.name}`}
      left={left}
      undo={() => decideFor(booking, { do: 'take-back', of })}
    />
  )
}

/** What was done last with what somebody was given. */
function UndoableCourse({ row: { id, course } }: { row: CourseRow }) {
  const { unsettled, given, ended, chased } = course
  const left = useSecondsLeft(unsettled?.until)
  if (left === undefined || !unsettled) return null
  const what = unsettled.before
    ? ended
      ? 'Need not prepare any more:'
      : chased
        ? 'Asked again:'
        : ''
    : 'Given to'
  return (
    <Bar
      text={`${what} ${given.person.name}`}
      left={left}
      undo={() => doWithCourse(id, { do: 'take-back', of: unsettled.seq })}
    />
  )
}

/** Seconds until a moment; nothing once it is over, to the millisecond. */
function useSecondsLeft(until: Instant | undefined): number | undefined {
  const [, again] = useState(0)
  useAt((now) => (until === undefined ? 0 : Math.max(0, until - now)))
  useEffect(() => {
    if (until === undefined) return
    const timer = setTimeout(() => again((n) => n + 1), Math.max(50, until - relayNow() + 50))
    return () => clearTimeout(timer)
  }, [until])
  const left = until === undefined ? -1 : until - relayNow()
  return left < 0 ? undefined : Math.max(1, Math.ceil(left / 1_000))
}

function Bar({
  text,
  undo,
  left,
  all = false,
}: {
  text: string
  undo: () => unknown
  left?: number
  all?: boolean
}) {
  const act = useAct()
  return (
    <div className="rounded-xl bg-neutral px-4 py-2.5 text-neutral-content shadow-lg">
      <div className="flex items-center gap-4">
        <span>{text}</span>
        <button
          type="button"
          className="press border-neutral-content text-neutral-content"
          onClick={() => act.run(undo)}
        >
          {all ? 'Undo all' : 'Undo'}
          {left !== undefined && <span aria-hidden="true"> ({left} s)</span>}
        </button>
      </div>
      {act.problem !== undefined && (
        <p role="alert" className="mt-1 text-[14px] font-semibold">
          {act.problem}
        </p>
      )}
    </div>
  )
}
