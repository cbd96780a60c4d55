import type { Booking } from '@acolhida/core/booking'
import { previewStep, segmentsOf } from '@acolhida/core/messages'
import type { Practice, SequenceStep } from '@acolhida/core/practice'
import { duration } from '@acolhida/core/time'
import { useState } from 'react'
import { relayNow } from '../../relay-client/clock.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { asOptions, PlainChoice } from '../parts/plain-field.tsx'
import { asUri } from '../parts/uri.ts'
import { counted } from '../parts/words.ts'
import { decideFor } from '../sync/acts.ts'
import { decideForAll } from '../sync/together.ts'
import { ChipText, FIELDS } from './chip-text.tsx'

type Way = 'email' | 'text' | 'own'

const WAYS = [
  { value: 'email', name: 'By mail' },
  { value: 'text', name: 'By text, through the gateway' },
  { value: 'own', name: 'By text, from my own phone' },
]

/** What is sent from one's own phone can hold no private link: only the relay makes those. */
const OWN_FIELDS = Object.fromEntries(
  Object.entries(FIELDS).filter(([name]) => !['link', 'coming', 'move', 'cancel', 'door'].includes(name)),
)

const asStep: SequenceStep = {
  ...{ id: 'by-hand', anchor: 'booked', by: duration('PT0S'), channel: 'text', text: '' },
}

/** Writing by hand to one or several: a text ready-made or new. It stands in the record of each. */
export function WriteTo({
  practice,
  bookings,
  close,
}: {
  practice: Practice
  bookings: readonly Booking[]
  close: () => void
}) {
  const [way, setWay] = useState<Way>('email')
  const [subject, setSubject] = useState('')
  const [body, setBody] = useState('')
  const [noted, setNoted] = useState<ReadonlySet<string>>(new Set())
  const act = useAct()
  const texts = practice.texts ?? []
  const names = bookings.map(({ asked }) => asked.person.name)
  const who = names.length === 1 ? names[0] : counted(names.length, 'person', 'people')
  const reached = bookings.filter(({ asked }) => way === 'email' || asked.person.phone)
  const unreached = bookings.length - reached.length
  const filledFor = (booking: Booking): string =>
    previewStep(practice, booking, asStep, { body }, relayNow()).text
  const send = async (): Promise<void> => {
    if (!body.trim()) throw new Error('Please write something first.')
    await decideForAll(reached, {
      ...{ do: 'write', subject: way === 'email' ? subject.trim() : '', text: body.trim() },
      channel: way === 'email' ? 'email' : 'text',
    })
  }
  const noteOwn = async (booking: Booking): Promise<void> => {
    await decideFor(booking, {
      do: 'write',
      channel: 'text',
      subject: '',
      text: filledFor(booking),
      own: true,
    })
    setNoted((now) => new Set([...now, booking.id]))
  }
  return (
    <Dialog title={`Write to ${who}`} close={close} wide>
      <div className="grid gap-3">
        <div className="grid gap-3 sm:grid-cols-2">
          <PlainChoice label="How" value={way} options={WAYS} onChange={(value) => setWay(value as Way)} />
          <PlainChoice
            label="Begin with"
            value=""
            options={[{ value: '', name: 'a new text' }, ...asOptions(texts)]}
            onChange={(id) => {
              const text = texts.find((one) => one.id === id)
              if (!text) return
              setSubject(text.subject ?? '')
              setBody(text.body)
            }}
          />
        </div>
        {way === 'email' && <ChipText label="Subject" value={subject} lines={1} onChange={setSubject} />}
        <ChipText
          key={way === 'own' ? 'own' : 'relay'}
          label="What you write"
          value={body}
          lines={6}
          fields={way === 'own' ? OWN_FIELDS : FIELDS}
          onChange={setBody}
        />
        {way !== 'email' && body && bookings[0] && (
          <p className="text-[13px] text-soft" role="status">
            {counted(segmentsOf(filledFor(bookings[0])).segments, 'segment', 'segments')} to {names[0]}.
          </p>
        )}
        {unreached > 0 && (
          <p className="note bg-sun-soft text-[14px] text-sun-ink">
            {counted(unreached, 'person has', 'people have')} no phone number and will not get it.
          </p>
        )}
        {way === 'own' ? (
          <ul className="grid gap-2" aria-label="To be sent from your phone">
            {body.trim() &&
              reached.map((booking) => (
                <li key={booking.id} className="flex flex-wrap items-center justify-between gap-3">
                  <a
                    className="way"
                    href={`sms:${booking.asked.person.phone?.replaceAll(/[^+\d]/g, '')}?body=${asUri(filledFor(booking))}`}
                  >
                    Write to {booking.asked.person.name}, {booking.asked.person.phone}
                  </a>
                  <button
                    type="button"
                    className="press press-quiet"
                    disabled={noted.has(booking.id)}
                    onClick={() => act.run(() => noteOwn(booking))}
                  >
                    {noted.has(booking.id) ? 'Noted' : 'I have sent it'}
                  </button>
                </li>
              ))}
          </ul>
        ) : (
          <button
            type="button"
            className="press press-go justify-self-start"
            disabled={act.busy || reached.length === 0}
            onClick={() => act.run(send, close)}
          >
            Send it to{' '}
            {reached.length === bookings.length ? who : counted(reached.length, 'person', 'people')}
          </button>
        )}
        <ProblemNote of={act} />
      </div>
    </Dialog>
  )
}
