import { type Due, type Message, usefulUntil } from '../agenda/index.ts'
import { type Booking, type ConcernedAs, stateAt } from '../booking/index.ts'
import type { MailNews } from '../contract/desk-types.ts'
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
  steeredOf,
  stepsOf,
  type Which,
  type WhySkipped,
  WORD_TOKEN,
  YOURS_TOKEN,
} from '../messages/index.ts'
import { normalMail } from '../people/index.ts'
import { readerOfCourse } from '../preparing/index.ts'
import { personBehind } from '../request/index.ts'
import { fingerprint, textIn } from '../terms/index.ts'
import {
  DAY,
  dateAt,
  FIRST_LANGUAGE,
  type Instant,
  instant,
  type Language,
  MINUTE,
  shift,
  zone,
} from '../time/index.ts'
import { lackingOf } from './agreeing.ts'
import { type House, published } from './house.ts'
import type { Work } from './work.ts'

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

/** What the key is made from with which a client's answers are sealed until they send them: for each address one. */
export const halfKeyOf = (email: string): string => `half ${normalMail(email)}`

/** How long after one try the next comes, in minutes; the last of them again and again, while it is of use. */
const WAITS = [1, 2, 5, 15, 60, 180, 360]

/**
 * Writes a message from how things stand now, and notes that it is being handed over, before anybody is spoken to.
 * @returns nothing where it is no longer to go; why is in the record
 */
export function hand(work: Work, { due }: { due: Due }): Handed | undefined {
  const { house, now, changes } = work
  const { key, subject, doing } = due
  if (doing.do !== 'message' || house.due(key)?.at !== due.at || due.at > now) return undefined
  const before = house.message(key, subject)
  const message: Message = {
    state: 'handed',
    step: doing.step,
    tries: (before?.tries ?? 0) + 1,
    due: due.at,
  }
  const letter = written(house, due, now)
  if ('not' in letter) {
    const { not: state, reason } = letter
    changes.push({ type: 'message', key, subject, message: { ...message, state } })
    note(work, due, { state, to: recipientOf(house, subject, doing) ?? '', subject: '', reason })
    return undefined
  }
  changes.push({ type: 'message', key, subject, message })
  const { leads, service, about, as, ...rest } = letter
  const word = rest.text.includes(WORD_TOKEN)
  if (!word && !rest.text.includes(LINK_TOKEN) && !rest.text.includes(YOURS_TOKEN) && !rest.unsubscribe)
    return { key, ...rest }
  const id = work.ids()
  const half = rest.text.includes(YOURS_TOKEN) ? { half: halfKeyOf(rest.recipient) } : {}
  // A link that came by text proves nothing about a mail address: whoever typed it may have typed any phone. Nor does
  // one that went to somebody else than who asked.
  const other = !word && as !== undefined && as !== 'asks' ? { as } : {}
  const proves = !word && letter.channel !== 'text' && other.as === undefined
  changes.push({ type: 'link', link: { id, subject: about, proves, ...other, ...(word ? { word } : {}) } })
  return { key, ...rest, link: { id, leads: word ? 'word' : leads, service, ...half } }
}

/**
 * Several in one transaction, as the disk is slower than all the rest. No two of one subject: the lines of its record
 * are counted.
 * @returns in their order; nothing for what is no longer to go
 */
export const handSeveral = (work: Work, { dues }: { dues: readonly Due[] }): (Handed | undefined)[] =>
  dues.map((due) => hand(work, { due }))

type Written = Omit<Handed, 'key' | 'link'> & {
  leads: 'my' | 'quote' | 'line' | 'yours'
  service: string
  about: Due['subject']
  /** Whom it reaches, where that is not plain. */
  as?: ConcernedAs
}

/** It does not go, and why: a code, in words at the desk. */
interface Not {
  not: 'failed' | 'skipped'
  reason: string
}

const not = (is: Not['not'], reason: string): Not => ({ not: is, reason })

/** A line of the record about a message. */
function note(
  { house, now, changes }: Work,
  { key: _, subject, doing, at }: Due,
  news: Omit<MailNews, 'step' | 'due' | 'channel' | 'anchor'>,
) {
  if (doing.do !== 'message') return
  const { step, anchor, channel } = doing
  // As long as a file of the desk's takes, whatever a host has answered.
  const { reason, text } = news
  const said: typeof news = {
    ...news,
    subject: news.subject.slice(0, 500),
    ...(reason === undefined ? {} : { reason: reason.slice(0, 1_000) }),
    ...(text === undefined ? {} : { text: text.slice(0, 100_000) }),
  }
  const body: MailNews = { step, ...said, due: at, anchor, ...(channel === 'text' ? { channel } : {}) }
  changes.push({ type: 'mail', subject, seq: house.lines('mail', subject) + 1, at: now, body })
}

