import type { Due, Message } from '../agenda/index.ts'
import type { Booking } from '../booking/index.ts'
import type { MailNews } from '../contract/types.ts'
import {
  answerLetter,
  type Letter,
  letterFor,
  quoteLetter,
  receiverOf,
  type Step,
} from '../messages/index.ts'
import { fingerprint } from '../terms/index.ts'
import { type Instant, MINUTE, shift } from '../time/index.ts'
import type { Work } from './act.ts'
import { lackingOf } from './agreeing.ts'
import { type House, published } from './house.ts'

/** A message as it is handed to the mail host, but for its private link, which only the relay can write. */
export interface Handed extends Letter {
  key: string
  recipient: string
  /** The link that stands for `{link}`, or `{word}`, and the address that it ends. */
  link?: { id: string; leads: 'my' | 'quote' | 'word'; service: string }
  /** The booking that the calendar entry is about. */
  booking?: Booking
}

/** How long after one try the next comes, in minutes. */
const WAITS = [1, 2, 5, 15, 60, 180, 360]

/**
 * Writes a message from how things stand now, and notes that it is being handed over, before the mail host is spoken to.
 * @returns nothing where it is no longer to go
 */
export function hand(work: Work, { due }: { due: Due }): Handed | undefined {
  const { house, now, changes } = work
  const { key, subject, doing } = due
  if (doing.do !== 'message' || house.due(key)?.at !== due.at || due.at > now) return undefined
  const letter = written(house, due, now)
  const before = house.message(key, subject)
  const message: Message = {
    state: 'handed',
    step: doing.step,
    tries: (before?.tries ?? 0) + 1,
    due: due.at,
  }
  if (!letter) {
    changes.push({ type: 'message', key, subject, message: { ...message, state: 'failed' } })
    return undefined
  }
  changes.push({ type: 'message', key, subject, message })
  const { leads, service, about, ...rest } = letter
  const word = rest.text.includes('{word}')
  if (!word && !rest.text.includes('{link}')) return { key, ...rest }
  const id = work.ids()
  changes.push({
    type: 'link',
    link: word ? { id, subject: about, proves: false, word } : { id, subject: about, proves: true },
  })
  return { key, ...rest, link: { id, leads: word ? 'word' : leads, service } }
}

type Written = Omit<Handed, 'key' | 'link'> & {
  leads: 'my' | 'quote'
  service: string
  about: Due['subject']
}

function written(house: House, { subject, doing }: Due, now: Instant): Written | undefined {
  const { practice } = published(house)
  if (doing.do !== 'message') return undefined
  if (subject.kind === 'booking') {
    const booking = house.booking(subject.id)
    if (!booking) return undefined
    const lacking = lackingOf(house, booking, now).map(({ version }) => version.title)
    const letter = letterFor(practice, booking, doing.step, now, lacking)
    if (!letter) return undefined
    const recipient = recipientOf(house, subject, doing.step) ?? ''
    return { ...letter, recipient, leads: 'my', service: booking.service, about: subject, booking }
  }
  const enquiry = house.enquiry(subject.id)
  const news = house.enquiryNews(subject.id)[doing.anchor - 2]
  if (!enquiry || !news) return undefined
  const about = { recipient: enquiry.email, leads: 'quote' as const, about: subject }
  if (doing.step !== 'quote' || !news.quote)
    return { ...answerLetter(practice, enquiry, news.text), ...about, service: '' }
  const { id, quote: told } = news
  const quote = house
    .quotesOf(enquiry.id)
    .find((quote) => (id === undefined ? quote.until === told.until : quote.id === id))
  // Booked or run out, it says nothing any more.
  if (!quote || quote.booking || quote.until < now) return undefined
  return {
    ...quoteLetter(practice, quote.person, told, news.text),
    ...about,
    recipient: quote.person.email,
    service: quote.service,
    about: { kind: 'quote', id: quote.id },
  }
}

/** The address that a step about a subject is sent to; nothing where the subject is known no more. */
function recipientOf(house: House, { kind, id }: Due['subject'], step: Step): string | undefined {
  if (receiverOf(step) === 'practitioner') return published(house).practice.profile.email
  return kind === 'booking' ? house.booking(id)?.asked.person.email : house.enquiry(id)?.email
}

/** What came of handing a message over. */
export interface Went {
  due: Due
  /** Nothing where it went; else why not. */
  problem?: string
  recipient: string
  subject: string
  /** As it went, private links masked. */
  text: string
}

/** Notes that a message has gone, is tried again later, or can't be sent. */
export function went({ house, now, changes }: Work, { due, problem, recipient, subject: title, text }: Went) {
  const { key, subject } = due
  const before = house.message(key, subject)
  if (before?.state !== 'handed') return {}
  const wait = problem === undefined ? undefined : WAITS[before.tries - 1]
  if (wait !== undefined) {
    const again: Message = { ...before, state: 'again', due: shift(now, wait * MINUTE) }
    changes.push({ type: 'message', key, subject, message: again })
    return {}
  }
  const state = problem === undefined ? ('sent' as const) : ('failed' as const)
  changes.push({ type: 'message', key, subject, message: { ...before, state } })
  const news: MailNews = {
    step: before.step,
    state,
    to: recipient,
    subject: title,
    due: before.due,
    ...(problem === undefined ? {} : { reason: problem }),
    text,
    print: fingerprint({ subject: title, text }),
  }
  changes.push({ type: 'mail', subject, seq: house.lines('mail', subject) + 1, at: now, body: news })
  return {}
}

/** After the relay has ended in between: nobody knows whether it went, and it is not sent again by itself. */
export function unknown(
  { house, now, changes }: Work,
  { key, subject }: { key: string; subject: Due['subject'] },
) {
  const before = house.message(key, subject)
  if (before?.state !== 'handed') return {}
  changes.push({ type: 'message', key, subject, message: { ...before, state: 'unknown' } })
  const news: MailNews = {
    step: before.step,
    state: 'unknown',
    to: recipientOf(house, subject, before.step) ?? '',
    subject: '',
    due: before.due,
    reason: 'The relay ended while it was being handed over; it may have gone or not.',
  }
  changes.push({ type: 'mail', subject, seq: house.lines('mail', subject) + 1, at: now, body: news })
  return {}
}
