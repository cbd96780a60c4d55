import type { Asked, Contact } from '../booking/index.ts'
import { linesFor, payTimeOf, rulesFor } from '../practice/index.ts'
import type { Reading } from '../questions/index.ts'
import { zone } from '../time/index.ts'
import type { Reckoned } from './reckon.ts'

/** What a request has besides what was reckoned. */
export type Besides = Pick<
  Asked,
  'at' | 'place' | 'start' | 'proof' | 'attempts' | 'agreements' | 'until' | 'shown'
> & {
  person: Contact
  /** At the client's: where to come. */
  address?: string | undefined
  /** The place in line it comes from. */
  line?: string
  /** With what it was brought in from another place. */
  broughtIn?: string
  /** By hand, the practitioner's own length counts. */
  minutes?: number
  /** What counts at this start. */
  reading: Reading
}

/** The one maker of `asked`: a request as it goes into the record. */
export function askedOf(reckoned: Reckoned, besides: Besides): Asked {
  const { practice, service, questionnaire, answers, asking, extras, travel, code, tax } = reckoned
  const { address, minutes = besides.reading.quote.minutes, reading, person, ...rest } = besides
  const { phone, ...contact } = person
  const payment = linesFor(service, asking.standing)
  const first = payTimeOf(practice)
  return {
    type: 'asked',
    v: 2,
    ...rest,
    service: service.id,
    minutes,
    person: { ...contact, zone: zone(person.zone).name, ...(phone ? { phone } : {}) },
    asking,
    answers,
    ...(questionnaire ? { questionnaire: { id: questionnaire.id, version: questionnaire.version } } : {}),
    reading: { ...reading, quote: { ...reading.quote, minutes } },
    houseRules: rulesFor(practice, service),
    currency: practice.profile.currency,
    ...(tax && reading.quote.price > 0 ? { tax } : {}),
    ...(payment.length > 0 ? { payment } : {}),
    // Whoever is booked in by hand is booked.
    ...(first && reading.quote.price > 0 && rest.proof !== 'hand' ? { first } : {}),
    ...(extras.length > 0 ? { extras } : {}),
    ...(travel ? { travel: travel.id } : {}),
    ...(address ? { address } : {}),
    ...(code ? { code: code.id } : {}),
  }
}
