import { type Asked, type BookingEvent, deadlinesOf, holdUntil, wordNeeded } from '@acolhida/core/booking'
import type { DoorOpenings, EnquireBody, Enquiry, Kept, SendBody, Wanted } from '@acolhida/core/door'
import { type Asker, openStarts, wellChosen, why } from '@acolhida/core/openings'
import { normalMail } from '@acolhida/core/people'
import {
  type Practice,
  placeOf,
  questionnaireOf,
  type Service,
  type Standing,
  serviceOf,
  termsInForce,
  zoneOf,
} from '@acolhida/core/practice'
import { isAttached, openAnswers } from '@acolhida/core/questions'
import { agree, chainHead, versionFingerprint } from '@acolhida/core/terms'
import {
  addDays,
  dateAt,
  dayNumber,
  type Instant,
  instant,
  type LocalDate,
  MINUTE,
  shift,
  zone,
} from '@acolhida/core/time'
import { type DoorAddress, happen } from '../happen.ts'
import { Refused } from '../refused.ts'
import { type Store, token } from '../store/store.ts'
import { askerOf, diaryAt, KEEP, knownBy, lookerOf, published, visitorOf } from './circumstances.ts'
import { askFor, costsLess, type Understood, understandOpen } from './understand.ts'
import { shownTerms } from './view.ts'

/** How far ahead it is looked whether there is more, in days. */
const HORIZON = 92

/** The open starts for a visit from a date on. */
export function openingsFor(
  store: Store,
  wanted: Wanted & { place: string; from?: string; days: number },
  now: Instant,
): DoorOpenings {
  const understood = understandOpen(store, wanted, now)
  const { practice, service, reading } = understood
  const there = zoneOf(practice, placeOf(practice, wanted.place))
  const from = (wanted.from ?? dateAt(there, now)) as LocalDate
  const diary = diaryAt(store, now, { visit: wanted.visit })
  const ask = askFor(understood, wanted.place, lookerOf(store, service, wanted.with), now)
  const { showAtMost } = service
  // A few well-chosen ones are chosen once for all that lies ahead, so that paging shows no others.
  const all = showAtMost
    ? wellChosen(practice, diary, ask, dateAt(there, now), HORIZON, showAtMost)
    : undefined
  const next = addDays(from, wanted.days)
  const end = there.toInstant(dayNumber(next), 0)
  const begin = there.toInstant(dayNumber(from), 0)
  const starts =
    all?.filter((one) => one >= begin && one < end) ?? openStarts(practice, diary, ask, from, wanted.days)
  const more = all
    ? all.some((one) => one >= end)
    : openStarts(practice, diary, ask, next, HORIZON).length > 0
  const seats: Record<string, number> = {}
  if (service.seats > 1) {
    for (const start of starts) {
      const there = diary.entries.find((e) => e.service === service.id && e.start === start && e.seats)
      seats[start] = service.seats - (there?.taken ?? 0)
    }
  }
  const lower = starts.filter(costsLess(understood, diary, ask))
  return { starts, lower, seats, minutes: reading.quote.minutes, ...(more ? { next } : {}), now }
}

/** Makes sure that a start is open and gives what it comes to there, or tells which are. */
function checkOpen(
  store: Store,
  understood: Understood,
  wanted: Wanted & { place: string; start: number },
  asker: Asker,
  now: Instant,
): { start: Instant; reading: Understood['reading'] } {
  const { practice, reading, wholeReading } = understood
  const start = instant(wanted.start)
  const diary = diaryAt(store, now, { visit: wanted.visit })
  const ask = askFor(understood, wanted.place, asker, now)
  const closures = why(practice, diary, ask, start)
  if (closures.length === 0) {
    return { start, reading: costsLess(understood, diary, ask)(start) ? wholeReading : reading }
  }
  if (closures.some((closure) => closure.rule === 'person')) {
    throw new Refused(
      409,
      'not-online',
      'Please write to me instead: this can not be booked online with this address.',
    )
  }
  throw new Refused(409, 'not-open', 'This time is no longer free. Here are the times that are left.', {
    where: 'start',
    openings: openingsFor(store, { ...wanted, days: 21 }, now),
  })
}

