import type { Booking } from '@acolhida/core/booking'
import type { SentMail } from '@acolhida/core/formats'
import { hasBounced, messageName, outlookOf, type Step } from '@acolhida/core/messages'
import { normalMail } from '@acolhida/core/people'
import type { Practice } from '@acolhida/core/practice'
import { HOUR } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { useMinute } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import { personOfMail } from '../data/people.ts'
import { ActButton } from '../parts/act.tsx'
import { when } from '../parts/words.ts'
import { Card } from '../request/card.tsx'
import { decideFor } from '../sync/acts.ts'
import { failsWords, outlookWords, reasonWords, Steering } from './steer.tsx'
import { stepTitle } from './titles.ts'
import { WriteTo } from './write-to.tsx'

const BECAME: Record<SentMail['state'], string> = {
  waiting: 'waits',
  sent: 'sent',
  failed: 'could not be sent',
  'taken-back': 'taken back',
  unknown: 'may have gone or not',
  skipped: 'did not go',
}

/** Everything sent about a booking and still to be sent, with why not; what went is there as it went. */
export function MessagesOf({ practice, booking }: { practice: Practice; booking: Booking }) {
  const now = useMinute()
  const [writing, setWriting] = useState(false)
  const { id } = booking
  const mails = useLiveQuery(() => db.mails.where('booking').equals(id).sortBy('n'), [id]) ?? []
  const mail = normalMail(booking.asked.person.email)
  const hushed = useLiveQuery(async () => (await personOfMail(db, mail))?.hushed === true, [mail]) ?? false
  const bounced = hasBounced(mails, booking.asked.person.email)
  const gone = new Set(
    mails.map(({ step, channel, anchor = 0 }) => messageName(step as Step, channel ?? 'email', anchor)),
  )
  const coming = outlookOf(booking, practice, now, { hushed, bounced }).filter(
    // What was to go before now has a line of the record, or the relay has not told of it yet.
    ({ message, at, is }) => !gone.has(message) && (is !== 'planned' || at > now - HOUR),
  )
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
          {mails.toReversed().map((one) => (
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

/** One message that went, or did not: with its text as it went, and a second try where that makes sense. */
export function Gone({ practice, booking, mail }: { practice: Practice; booking: Booking; mail: SentMail }) {
  const { state, reason, text, subject, step, anchor, channel } = mail
  const bad = state === 'failed' || state === 'unknown'
  const title = subject || stepTitle(practice, step)
  return (
    <li>
      <details>
        <summary className="cursor-pointer">
          {title}
          <span className={bad ? 'font-semibold text-clay' : 'text-soft'}>
            {' '}
            · {channel === 'text' ? 'text ' : ''}
            {BECAME[state]} {when(practice, mail.at)}
            {reason ? `: ${reasonWords(reason)}` : ''}
          </span>
        </summary>
        {text && (
          <p className="mt-1 rounded-lg bg-shade p-3 whitespace-pre-line wrap-anywhere" dir="auto">
            {text}
          </p>
        )}
      </details>
      {bad && anchor !== undefined && (
        <ActButton
          className="press press-quiet mt-1"
          aria-label={`Send again: ${title}`}
          onAct={() =>
            decideFor(booking, {
              ...{ do: 'steer', how: 'now' },
              message: messageName(step as Step, channel ?? 'email', anchor),
            })
          }
        >
          Send again
        </ActButton>
      )}
    </li>
  )
}
