import type { Booking, DeskDoes } from '@acolhida/core/booking'
import { type Outlook, stepsOf, type WhySkipped } from '@acolhida/core/messages'
import type { Practice } from '@acolhida/core/practice'
import { useState } from 'react'
import { ActButton, ProblemNote, useAct } from '../parts/act.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { when } from '../parts/words.ts'
import { decideFor } from '../sync/acts.ts'
import { ChipText } from './chip-text.tsx'
import { stepTitle } from './titles.ts'

/** Why a message does not go, in words. */
export const WHY_NOT: Readonly<Record<WhySkipped, string>> = {
  past: 'its moment had passed when it was booked',
  quiet: 'quiet hours leave no moment for it',
  condition: 'what it asks for does not hold',
  confirmed: 'they have said already that they come',
  paused: 'all of it rests',
  hushed: 'nothing of the kind is sent to them',
  unwanted: 'they do not want it',
  begun: 'the session begins first',
  unproved: 'the address has not been shown to be theirs',
  'booked-again': 'they have booked again, or been here since',
}

/** Why something failed or was let go, as the relay has noted it, in words. */
export function reasonWords(reason: string): string {
  const known: Readonly<Record<string, string>> = {
    ...WHY_NOT,
    'no-phone': 'no phone number is known',
    'too-late': 'it could not go while it was of use',
    'no-use': 'it was of no use any more',
    'no-gateway': 'the relay has no gateway for texts',
    'refused no-gateway': 'the relay has no gateway for texts',
  }
  return known[reason] ?? (reason.startsWith('refused ') ? `refused for good: ${reason.slice(8)}` : reason)
}

const FAILS = {
  'no-phone': 'It will fail: no phone number is known.',
  bounced: 'It will fail: their address has refused the last mail.',
} as const

/** What becomes of one message, in words. */
export function outlookWords(practice: Practice, { is, at, why }: Outlook): string {
  if (is === 'skipped') return `does not go: ${why ? WHY_NOT[why] : 'it is not wanted'}`
  if (is === 'held') return `held back; would go ${when(practice, at)}`
  if (is === 'draft') return `laid before you ${when(practice, at)}`
  return is === 'joined' ? 'goes with another message' : `goes ${when(practice, at)}`
}

export const failsWords = ({ fails }: Outlook): string | undefined => fails && FAILS[fails]

type Steer = Extract<DeskDoes, { do: 'steer' }>['how']

/** What can be done with a message that has not gone: held back, let go, sent now, rewritten. */
export function Steering({ practice, booking, of }: { practice: Practice; booking: Booking; of: Outlook }) {
  const [editing, setEditing] = useState(false)
  if (of.to === 'practitioner' || of.is === 'joined') return null
  const steer = (how: Steer): Promise<void> => decideFor(booking, { do: 'steer', message: of.message, how })
  const title = stepTitle(practice, of.step)
  const name = `${title} to ${booking.asked.person.name}`
  return (
    <span className="flex flex-wrap gap-1.5">
      {of.is === 'planned' && (
        <ActButton
          className="press press-quiet"
          aria-label={`Hold back: ${name}`}
          onAct={() => steer('hold')}
        >
          Hold back
        </ActButton>
      )}
      {of.is === 'held' && (
        <ActButton
          className="press press-quiet"
          aria-label={`Let go: ${name}`}
          onAct={() => steer('release')}
        >
          Let it go
        </ActButton>
      )}
      {of.is === 'draft' && (
        <ActButton className="press press-quiet" aria-label={`Put away: ${name}`} onAct={() => steer('hold')}>
          Put away
        </ActButton>
      )}
      <ActButton className="press press-quiet" aria-label={`Send now: ${name}`} onAct={() => steer('now')}>
        Send now
      </ActButton>
      {of.step.startsWith('step:') && (
        <button
          type="button"
          className="press press-quiet"
          aria-label={`Rewrite: ${name}`}
          onClick={() => setEditing(true)}
        >
          Rewrite …
        </button>
      )}
      {editing && <Rewrite practice={practice} booking={booking} of={of} close={() => setEditing(false)} />}
    </span>
  )
}

/** One message said otherwise, this once. */
function Rewrite({
  practice,
  booking,
  of,
  close,
}: {
  practice: Practice
  booking: Booking
  of: Outlook
  close: () => void
}) {
  const plan = stepsOf(booking, practice).find(({ name }) => name === of.step)
  const text = practice.texts?.find(({ id }) => id === plan?.step.text)
  const before = booking.steered?.[of.message]
  const [subject, setSubject] = useState(before?.subject ?? text?.subject ?? '')
  const [body, setBody] = useState(before?.text ?? text?.body ?? '')
  const act = useAct()
  return (
    <Dialog title={`To ${booking.asked.person.name}: ${text?.name ?? ''}`} close={close} wide>
      <div className="grid gap-3">
        {of.channel === 'email' && (
          <ChipText label="Subject" value={subject} lines={1} onChange={setSubject} />
        )}
        <ChipText label="What it says, this once" value={body} lines={8} onChange={setBody} />
        <button
          type="button"
          className="press press-go justify-self-start"
          disabled={act.busy}
          onClick={() =>
            act.run(
              () =>
                decideFor(booking, {
                  ...{ do: 'steer', message: of.message, how: 'edit', text: body },
                  ...(of.channel === 'email' ? { subject } : {}),
                }),
              close,
            )
          }
        >
          Keep it so
        </button>
        <ProblemNote of={act} />
      </div>
    </Dialog>
  )
}
