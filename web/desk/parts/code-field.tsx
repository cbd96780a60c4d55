import { usesIn } from '@acolhida/core/booking'
import { normalMail } from '@acolhida/core/people'
import { findCode, type PriceCode } from '@acolhida/core/practice'
import { dateAt, type Instant } from '@acolhida/core/time'
import type { Desk } from '../data/live.ts'
import { PlainField } from './plain-field.tsx'
import { homeZone } from './words.ts'

/** The price code that was typed for somebody, or in words why it can't be used; nothing where none was. */
export function codeTyped(
  desk: Desk,
  typed: string,
  about: { service: string; email: string },
  now: Instant,
): PriceCode | string | undefined {
  if (!typed.trim()) return undefined
  const mail = normalMail(about.email)
  return findCode(desk.practice, typed, {
    service: about.service,
    today: dateAt(homeZone(desk.practice), now),
    person: desk.people.find((one) => one.emails.includes(mail))?.id,
    used: usesIn(desk.bookings, now),
  })
}

/** A field for a price code, where there are any. */
export function CodeField({
  desk,
  value,
  found,
  onChange,
}: {
  desk: Desk
  value: string
  found: PriceCode | string | undefined
  onChange: (value: string) => void
}) {
  if ((desk.practice.codes ?? []).length === 0) return null
  return (
    <div>
      <PlainField label="Code" value={value} onChange={onChange} />
      {typeof found === 'string' && (
        <p role="alert" className="mt-1 text-[14px] font-semibold text-clay">
          {found}
        </p>
      )}
    </div>
  )
}
