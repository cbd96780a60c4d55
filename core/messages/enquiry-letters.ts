import type { Contact } from '../booking/index.ts'
import type { Enquiry, SentQuote } from '../contract/index.ts'
import { decimals } from '../money/currency.ts'
import { money } from '../money/words.ts'
import { type Practice, serviceOf } from '../practice/index.ts'
import { moment, zone } from '../time/index.ts'
import type { Letter } from './letters.ts'

const signed = (practice: Practice, name: string, body: string[]): string =>
  [`Hello ${name},`, ...body.filter(Boolean), practice.profile.name].join('\n\n')

const about = (practice: Practice, service: string | undefined): string =>
  (service === undefined ? undefined : serviceOf(practice, service)?.name) ?? 'your message'

/** An answer to somebody who has written instead of booking. */
export const answerLetter = (practice: Practice, enquiry: Enquiry, text: string): Letter => ({
  to: 'client',
  subject: `About ${about(practice, enquiry.service)}`,
  text: signed(practice, enquiry.name, [text.trim()]),
})

/** A quote line by line, until when it stands, and the link (`{link}`) by which it is accepted and booked. */
export function quoteLetter(
  practice: Practice,
  person: Pick<Contact, 'name' | 'zone'>,
  quote: SentQuote,
  text: string,
): Letter {
  const currency = { code: quote.currency, decimals: decimals(quote.currency) }
  const name = about(practice, quote.service)
  const lines = quote.lines.map(
    (line) =>
      `  ${line.quantity > 1 ? `${line.quantity} × ` : ''}${line.name}: ${money(line.amount, currency)}`,
  )
  const total = quote.price === 0 ? 'free of charge' : money(quote.price, currency)
  return {
    to: 'client',
    subject: `A quote for you: ${name}`,
    text: signed(practice, person.name, [
      text.trim(),
      [`${name}, ${quote.minutes} minutes:`, ...lines, `  Total: ${total}`].join('\n'),
      `It stands until ${moment(quote.until, zone(person.zone))}. To accept it, choose a time here:\n{link}`,
    ]),
  }
}
