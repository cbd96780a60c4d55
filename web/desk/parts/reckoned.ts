import { usesIn } from '@acolhida/core/booking'
import { normalMail, standingFrom } from '@acolhida/core/people'
import type { Practice } from '@acolhida/core/practice'
import { askingOf, printOfShown, type Reckoned, reckon, shownOf, type Wish } from '@acolhida/core/request'
import type { Instant, Language } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import type { DeskDatabase } from '../data/database.ts'
import { db } from '../data/db.ts'
import { bookingsOf, personOfMail } from '../data/people.ts'
import type { BookingRow, PersonRow } from '../data/rows.ts'

/** Who stands behind an address, and whose bookings use price codes: what a wish is reckoned with. */
export interface Behind {
  person: PersonRow | undefined
  withCode: readonly BookingRow[]
  /** The language they read in, as far as they have ever said. */
  language?: Language
}

const NOBODY: Behind = { person: undefined, withCode: [] }

/** Looks up who stands behind an address. */
export async function behind(from: DeskDatabase, email: string): Promise<Behind> {
  const person = await personOfMail(from, email)
  const withCode = await from.bookings.orderBy('code').toArray()
  const theirs = person ? await bookingsOf(from, person) : []
  const latest = theirs.reduce<BookingRow | undefined>((a, b) => (a && a.at > b.at ? a : b), undefined)
  const language = latest?.language ?? latest?.asked.person.language
  return { person, withCode, ...(language ? { language } : {}) }
}

/** As `behind`, live. */
export const useBehind = (email: string): Behind =>
  useLiveQuery(() => behind(db, email), [normalMail(email)]) ?? NOBODY

/**
 * What a wish of somebody on the phone comes to, as the relay will reckon it: as the person behind the address, and at a
 * newcomer's terms where nobody is known by it.
 */
export function reckonFor(
  practice: Practice,
  wish: Wish,
  { person, withCode }: Behind,
  now: Instant,
): Reckoned {
  const known = person && {
    standing: standingFrom(person.knownFrom, now),
    invited: person.invited,
    tags: person.allTags,
  }
  const who = {
    by: 'practitioner' as const,
    asking: askingOf(known, wish.service),
    person: person?.id,
  }
  return reckon(practice, wish, who, { now, used: usesIn(withCode, now) })
}

/** The fingerprint of what was shown of it. @param minutes the practitioner's own length */
export const printOf = ({ practice, service, reading }: Reckoned, minutes = reading.quote.minutes): string =>
  printOfShown(shownOf(practice, service.id, { ...reading.quote, minutes }))
