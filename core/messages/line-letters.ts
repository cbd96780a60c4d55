import { decimals } from '../money/currency.ts'
import { money } from '../money/words.ts'
import { shortName } from '../people/name.ts'
import { clientClocks, inLanguage, type Practice, placeOf, serviceOf } from '../practice/index.ts'
import { FIRST_LANGUAGE, type Instant, instant, MINUTE, moment, zone, zonePlace } from '../time/index.ts'
import type { Freed, HeldOut, PlaceInLine } from '../waiting/index.ts'
import { lettersIn } from './catalogue.ts'
import type { Letter, Which } from './letter.ts'
import { LINKS, languageFor, letterText, textMessage, timeFor } from './lines.ts'

/** What a letter to somebody in line is made from, in their language. */
function wordsTo(written: Practice, { joined: { person, service, place } }: PlaceInLine) {
  const language = languageFor(written, person)
  const say = lettersIn(written, language)
  const practice = inLanguage(written, language)
  const clocks = clientClocks(practice, place, person.zone)
  const currency = { code: practice.profile.currency, decimals: decimals(practice.profile.currency) }
  return {
    ...{ language, say, practice, clocks },
    service: serviceOf(practice, service)?.name ?? say('your-session'),
    where: placeOf(practice, place)?.name ?? '',
    money: (amount: number) => money(amount, currency, language),
    by: (at: Instant) =>
      say('moment', {
        moment: moment(at, clocks.first, language),
        place: zonePlace(clocks.first.name, language),
      }),
  }
}
type WordsTo = ReturnType<typeof wordsTo>

/** That a time is free, what it is, and until when it is theirs to take. */
function freedLetter(
  w: WordsTo,
  { joined: { person } }: PlaceInLine,
  offer: HeldOut,
  own: Instant | undefined,
) {
  const { say, service } = w
  const when = timeFor(w, offer.start, offer.minutes, w.clocks)
  return {
    subject: say('freed.subject', { service, when: w.by(offer.start) }),
    text: letterText(w, person.name, [
      say('freed', { service, when }),
      w.where ? say('where', { place: w.where }) : '',
      own === undefined
        ? offer.price > 0
          ? say('price', { price: w.money(offer.price) })
          : say('free-of-charge')
        : say('freed.instead', { when: w.by(own) }),
      say('freed.until', { until: w.by(offer.until), ...LINKS }),
      offer.shared ? say('freed.shared') : '',
    ]),
  }
}

/**
 * A message to somebody in line, as it stands when it goes; nothing where there is nothing to say any more.
 * @param own when the session begins that they have, and want earlier
 */
export function lineLetter(
  practice: Practice,
  line: PlaceInLine,
  { step, channel }: Pick<Which, 'step' | 'channel'>,
  now: Instant,
  own?: Instant,
): Letter | undefined {
  const w = wordsTo(practice, line)
  const { say, service } = w
  const { joined, status, offer, last, ended } = line
  const mail = (subject: string, body: string[]): Letter => ({
    to: 'client',
    subject,
    text: letterText(w, status === 'unproved' ? shortName(joined.person.name) : joined.person.name, body),
  })
  switch (step) {
    case 'line-joined': {
      const { until } = joined
      const proves = status === 'unproved' && until !== undefined
      if (proves && now > until) return undefined
      return mail(say('line.subject', { service }), [
        proves ? say('line.prove', { service, until: w.by(until), ...LINKS }) : say('line.in', { service }),
        proves ? say('line.ignore') : say('line.link', LINKS),
      ])
    }
    case 'freed-time': {
      if (!offer || now > offer.until) return undefined
      if (channel !== 'text') return { to: 'client', ...freedLetter(w, line, offer, own) }
      const when = w.by(offer.start)
      const text = say('freed.text', { service, when, until: w.by(offer.until), ...LINKS })
      return { to: 'client', channel: 'text', subject: '', text: textMessage(w, text) }
    }
    case 'freed-passed': {
      if (!last) return undefined
      const when = w.by(last.start)
      const body = say(last.how === 'taken' ? 'freed-passed.taken' : 'freed-passed.gone', { service, when })
      if (channel === 'text')
        return { to: 'client', channel: 'text', subject: '', text: textMessage(w, body) }
      return mail(say('freed-passed.subject', { service, when }), [body, say('line.link', LINKS)])
    }
    case 'line-still':
      return mail(say('line-still.subject', { service }), [
        say('line-still', { service, count: line.letGo, ...LINKS }),
      ])
    case 'line-ended': {
      if (!ended) return undefined
      return mail(say('line-ended.subject', { service }), [
        ended.text,
        say(ended.why === 'over' ? 'line-ended.over' : 'line-ended.out', { service }),
        say('again', LINKS),
      ])
    }
    default:
      return undefined
  }
}

/** What is written to the practitioner of a freed time for which nobody is asked before they say so. */
export function freedToDecide(practice: Practice, freed: Freed): Letter {
  const say = lettersIn(practice, FIRST_LANGUAGE)
  const home = zone(practice.profile.zone)
  const minutes = Math.round((freed.to - freed.from) / MINUTE)
  const service = (freed.service && serviceOf(practice, freed.service)?.name) || say('your-session')
  const when = timeFor({ say, language: FIRST_LANGUAGE }, instant(freed.from), minutes, { first: home })
  return {
    to: 'practitioner',
    subject: say('freed-to-decide.subject', { when: moment(freed.from, home) }),
    text: say('freed-to-decide', { service, when }),
  }
}
