import {
  addressTold,
  type Booking,
  othersOf as concerned,
  costOf,
  deadlinesIn,
  isEnded,
  isHeld,
  isPlaced,
  movable,
  openOnAsking,
  planOf,
  readiness,
  type State,
  seenAt,
  stateAt,
  stillFirst,
} from '../booking/index.ts'
import type { ClockNames, LinkView } from '../contract/link-types.ts'
import { accountOf, transferTo } from '../ledger/index.ts'
import { plainAnswers, prepareBy, questionsOfBooking } from '../messages/index.ts'
import { decimals } from '../money/currency.ts'
import { clientClocks, type Practice, placeOf, serviceOf, ticksBefore, zoneOf } from '../practice/index.ts'
import { courseAt } from '../preparing/index.ts'
import { stillHolding, withoutPoints } from '../questions/index.ts'
import { printOfBooking } from '../request/index.ts'
import type { Instant } from '../time/index.ts'
import { doorLacking, toldAgreements, toldSince } from './agreeing.ts'
import type { Link } from './changes.ts'
import { type House, published } from './house.ts'
import { placesToMove } from './moving.ts'
import { cardAsked, payableNow } from './payable.ts'

/** The answers that the client may read again. */
const answersShown = (practice: Practice, booking: Booking): NonNullable<LinkView['answers']> =>
  plainAnswers(practice, booking)
    .filter(({ question }) => question.shownAgain)
    .map(({ question, answer }) => ({ question: withoutPoints(question), answer }))

/** What cancelling would cost the client now, in percent, as they see their booking. */
export function costNow(house: House, booking: Booking, now: Instant): number {
  const { practice } = published(house)
  const seen = seenAt(booking, now)
  return costOf(seen, zoneOf(practice, placeOf(practice, seen.place)), now)
}

/** Whether what was said last was said by the practitioner: a client's words come with what they refuse or cancel. */
const saidByPractitioner = ({ status, offers, cancelledBy }: Booking): boolean =>
  cancelledBy !== 'client' && (status !== 'requested' || offers.length > 0)

/** By whose clocks a client reads the times of a session. */
export function clockNames(practice: Practice, place: string, client: string): ClockNames {
  const { first, also } = clientClocks(practice, place, client)
  return { first: first.name, ...(also ? { also: also.name } : {}) }
}

/** What is to be paid of a booking, as its client reads it. */
function moneyOf(practice: Practice, booking: Booking, now: Instant): Pick<LinkView, 'money'> {
  const { paid, givenBack, open, owed, lines } = accountOf(booking)
  const promised = lines.reduce((sum, { what, amount }) => (what === 'mine' ? sum - amount : sum), 0)
  const there = zoneOf(practice, placeOf(practice, booking.place))
  const waits = stateAt(booking, now)
  const first = isHeld(waits) ? stillFirst(booking, there) : undefined
  const onAsking = waits.is === 'waiting' ? openOnAsking(booking) : 0
  const held = waits.is === 'unpaid' ? (first?.amount ?? 0) : onAsking || Math.min(0, open)
  const left = booking.status === 'requested' ? held : open
  if (booking.price === 0 && owed === 0 && paid === 0) return {}
  const { transfer: to } = practice
  const byCard = payableNow(practice, booking, now)
  const plan = booking.status === 'requested' || booking.status === 'booked'
  return {
    money: {
      plan: plan
        ? planOf(booking, there).map(({ amount, due }) => ({
            amount,
            due,
          }))
        : [],
      ...(first ? { first } : {}),
      paid: paid - givenBack,
      ...(givenBack > 0 && paid > 0 ? { back: givenBack } : {}),
      ...(promised > 0 ? { promised } : {}),
      open: left,
      ...(byCard > 0 ? { byCard } : {}),
      ...(to && left > 0 ? { transfer: transferTo(to, booking, left, booking.asked.currency) } : {}),
    },
  }
}

/** Where a session can be moved to, where that is more than one place. */
function placesOf(practice: Practice, booking: Booking): { places?: { id: string; name: string }[] } {
  const places = placesToMove(practice, booking).map((id) => ({
    id,
    name: placeOf(practice, id)?.name ?? id,
  }))
  return places.length > 1 ? { places } : {}
}

