import { type Booking, undoableAt } from '@acolhida/core/booking'
import type { Instant } from '@acolhida/core/time'
import { useEffect, useState } from 'react'
import { relayNow, useNow } from '../../relay-client/clock.ts'
import type { Intention } from '../data/database.ts'
import type { Desk } from '../data/live.ts'
import { decideFor, dropIntention } from '../sync/acts.ts'

const DONE: Partial<Record<Intention['command']['do'], string>> = {
  welcome: 'Welcomed',
  decline: 'Turned down',
  offer: 'Other times offered to',
  cancel: 'Cancelled:',
  move: 'Moved',
  enter: 'Booked in',
  overrule: 'Judged otherwise for',
  answer: 'Answered',
  quote: 'Quote for',
}

function said({ status, unsettled }: Booking): string {
  if (status === 'cancelled') return 'Cancelled:'
  if (unsettled?.before.status === 'booked') return 'Moved'
  if (status === 'booked') return 'Welcomed'
  return status === 'declined' ? 'Turned down' : 'Other times offered to'
}

/** What was just decided and can still be taken back; a decision's message waits as long. */
export function UndoBar({ desk }: { desk: Desk }) {
  const tick = useNow()
  const [, again] = useState(0)
  const now = relayNow()
  const undoable = desk.bookings
    .flatMap((booking) => {
      const undo = undoableAt(booking, now)
      return undo ? [{ booking, ...undo }] : []
    })
    .sort((a, b) => b.until - a.until)
  const next = undoable.at(-1)?.until
  useEffect(() => {
    if (!next) return
    const timer = setTimeout(() => again((n) => n + 1), Math.max(50, next - relayNow() + 50))
    return () => clearTimeout(timer)
  }, [next])
  const held = desk.intentions.filter((one) => !one.refused && tick - one.at > 1_500)
  const nameOf = (id: string): string =>
    desk.bookings.find((one) => one.id === id)?.asked.person.name ?? 'somebody'
  if (undoable.length === 0 && held.length === 0) return <div role="status" className="sr-only" />
  return (
    <div
      role="status"
      className="fixed right-5 bottom-5 left-5 z-10 grid justify-items-end gap-2 md:left-auto"
    >
      {held.map((intention) => (
        <Bar
          key={intention.key}
          text={`${DONE[intention.command.do] ?? 'Decided for'} ${'body' in intention.command && 'person' in intention.command.body ? intention.command.body.person.name : nameOf(intention.booking)}: not gone out yet`}
          undo={() => dropIntention(intention.order)}
        />
      ))}
      {undoable.map(({ booking, of, until }) => (
        <Bar
          key={booking.id}
          text={`${said(booking)} ${booking.asked.person.name}`}
          until={until}
          now={now}
          undo={() => decideFor(booking, { do: 'take-back', of })}
        />
      ))}
    </div>
  )
}

function Bar({ text, undo, until, now }: { text: string; undo: () => void; until?: Instant; now?: Instant }) {
  return (
    <div className="flex items-center gap-4 rounded-xl bg-neutral px-4 py-2.5 text-neutral-content shadow-lg">
      <span>{text}</span>
      <button type="button" className="press border-neutral-content text-neutral-content" onClick={undo}>
        Undo{until && now ? ` (${Math.max(1, Math.ceil((until - now) / 1000))} s)` : ''}
      </button>
    </div>
  )
}
