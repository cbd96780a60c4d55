import type { AnswerBody, Enquiry, QuoteBody } from '@acolhida/core/door'
import { answerLetter, quoteLetter } from '@acolhida/core/messages'
import { questionnaireOf, serviceOf, travelZonesOf } from '@acolhida/core/practice'
import { asked, openAnswers, readAnswers } from '@acolhida/core/questions'
import { type Instant, instant } from '@acolhida/core/time'
import { askingOf, knownBy, published } from '../door/circumstances.ts'
import { extrasOf, readCode } from '../door/understand.ts'
import type { DoorAddress } from '../happen.ts'
import { Refused } from '../refused.ts'
import type { KeptQuote } from '../store/quotes.ts'
import type { Store } from '../store/store.ts'

/** Sends an answer to somebody who has written. Runs inside `store.act`. */
export function answerEnquiry(store: Store, body: AnswerBody, now: Instant): { seq: number } {
  const enquiry = known(store, body.enquiry)
  const seq = store.appendEnquiryNews(enquiry.id, { news: 'answered', at: now, text: body.text })
  mail(
    store,
    enquiry,
    seq,
    'enquiry-answered',
    answerLetter(published(store).practice, enquiry, body.text),
    now,
  )
  return { seq }
}

/**
 * Reckons a quote from what was said on the phone or written, keeps it until its moment, and sends its link. It
 * belongs to an enquiry, which is begun where there is none. Runs inside `store.act`.
 */
export function sendQuote(
  store: Store,
  address: DoorAddress,
  body: QuoteBody,
  now: Instant,
): { seq: number } {
  const { practice } = published(store)
  const service = serviceOf(practice, body.service)
  if (!service)
    throw new Refused(404, 'unknown-service', 'This service does not exist.', { where: 'service' })
  if (body.until <= now)
    throw new Refused(422, 'until', 'A quote must stand for a while.', { where: 'until' })
  const person = knownBy(store, body.person.email)
  const asking = askingOf(person, service.id, 0)
  const questionnaire = body.answers ? questionnaireOf(practice, service) : undefined
  const { answers } = asked(questionnaire?.questions ?? [], body.answers ?? {}, asking)
  const extras = extrasOf(service, body.extras)
  const travel = travelZonesOf(practice, service).find((one) => one.id === body.travel)
  const code = body.code?.trim() ? readCode(store, body, person, false, now) : undefined
  if (typeof code === 'string') throw new Refused(422, 'code', code, { where: 'code' })
  const read = readAnswers(service, questionnaire, answers, asking, { extras, travel, whole: false, code })
  const kept: KeptQuote = {
    service: service.id,
    person: body.person,
    answers,
    extras,
    ...(travel ? { travel: travel.id } : {}),
    ...(code ? { code: code.id } : {}),
    // The practitioner has looked at it by sending it.
    reading: { ...read, outcome: 'fits', enquiryInstead: false },
    until: instant(body.until),
    text: body.text,
  }
  const enquiry: Enquiry = store.enquiry(body.enquiry) ?? {
    id: body.enquiry,
    at: now,
    name: body.person.name,
    email: body.person.email,
    message: '',
    service: service.id,
    answers: openAnswers(questionnaire?.questions ?? [], answers),
    attempts: [],
    byHand: true,
  }
  if (!store.enquiry(body.enquiry)) store.appendEnquiry(enquiry)
  const { minutes, lines, price } = kept.reading.quote
  const quote = {
    service: service.id,
    minutes,
    lines,
    price,
    currency: practice.profile.currency,
    until: kept.until,
  }
  const seq = store.appendEnquiryNews(enquiry.id, { news: 'quoted', at: now, text: body.text, quote })
  const secret = store.quotes.add(enquiry.id, kept)
  const link = address(`/${practice.profile.slug}/${service.id}?with=${secret}&quote=${secret}`)
  const letter = quoteLetter(practice, kept.person, quote, body.text)
  mail(store, enquiry, seq, 'quote', { ...letter, text: letter.text.replace('{link}', () => link) }, now)
  return { seq }
}

function known(store: Store, id: string): Enquiry {
  const enquiry = store.enquiry(id)
  if (!enquiry)
    throw new Refused(
      404,
      'unknown-enquiry',
      'The relay no longer knows this message. Please answer it by mail.',
    )
  return enquiry
}

function mail(
  store: Store,
  enquiry: Enquiry,
  seq: number,
  step: string,
  letter: { subject: string; text: string },
  now: Instant,
): void {
  store.post({
    key: `${enquiry.id}/${step}/email/${seq}`,
    booking: enquiry.id,
    seq,
    step,
    due: now,
    recipient: enquiry.email,
    subject: letter.subject,
    body: letter.text,
    calendar: '',
  })
}
