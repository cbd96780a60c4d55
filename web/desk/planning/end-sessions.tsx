import type { Booking } from '@acolhida/core/booking'
import { clientClocks, type Practice } from '@acolhida/core/practice'
import { moment } from '@acolhida/core/time'
import { useState } from 'react'
import { db } from '../data/db.ts'
import type { BookingRow } from '../data/rows.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { PlainChoice } from '../parts/plain-field.tsx'
import { type GoesWith, goingWith, WordOrSilence } from '../parts/word.tsx'
import { counted, serviceName, when } from '../parts/words.ts'
import { decideEach, type ForEach } from '../sync/together.ts'

/** Of these bookings, those about which a mail has gone: their clients have them in their calendars. */
async function told(bookings: readonly Booking[]): Promise<Set<string>> {
  const mails = await db.mails
    .where('booking')
    .anyOf(bookings.map(({ id }) => id))
    .filter(({ state }) => state === 'sent')
    .toArray()
  return new Set(mails.map(({ booking }) => booking))
}

/**
 * Ends what is booked with somebody from one session on: all of them or, before that can't be taken back any more, none.
 * The first message tells of all; where nothing was told of a session by itself, no other goes.
 */
export function EndSessions({
  practice,
  coming,
  close,
}: {
  practice: Practice
  /** What is booked and still to come, in order. */
  coming: readonly BookingRow[]
  close: () => void
}) {
  const [from, setFrom] = useState(coming[0]!.id)
  const [said, setSaid] = useState<GoesWith>({ text: '' })
  const act = useAct()
  const at = Math.max(
    0,
    coming.findIndex(({ id }) => id === from),
  )
  const ending = coming.slice(at)
  const { name } = coming[0]!.asked.person
  const end = async (): Promise<void> => {
    const { text, silent } = goingWith(said)
    const known = await told(ending)
    // By the clock by which the client reads everything else of it.
    const dates = ending
      .map(
        ({ start, place, asked }) =>
          `– ${moment(start, clientClocks(practice, place, asked.person.zone).first)}`,
      )
      .join('\n')
    const each = ending.map((booking, i): ForEach => {
      const first = { text: [text.trim(), ending.length > 1 ? dates : ''].filter(Boolean).join('\n\n') }
      const goes = silent ? { text: '', silent } : i === 0 ? first : { text: '' }
      const quietly = i > 0 && !known.has(booking.id) ? { silent: true as const } : {}
      return { booking, command: { do: 'cancel', by: 'practitioner', ...goes, ...quietly } }
    })
    await decideEach(each)
  }
  return (
    <Dialog title={`End sessions with ${name}`} close={close}>
      <PlainChoice
        label="From this one on"
        value={from}
        options={coming.map(({ id, start, service }) => ({
          value: id,
          name: `${when(practice, start)}, ${serviceName(practice, service)}`,
        }))}
        onChange={setFrom}
      />
      <p className="mt-3 text-soft">
        {counted(ending.length, 'session is', 'sessions are')} cancelled, and their times become free again.{' '}
        {name} {said.silent ? 'is not told' : 'is told which'}, and owes nothing: it is you who cancels.
      </p>
      <WordOrSilence said={said} onChange={setSaid} />
      <button
        type="button"
        className="press press-no mt-3"
        disabled={act.busy}
        onClick={() => act.run(end, close)}
      >
        Cancel {counted(ending.length, 'session', 'sessions')}
      </button>
      <ProblemNote of={act} />
    </Dialog>
  )
}
