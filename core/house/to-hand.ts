import { type Due, usefulUntil } from '../agenda/index.ts'
import { type Booking, type ConcernedAs, type Reached, stateAt } from '../booking/index.ts'
import type { Enquiry } from '../contract/types.ts'
import {
  answerLetter,
  courseLetter,
  DOOR_TOKEN,
  digestLetter,
  draftsAt,
  freedToDecide,
  isOfMoney,
  isStepName,
  keptFrom,
  type Letter,
  LINK_TOKEN,
  languageFor,
  letterFor,
  lineLetter,
  quoteLetter,
  quoteStepLetter,
  quoteText,
  readerLanguage,
  readerOf,
  receiverOf,
  type Step,
  steeredOf,
  stepsOf,
  type Which,
  type WhySkipped,
} from '../messages/index.ts'
import { normalMail } from '../people/index.ts'
import { type Course, readerOfCourse } from '../preparing/index.ts'
import { personBehind } from '../request/index.ts'
import { textIn } from '../terms/index.ts'
import { DAY, dateAt, FIRST_LANGUAGE, type Instant, type Language, shift, zone } from '../time/index.ts'
import { lackingOf } from './agreeing.ts'
import { type House, published } from './house.ts'

/** A message as it is handed to the mail host or the gateway, but for its private link, which only the relay can write. */
export interface Handed extends Letter {
  key: string
  recipient: string
  language: Language
  /** The link that stands for its token, or the word link, and the address that it ends. */
  link?: { id: string; leads: 'my' | 'quote' | 'line' | 'yours' | 'word'; service: string; half?: string }
  /** The booking that the calendar entry is about. */
  booking?: Booking
}

/** A message before it has a link. */
export type ToHand = Omit<Handed, 'key' | 'link'> & {
  leads: 'my' | 'quote' | 'line' | 'yours'
  service: string
  about: Due['subject']
  /** Whom it reaches, where that is not plain. */
  as?: ConcernedAs
}

/** It does not go, and why: a code, in words at the desk. */
export interface Not {
  not: 'failed' | 'skipped'
  reason: string
}

const not = (is: Not['not'], reason: string): Not => ({ not: is, reason })

/** A message as things stand now, or why it does not go. */
export function toHand(house: House, due: Due, now: Instant): ToHand | Not {
  const { subject, doing } = due
  if (doing.do !== 'message') return not('skipped', 'no-use')
  if (subject.kind === 'booking') return aboutBooking(house, subject, doing, now)
  if (subject.kind === 'house') return digest(house, due, now)
  if (subject.kind === 'waiting') return toWhoWaits(house, subject, doing, now)
  if (subject.kind === 'freed') return toDecide(house, subject)
  if (subject.kind === 'course') return toPrepare(house, subject, doing, now)
  return toEnquirer(house, subject, doing, now)
}

/** Why a message about a booking is not to go after all, by what is known of its client beyond it. */
function kept(house: House, booking: Booking, which: Which): WhySkipped | undefined {
  const { practice, people, salt } = published(house)
  const { email } = booking.asked.person
  const hushed = personBehind({ people, salt }, normalMail(email))?.hushed === true
  return keptFrom(booking, which, stepsOf(booking, practice), { hushed, theirs: house.bookingsOf(email) })
}

function aboutBooking(house: House, subject: Due['subject'], which: Which, now: Instant): ToHand | Not {
  const { practice } = published(house)
  const booking = house.booking(subject.id)
  if (!booking) return not('skipped', 'no-use')
  const sent = steeredOf(booking, which)?.now !== undefined
  const why = kept(house, booking, which)
  if (why) return not('skipped', why)
  const useful = usefulUntil(house, subject, which)
  if (useful !== undefined && now > useful && !sent) return not('failed', 'too-late')
  const theirs = readerLanguage(practice, booking, 'client')
  const lacking = lackingOf(house, booking, now).map(({ version }) => textIn(version, theirs).title)
  const letter = letterFor(practice, booking, which, now, lacking)
  if (!letter) return not('failed', 'too-late')
  const recipient = recipientOf(house, subject, which)
  if (!recipient) return not('failed', 'no-phone')
  const language = readerLanguage(practice, booking, letter.to)
  const { as } = readerOf(practice, booking, which)
  return {
    ...letter,
    recipient,
    language,
    leads: 'my',
    service: booking.service,
    about: subject,
    booking,
    as,
  }
}

/** To somebody in line. A message that no longer tells how things stand is not sent. */
function toWhoWaits(house: House, subject: Due['subject'], which: Which, now: Instant): ToHand | Not {
  const { practice } = published(house)
  const line = house.line(subject.id)
  if (!line || line.tells?.seq !== which.anchor) return not('skipped', 'no-use')
  const { instead, person, service } = line.joined
  const own = instead === undefined ? undefined : house.booking(instead)?.start
  const letter = lineLetter(practice, line, which, now, own)
  if (!letter) return not('skipped', 'no-use')
  const recipient = letter.channel === 'text' ? person.phone : person.email
  if (!recipient) return not('failed', 'no-phone')
  return {
    ...letter,
    ...{ recipient, language: languageFor(practice, person), leads: 'line', service, about: subject },
  }
}

