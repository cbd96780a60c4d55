import type { Attempt } from '../booking/index.ts'
import type { Wanted } from '../contract/types.ts'
import {
  type Practice,
  placeOf,
  type Service,
  serviceOf,
  travelled,
  travelZoneOf,
} from '../practice/index.ts'
import {
  type AnswerProblem,
  type Answers,
  answerProblem,
  isAttached,
  isSealed,
  openAnswers,
  type Question,
} from '../questions/index.ts'
import { askingOf, type Reckoned, Refused, reckon, refusalOf } from '../request/index.ts'
import { canonicalJson } from '../terms/index.ts'
import type { Instant } from '../time/index.ts'
import type { KeptQuote } from './changes.ts'
import { type House, published } from './house.ts'
import { checkOnline } from './standing.ts'
import { isOffered, mayBeSeen, opened, visitorOf } from './visitor.ts'

/** What a visit wants, by the rules in force. */
export interface Understood extends Reckoned {
  /** The practitioner's own quote, where one has come by its link. */
  quote: KeptQuote | undefined
  /** Earlier attempts of the visit whose answers differ from these. */
  earlier: Attempt[]
}

/** A wish of a visit; when it is sent, private answers come with it. */
export type Visited = Wanted & { place?: string; sending?: boolean }

/** The service wanted, if it may be. @throws Refused when there is none, or it is not offered now */
export function wantedService(
  house: House,
  { service: id, with: key }: Pick<Wanted, 'service' | 'with'>,
  now: Instant,
): Service {
  const service = serviceOf(published(house).practice, id)
  // Whoever may not see it is told what anybody is of a service that is none.
  if (!service || !mayBeSeen(house, service, key, now))
    throw new Refused(404, 'unknown-service', { where: 'service' })
  if (!isOffered(house, service, now, key)) {
    throw new Refused(409, 'service-off', { data: { service: service.name }, where: 'service' })
  }
  return service
}

/** Reckons what a visit wants, whatever is wrong with it. @throws Refused when it can't be wanted at all */
export function understand(house: House, wanted: Visited, now: Instant): Understood {
  const { practice, seal } = published(house)
  const service = wantedService(house, wanted, now)
  const quote = quoteFor(house, wanted, now)
  if (quote) return { ...quoted(practice, service, quote, wanted), quote, earlier: [] }
  const visitor = visitorOf(house, wanted.with)
  const around = { now, used: (code: string) => house.used(code) }
  const who = (attempts: number) => ({
    by: 'client' as const,
    asking: askingOf(visitor, service.id, attempts),
    person: visitor?.id,
  })
  const first = reckon(practice, wanted, who(0), around)
  const attempts = house.attempts(wanted.visit).filter((attempt) => attempt.service === service.id)
  // Attempts are told apart by what could be read of them.
  const same = attempts.length > 0 && canonicalJson(openAnswers(first.questions, first.answers))
  const earlier = attempts.filter((attempt) => canonicalJson(attempt.answers) !== same)
  const reckoned = earlier.length > 0 ? reckon(practice, wanted, who(earlier.length), around) : first
  return {
    ...reckoned,
    problems: [
      ...lacking(reckoned, wanted.sending ?? false),
      ...(wanted.sending && seal ? unsealed(reckoned.questions, reckoned.answers) : []),
      ...missingFiles(house, wanted.visit, reckoned.answers),
    ],
    quote: undefined,
    earlier,
  }
}

/** Private answers come with the request alone; until then they are not missed. */
function lacking({ problems, questions }: Reckoned, sending: boolean): AnswerProblem[] {
  if (sending) return problems
  const own = new Set(questions.filter((question) => question.private).map((question) => question.id))
  return problems.filter((problem) => !own.has(problem.question))
}

/** As `understand`, for those who may go on to the times. @throws Refused when the way ends before */
export function understandOpen(house: House, wanted: Visited & { place: string }, now: Instant): Understood {
  const understood = understand(house, wanted, now)
  const refused = understood.quote ? understood.placeProblem : refusalOf(understood)
  if (refused) throw refused
  if (!understood.quote) checkOnline(house, wanted.with, now)
  return understood
}

/** The practitioner's own quote by whose link one has come. @throws Refused when it no longer stands */
function quoteFor(house: House, wanted: Wanted, now: Instant): KeptQuote | undefined {
  const quote = opened(house, wanted.quote)?.quote
  if (!quote || quote.service !== wanted.service) return undefined
  if (quote.booking) throw new Refused(409, 'quote-used')
  if (quote.until < now) throw new Refused(409, 'quote-over')
  return quote
}

/** What a quote of the practitioner's wants: it has been reckoned when it was sent, how far to travel included. */
function quoted(practice: Practice, service: Service, quote: KeptQuote, wanted: Visited): Reckoned {
  const place = wanted.place === undefined ? undefined : placeOf(practice, wanted.place)
  const travel = travelZoneOf(place, wanted.travel ?? quote.travel)
  const elsewhere =
    (place !== undefined && !service.places.includes(place.id)) ||
    (place?.kind === 'client' && (place.travel?.length ?? 0) > 0 && travel?.id !== quote.travel)
  return {
    practice,
    service: travelled(service, travel),
    questionnaire: practice.questionnaires.find(
      (questionnaire) => questionnaire.id === service.questionnaire,
    ),
    questions: [],
    answers: quote.answers,
    asking: askingOf(undefined, service.id),
    extras: quote.extras,
    travel,
    code: practice.codes?.find((code) => code.id === quote.code),
    reading: quote.reading,
    whole: quote.reading,
    problems: [],
    ...(elsewhere
      ? {
          placeProblem: new Refused(422, 'travel.quote', { where: 'travel' }),
        }
      : {}),
  }
}

/** Private answers that have come as they are, though they could have been sealed. */
const unsealed = (questions: readonly Question[], answers: Answers): AnswerProblem[] =>
  questions
    .filter(
      (question) => question.private && answers[question.id] !== undefined && !isSealed(answers[question.id]),
    )
    .map((question) => answerProblem(question.id, { code: 'not-sealed' }))

/** Files that are answered with but have not arrived from this visit. */
function missingFiles(house: House, visit: string, answers: Answers): AnswerProblem[] {
  return Object.entries(answers).flatMap(([id, answer]) => {
    if (!isAttached(answer)) return []
    const file = house.file(answer.file)
    const same = file?.visit === visit && file.type === answer.type && file.size === answer.size
    return same ? [] : [answerProblem(id, { code: 'not-arrived' })]
  })
}