/** Keeps a start for a visit while the client fills in; a new pick replaces the one before. */
export function keep(store: Store, wanted: Wanted & { place: string; start: number }, now: Instant): Kept {
  return store.act(() => {
    const understood = understandOpen(store, wanted, now)
    const looker = lookerOf(store, understood.service, wanted.with)
    const { start, reading } = checkOpen(store, understood, wanted, looker, now)
    const until = shift(now, KEEP)
    store.keep({
      visit: wanted.visit,
      service: wanted.service,
      place: wanted.place,
      start,
      minutes: reading.quote.minutes,
      travel: understood.travel?.id,
      until,
      renewed: false,
    })
    return keptView(
      { ...understood, reading },
      standingOf(store, wanted.with),
      wanted.place,
      start,
      until,
      true,
      now,
    )
  })
}

/** Keeps the picked start for another ten minutes, once. */
export function renew(store: Store, visit: string, now: Instant): { until: Instant; renewable: boolean } {
  return store.act(() => {
    const kept = store.keepOf(visit)
    if (!kept || kept.until < now)
      throw new Refused(409, 'not-kept', 'This time is no longer kept. Please choose again.')
    if (kept.renewed) throw new Refused(409, 'renewed-already', 'It can be kept longer only once.')
    const until = shift(now, KEEP)
    store.keep({ ...kept, until, renewed: true })
    return { until, renewable: false }
  })
}

/** Nobody has said yet who they are; in a trial, or through a private link, it is known. */
const standingOf = (store: Store, key: string | undefined): Standing =>
  visitorOf(store, key)?.standing ?? 'new'

function keptView(
  u: Understood,
  standing: Standing,
  place: string,
  start: Instant,
  until: Instant,
  renewable: boolean,
  now: Instant,
): Kept {
  const there = zoneOf(u.practice, placeOf(u.practice, place))
  const { deadlines, shareAfter } = deadlinesOf(u.practice.houseRules, start, there)
  const asksFirst = !u.quote && wordNeeded(u.service, standing, u.reading) !== undefined
  return {
    start,
    place,
    minutes: u.reading.quote.minutes,
    lines: u.reading.quote.lines,
    price: u.reading.quote.price,
    until,
    renewable,
    deadlines,
    shareAfter,
    ...(asksFirst ? { wordUntil: holdUntil(u.practice.answering, now, start, there) } : {}),
    now,
  }
}

/** How far a page's idea of the time may be from the relay's, in ms. */
const CLOCK_TOLERANCE = MINUTE

function checkClock(clock: number, now: Instant): void {
  if (Math.abs(clock - now) <= CLOCK_TOLERANCE) return
  throw new Refused(
    409,
    'clock-differs',
    'The clock of this page is not the clock here. The times shown have been set right; please look at them once more and send again.',
    { where: 'clock', now },
  )
}

function checkAddress(practice: Practice, body: SendBody): void {
  if (placeOf(practice, body.place)?.kind !== 'client' || body.address) return
  throw new Refused(422, 'no-address', 'Please write where I should come.', { where: 'address' })
}

function checkTerms(understood: Understood, agreed: SendBody['agreed']): void {
  const { practice, service } = understood
  for (const { id, version } of termsInForce(practice, service)) {
    const given = agreed.find((one) => one.terms === id)
    if (!given)
      throw new Refused(422, 'not-agreed', `Please agree to “${version.title}” first.`, { where: 'agreed' })
    if (given.number !== version.number || given.fingerprint !== versionFingerprint(id, version)) {
      throw new Refused(
        409,
        'terms-changed',
        `“${version.title}” has changed meanwhile. Please read it once more.`,
        {
          where: 'agreed',
        },
      )
    }
  }
}