/** The card that is asked for, or is here. */
function cardOf(practice: Practice, booking: Booking, state: State): Pick<LinkView, 'card'> {
  const asked = cardAsked(practice, booking, state)
  if (asked) return { card: { asked } }
  const { card } = booking
  return card ? { card: { ends: card.ends, expires: card.expires, kept: card.key !== undefined } } : {}
}

/** What is to be read or done before a session that is still to come. */
function beforeOf(practice: Practice, booking: Booking, state: State): Pick<LinkView, 'before'> {
  const before = serviceOf(practice, booking.service)?.before
  if (!before || state.is !== 'booked' || state.begun) return {}
  const { text, address, tick } = before
  const by = prepareBy(practice, booking)
  return {
    before: {
      text,
      ...(address ? { address } : {}),
      ...(tick ? { tick, done: booking.prepared !== undefined } : {}),
      ...(by === undefined ? {} : { by }),
    },
  }
}

/** How much there is to do before a session, of what was given with it. */
function toDoOf(house: House, booking: Booking, now: Instant): Pick<LinkView, 'toDo'> {
  const course = booking.course && house.course(booking.course.id)
  if (!course) return {}
  const { of, done, over } = courseAt(published(house).practice, course, booking, now)
  return over || of === 0 ? {} : { toDo: { left: of - done, of } }
}

/** What was asked of the till last, unless it has come to its end well. */
function tillOf({ till = [] }: Booking): Pick<LinkView, 'till'> {
  const last = till.at(-1)
  if (!last || last.what === 'charge' || last.is === 'paid' || last.is === 'kept') return {}
  return { till: { what: last.what, is: last.is, amount: last.amount, text: last.text ?? '' } }
}

/** What else is open of whoever holds a link, once it is proved that the address is theirs; in order of time. */
export const siblingsOf = (house: House, { id, asked, mailProved }: Booking): Booking[] => {
  return mailProved
    ? house
        .bookingsOf(asked.person.email)
        .filter((one) => one.id !== id && one.mailProved)
        .sort((a, b) => a.start - b.start)
    : []
}

/** Those of them that are still to come. */
const othersOf = (house: House, booking: Booking, now: Instant): LinkView['others'] => {
  const { practice } = published(house)
  return siblingsOf(house, booking).flatMap((one) => {
    const seen = seenAt(one, now)
    const state = stateAt(seen, now)
    if (isEnded(state) || seen.start < now) return []
    return {
      booking: one.id,
      service: serviceOf(practice, seen.service)?.name ?? 'Session',
      start: seen.start,
      minutes: seen.minutes,
      state: state.is,
      clocks: clockNames(practice, seen.place, seen.asked.person.zone),
    }
  })
}

/**
 * Where things stand, for the one who holds the link. Everything is told of the booking as it is seen.
 * @param theirs whether they are shown to be the one whose address it is; only then others of theirs are told
 */
export function linkView(
  house: House,
  { booking, theirs, as }: { booking: Booking; theirs: boolean; as?: Link['as'] | undefined },
  now: Instant,
): LinkView {
  const view = wholeView(house, { booking, theirs }, now)
  return as ? viewFor(as, { ...view, agreements: toldSince(published(house).practice, booking) }) : view
}

/** What was confided or agreed to in asking, and what who asked alone decides: nobody else is told of it. */
const OF_WHO_ASKED = ['answersBefore', 'answers', 'question', 'plea', 'canPlead', 'again', 'move'] as const
/** What is told to one of those whom it concerns, and not to the other. */
const OF_WHO_COMES = ['toAgree', 'unagreed', 'toDo', 'coming', 'before', 'afterwards'] as const
const OF_WHO_PAYS = ['money', 'card', 'till', 'invoices'] as const

/** What somebody else than who asked is told: who comes nothing of money, and who pays nothing but that. */
function viewFor(as: NonNullable<Link['as']>, view: LinkView): LinkView {
  const told: LinkView = { ...view, offers: [], unwanted: [], as }
  for (const part of [...OF_WHO_ASKED, ...(as === 'comes' ? OF_WHO_PAYS : OF_WHO_COMES)]) delete told[part]
  return as === 'comes' ? told : { ...told, text: '', agreements: [] }
}

