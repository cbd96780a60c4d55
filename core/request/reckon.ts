import { type Ask, type Asker, type Diary, keepsWhole, newClient } from '../openings/index.ts'
import {
  type CodeRefusal,
  findCode,
  type Practice,
  type PriceCode,
  placeOf,
  questionnaireOf,
  type Service,
  serviceOf,
  type TaxNow,
  type TravelZone,
  taxAt,
  taxLine,
  travelled,
  travelZoneOf,
  travelZonesOf,
} from '../practice/index.ts'
import {
  type AnswerProblem,
  type Answers,
  type Asking,
  answerProblem,
  asked,
  atDesk,
  problemWith,
  type Question,
  type Questionnaire,
  type Reading,
  readAnswers,
} from '../questions/index.ts'
import { dateAt, type Instant, zone } from '../time/index.ts'
import { Refused } from './refusal.ts'
import type { Who } from './who.ts'

/** What is wanted of a service. */
export interface Wish {
  service: string
  /** Absent where nobody has been asked: then no rule speaks for or against them. */
  answers?: Answers | undefined
  /** Absent where it is not chosen yet; nothing is said then of how far to travel, unless `travel` does. */
  place?: string | undefined
  extras?: readonly string[] | undefined
  travel?: string | undefined
  /** A price code as it was typed. */
  code?: string | undefined
}

/** What else counts when a wish is reckoned. */
export interface Around {
  now: Instant
  /** How often a price code is in use, by its id. */
  used(code: string): number
}

/** What a wish comes to by the rules in force, for one person at one moment; and what is wrong with it. */
export interface Reckoned {
  practice: Practice
  /** As it counts there: the way kept clear, too. */
  service: Service
  questionnaire: Questionnaire | undefined
  /** The questions that are asked, and the answers that count: valid ones to questions that are asked. */
  questions: Question[]
  answers: Answers
  asking: Asking
  extras: string[]
  travel: TravelZone | undefined
  code: PriceCode | undefined
  /** The tax in force. */
  tax?: TaxNow
  reading: Reading
  /** At a start that keeps the day whole. */
  whole: Reading
  /** Answers that are missing or not as expected. */
  problems: AnswerProblem[]
  /** Why the code that was typed can't be used. */
  codeProblem?: CodeRefusal
  /** Why it can't be there. */
  placeProblem?: Refused
}

/**
 * The one reckoning: what a wish comes to. Relay, desk, terminal and replay call it alike; what is missing or not valid
 * is left out, and named.
 * @throws Refused when there is no such service
 */
export function reckon(practice: Practice, wish: Wish, who: Who, around: Around): Reckoned {
  const own = serviceOf(practice, wish.service)
  if (!own) throw new Refused(404, 'unknown-service', { where: 'service' })
  const byHand = who.by === 'practitioner'
  const where = travelOf(practice, own, wish, byHand)
  const travel = where instanceof Refused ? undefined : where
  const questionnaire = wish.answers === undefined && byHand ? undefined : questionnaireOf(practice, own)
  const given = wish.answers ?? {}
  const sheet = questionnaire?.questions ?? []
  // How often somebody has tried decides nothing about what they are asked.
  const asking = { ...who.asking, attempts: 0 }
  const { questions, answers: all } = asked(byHand ? atDesk(sheet) : sheet, given, asking)
  const problems = questions.flatMap((question): AnswerProblem[] => {
    const wrong = problemWith(question, all[question.id])
    return wrong ? [answerProblem(question.id, wrong)] : []
  })
  const wrong = new Set(problems.map((problem) => problem.question))
  const answers = Object.fromEntries(Object.entries(all).filter(([id]) => !wrong.has(id)))
  const found = codeOf(practice, own.id, wish.code, who, around)
  const codeProblem = found && isRefused(found) ? found : undefined
  const code = found && !isRefused(found) ? found : undefined
  const extras = (own.extras ?? []).map((extra) => extra.id).filter((text) => wish.extras?.includes(text))
  const tax = taxAt(practice, around.now)
  const read = (whole: boolean): Reading =>
    readAnswers(own, questionnaire, answers, who.asking, { extras, travel, whole, code, tax: taxLine(tax) })
  const reading = read(false)
  const { price } = own
  return {
    practice,
    service: travelled(own, travel),
    questionnaire,
    questions,
    answers,
    asking: who.asking,
    extras,
    travel,
    code,
    ...(tax ? { tax } : {}),
    reading,
    whole: 'whole' in price && price.whole !== undefined ? read(true) : reading,
    problems,
    ...(codeProblem ? { codeProblem } : {}),
    ...(where instanceof Refused ? { placeProblem: where } : {}),
  }
}

/** How far to travel for a wish; nothing where that is not asked. A client must say so. */
function travelOf(
  practice: Practice,
  service: Service,
  { place: id, travel }: Wish,
  byHand: boolean,
): TravelZone | undefined | Refused {
  if (id === undefined) return travelZonesOf(practice, service).find((zone) => zone.id === travel)
  const place = placeOf(practice, id)
  if (byHand) return travelZoneOf(place, travel)
  if (!place || !service.places.includes(id)) {
    return new Refused(422, 'unknown-place', { data: { service: service.name }, where: 'place' })
  }
  if (place.kind !== 'client' || !place.travel?.length) return undefined
  return (
    travelZoneOf(place, travel) ??
    new Refused(422, 'travel', {
      where: 'travel',
    })
  )
}

const isRefused = (found: PriceCode | CodeRefusal): found is CodeRefusal => !('off' in found)

/** The price code that was typed, or why it can't be used; nothing where none was. */
function codeOf(
  practice: Practice,
  service: string,
  typed: string | undefined,
  { person }: Who,
  { now, used }: Around,
): PriceCode | CodeRefusal | undefined {
  if (!typed?.trim()) return undefined
  const today = dateAt(zone(practice.profile.zone), now)
  return findCode(practice, typed, { service, today, person, used })
}

/** Why a client can't go on to the times with what was reckoned; nothing when they can. */
export function refusalOf(reckoned: Reckoned): Refused | undefined {
  const { problems, codeProblem, placeProblem, reading } = reckoned
  if (placeProblem) return placeProblem
  if (problems.length > 0) {
    return new Refused(422, 'answers', {
      where: 'answers',
      problems,
    })
  }
  if (codeProblem) return codeRefused(codeProblem)
  if (reading.outcome === 'closed') {
    const message = reading.kind?.message
    return new Refused(409, 'closed', message ? { message } : {})
  }
  if (reading.enquiryInstead) {
    return new Refused(409, 'enquiry-instead')
  }
  return undefined
}

/** A code that can't be used, as a refusal. */
export const codeRefused = ({ code, data }: CodeRefusal): Refused =>
  new Refused(422, code, { where: 'code', ...(data ? { data } : {}) })

/** The question about openings that follows from what was reckoned. */
export const askFor = (
  { service, reading }: Pick<Reckoned, 'service' | 'reading'>,
  place: string,
  asker: Asker,
  now: Instant,
): Ask => ({ service, place, minutes: reading.quote.minutes, asker, now })

/** The practitioner's question about a start: they may override nearly every rule. */
export const byPractitioner: Asker = { ...newClient, who: 'practitioner' }

/** Tells which starts cost less, because they keep the day whole; none where that is not rewarded. */
export function costsLess(
  { practice, reading, whole }: Reckoned,
  diary: Diary,
  ask: Ask,
): (start: Instant) => boolean {
  return whole.quote.price < reading.quote.price ? keepsWhole(practice, diary, ask) : () => false
}
