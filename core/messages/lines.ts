import {
  addressTold,
  agreementsIn,
  type Booking,
  deadlinesIn,
  givenIn,
  movable,
  openOnAsking,
  planOf,
  stillFirst,
  whereAt,
} from '../booking/index.ts'
import { accountOf, ibanWords, referenceOf } from '../ledger/index.ts'
import { decimals } from '../money/currency.ts'
import { shareOf } from '../money/rounding.ts'
import { money } from '../money/words.ts'
import {
  clientClocks,
  isInPerson,
  type Practice,
  placeOf,
  serviceOf,
  taxWords,
  zoneOf,
} from '../practice/index.ts'
import { chainHead, shownAsText, shownTerms } from '../terms/index.ts'
import {
  type Clocks,
  clocksOf,
  dateAt,
  type Instant,
  longDate,
  MINUTE,
  moment as momentWords,
  sameClock,
  shift,
  span,
  type Zone,
  zone,
  zonePlace,
} from '../time/index.ts'
import letters from '../words/en/letters.json' with { type: 'json' }
import { listed, sayFrom } from '../words/say.ts'

/** What the words of a message are made from. */
export interface Words {
  practice: Practice
  booking: Booking
  /** The practice's zone. */
  home: Zone
  service: string
  /** What is still to be agreed to, by its titles. */
  lacking: readonly string[]
}

export const { text: say } = sayFrom(letters)

export const wordsFor = (practice: Practice, booking: Booking, lacking: readonly string[] = []): Words => ({
  practice,
  booking,
  lacking,
  home: zone(practice.profile.zone),
  service: serviceOf(practice, booking.service)?.name ?? say('your-session'),
})

/** Paragraphs as a letter: those that say nothing are left out. */
export const letterText = (practice: Practice, name: string, body: readonly string[]): string =>
  [say('hello', { name }), ...body.filter(Boolean), practice.profile.name].join('\n\n')

/** "Thursday 3 December, 15:00 – 16:15 (Lisbon time; 16:15 – 17:30 in Berlin)": the zone is always named. */
export function timeFor(start: Instant, minutes: number, { first, also }: Clocks): string {
  const end = shift(start, minutes * MINUTE)
  const beside =
    also && !sameClock(first, also, start) ? `; ${span(start, end, also)} in ${zonePlace(also.name)}` : ''
  return `${longDate(dateAt(first, start))}, ${span(start, end, first)} (${zonePlace(first.name)} time${beside})`
}

const clocks = ({ practice, booking }: Words, place = booking.place): Clocks =>
  clientClocks(practice, place, booking.asked.person.zone)

/** A time of this booking's length as the client reads it. */
export const timeOf = (w: Words, start = w.booking.start, place = w.booking.place): string =>
  timeFor(start, w.booking.minutes, clocks(w, place))

/** A moment as the client reads it, with its zone. */
export const by = (w: Words, moment: Instant): string => {
  const { first } = clocks(w)
  return `${momentWords(moment, first)} (${zonePlace(first.name)} time)`
}

/** The start in short, for subjects. */
export const startOf = (w: Words): string => by(w, w.booking.start)

export function whereLine(w: Words, told: boolean): string {
  const { practice, booking } = w
  const place = placeOf(practice, booking.place)
  if (!place) return ''
  if (place.kind === 'phone') {
    const { phone } = booking.asked.person
    if (place.whoCalls === 'client')
      return say('you-call', { number: place.address || practice.profile.phone || practice.profile.name })
    return phone ? say('i-call-number', { phone }) : say('i-call')
  }
  // At the client's, it is their own address that they read once more.
  const address = place.kind === 'client' || told ? whereAt(practice, booking) : undefined
  if (address) return say('where-address', { place: place.name, address })
  const later = place.address && place.told !== 'door' ? say('where-later', { when: place.told }) : ''
  return [say('where', { place: place.name }), later].filter(Boolean).join('\n')
}

/** Whether the place's address may stand in a message that goes now. */
export const tellsPlace = ({ practice, booking }: Words, now: Instant): boolean =>
  addressTold(practice, booking, now) !== undefined

export const currencyIn = ({ asked: { currency } }: Booking) => ({
  code: currency,
  decimals: decimals(currency),
})

/** A sentence about a share of the price; nothing of what is free. */
const shareLine = ({ booking }: Words, share: number, sentence: 'given' | 'given-if-none'): string =>
  share > 0 && booking.price > 0
    ? say(sentence, { share, amount: money(shareOf(booking.price, share), currencyIn(booking)) })
    : ''

/** What the practitioner's own side of the rules gives the client. */
export const givenLine = (w: Words): string => shareLine(w, givenIn(w.booking).share, 'given')

/** What it gives them if they take none of the other times. */
export const givenIfNoneLine = (w: Words): string => shareLine(w, w.booking.gives ?? 0, 'given-if-none')

/** What cancelling costs when, by the rules of the day one asked. */
export function costLines(w: Words, now: Instant): string {
  const { practice, booking } = w
  if (booking.price === 0) return ''
  const place = zoneOf(practice, placeOf(practice, booking.place))
  const { deadlines, shareAfter } = deadlinesIn(booking, place)
  const coming = deadlines.filter(({ kind, until }) => kind === 'cancel' && until >= now)
  const lines = coming.map(({ share = 0, until }) =>
    share === 0
      ? say('cancel-free', { until: by(w, until) })
      : say('cancel-share', { until: by(w, until), share }),
  )
  if (shareAfter > 0)
    lines.push(say(coming.length > 0 ? 'cancel-after' : 'cancel-from-now', { share: shareAfter }))
  return lines.join('\n')
}

