import type { Booking } from '@acolhida/core/booking'
import type { SentMail } from '@acolhida/core/formats'
import { hasBounced, nameOfMail, type OfThem, outlookOf, toCome } from '@acolhida/core/messages'
import { normalMail } from '@acolhida/core/people'
import type { Practice } from '@acolhida/core/practice'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { useMinute } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import { bookingsOf, personOfMail } from '../data/people.ts'
import { Card } from '../request/card.tsx'
import { Gone } from './gone.tsx'
import { failsWords, outlookWords, Steering } from './steer.tsx'
import { stepTitle } from './titles.ts'
import { WriteTo } from './write-to.tsx'

/** Everything sent about a booking and still to be sent, with why not; what went is there as it went. */
export function MessagesOf({ practice, booking }: { practice: Practice; booking: Booking }) {
  const now = useMinute()
  const [writing, setWriting] = useState(false)
  const { id } = booking
  const { email } = booking.asked.person
  const mails = useLiveQuery(() => db.mails.where('booking').equals(id).sortBy('n'), [id]) ?? []
  const them = useLiveQuery(() => ofThem(email), [email]) ?? {}
  const bounced = hasBounced(mails, email)
  const coming = toCome(outlookOf(booking, practice, now, { ...them, bounced }), mails, now)
  return (
    <Card title="Messages">
      {coming.length > 0 && (
        <ul className="mt-2 grid gap-2 text-[14px]" aria-label="Still to come">
          {coming.map((one) => (
            <li key={one.message}>
              <b>{stepTitle(practice, one.step)}</b>
              {one.channel === 'text' && ' (text)'}
              <span className="text-soft"> · {outlookWords(practice, one)}</span>
              {failsWords(one) && <span className="block font-semibold text-clay">{failsWords(one)}</span>}
              <span className="mt-0.5 block">
                <Steering practice={practice} booking={booking} of={one} />
              </span>
            </li>
          ))}
        </ul>
      )}
      {mails.length > 0 && (
        <ul className="mt-3 grid gap-1.5 border-t border-line pt-2 text-[14px]" aria-label="What went">
          {latest(mails).map((one) => (
            <Gone key={one.n} practice={practice} booking={booking} mail={one} />
          ))}
        </ul>
      )}
      <button type="button" className="press mt-3" onClick={() => setWriting(true)}>
        Write to them …
      </button>
      {writing && <WriteTo practice={practice} bookings={[booking]} close={() => setWriting(false)} />}
    </Card>
  )
}

/** The newest first; that one was tried again is told until it has gone, or has not. */
function latest(mails: readonly SentMail[]): SentMail[] {
  const last = new Map(mails.map((mail) => [nameOfMail(mail), mail.n]))
  return mails
    .filter((mail) => mail.state !== 'waiting' || last.get(nameOfMail(mail)) === mail.n)
    .toReversed()
}

/** What is known of whoever is written to. */
async function ofThem(email: string): Promise<OfThem> {
  const person = await personOfMail(db, normalMail(email))
  return person ? { hushed: person.hushed === true, theirs: await bookingsOf(db, person) } : {}
}
