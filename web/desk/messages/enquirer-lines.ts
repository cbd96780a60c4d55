import type { DeskEnquiry, SentMail } from '@acolhida/core/formats'
import { messageName, nameOfMail, type QuoteStep, quoteDrafts, quoteSteps } from '@acolhida/core/messages'
import type { Practice } from '@acolhida/core/practice'
import { DAY, type Instant, shift } from '@acolhida/core/time'
import type { DeskDatabase } from '../data/database.ts'
import { notSent } from './not-sent.ts'

/** A message to somebody who has written or has a quote. */
export type EnquirerLine =
  | { is: 'planned' | 'draft'; enquiry: DeskEnquiry; step: QuoteStep }
  | { is: 'failed'; enquiry: DeskEnquiry; mail: SentMail }

/** How old a message may be for something to be still to go to whoever wrote it, in days: ten years of them are not read. */
const REACH = 120

/** What goes, lies before one, or could not be sent of messages to whoever has not booked yet. */
export async function enquirerLines(
  db: DeskDatabase,
  practice: Practice,
  now: Instant,
  until: Instant,
): Promise<EnquirerLine[]> {
  const enquiries = await db.enquiries
    .where('at')
    .above(shift(now, -REACH * DAY))
    .filter(({ state }) => state === 'open' || state === 'answered')
    .toArray()
  const byId = new Map(enquiries.map((enquiry) => [enquiry.id, enquiry]))
  const mails = await db.mails
    .where('booking')
    .anyOf([...byId.keys()])
    .toArray()
  const gone = new Set(mails.map((mail) => `${mail.booking} ${nameOfMail(mail)}`))
  const lines = enquiries.flatMap((enquiry): EnquirerLine[] => {
    const history = enquiry.history ?? []
    const drafts = quoteDrafts(practice, history, now)
    const coming = quoteSteps(practice, history).filter(
      (step) => step.at >= now && step.at <= until && !gone.has(`${enquiry.id} ${messageName(step)}`),
    )
    return [
      ...drafts.map((step): EnquirerLine => ({ is: 'draft', enquiry, step })),
      ...coming.map((step): EnquirerLine => ({ is: 'planned', enquiry, step })),
    ]
  })
  const failed = notSent(mails, now).map(
    (mail): EnquirerLine => ({ is: 'failed', enquiry: byId.get(mail.booking)!, mail }),
  )
  return [...failed, ...lines]
}
