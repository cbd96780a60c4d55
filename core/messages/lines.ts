import {
  addressTold,
  agreementsIn,
  type Booking,
  deadlinesIn,
  givenIn,
  movable,
  type Reached,
  reachedAs,
  whereAt,
} from '../booking/index.ts'
import { decimals } from '../money/currency.ts'
import { type Minor, shareOf } from '../money/rounding.ts'
import { money as moneyWords } from '../money/words.ts'
import {
  clientClocks,
  inLanguage,
  isInPerson,
  languagesOf,
  ownLanguage,
  type Practice,
  placeOf,
  preparationOf,
  serviceOf,
  zoneOf,
} from '../practice/index.ts'
import { isToldToWhoComes } from '../preparing/reader.ts'
import { agreedText, chainHead, shownAsText } from '../terms/index.ts'
import {
  bestLanguage,
  type Clocks,
  clocksOf,
  dateAt,
  FIRST_LANGUAGE,
  type Instant,
  type Language,
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
import { listed } from '../words/say.ts'
import { lettersIn, type SayLetter } from './catalogue.ts'
import { DOOR_TOKEN, LINK_TOKEN, YOURS_TOKEN } from './tokens.ts'

/** What the words of a message are made from. */
export interface Words {
  practice: Practice
  booking: Booking
  /** Who reads it. */
  reader: Reached
  /** The practice's zone. */
  home: Zone
  service: string
  /** What is still to be agreed to, by its titles. */
  lacking: readonly string[]
  /** The language of whoever reads it; how it says sentences, and money of the booking. */
  language: Language
  say: SayLetter
  money: (amount: Minor) => string
}

/** In which language a client of a booking is written to: theirs, where the practice speaks it. */
export const languageFor = (
  practice: Practice,
  { language }: { language?: Language | undefined },
): Language => bestLanguage(language ? [language] : [], languagesOf(practice)) ?? ownLanguage(practice)

/** In which language somebody reads what is about a booking: the client in theirs, the practitioner in the desk's. */
export const readerLanguage = (
  practice: Practice,
  booking: Booking,
  to: 'client' | 'practitioner',
): Language =>
  to === 'client'
    ? languageFor(practice, { language: booking.language ?? booking.asked.person.language })
    : FIRST_LANGUAGE

/**
 * What a message about a booking is made from.
 * @param language of whoever reads it
 * @param reader who that is; who has asked, unless it is said
 */
export function wordsFor(
  written: Practice,
  booking: Booking,
  language: Language,
  lacking: readonly string[] = [],
  reader: Reached = reachedAs(booking.asked.person, {}, 'asks', 'email'),
): Words {
  const practice = inLanguage(written, language)
  const say = lettersIn(written, language)
  const currency = currencyIn(booking)
  return {
    ...{ practice, booking, reader, lacking, language, say },
    home: zone(practice.profile.zone),
    service: serviceOf(practice, booking.service)?.name ?? say('your-session'),
    money: (amount) => moneyWords(amount, currency, language),
  }
}

/** Paragraphs as a letter: those that say nothing are left out. */
export const letterText = (
  { practice, say }: Pick<Words, 'practice' | 'say'>,
  name: string,
  body: readonly string[],
): string => {
  const { profile, messaging } = practice
  const hello = messaging?.greeting?.replaceAll('{name}', () => name).trim() || say('hello', { name })
  return [hello, ...body.filter(Boolean), messaging?.signature?.trim() || profile.name].join('\n\n')
}

/** "Thursday 3 December, 15:00 – 16:15 (Lisbon time; 16:15 – 17:30 in Berlin)": the zone is always named. */
export function timeFor(
  { say, language }: Pick<Words, 'say' | 'language'>,
  start: Instant,
  minutes: number,
  { first, also }: Clocks,
): string {
  const end = shift(start, minutes * MINUTE)
  const at = {
    date: longDate(dateAt(first, start), language),
    time: span(start, end, first, language),
    place: zonePlace(first.name, language),
  }
  return also && !sameClock(first, also, start)
    ? say('time.two', {
        ...at,
        other: span(start, end, also, language),
        there: zonePlace(also.name, language),
      })
    : say('time', at)
}

/** By whose clocks a client reads the times of their booking. */
export const clocksIn = ({ practice, booking }: Words, place = booking.place): Clocks =>
  clientClocks(practice, place, booking.asked.person.zone)

/** A time of this booking's length as the client reads it. */
export const timeOf = (w: Words, start = w.booking.start, place = w.booking.place): string =>
  timeFor(w, start, w.booking.minutes, clocksIn(w, place))

/** A moment as the client reads it, with its zone. */
export const by = (w: Words, moment: Instant): string => {
  const { first } = clocksIn(w)
  const place = zonePlace(first.name, w.language)
  return w.say('moment', { moment: momentWords(moment, first, w.language), place })
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
      return w.say('you-call', { number: place.address || practice.profile.phone || practice.profile.name })
    return phone ? w.say('i-call-number', { phone }) : w.say('i-call')
  }
  // At the client's, it is their own address that they read once more.
  const address = place.kind === 'client' || told ? whereAt(practice, booking) : undefined
  if (address) return w.say('where-address', { place: place.name, address })
  const later = place.address && place.told !== 'door' ? w.say('where-later', { when: place.told }) : ''
  return [w.say('where', { place: place.name }), later].filter(Boolean).join('\n')
}

