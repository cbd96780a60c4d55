import { bookingSubject } from '../agenda/index.ts'
import {
  type Booking,
  type BookingEvent,
  canBeMissed,
  type DeskDoes,
  givesForCancelling,
  MARK_WORDS,
  stateAt,
  undoableAt,
  whereAt,
} from '../booking/index.ts'
import { askingIn, questionsAsked } from '../booking/judged.ts'
import type { DaySession, DayView, WordView } from '../contract/desk-types.ts'
import { decimals } from '../money/currency.ts'
import { type Practice, placeOf, serviceOf, zoneOf } from '../practice/index.ts'
import { answerWords, asked, asksSomething, isAttached, isSealed } from '../questions/index.ts'
import { personBehind, printOfBooking, Refused } from '../request/index.ts'
import { addDays, dateAt, dayNumber, type Instant, zone } from '../time/index.ts'
import { type House, published } from './house.ts'
import { decidedOn } from './link.ts'
import { happen, type Work } from './work.ts'

/** How many days the day on the phone shows: today and tomorrow. */
const DAYS = 2

/** The request behind a word link. @throws Refused when it leads nowhere */
export function requestBehind(house: House, hash: string): Booking {
  const link = house.link(hash)
  const booking = link?.word ? house.booking(link.subject.id) : undefined
  if (!booking) throw new Refused(404, 'unknown-word')
  return booking
}

const undoOf = (booking: Booking, now: Instant): Pick<WordView, 'undo'> => {
  const undo = undoableAt(booking, now)
  return undo ? { undo } : {}
}

/** One request as its practitioner reads it away from the desk. Private answers are never in it. */
export function wordView(house: House, booking: Booking, now: Instant): WordView {
  const { practice, people, salt } = published(house)
  const { asked: given, question } = booking
  const questions = questionsAsked(practice, booking)
  const open = asked(questions, given.answers, askingIn(booking)).questions.filter(
    (one) => asksSomething(one) && !one.private && given.answers[one.id] !== undefined,
  )
  const person = personBehind({ people, salt }, given.person.email)
  // What has been answered is answered: only what was decided is told any more.
  const { is } = stateAt(booking, now)
  const undo = undoOf(booking, now)
  const stillOpen = is === 'waiting' || undo.undo !== undefined
  const secret = new Set(questions.filter((one) => one.private).map(({ id }) => id))
  return {
    booking: booking.id,
    practitioner: practice.profile.name,
    name: given.person.name,
    known: person?.standing === 'known',
    service: serviceOf(practice, booking.service)?.name ?? booking.service,
    minutes: booking.minutes,
    price: booking.price,
    currency: { code: given.currency, decimals: decimals(given.currency) },
    place: placeOf(practice, booking.place)?.name ?? '',
    placeId: booking.place,
    start: booking.start,
    zone: practice.profile.zone,
    clientZone: given.person.zone,
    state: is,
    until: booking.until,
    outcome: booking.overruled?.outcome ?? given.reading.outcome,
    reasons: !stillOpen
      ? []
      : [
          ...booking.marks.map((mark) => MARK_WORDS[mark]),
          ...given.reading.reasons
            .filter(({ questions: of }) => !of.some((id) => secret.has(id)))
            .map(({ note, name }) => note || name),
        ],
    answers: (stillOpen ? open : []).map((one) => {
      const answer = given.answers[one.id]
      const words = isAttached(answer) ? answer.name : isSealed(answer) ? '' : answerWords(one, answer)
      return { question: one.text, answer: words }
    }),
    attempts: given.attempts.length,
    ...(question
      ? { question: { text: question.text, ...(question.reply ? { reply: question.reply.text } : {}) } }
      : {}),
    ...undo,
    text: booking.text,
    shown: printOfBooking(booking),
    now,
  }
}

/** What is decided away from the desk says so in the record. */
const away = (event: BookingEvent): BookingEvent => ('settles' in event ? { ...event, away: true } : event)

/** What is decided away from the desk, on what was shown there. */
export interface SaidAway {
  command: DeskDoes
  seen: string
}

function decideAway(work: Work, booking: Booking, { command, seen }: SaidAway): void {
  work.subject = bookingSubject(booking.id)
  const events = decidedOn(work, booking, command, { current: seen === printOfBooking(booking) })
  if (events.length > 0) happen(work, booking.id, events.map(away))
}

/** Decides one request by its word link. What has been decided and has settled is decided. */
export function throughWord(
  work: Work,
  { hash, ...body }: SaidAway & { hash: string },
): Record<string, never> {
  const { house, now } = work
  const booking = requestBehind(house, hash)
  const { is } = stateAt(booking, now)
  if (body.command.do !== 'take-back' && is !== 'waiting' && !undoableAt(booking, now))
    throw new Refused(409, 'word-used')
  decideAway(work, booking, body)
  return {}
}

/** Decides something on the paired phone. */
export function onPhone(work: Work, { booking: id, ...body }: SaidAway & { booking: string }) {
  const booking = work.house.booking(id)
  if (!booking) throw new Refused(404, 'unknown-booking')
  decideAway(work, booking, body)
  return {}
}

/** Ends every word link there is. */
export function endWords({ changes }: Work, _: Record<string, never>): Record<string, never> {
  changes.push({ type: 'words-ended' })
  return {}
}

/** What the practitioner's own part would give the client now. */
function givesOf(practice: Practice, booking: Booking, now: Instant): Pick<DaySession, 'gives'> {
  const { mine } = booking.asked.houseRules
  if (!mine || booking.price === 0 || booking.status !== 'booked') return {}
  const cancelling = givesForCancelling(booking, zoneOf(practice, placeOf(practice, booking.place)), now)
  return { gives: { cancelling, after: mine.grace, late: mine.late } }
}

/** Today's sessions and tomorrow's, and what awaits a word. */
export function dayView(house: House, now: Instant): DayView {
  const { practice } = published(house)
  const { profile } = practice
  const home = zone(profile.zone)
  const today = dateAt(home, now)
  const [from, to] = [today, addDays(today, DAYS)].map((date) => home.toInstant(dayNumber(date), 0))
  const sessions: DaySession[] = []
  const waiting: Booking[] = []
  for (const booking of house.openBookings()) {
    const state = stateAt(booking, now)
    if (state.is === 'waiting') waiting.push(booking)
    if (booking.start < from! || booking.start >= to!) continue
    if (state.is !== 'booked' && state.is !== 'attended' && state.is !== 'missed') continue
    const place = placeOf(practice, booking.place)
    const { person } = booking.asked
    const where = whereAt(practice, booking)
    sessions.push({
      booking: booking.id,
      name: person.name,
      ...(person.phone ? { phone: person.phone } : {}),
      service: serviceOf(practice, booking.service)?.name ?? booking.service,
      start: booking.start,
      minutes: booking.minutes,
      place: booking.place,
      placeName: place?.name ?? '',
      ...(where ? { address: where } : {}),
      state: state.is,
      begun: state.is !== 'booked' || state.begun,
      over: state.is !== 'booked' || state.over,
      missable: canBeMissed(booking, now),
      ...givesOf(practice, booking, now),
      ...(booking.runsLate ? { late: booking.runsLate.minutes } : {}),
      ...undoOf(booking, now),
      shown: printOfBooking(booking),
    })
  }
  return {
    practitioner: profile.name,
    zone: profile.zone,
    sessions: sessions.sort((a, b) => a.start - b.start),
    waiting: waiting.sort((a, b) => a.until - b.until).map((booking) => wordView(house, booking, now)),
    now,
  }
}
