import type { Contact } from '../booking/index.ts'
import type { Enquiry, SentQuote } from '../contract/index.ts'
import { decimals } from '../money/currency.ts'
import { money } from '../money/words.ts'
import { inLanguage, type Practice, serviceOf } from '../practice/index.ts'
import { moment, zone, zonePlace } from '../time/index.ts'
import { lettersIn } from './catalogue.ts'
import type { Letter } from './letter.ts'
import { languageFor, letterText, textMessage } from './lines.ts'
import { LINK_TOKEN } from './tokens.ts'

/** What a letter to somebody who has written is made from, in their language. */
function wordsTo(written: Practice, person: Pick<Contact, 'language'>, of: string | undefined) {
  const language = languageFor(written, person)
  const say = lettersIn(written, language)
  const practice = inLanguage(written, language)
  const service = of === undefined ? undefined : serviceOf(practice, of)?.name
  return { language, say, practice, service: service ?? say('your-message') }
}

/** An answer to somebody who has written instead of booking. */
export function answerLetter(practice: Practice, enquiry: Enquiry, text: string): Letter {
  const w = wordsTo(practice, enquiry, enquiry.service)
  return {
    to: 'client',
    subject: w.say('answer.subject', { what: w.service }),
    text: letterText(w, enquiry.name, [text.trim()]),
  }
}

const currencyOf = ({ currency }: SentQuote) => ({ code: currency, decimals: decimals(currency) })

/** Until when a quote stands, by the clock of whoever has it. */
const untilFor = (
  { say, language }: ReturnType<typeof wordsTo>,
  person: Pick<Contact, 'zone'>,
  quote: SentQuote,
): string =>
  say('moment', {
    moment: moment(quote.until, zone(person.zone), language),
    place: zonePlace(person.zone, language),
  })

/** A quote in a text message: what it comes to, until when it stands, and the link (a token). */
export function quoteText(
  practice: Practice,
  person: Pick<Contact, 'zone' | 'language'>,
  quote: SentQuote,
  text: string,
): Letter {
  const w = wordsTo(practice, person, quote.service)
  const { say, service, language } = w
  const said = say('quote.text', {
    ...{ service, minutes: quote.minutes, until: untilFor(w, person, quote), link: LINK_TOKEN },
    price: quote.price === 0 ? say('quote.text-free') : money(quote.price, currencyOf(quote), language),
  })
  const body = [text.trim(), said].filter(Boolean).join(' ')
  return { to: 'client', channel: 'text', subject: '', text: textMessage(w, body) }
}

/** A quote line by line, until when it stands, and the link (a token) by which it is accepted and booked. */
export function quoteLetter(
  practice: Practice,
  person: Pick<Contact, 'name' | 'zone' | 'language'>,
  quote: SentQuote,
  text: string,
): Letter {
  const w = wordsTo(practice, person, quote.service)
  const { say, service, language } = w
  const currency = currencyOf(quote)
  const lines = quote.lines.map(({ name, quantity, amount }) => {
    const line = { name, quantity, amount: money(amount, currency, language) }
    return say(quantity > 1 ? 'quote.line-many' : 'quote.line', line)
  })
  const total =
    quote.price === 0
      ? say('quote.free')
      : say('quote.total', { price: money(quote.price, currency, language) })
  const until = untilFor(w, person, quote)
  return {
    to: 'client',
    subject: say('quote.subject', { service }),
    text: letterText(w, person.name, [
      text.trim(),
      [say('quote.what', { service, minutes: quote.minutes }), ...lines, total].join('\n'),
      say('quote.until', { until, link: LINK_TOKEN }),
    ]),
  }
}
