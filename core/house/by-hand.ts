import type { Contact } from '../booking/index.ts'
import { languageFor } from '../messages/index.ts'
import {
  askingOf,
  codeRefused,
  personBehind,
  printOfShown,
  type Reckoned,
  Refused,
  reckon,
  shownOf,
  type Wish,
} from '../request/index.ts'
import { published } from './house.ts'
import { lookIn } from './spoken.ts'
import type { Work } from './work.ts'

/** What the practitioner wants reckoned for somebody, and the fingerprint of what was shown of it at the desk. */
export type ByHand = Wish & { person: Pick<Contact, 'email'>; shown?: string }

/** Reckons what the practitioner wants for somebody: as the person behind the address, where one is known by it. */
export function reckonByHand({ house, now }: Pick<Work, 'house' | 'now'>, body: ByHand): Reckoned {
  const { practice, people, salt } = published(house)
  const person = personBehind({ people, salt }, body.person.email)
  const who = { by: 'practitioner' as const, asking: askingOf(person, body.service), person: person?.id }
  return reckon(practice, body, who, { now, used: (code) => house.used(code) })
}

/**
 * Makes sure that the code can be used, and that it comes to what the desk has shown.
 * @param minutes the practitioner's own length
 * @returns the fingerprint of what is in force
 */
export function checkByHand(reckoned: Reckoned, { service, shown }: ByHand, minutes?: number): string {
  const { practice, reading, codeProblem } = reckoned
  if (codeProblem) throw codeRefused(codeProblem)
  const print = printOfShown(
    shownOf(practice, service, { ...reading.quote, minutes: minutes ?? reading.quote.minutes }),
  )
  if (shown === undefined || shown === print) return print
  throw new Refused(409, 'changed.written')
}

/** The same as whoever it is for reads it: what is kept of it, lines of the price among them, is in their language. */
export const readByThem = ({ house, now }: Work, body: ByHand & { person: Contact }): Reckoned =>
  lookIn(house, languageFor(published(house).practice, body.person), (there) =>
    reckonByHand({ house: there, now }, body),
  )