function wholeView(
  house: House,
  { booking, theirs }: { booking: Booking; theirs: boolean },
  now: Instant,
): LinkView {
  const { practice } = published(house)
  const seen = seenAt(booking, now)
  const state = stateAt(seen, now)
  const { asked } = seen
  const { comes, pays } = concerned(seen)
  const place = placeOf(practice, seen.place)
  const there = zoneOf(practice, place)
  const { deadlines, shareAfter, mine } = deadlinesIn(seen, there)
  const may = movable(seen, there)
  const address = addressTold(practice, seen, now)
  const shareNow = costNow(house, booking, now)
  const lacking = doorLacking(house, seen, now)
  const afterwards = serviceOf(practice, seen.service)?.afterwards
  return {
    slug: practice.profile.slug,
    practitioner: practice.profile.name,
    service: serviceOf(practice, seen.service)?.name ?? 'Session',
    minutes: seen.minutes,
    place: place?.name ?? '',
    placeId: seen.place,
    clocks: clockNames(practice, seen.place, asked.person.zone),
    ...(address ? { address } : {}),
    ...(!address && place?.address && place.kind !== 'phone' && place.told !== 'door'
      ? { later: place.told }
      : {}),
    start: seen.start,
    state: state.is,
    until: seen.until,
    shown: printOfBooking(seen, shareNow),
    offers: seen.offers.map((offer) => ({
      ...offer,
      placeName: placeOf(practice, offer.place)?.name ?? '',
      clocks: clockNames(practice, offer.place, asked.person.zone),
    })),
    mailProved: booking.mailProved,
    ...(booking.unproved && booking.asked.unheld ? { unheld: true } : {}),
    name: asked.person.name,
    ...(comes ? { comes: comes.name } : {}),
    ...(pays ? { pays: pays.name } : {}),
    zone: asked.person.zone,
    // What the client has written does not come back under the practitioner's name.
    text: saidByPractitioner(seen) ? seen.text : '',
    price: seen.price,
    deposit: seen.deposit,
    currency: { code: asked.currency, decimals: decimals(asked.currency) },
    deadlines,
    shareAfter,
    ...(mine ? { mine } : {}),
    shareNow,
    ...(state.is === 'booked' && !state.begun && may && now <= may.until
      ? { move: { ...may, ...placesOf(practice, seen) } }
      : {}),
    ...(state.is === 'cancelled' ? { cancelledBy: state.by } : {}),
    share: seen.share,
    readiness: readiness(seen, lacking.length > 0, ticksBefore(practice, seen)),
    ...(lacking.length > 0 ? { toAgree: lacking, unagreed: practice.unagreed ?? 'may' } : {}),
    agreements: toldAgreements(practice, seen),
    ...(isPlaced(state) && afterwards ? { afterwards } : {}),
    ...(isPlaced(state)
      ? {
          again: seen.service,
          answersBefore: stillHolding(questionsOfBooking(practice, booking), asked.answers),
        }
      : {}),
    ...(seen.question
      ? {
          question: {
            text: seen.question.text,
            ...(seen.question.reply ? { reply: seen.question.reply.text } : {}),
          },
        }
      : {}),
    ...(seen.plea
      ? {
          plea: {
            text: seen.plea.text,
            ...(seen.plea.answer ? { granted: seen.plea.answer.granted } : {}),
          },
        }
      : {}),
    ...(state.is === 'booked' && !state.begun && !seen.plea && (shareNow > 0 || !may || now > may.until)
      ? { canPlead: true }
      : {}),
    ...beforeOf(practice, seen, state),
    ...toDoOf(house, seen, now),
    ...(state.is === 'booked' && !state.begun ? { coming: seen.coming !== undefined } : {}),
    unwanted: seen.unwanted ?? [],
    ...(state.is === 'booked' && !state.over && seen.runsLate ? { late: seen.runsLate.minutes } : {}),
    ...(seen.invoices ? { invoices: seen.invoices } : {}),
    ...cardOf(practice, seen, state),
    ...tillOf(seen),
    ...(state.is === 'lapsed' && seen.owes ? { lapsedUnpaid: true } : {}),
    ...moneyOf(practice, seen, now),
    others: theirs ? othersOf(house, booking, now) : [],
    answers: answersShown(practice, booking),
    now,
  }
}
