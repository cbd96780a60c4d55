import {
  asSeen,
  type Booking,
  type Command,
  cancelShare,
  deadlinesOf,
  decide,
  isTold,
  readiness,
} from '@acolhida/core/booking'
import type { LinkView } from '@acolhida/core/door'
import { decimals } from '@acolhida/core/money/currency'
import { type Practice, placeOf, questionnaireOf, serviceOf, zoneOf } from '@acolhida/core/practice'
import { type Question, stillHolding, withoutPoints } from '@acolhida/core/questions'
import type { Instant } from '@acolhida/core/time'
import { type DoorAddress, happen } from '../happen.ts'
import { Refused } from '../refused.ts'
import type { Store } from '../store/store.ts'
import { circumstances, published } from './circumstances.ts'

function open(store: Store, secret: string): { booking: Booking; proves: boolean } {
  const link = store.link(secret)
  const booking = link && store.booking(link.booking)
  if (!link || !booking) {
    throw new Refused(
      404,
      'unknown-link',
      'This link leads nowhere. Please open the newest mail about your booking.',
    )
  }
  return { booking, proves: link.proves }
}

/** What a refusal of the core is to the one who holds the link, or the desk. */
export function carryOut(
  store: Store,
  address: DoorAddress,
  booking: Booking,
  command: Command,
  now: Instant,
): Booking {
  const decision = decide(booking, command, circumstances(store, booking, now))
  if ('refused' in decision) throw new Refused(409, decision.refused.code, decision.refused.message)
  if (decision.events.length === 0) return booking
  return happen(store, published(store).practice, address, booking.id, decision.events, now)
}

/** Does one thing through a private link. Runs inside `store.act`. */
export function throughLink(
  store: Store,
  address: DoorAddress,
  secret: string,
  command: Extract<Command, { do: 'prove' | 'accept' | 'refuse' | 'withdraw' | 'cancel' }>,
  now: Instant,
): void {
  const { booking, proves } = open(store, secret)
  // Only the link in the mail shows that the mail arrived; the one the page got at sending does not.
  if (command.do === 'prove' && !proves) return
  carryOut(store, address, booking, command, now)
}

/** The questions of a booking, where the questionnaire is still the one it answered. */
function questionsOfBooking(practice: Practice, { asked }: Booking): Question[] {
  const service = serviceOf(practice, asked.service)
  const questionnaire = service && questionnaireOf(practice, service)
  return questionnaire?.id === asked.questionnaire?.id ? (questionnaire?.questions ?? []) : []
}

/** The answers that the client may read again. */
const answersShown = (practice: Practice, booking: Booking): NonNullable<LinkView['answers']> =>
  questionsOfBooking(practice, booking).flatMap((question) => {
    const answer = booking.asked.answers[question.id]
    return question.shownAgain && !question.private && answer !== undefined
      ? [{ question: withoutPoints(question), answer }]
      : []
  })

/** Where things stand, for the one who holds the link. */
export function linkView(store: Store, secret: string, now: Instant): LinkView {
  const { booking } = open(store, secret)
  const { practice } = published(store)
  const { asked } = booking
  const place = placeOf(practice, booking.place)
  const there = zoneOf(practice, place)
  const { deadlines, shareAfter } = deadlinesOf(asked.houseRules, booking.start, there)
  const shown = asSeen(booking, now)
  const address =
    place?.kind === 'client' ? asked.address : place && isTold(place, shown, now) ? place.address : undefined
  return {
    slug: practice.profile.slug,
    practitioner: practice.profile.name,
    service: serviceOf(practice, asked.service)?.name ?? 'Session',
    minutes: asked.minutes,
    place: place?.name ?? '',
    ...(address ? { address } : {}),
    start: shown.start,
    status: shown.status === 'requested' && now > shown.until ? 'lapsed' : shown.status,
    until: shown.until,
    offers: shown.offers.map((one) => ({ ...one, placeName: placeOf(practice, one.place)?.name ?? '' })),
    mailProved: booking.mailProved,
    name: asked.person.name,
    zone: asked.person.zone,
    text: shown.text,
    price: asked.reading.quote.price,
    currency: { code: asked.currency, decimals: decimals(asked.currency) },
    deadlines,
    shareAfter,
    shareNow: cancelShare(asked.houseRules, booking.start, there, now),
    ...(shown.cancelledBy ? { cancelledBy: shown.cancelledBy } : {}),
    share: shown.share,
    readiness: readiness(shown),
    ...(['booked', 'attended', 'missed'].includes(shown.status)
      ? {
          again: asked.service,
          answersBefore: stillHolding(questionsOfBooking(practice, booking), asked.answers),
        }
      : {}),
    answers: answersShown(practice, booking),
    now,
  }
}