/** Whether the place's address may stand in a message that goes now. */
export const tellsPlace = ({ practice, booking }: Words, now: Instant): boolean =>
  addressTold(practice, booking, now) !== undefined

export const currencyIn = ({ asked: { currency } }: Booking) => ({
  code: currency,
  decimals: decimals(currency),
})

/** A sentence about a share of the price; nothing of what is free. */
const shareLine = (w: Words, share: number, sentence: 'given' | 'given-if-none'): string =>
  share > 0 && w.booking.price > 0
    ? w.say(sentence, { share, amount: w.money(shareOf(w.booking.price, share)) })
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
      ? w.say('cancel-free', { until: by(w, until) })
      : w.say('cancel-share', { until: by(w, until), share }),
  )
  if (shareAfter > 0)
    lines.push(w.say(coming.length > 0 ? 'cancel-after' : 'cancel-from-now', { share: shareAfter }))
  return lines.join('\n')
}

/** Until when, and how often, the client may move it; nothing where they may not, or no longer. */
function moveUntil({ practice, booking }: Words, now: Instant) {
  const may = movable(booking, zoneOf(practice, placeOf(practice, booking.place)))
  return may && now <= may.until ? may : undefined
}

export function moveLine(w: Words, now: Instant): string {
  const may = moveUntil(w, now)
  return may ? w.say('move-until', { until: by(w, may.until), left: may.left }) : ''
}

export const everythingLine = (w: Words, now: Instant): string =>
  w.say('confirmation.everything', { ...LINKS, how: moveUntil(w, now) ? 'both' : 'cancel' })

/** What was agreed to: the number that proves it and all that was agreed before, and the text as it was shown. */
export function agreedLines(w: Words): string[] {
  return agreementsIn(w.booking).map((agreement) => {
    const { title = agreement.terms, shown } = agreedText(w.practice.terms, agreement)
    const line = w.say('agreed', {
      title: `“${title}”`,
      version: agreement.version,
      when: by(w, agreement.at),
      print: chainHead(agreement),
    })
    return shown === undefined ? line : `${line}\n\n${shownAsText(shown)}`
  })
}

/** Whether what is to be agreed to and prepared is somebody else's than theirs who read this. */
const isForAnother = ({ booking, reader }: Words): boolean =>
  reader.as !== 'comes' && isToldToWhoComes(booking)

/** What is still to be agreed to, through the link. */
export const lackingLine = (w: Words): string =>
  w.lacking.length === 0 || isForAnother(w)
    ? ''
    : w.say(w.practice.unagreed === 'may-not' ? 'agree.must' : 'agree', {
        titles: listed(
          w.lacking.map((title) => `“${title}”`),
          'and',
          w.language,
        ),
        ...LINKS,
      })

/** What is to be read, signed, answered, brought or ticked before it, on one page. */
export function prepareLine(w: Words): string {
  const { course } = w.booking
  if (!course || course.done || isForAnother(w)) return ''
  const found = course.what.flatMap((id) => preparationOf(w.practice, id) ?? [])
  if (found.length === 0) return ''
  const list = found.map(({ name, minutes = 0 }) => w.say('prepare.line', { name, minutes })).join('\n')
  return `${w.say('prepare.before', { count: found.length })}\n${list}\n${w.say('prepare.page', PAGE)}`
}

/** What the client is asked to do, and until when the time is theirs. */
export function askedLines(w: Words): string[] {
  const { asked, until, unproved } = w.booking
  const kept = w.say('asked.kept', { until: by(w, until) })
  if (asked.proof === 'link' || asked.proof === 'quote') return [kept, w.say('stands', LINKS)]
  return unproved
    ? [w.say(asked.unheld ? 'asked.prove-first' : 'asked.prove', { until: by(w, until), ...LINKS })]
    : [kept, w.say('asked.open-once', LINKS)]
}

/** Links are filled in when a message goes. */
/** The page of everything that is theirs. */
export const PAGE = { yours: YOURS_TOKEN }
export const LINKS = { link: LINK_TOKEN, door: DOOR_TOKEN }

/** A moment as the practitioner reads it. */
export const atHome = ({ home, language }: Words, moment: Instant): string =>
  momentWords(moment, home, language)

/** The time of a booking as the practitioner reads it: the place's clock first, where it has one of its own. */
export const ownTime = (w: Words): string => {
  const { practice, booking, home } = w
  const place = placeOf(practice, booking.place)
  return timeFor(
    w,
    booking.start,
    booking.minutes,
    clocksOf(isInPerson(place), zoneOf(practice, place), home),
  )
}

/** What the practitioner wants whoever has booked to see. */
export function afterwardsLine({ practice, booking }: Words): string {
  const afterwards = serviceOf(practice, booking.service)?.afterwards
  return afterwards ? [afterwards.text.trim(), afterwards.address].filter(Boolean).join('\n') : ''
}

/** What is to be read or done before the session. */
export function beforeLines({ practice, booking }: Words): string {
  const before = serviceOf(practice, booking.service)?.before
  return before ? [before.text.trim(), before.address].filter(Boolean).join('\n') : ''
}

/** A text to a phone: who it is from, and what it says. */
export function textMessage({ practice }: Pick<Words, 'practice'>, body: string): string {
  const sender = practice.messaging?.sender?.trim()
  return sender ? `${sender}: ${body.trim()}` : body.trim()
}
