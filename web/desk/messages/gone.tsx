import type { Booking } from '@acolhida/core/booking'
import type { SentMail } from '@acolhida/core/formats'
import { nameOfMail } from '@acolhida/core/messages'
import type { Practice } from '@acolhida/core/practice'
import { Link } from 'react-router'
import { ActButton } from '../parts/act.tsx'
import { when } from '../parts/words.ts'
import { decideFor } from '../sync/acts.ts'
import { reasonWords } from './steer.tsx'
import { stepTitle } from './titles.ts'

/** What became of a message, in words after its name. */
export const BECAME: Record<SentMail['state'], string> = {
  waiting: 'is tried again since',
  sent: 'sent',
  failed: 'could not be sent',
  'taken-back': 'taken back',
  unknown: 'may have gone or not',
  skipped: 'did not go',
}

/** What became of a message that did not go, or may not have. */
export const NotGone = ({ practice, mail }: { practice: Practice; mail: SentMail }) => (
  <span className="block font-semibold text-clay">
    It {BECAME[mail.state]} {when(practice, mail.at)}
    {mail.reason ? `: ${reasonWords(mail.reason)}` : '.'}
  </span>
)

/** One message that went, or did not, with its text as it went: opened by a press. */
export function GoneText({ practice, mail }: { practice: Practice; mail: SentMail }) {
  const { state, reason, text, subject, step, channel } = mail
  return (
    <details>
      <summary className="cursor-pointer wrap-anywhere">
        {subject || stepTitle(practice, step)}
        <span className={isBad(mail) ? 'font-semibold text-clay' : 'text-soft'}>
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
  )
}

const isBad = ({ state }: SentMail): boolean => state === 'failed' || state === 'unknown'

/** One message about a booking, with a second try where that makes sense. */
export function Gone({ practice, booking, mail }: { practice: Practice; booking: Booking; mail: SentMail }) {
  const { subject, step, anchor } = mail
  const title = subject || stepTitle(practice, step)
  return (
    <li>
      <GoneText practice={practice} mail={mail} />
      {isBad(mail) && anchor !== undefined && (
        <ActButton
          className="press press-quiet mt-1"
          aria-label={`Send again: ${title}`}
          onAct={() =>
            decideFor(booking, {
              ...{ do: 'steer', how: 'now' },
              message: nameOfMail(mail),
            })
          }
        >
          Send again
        </ActButton>
      )}
    </li>
  )
}

/** One that could not be sent, with whom it was for. */
export const NotSent = ({
  className,
  ...of
}: {
  className: string
  practice: Practice
  booking: Booking
  mail: SentMail
}) => (
  <li className={className}>
    <Link className="way" to={`/arrivals/${of.booking.id}`}>
      {of.booking.asked.person.name}
    </Link>
    <ul>
      <Gone {...of} />
    </ul>
  </li>
)
