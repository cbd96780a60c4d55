import type { Contact } from '../booking/index.ts'
import type { Enquiry, SentQuote } from '../contract/index.ts'
import { decimals } from '../money/currency.ts'
import { money } from '../money/words.ts'
import { type Practice, serviceOf } from '../practice/index.ts'
import { moment, zone, zonePlace } from '../time/index.ts'
import letters from '../words/en/letters.json' with { type: 'json' }
import { sayFrom } from '../words/say.ts'
import type { Letter } from './letter.ts'
import { letterText } from './lines.ts'

const { text: say } = sayFrom(letters)

const about = (practice: Practice, service: string | undefined): string =>
  (service === undefined ? undefined : serviceOf(practice, service)?.name) ?? say('your-message')

/** An answer to somebody who has written instead of booking. */
export const answerLetter = (practice: Practice, enquiry: Enquiry, text: string): Letter => ({
  to: 'client',
  subject: say('answer.subject', { what: about(practice, enquiry.service) }),
  text: letterText(practice, enquiry.name, [text.trim()]),
})

/** A quote line by line, until when it stands, and the link (`{link}`) by which it is accepted and booked. */
export function quoteLetter(
  practice: Practice,
  person: Pick<Contact, 'name' | 'zone'>,
  quote: SentQuote,
  text: string,
): Letter {
  const currency = { code: quote.currency, decimals: decimals(quote.currency) }
  const service = about(practice, quote.service)
  const lines = quote.lines.map(({ name, quantity, amount }) => {
    const line = { name, quantity, amount: money(amount, currency) }
    return say(quantity > 1 ? 'quote.line-many' : 'quote.line', line)
  })
  const total =
    quote.price === 0 ? say('quote.free') : say('quote.total', { price: money(quote.price, currency) })
  const until = `${moment(quote.until, zone(person.zone))} (${zonePlace(person.zone)} time)`
  return {
    to: 'client',
    subject: say('quote.subject', { service }),
    text: letterText(practice, person.name, [
      text.trim(),
      [say('quote.what', { service, minutes: quote.minutes }), ...lines, total].join('\n'),
      say('quote.until', { until, link: '{link}' }),
    ]),
  }
}
