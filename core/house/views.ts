import { ROOM } from '../booking/index.ts'
import type { DoorQuote, DoorService, DoorView, Wanted } from '../contract/types.ts'
import { decimals } from '../money/currency.ts'
import { money } from '../money/words.ts'
import type { KnownPerson } from '../people/index.ts'
import {
  doorPart,
  languagesOf,
  type Practice,
  placeOf,
  questionnaireOf,
  type Service,
  serviceOf,
  waitlistOf,
  zoneOf,
} from '../practice/index.ts'
import { type Question, withoutPoints } from '../questions/index.ts'
import { askingOf, reckon } from '../request/index.ts'
import { type Instant, inForce, type Tongue, tongueInForce } from '../time/index.ts'
import { readMessage, refusalWords } from '../words/index.ts'
import { doorTerms, termsOf } from './agreeing.ts'
import { type House, published } from './house.ts'
import { isClosed, isOffered, mayBeSeen, visitorOf } from './visitor.ts'

function doorService(house: House, service: Service, visitor: KnownPerson | undefined): DoorService {
  const { practice } = published(house)
  const questionnaire = questionnaireOf(practice, service)
  return {
    ...doorPart(service),
    extras: service.extras ?? [],
    ...(hasCodes(practice, service) ? { codes: true } : {}),
    byDate: service.seats > 1 && service.groupAt === 'dates',
    places: service.places.flatMap((id) => {
      const place = placeOf(practice, id)
      if (!place) return []
      const { kind, name, address, whoCalls, told, travel } = place
      const room = address?.includes(ROOM) && told === 'door'
      const later = room ? 'confirmation' : address && told !== 'door' && kind !== 'phone' ? told : undefined
      return [
        {
          id,
          kind,
          name,
          ...(told === 'door' && address && !address.includes(ROOM) ? { address } : {}),
          zone: zoneOf(practice, place).name,
          ...(later ? { later } : {}),
          ...(whoCalls ? { whoCalls } : {}),
          ...(kind === 'client' && travel ? { travel } : {}),
        },
      ]
    }),
    ...(questionnaire
      ? {
          questionnaire: {
            id: questionnaire.id,
            version: questionnaire.version,
            questions: questionnaire.questions.map((question) =>
              pricedQuestion(withoutPoints(question), practice, service),
            ),
          },
        }
      : {}),
    terms: termsOf(house, service, visitor).map((terms) => doorTerms(practice, service, terms)),
    straight: service.approval.new !== 'ask',
    ...(waitlistOf(service).door ? { line: true } : {}),
  }
}

/** A question with the price of the service in place of `{price}`. */
function pricedQuestion(question: Question, { profile }: Practice, { price }: Service): Question {
  const currency = { code: profile.currency, decimals: decimals(profile.currency) }
  const own = price.kind === 'free' ? 0 : price.kind === 'fixed' ? price.amount : price.rate
  const filled = (text: string): string => text.replaceAll('{price}', money(own, currency))
  return {
    ...question,
    text: filled(question.text),
    ...(question.help ? { help: filled(question.help) } : {}),
    ...('choices' in question
      ? { choices: question.choices.map((choice) => ({ ...choice, text: filled(choice.text) })) }
      : {}),
  } as Question
}

const hasCodes = (practice: Practice, service: Service): boolean =>
  (practice.codes ?? []).some((code) => !code.services?.length || code.services.includes(service.id))

/** The catalogues that the door's own pages say something from. */
const AT_DOOR = /^(?:door|answers|fields)\./

/** The practitioner's own sentences for the door, read already: what reads them need not go along. */
function readWords({ language, own = {} }: Tongue): Pick<DoorView, 'words'> {
  const said = Object.entries(own).filter(([key]) => AT_DOOR.test(key))
  return said.length === 0
    ? {}
    : {
        words: Object.fromEntries(said.map(([key, text]) => [key, readMessage(String(text), language)])),
      }
}

/**
 * What anybody may see of a practice; what is not open to everyone is left out.
 * @param key of a service's own link, which shows that service, too
 */
export function doorView(house: House, now: Instant, key?: string): DoorView {
  const { practice, seal } = published(house)
  const { profile } = practice
  const visitor = visitorOf(house, key)
  return {
    slug: profile.slug,
    practice: {
      name: profile.name,
      headline: profile.headline,
      greeting: profile.greeting,
      ...(profile.pronouns ? { pronouns: profile.pronouns } : {}),
      ...(profile.about ? { about: profile.about } : {}),
      ...(profile.picture ? { picture: profile.picture } : {}),
      zone: profile.zone,
      ...(profile.phone ? { phone: profile.phone } : {}),
      ...(profile.tax ? { tax: profile.tax.name, ...(profile.tax.onTop ? { taxOnTop: true } : {}) } : {}),
    },
    currency: { code: profile.currency, decimals: decimals(profile.currency) },
    language: inForce(),
    languages: languagesOf(practice),
    ...readWords(tongueInForce()),
    services: practice.services
      .filter((service) => isOffered(house, service, now, key) && mayBeSeen(house, service, key, now))
      .map((service) => doorService(house, service, visitor)),
    ...(seal ? { seal } : {}),
    ...(isClosed(house) ? { closed: practice.door?.text ?? '' } : {}),
    ...(visitor ? { visitor: { standing: visitor.standing, invited: visitor.invited } } : {}),
    ...(house.trial ? { trial: { as: house.trial.visitor ? 'known' : 'new' } } : {}),
    now,
  }
}

/**
 * Length and price as far as the answers so far tell them. What is missing or not valid is left out; nothing is
 * remembered, and nothing said but the quote.
 */
export function quoteSoFar(house: House, wanted: Wanted, now: Instant): DoorQuote {
  const { practice } = published(house)
  const service = serviceOf(practice, wanted.service)
  const shown = service && mayBeSeen(house, service, wanted.with, now)
  if (!shown || !isOffered(house, service, now, wanted.with)) return {}
  const visitor = visitorOf(house, wanted.with)
  const who = { by: 'client' as const, asking: askingOf(visitor, service.id), person: visitor?.id }
  // How far to travel is told where the place is chosen.
  const { travel: _, ...wish } = wanted
  const { reading, codeProblem } = reckon(practice, wish, who, { now, used: (code) => house.used(code) })
  const { minutes, lines, price } = reading.quote
  return {
    ...(service.lengthHidden ? {} : { minutes }),
    ...(service.priceHidden ? {} : { lines, price }),
    ...(codeProblem ? { codeProblem: refusalWords(codeProblem.code, codeProblem.data) } : {}),
  }
}
