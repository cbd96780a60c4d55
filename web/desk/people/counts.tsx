import { type Booking, countedFor, countedIn, holdsFor, mattersFrom } from '@acolhida/core/booking'
import type { Practice } from '@acolhida/core/practice'
import { dateAt, type Instant, longDate } from '@acolhida/core/time'
import { useState } from 'react'
import { Link } from 'react-router'
import { useMinute } from '../../relay-client/clock.ts'
import type { PersonRow } from '../data/rows.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { PlainField } from '../parts/plain-field.tsx'
import { counted, homeZone, serviceName, when } from '../parts/words.ts'
import { Card } from '../request/card.tsx'
import { leadsToWords } from '../settings/counting.ts'
import { decideFor } from '../sync/acts.ts'

/** What counts against somebody: each thing, why it does or no longer does, and what follows from it now. */
export function Counts({
  practice,
  person,
  bookings,
}: {
  practice: Practice
  person: PersonRow
  bookings: readonly Booking[]
}) {
  const now = useMinute()
  const { counting } = practice.houseRules
  const things = bookings.filter(countedFor).sort((a, b) => b.start - a.start)
  const where = homeZone(practice)
  const leads = counting?.leads ?? []
  const holds = person.exempt ? [] : holdsFor(leads, person.counted ?? [], now, where)
  const day = (at: Instant): string => longDate(dateAt(where, at))
  return (
    <Card title="Missed and cancelled late">
      {person.exempt && (
        <p className="mt-2 font-semibold">
          Nothing counts for {person.name}: you have made an exception of them.
        </p>
      )}
      {things.length === 0 && <p className="mt-2 text-soft">Nothing so far.</p>}
      {holds.map(({ lead, until }) => (
        <p key={`${lead.to} ${until}`} className="note mt-2 bg-sun-soft text-sun-ink">
          <b>{leadsToWords(lead.to)}</b> until {day(until)}.
        </p>
      ))}
      <ul className="mt-2 grid gap-2">
        {things.map((booking) => (
          <Thing
            key={booking.id}
            practice={practice}
            booking={booking}
            from={mattersFrom(leads, now, where)}
          />
        ))}
      </ul>
      {things.length > 0 && !counting && (
        <p className="mt-2 text-[14px] text-soft">
          Your{' '}
          <Link className="way" to="/rules">
            house rules
          </Link>{' '}
          let nothing follow from it.
        </p>
      )}
    </Card>
  )
}

/** Why something counts, or no longer does. */
function whyWords(booking: Booking, from: Instant): string {
  if (booking.forgiven) return `Forgiven: “${booking.forgiven.text}”`
  const own = countedIn(booking)
  if (!own) return 'Does not count, by the rules of its day.'
  const points = `Counts ${counted(own.points, 'point', 'points')}`
  return own.at < from ? `${points}, and is too long ago to matter.` : `${points}.`
}

function Thing({ practice, booking, from }: { practice: Practice; booking: Booking; from: Instant }) {
  const [forgiving, setForgiving] = useState(false)
  const [text, setText] = useState('')
  const act = useAct()
  const why = countedFor(booking)
  const what = why === 'missed' ? 'Missed' : `Cancelled late, ${booking.share} % due`
  return (
    <li className="border-t border-line pt-2 first:border-t-0 first:pt-0">
      <b>{what}</b>:{' '}
      <Link className="way" to={`/arrivals/${booking.id}`}>
        {when(practice, booking.start)}
      </Link>{' '}
      {serviceName(practice, booking.service)}
      <div className="flex flex-wrap items-center justify-between gap-x-3">
        <p className="text-[14px] text-soft">{whyWords(booking, from)}</p>
        {!booking.forgiven && countedIn(booking) && (
          <button type="button" className="press press-quiet" onClick={() => setForgiving(true)}>
            Forgive…<span className="sr-only"> {when(practice, booking.start)}</span>
          </button>
        )}
      </div>
      {forgiving && (
        <Dialog title={`Forgive ${booking.asked.person.name}`} close={() => setForgiving(false)}>
          <p className="mb-3 text-soft">
            It stays in the record, and no longer counts. Nobody is told. What is due for it stays due.
          </p>
          <form
            noValidate
            onSubmit={(event) => {
              event.preventDefault()
              act.run(
                () => {
                  if (!text.trim()) throw new Error('Please write why; you will read it here later.')
                  return decideFor(booking, { do: 'forgive', text: text.trim() })
                },
                () => setForgiving(false),
              )
            }}
          >
            <PlainField label="Why" value={text} onChange={setText} focused />
            <button type="submit" className="press press-go mt-3">
              Forgive it
            </button>
            <ProblemNote of={act} />
          </form>
        </Dialog>
      )}
    </li>
  )
}