function checkOpenRequests(store: Store, practice: Practice, email: string, now: Instant): void {
  const mail = normalMail(email)
  let open = 0
  for (const booking of store.bookings()) {
    const waits = booking.status === 'requested' && booking.until >= now
    if (waits && normalMail(booking.asked.person.email) === mail) open++
  }
  if (open >= practice.limits.openRequests) {
    throw new Refused(
      409,
      'too-many-open',
      `You have ${open} requests waiting already. Please wait for an answer, or withdraw one of them.`,
      {
        where: 'person.email',
      },
    )
  }
}

/**
 * Takes a request: reads the answers again, checks that the start is still open, holds it and begins its
 * record. Runs inside `store.act`, so either all of it is there or nothing.
 */
export function send(store: Store, address: DoorAddress, body: SendBody, now: Instant): { link: string } {
  const person = knownBy(store, body.person.email)
  checkClock(body.clock, now)
  const understood = understandOpen(store, body, now)
  const { practice, service, answers, extras, travel, code, quote } = understood
  checkAddress(practice, body)
  checkTerms(understood, body.agreed)
  checkOpenRequests(store, practice, body.person.email, now)
  const asker = askerOf(store, person, service, body.with)
  const { start, reading } = checkOpen(store, understood, body, asker, now)
  const there = zoneOf(practice, placeOf(practice, body.place))
  const standing = person?.standing ?? 'new'
  const questionnaire = questionnaireOf(practice, service)
  const { phone, ...contact } = body.person
  const event: Asked = {
    type: 'asked',
    at: now,
    service: service.id,
    place: body.place,
    start,
    minutes: reading.quote.minutes,
    person: { ...contact, zone: zone(body.person.zone).name, ...(phone ? { phone } : {}) },
    standing,
    answers,
    ...(questionnaire ? { questionnaire: { id: questionnaire.id, version: questionnaire.version } } : {}),
    reading,
    attempts: understood.earlier,
    agreements: agreements(store, practice, service, body.person.name, now),
    houseRules: practice.houseRules,
    currency: practice.profile.currency,
    until: holdUntil(practice.answering, now, start, there),
    ...(extras.length > 0 ? { extras } : {}),
    ...(travel ? { travel: travel.id } : {}),
    ...(body.address ? { address: body.address } : {}),
    ...(code ? { code: code.id } : {}),
  }
  const events: BookingEvent[] = [event]
  // Whoever accepts a quote has been looked at by whoever sent it.
  const straight = quote !== undefined || wordNeeded(service, standing, reading) === undefined
  if (straight) events.push({ type: 'welcomed', at: now, by: 'rules', settles: now })
  store.unkeep(body.visit)
  const id = token()
  happen(store, practice, address, id, events, now)
  for (const answer of Object.values(answers)) if (isAttached(answer)) store.files.claim(answer.file, id)
  if (quote && body.quote) {
    store.quotes.use(body.quote, id)
    store.appendEnquiryNews(quote.enquiry, { news: 'booked', at: now, text: '', booking: id })
  }
  return { link: store.addLink(id, false) }
}

function agreements(
  store: Store,
  practice: Practice,
  service: Service,
  name: string,
  now: Instant,
): Asked['agreements'] {
  let head = store.setting('chain-head') ?? ''
  const chain = termsInForce(practice, service).map((terms) => {
    const shown = shownTerms(practice, service, terms.version.text)
    const agreement = agree(terms, { name, service: service.id, at: now, shown }, head)
    head = chainHead(agreement)
    return agreement
  })
  store.set('chain-head', head)
  return chain
}

/** Takes a message instead of a booking. Runs inside `store.act`. */
export function enquire(store: Store, body: EnquireBody, now: Instant): { received: true } {
  const { practice } = published(store)
  const { visit, ...rest } = body
  if (body.service && !serviceOf(practice, body.service)) {
    throw new Refused(404, 'unknown-service', 'This service does not exist.', { where: 'service' })
  }
  const service = body.service ? serviceOf(practice, body.service) : undefined
  const questions = (service && questionnaireOf(practice, service)?.questions) ?? []
  const answers = openAnswers(questions, body.answers ?? {})
  const enquiry: Enquiry = { id: token(), at: now, ...rest, answers, attempts: store.attempts(visit) }
  store.appendEnquiry(enquiry)
  return { received: true }
}