/** Until when, and how often, the client may move it; nothing where they may not, or no longer. */
function moveUntil({ practice, booking }: Words, now: Instant) {
  const may = movable(booking, zoneOf(practice, placeOf(practice, booking.place)))
  return may && now <= may.until ? may : undefined
}

export function moveLine(w: Words, now: Instant): string {
  const may = moveUntil(w, now)
  return may ? say('move-until', { until: by(w, may.until), left: may.left }) : ''
}

export const everythingLine = (w: Words, now: Instant): string =>
  say('confirmation.everything', { ...LINKS, how: moveUntil(w, now) ? 'both' : 'cancel' })

/** What a booking costs, when it is paid where that is more than once, and where a transfer goes. */
export function priceLine(w: Words): string {
  const { practice, booking } = w
  const { price } = booking
  if (price === 0) return say('free-of-charge')
  const currency = currencyIn(booking)
  const plan = planOf(booking, zoneOf(practice, placeOf(practice, booking.place)))
  return [
    say('price', { price: money(price, currency) }),
    ...(plan.length > 1
      ? plan.map(({ amount, due }) =>
          say('price-line', { amount: money(amount, currency), when: by(w, due) }),
        )
      : []),
    transferLine(w),
  ]
    .filter(Boolean)
    .join('\n')
}

const transferLine = ({ practice: { transfer }, booking }: Words): string =>
  transfer
    ? say('transfer', {
        ...{ name: transfer.name, iban: ibanWords(transfer.iban) },
        reference: referenceOf(booking),
      })
    : ''

/** What must come before it is booked, by when, and how. */
export function firstLine(w: Words): string {
  const { practice, booking } = w
  const first = stillFirst(booking, zoneOf(practice, placeOf(practice, booking.place)))
  if (!first) return ''
  const sum = { amount: money(first.amount, currencyIn(booking)), until: by(w, first.until) }
  return [say(practice.cards ? 'to-pay.first-card' : 'to-pay.first', sum), transferLine(w)]
    .filter(Boolean)
    .join('\n')
}

/** What is asked for on asking, and how it can come. */
export function onAskingLine(w: Words): string {
  const amount = openOnAsking(w.booking)
  return amount > 0
    ? [say('asked.pay', { amount: money(amount, currencyIn(w.booking)) }), transferLine(w)]
        .filter(Boolean)
        .join('\n')
    : ''
}

/** The newest invoice: what it is for, line by line, and what is to be done about it. */
export function invoiceLines(w: Words): string[] {
  const { booking } = w
  const invoice = booking.invoices?.at(-1)
  if (!invoice) return []
  const currency = currencyIn(booking)
  const { number, lines, total, tax, corrects, text = '' } = invoice
  const open = accountOf(booking).open
  return [
    corrects
      ? say('invoice.back', { number, corrects, service: w.service, when: timeOf(w) })
      : say('invoice', { number, service: w.service, when: timeOf(w) }),
    text,
    [
      ...lines.map(({ name, quantity, amount }) =>
        say('invoice.line', {
          name: quantity === 1 ? name : `${quantity} × ${name}`,
          amount: money(amount, currency),
        }),
      ),
      say('invoice.total', { amount: money(total, currency) }),
      tax ? say('invoice.tax', { tax: taxWords(tax), amount: money(tax.amount, currency) }) : '',
    ]
      .filter(Boolean)
      .join('\n'),
    open > 0
      ? [say('invoice.open', { amount: money(open, currency) }), transferLine(w)].filter(Boolean).join('\n')
      : say('invoice.settled'),
  ]
}

/** What was agreed to: the number that proves it and all that was agreed before, and the text as it was shown. */
export function agreedLines(w: Words): string[] {
  return agreementsIn(w.booking).map((agreement) => {
    const terms = w.practice.terms.find(({ id }) => id === agreement.terms)
    const version = terms?.versions.find(({ number }) => number === agreement.version)
    const line = say('agreed', {
      title: `“${version?.title ?? agreement.terms}”`,
      version: agreement.version,
      when: by(w, agreement.at),
      print: chainHead(agreement),
    })
    const { fields } = agreement
    return version && fields ? `${line}\n\n${shownAsText(shownTerms(version, fields))}` : line
  })
}

/** What is still to be agreed to, through the link. */
export const lackingLine = ({ lacking, practice }: Words): string =>
  lacking.length === 0
    ? ''
    : say(practice.unagreed === 'may-not' ? 'agree.must' : 'agree', {
        titles: listed(
          lacking.map((title) => `“${title}”`),
          'and',
        ),
        ...LINKS,
      })

/** What the client is asked to do, and until when the time is theirs. */
export function askedLines(w: Words): string[] {
  const { asked, until, unproved } = w.booking
  const kept = say('asked.kept', { until: by(w, until) })
  if (asked.proof === 'link' || asked.proof === 'quote') return [kept, say('stands', LINKS)]
  return unproved
    ? [say('asked.prove', { until: by(w, until), ...LINKS })]
    : [kept, say('asked.open-once', LINKS)]
}

/** Links are filled in when a message goes. */
export const LINKS = { link: '{link}', door: '{door}' }

/** A moment as the practitioner reads it. */
export const atHome = ({ home }: Words, moment: Instant): string => momentWords(moment, home)

/** The time of a booking as the practitioner reads it: the place's clock first, where it has one of its own. */
export const ownTime = ({ practice, booking, home }: Words): string => {
  const place = placeOf(practice, booking.place)
  return timeFor(booking.start, booking.minutes, clocksOf(isInPerson(place), zoneOf(practice, place), home))
}

/** What the practitioner wants whoever has booked to see. */
export function afterwardsLine({ practice, booking }: Words): string {
  const afterwards = serviceOf(practice, booking.service)?.afterwards
  return afterwards ? [afterwards.text.trim(), afterwards.address].filter(Boolean).join('\n') : ''
}
