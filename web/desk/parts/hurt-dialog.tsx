import type { Harm } from '@acolhida/core/booking'
import { Link } from 'react-router'
import { useDesk } from '../data/live.ts'
import type { WouldHurt } from '../data/would-hurt.ts'
import { Dialog } from './dialog.tsx'
import { serviceName, when } from './words.ts'

/** What becomes of something booked. */
const WORDS: Record<Harm, string> = {
  service: 'stays as it is, though its service is gone.',
  place: 'stays as it is, though its place is gone.',
  date: 'stays as it is; nobody else can join.',
  away: 'stays as it is, while you are away.',
  least: 'is called off if too few others come.',
}

/** Most that are named; the rest are counted. */
const NAMED = 6

/** Says what a change takes from what is booked, before it is done. */
export function HurtDialog({ hurt, yes, no }: { hurt: WouldHurt['hurt']; yes: () => void; no: () => void }) {
  const { practice } = useDesk()
  const more = hurt.length - NAMED
  return (
    <Dialog
      title={
        hurt.length === 1
          ? 'Something booked is touched by this'
          : `${hurt.length} bookings are touched by this`
      }
      close={no}
    >
      <ul className="grid gap-2">
        {hurt.slice(0, NAMED).map(({ booking, harm }) => (
          <li key={booking.id}>
            <Link className="way font-semibold" to={`/arrivals/${booking.id}`}>
              {booking.asked.person.name}
            </Link>
            , {when(practice, booking.start)}, {serviceName(practice, booking.service)}: {WORDS[harm]}
          </li>
        ))}
      </ul>
      {more > 0 && <p className="mt-2">And {more === 1 ? 'one more' : `${more} more`}.</p>}
      <p className="mt-3 text-[14px] text-soft">
        Nothing is cancelled now, and nobody is written to. To move or cancel one, open it.
      </p>
      <div className="mt-4 flex flex-wrap gap-2.5">
        <button type="button" className="press press-go" onClick={no}>
          Leave it as it was
        </button>
        <button type="button" className="press press-no" onClick={yes}>
          Do it all the same
        </button>
      </div>
    </Dialog>
  )
}
