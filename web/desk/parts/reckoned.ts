import { usesIn } from '@acolhida/core/booking'
import { normalMail, standingAt, tagsOf } from '@acolhida/core/people'
import { askingOf, printOfShown, type Reckoned, reckon, shownOf, type Wish } from '@acolhida/core/request'
import type { Instant } from '@acolhida/core/time'
import { bookingsOf, type Desk } from '../data/live.ts'

/**
 * What a wish of somebody on the phone comes to, as the relay will reckon it: as the person behind the address, and at a
 * newcomer's terms where nobody is known by it.
 */
export function reckonFor(desk: Desk, wish: Wish, email: string, now: Instant): Reckoned {
  const mail = normalMail(email)
  const person = desk.people.find((one) => one.emails.includes(mail))
  const own = person ? bookingsOf(desk.bookings, person) : []
  const known = person && {
    standing: standingAt(own, now),
    invited: person.invited,
    tags: tagsOf(person, own),
  }
  const who = {
    by: 'practitioner' as const,
    asking: askingOf(known, wish.service),
    person: person?.id,
  }
  return reckon(desk.practice, wish, who, { now, used: usesIn(desk.bookings, now) })
}

/** The fingerprint of what was shown of it. @param minutes the practitioner's own length */
export const printOf = ({ practice, service, reading }: Reckoned, minutes = reading.quote.minutes): string =>
  printOfShown(shownOf(practice, service.id, { ...reading.quote, minutes }))