function written(house: House, due: Due, now: Instant): Written | Not {
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

function aboutBooking(house: House, subject: Due['subject'], which: Which, now: Instant): Written | Not {
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
function toWhoWaits(house: House, subject: Due['subject'], which: Which, now: Instant): Written | Not {
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
function toPrepare(house: House, subject: Due['subject'], which: Which, now: Instant): Written | Not {
  const { practice } = published(house)
  const course = house.course(subject.id)
  if (!course) return not('skipped', 'no-use')
  const { person, booking } = course.given
  const of = booking === undefined ? undefined : house.booking(booking)
  const letter = courseLetter(practice, course, of, which, now)
  if (!letter) return not('skipped', 'all-done')
  // What is to be paid is theirs who were given the path.
  const { as, to: recipient = person.email } = isOfMoney(which.step)
    ? { as: 'asks' as const }
    : readerOfCourse(course, of)
  return {
    ...letter,
    ...{ recipient, as, language: languageFor(practice, person), leads: 'yours' },
    ...{ service: '', about: subject },
  }
}

/** To the practitioner: a time is free, and nobody is asked before they say so. */
function toDecide(house: House, subject: Due['subject']): Written | Not {
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
function digest(house: House, due: Due, now: Instant): Written | Not {
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
  about: Pick<Written, 'recipient' | 'language' | 'leads' | 'about'>,
  now: Instant,
): Written {
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

function toEnquirer(house: House, subject: Due['subject'], which: Which, now: Instant): Written | Not {
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

function courseRecipient(house: House, id: string): string | undefined {
  const course = house.course(id)
  const booking = course?.given.booking === undefined ? undefined : house.booking(course.given.booking)
  return course && readerOfCourse(course, booking).to
}

/** Where a step about a subject is sent to; nothing where the subject is known no more, or has no phone. */
function recipientOf(house: House, { kind, id }: Due['subject'], which: Which): string | undefined {
  const { step, channel } = which
  const { practice } = published(house)
  const { profile, messaging } = practice
  if (receiverOf(step) === 'practitioner')
    return channel === 'text' ? (messaging?.own?.phone ?? profile.phone) : profile.email
  if (kind === 'waiting') {
    const person = house.line(id)?.joined.person
    return channel === 'text' ? person?.phone : person?.email
  }
  if (kind === 'course') return courseRecipient(house, id)
  if (kind === 'booking') {
    const booking = house.booking(id)
    return booking && readerOf(practice, booking, which).to
  }
  return channel === 'text' ? house.quotesOf(id).at(-1)?.person.phone : house.enquiry(id)?.email
}

/** What came of handing a message over. */
export interface Went {
  due: Due
  /** Nothing where it went; else why not. */
  problem?: string
  /** It will never be taken: the address is none, or refuses. */
  final?: boolean
  recipient: string
  subject: string
  /** As it went, private links masked. */
  text: string
}

/** Notes that a message has gone, is tried again while it is of use, or can't be sent. */
export function went(work: Work, { due, problem, final, recipient, subject: title, text }: Went) {
  const { house, now, changes } = work
  const { key, subject, doing } = due
  const before = house.message(key, subject)
  if (before?.state !== 'handed' || doing.do !== 'message') return {}
  if (problem !== undefined && !final) {
    const wait = WAITS[Math.min(before.tries, WAITS.length) - 1]!
    const next = shift(now, wait * MINUTE)
    const useful = usefulUntil(house, subject, doing) ?? instant(before.due + LONGEST)
    if (next <= useful) {
      const again: Message = { ...before, state: 'again', due: next }
      changes.push({ type: 'message', key, subject, message: again })
      // The desk hears of it once, however often it is tried.
      if (before.tries === 1)
        note(work, due, { state: 'waiting', to: recipient, subject: title, reason: problem })
      return {}
    }
  }
  const state = problem === undefined ? ('sent' as const) : ('failed' as const)
  changes.push({ type: 'message', key, subject, message: { ...before, state } })
  note(work, due, {
    state,
    to: recipient,
    subject: title,
    ...(problem === undefined ? {} : { reason: final ? `refused ${problem}` : problem }),
    text,
    print: fingerprint({ subject: title, text }),
  })
  return {}
}

/** Of several in one transaction, no two of one subject. */
export function wentSeveral(work: Work, { all }: { all: readonly Went[] }) {
  for (const one of all) went(work, one)
  return {}
}

/** For how long what has no last moment of its own is tried, in ms. */
const LONGEST = 5 * DAY

/** After the relay has ended in between: nobody knows whether it went, and it is not sent again by itself. */
export function unknown(
  work: Work,
  { key, subject, which }: { key: string; subject: Due['subject']; which: Which },
) {
  const { house, changes } = work
  const before = house.message(key, subject)
  if (before?.state !== 'handed') return {}
  changes.push({ type: 'message', key, subject, message: { ...before, state: 'unknown' } })
  const due: Due = { key, subject, at: before.due, doing: { do: 'message', ...which } }
  note(work, due, {
    state: 'unknown',
    to: recipientOf(house, subject, which) ?? '',
    subject: '',
    reason: 'The relay ended while it was being handed over; it may have gone or not.',
  })
  return {}
}