/** To somebody who was given something to do. What is done, or need not be done any more, is not asked for. */
function toPrepare(house: House, subject: Due['subject'], which: Which, now: Instant): ToHand | Not {
  const { practice } = published(house)
  const course = house.course(subject.id)
  if (!course) return not('skipped', 'no-use')
  const { person, booking } = course.given
  const of = booking === undefined ? undefined : house.booking(booking)
  const letter = courseLetter(practice, course, of, which, now)
  if (!letter) return not('skipped', 'all-done')
  const { as, to: recipient = person.email } = courseReader(course, of, which.step)
  return {
    ...letter,
    ...{ recipient, as, language: languageFor(practice, person), leads: 'yours' },
    ...{ service: '', about: subject },
  }
}

/** To the practitioner: a time is free, and nobody is asked before they say so. */
function toDecide(house: House, subject: Due['subject']): ToHand | Not {
  const { practice } = published(house)
  const freed = house.freed(subject.id)
  if (!freed || freed.ended || freed.go !== undefined) return not('skipped', 'no-use')
  const { email } = practice.profile
  return {
    ...freedToDecide(practice, freed),
    ...{ recipient: email, language: FIRST_LANGUAGE, leads: 'my', service: '', about: subject },
  }
}

/** The morning's digest, from what the relay knows. */
function digest(house: House, due: Due, now: Instant): ToHand | Not {
  const { practice } = published(house)
  const home = zone(practice.profile.zone)
  const today = dateAt(home, now)
  const open = [...house.openBookings()]
  const sessions = open
    .filter(({ status, start }) => status === 'booked' && dateAt(home, start) === today)
    .sort((a, b) => a.start - b.start)
  const requests = open.filter((booking) => stateAt(booking, now).is === 'waiting').length
  const drafts = open.reduce((sum, booking) => sum + draftsAt(booking, practice, now).length, 0)
  const letter = digestLetter(
    practice,
    { sessions, requests, failing: house.failing(shift(now, -DAY)), drafts },
    now,
  )
  const { email } = practice.profile
  return {
    ...letter,
    recipient: email,
    language: FIRST_LANGUAGE,
    leads: 'my',
    service: '',
    about: due.subject,
  }
}

/** An answer; a link in it leads to the quote that stands, if one does, else to the door. */
function toAnswer(
  house: House,
  enquiry: Enquiry,
  text: string,
  about: Pick<ToHand, 'recipient' | 'language' | 'leads' | 'about'>,
  now: Instant,
): ToHand {
  const { practice } = published(house)
  const quote = house.quotesOf(enquiry.id).findLast(({ booking, until }) => !booking && until >= now)
  if (!quote)
    return {
      ...answerLetter(practice, enquiry, text.replaceAll('{link}', DOOR_TOKEN)),
      ...{ ...about, service: '' },
    }
  return {
    ...answerLetter(practice, enquiry, text.replaceAll('{link}', LINK_TOKEN)),
    ...{ ...about, service: quote.service, about: { kind: 'quote', id: quote.id } },
  }
}

function toEnquirer(house: House, subject: Due['subject'], which: Which, now: Instant): ToHand | Not {
  const { practice } = published(house)
  const enquiry = house.enquiry(subject.id)
  const news = house.enquiryNews(subject.id)[which.anchor - 2]
  if (!enquiry || !news) return not('skipped', 'no-use')
  const language = languageFor(practice, enquiry)
  const about = { recipient: enquiry.email, language, leads: 'quote' as const, about: subject }
  if (!news.quote) return toAnswer(house, enquiry, news.text, about, now)
  const { id, quote: told } = news
  const quote = house
    .quotesOf(enquiry.id)
    .find((quote) => (id === undefined ? quote.until === told.until : quote.id === id))
  // Booked or run out, it says nothing any more.
  if (!quote || quote.booking || quote.until < now) return not('skipped', 'no-use')
  const letter = isStepName(which.step)
    ? quoteStepLetter(practice, quote.person, quote.service, which)
    : news.by
      ? quoteText(practice, quote.person, told, news.text)
      : quoteLetter(practice, quote.person, told, news.text)
  if (!letter) return not('skipped', 'no-use')
  const recipient = letter.channel === 'text' ? quote.person.phone : quote.person.email
  if (!recipient) return not('failed', 'no-phone')
  return {
    ...letter,
    ...about,
    language: languageFor(practice, quote.person),
    recipient,
    service: quote.service,
    about: { kind: 'quote', id: quote.id },
  }
}

/** Who reads of what somebody was given: what is to be paid is theirs who were given it. */
const courseReader = (course: Course, booking: Booking | undefined, step: Step): Reached => {
  const { person } = course.given
  return isOfMoney(step)
    ? { as: 'asks', name: person.name, to: person.email }
    : readerOfCourse(course, booking)
}

/** Where a step about a subject is sent to; nothing where the subject is known no more, or has no phone. */
export function recipientOf(house: House, { kind, id }: Due['subject'], which: Which): string | undefined {
  const { step, channel } = which
  const { practice } = published(house)
  const { profile, messaging } = practice
  if (receiverOf(step) === 'practitioner')
    return channel === 'text' ? (messaging?.own?.phone ?? profile.phone) : profile.email
  if (kind === 'waiting') {
    const person = house.line(id)?.joined.person
    return channel === 'text' ? person?.phone : person?.email
  }
  if (kind === 'course') {
    const course = house.course(id)
    const booking = course?.given.booking === undefined ? undefined : house.booking(course.given.booking)
    return course && courseReader(course, booking, step).to
  }
  if (kind === 'booking') {
    const booking = house.booking(id)
    return booking && readerOf(practice, booking, which).to
  }
  return channel === 'text' ? house.quotesOf(id).at(-1)?.person.phone : house.enquiry(id)?.email
}
