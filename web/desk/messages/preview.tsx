import type { Booking } from '@acolhida/core/booking'
import { DOOR_TOKEN, LINK_TOKEN, previewStep, segmentsOf, stepsOf } from '@acolhida/core/messages'
import {
  languagesOf,
  type MessageText,
  type Practice,
  type SequenceStep,
  serviceOf,
} from '@acolhida/core/practice'
import { dateAt, isZone, languageName, moment, shortDate, zone } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { useMinute } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import { PlainChoice } from '../parts/plain-field.tsx'
import { counted, homeZone, serviceName } from '../parts/words.ts'
import { exampleBooking, somebody } from './example.ts'

/** How many real bookings can be looked at. */
const SOME = 12

/** A text as somebody would read it on their phone: for somebody new, or for a booking there is. */
export function Preview({
  practice,
  services,
  step,
  text,
}: {
  practice: Practice
  /** Which services it goes around. */
  services: readonly string[]
  step: SequenceStep
  text: MessageText
}) {
  const now = useMinute()
  const [whom, setWhom] = useState('')
  const [language, setLanguage] = useState(languagesOf(practice)[0] ?? 'en')
  const rows = useLiveQuery(() => db.bookings.where('start').above(now).limit(60).toArray(), []) ?? []
  const own = rows.filter((row) => services.includes(row.service) && row.status === 'booked').slice(0, SOME)
  const service = serviceOf(practice, services[0] ?? '') ?? practice.services[0]
  if (!service) return null
  const real = own.find(({ id }) => id === whom)
  const booking: Booking = real ?? exampleBooking(practice, service, somebody(practice, language), now)
  const { person } = booking.asked
  const plan = stepsOf(booking, practice).find((one) => one.step.id === step.id)
  const at = plan?.at ?? now
  const letter = previewStep(practice, booking, step, text, at)
  const there = isZone(person.zone) ? zone(person.zone) : homeZone(practice)
  const { segments, because } = segmentsOf(letter.text)
  return (
    <section aria-label="As they read it" className="grid h-fit gap-3">
      <div className="grid gap-3 sm:grid-cols-2">
        <PlainChoice
          label="As it reads for"
          value={whom}
          options={[
            { value: '', name: 'somebody new' },
            ...own.map((row) => ({
              value: row.id,
              name: `${row.asked.person.name}, ${shortDate(dateAt(homeZone(practice), row.start))}`,
            })),
          ]}
          onChange={setWhom}
        />
        {!real && languagesOf(practice).length > 1 && (
          <PlainChoice
            label="Who reads"
            value={language}
            options={languagesOf(practice).map((value) => ({ value, name: languageName(value) }))}
            onChange={setLanguage}
          />
        )}
      </div>
      <div className="mx-auto w-full max-w-[340px] rounded-[22px] border-[6px] border-ink/80 bg-card p-4 text-[14px]">
        <p className="text-[12px] text-soft">
          {step.channel === 'text' ? `Text to ${person.phone ?? 'no number'}` : `To ${person.email}`} ·{' '}
          {moment(at, there)}
        </p>
        {letter.subject && <p className="mt-1 font-semibold wrap-anywhere">{letter.subject}</p>}
        <p className="mt-2 whitespace-pre-line wrap-anywhere" dir="auto">
          {letter.text
            .replaceAll(LINK_TOKEN, 'https://…/my/…')
            .replaceAll(DOOR_TOKEN, `https://…/${practice.profile.slug}`)}
        </p>
      </div>
      {step.channel === 'text' && (
        <p className="text-[14px] text-soft">
          {counted(segments, 'segment', 'segments')}
          {because ? `; “${because}” takes more room than plain letters` : ''}, without the whole link.
        </p>
      )}
      <p className="text-[13px] text-soft">{serviceName(practice, booking.service)}</p>
    </section>
  )
}
