import { enquirySubject } from '../agenda/index.ts'
import type { AnswerBody, QuoteBody } from '../contract/desk-types.ts'
import type { EnquireBody, Enquiry, EnquiryNews } from '../contract/types.ts'
import { questionnaireOf, serviceOf } from '../practice/index.ts'
import { openAnswers } from '../questions/index.ts'
import { Refused } from '../request/index.ts'
import { checkByHand, readByThem, reckonByHand } from './by-hand.ts'
import { published } from './house.ts'
import type { Work } from './work.ts'

/** Takes a message instead of a booking. */
export function enquire(work: Work, body: EnquireBody): { received: true } {
  const { house, now, changes } = work
  const { practice } = published(house)
  const { visit, ...rest } = body
  const service = body.service === undefined ? undefined : serviceOf(practice, body.service)
  if (body.service !== undefined && !service) {
    throw new Refused(404, 'unknown-service', { where: 'service' })
  }
  const questions = (service && questionnaireOf(practice, service)?.questions) ?? []
  const answers = openAnswers(questions, body.answers ?? {})
  const id = work.ids()
  work.subject = enquirySubject(id)
  const { attempts, earlier } = house.untold(visit)
  const enquiry: Enquiry = {
    ...{ id, at: now, ...rest, answers, attempts: [...attempts] },
    ...(earlier === undefined ? {} : { earlier }),
  }
  changes.push({ type: 'enquiry', id, seq: 1, at: now, body: enquiry })
  if (attempts.length > 0) changes.push({ type: 'attempts-told', visit, enquiry: id })
  return { received: true }
}

function tell(work: Work, id: string, body: EnquiryNews, seq: number): { seq: number } {
  work.subject = enquirySubject(id)
  work.changes.push({ type: 'enquiry', id, seq, at: body.at, body })
  return { seq }
}

/** Sends an answer to somebody who has written. */
export function answer(work: Work, { enquiry: id, text }: AnswerBody): { seq: number } {
  const { house, now } = work
  if (!house.enquiry(id)) throw new Refused(404, 'unknown-enquiry')
  return tell(work, id, { news: 'answered', at: now, text }, house.lines('enquiry', enquirySubject(id)) + 1)
}

/**
 * Reckons a quote from what was said on the phone or written, and keeps it until its moment. It belongs to an enquiry,
 * which is begun where there is none.
 */
export function quote(work: Work, body: QuoteBody): { seq: number } {
  const { house, now, changes } = work
  const reckoned = reckonByHand(work, body)
  if (body.until <= now) throw new Refused(422, 'until', { where: 'until' })
  const { by } = body
  if (by && !body.person.phone) throw new Refused(422, 'no-phone.text', { where: 'person.phone' })
  checkByHand(reckoned, body)
  const { practice, service, answers, extras, travel, code, questionnaire } = reckoned
  const { reading } = readByThem(work, body)
  const known = house.enquiry(body.enquiry)
  if (!known) {
    const enquiry: Enquiry = {
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
    changes.push({ type: 'enquiry', id: enquiry.id, seq: 1, at: now, body: enquiry })
  }
  const id = work.ids()
  changes.push({
    type: 'quote',
    quote: {
      id,
      enquiry: body.enquiry,
      service: service.id,
      person: body.person,
      answers,
      extras,
      ...(travel ? { travel: travel.id } : {}),
      ...(code ? { code: code.id } : {}),
      // The practitioner has looked at it by sending it.
      reading: { ...reading, outcome: 'fits', enquiryInstead: false },
      until: body.until,
      text: body.text,
      booking: '',
    },
  })
  const { minutes, lines, price } = reading.quote
  const { currency } = practice.profile
  const sent = { service: service.id, minutes, lines, price, currency, until: body.until }
  const seq = known ? house.lines('enquiry', enquirySubject(body.enquiry)) + 1 : 2
  const told: EnquiryNews = { news: 'quoted', at: now, text: body.text, quote: sent, id }
  return tell(work, body.enquiry, { ...told, ...(by ? { by } : {}) }, seq)
}
