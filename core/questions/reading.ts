import { type Minor, roundMoney } from '../money/index.ts'
import { codeLine } from '../practice/codes.ts'
import type { PriceCode, Service, TravelZone } from '../practice/types.ts'
import { asked, problemWith } from './answers.ts'
import { type Asking, holds, quantityIn, questionsIn } from './conditions.ts'
import { bandOf, pointsOf } from './scoring.ts'
import type { Answers, Outcome, Question, Questionnaire, Rule } from './types.ts'

export interface QuoteLine {
  name: string
  quantity: number
  amount: Minor
}

/** Length and price that follow from service and answers. */
export interface Quote {
  minutes: number
  lines: QuoteLine[]
  price: Minor
  deposit: Minor
}

export interface Reason {
  /** The rule that fired, or what else decided. */
  rule?: string
  name: string
  outcome: Outcome
  note?: string
  /** The answered questions the rule looked at. */
  questions: string[]
}

/** What the rules make of a set of answers. */
export interface Reading {
  outcome: Outcome
  reasons: Reason[]
  /** For `closed`: why in general, and what else one can do. */
  kind?: { message: string; services: string[]; enquiry: boolean }
  points: number
  tags: string[]
  suggested: string[]
  quote: Quote
  /** Worth more than is booked without talking first. */
  enquiryInstead: boolean
}

export interface AnswerProblem {
  question: string
  message: string
}

/** What counts in a quote besides the answers. */
export interface Choices {
  /** What was added, by id; what the service does not have is left out. */
  extras: readonly string[]
  travel?: TravelZone | undefined
  /** The start keeps the day whole, which some services reward. */
  whole: boolean
  code?: PriceCode | undefined
}

/** Nothing added, nothing special. */
export const plainly: Choices = { extras: [], whole: false }

const RANK: Record<Outcome, number> = { fits: 0, look: 1, closed: 2 }
const worse = (a: Outcome, b: Outcome): Outcome => (RANK[a] >= RANK[b] ? a : b)

/** The answers that are missing or not valid, in the order of the questions. Empty when all is well. */
export function problemsIn(questions: readonly Question[], given: Answers, asking: Asking): AnswerProblem[] {
  const now = asked(questions, given, asking)
  return now.questions.flatMap((question) => {
    const message = problemWith(question, now.answers[question.id])
    return message ? [{ question: question.id, message }] : []
  })
}

const looksAt = (rule: Rule, answers: Answers): string[] =>
  [...new Set(questionsIn(rule.when))].filter((id) => id in answers)

const upTo = (minutes: number, increment: number): number => Math.ceil(minutes / increment) * increment

/**
 * Reads answers with a service's questionnaire: every rule whose condition holds fires, in order; the outcome
 * is the worst of what they say. The answers are taken as valid; see `problemsIn`.
 */
export function readAnswers(
  service: Service,
  questionnaire: Questionnaire | undefined,
  given: Answers,
  asking: Asking,
  choices: Choices = plainly,
): Reading {
  const { answers } = asked(questionnaire?.questions ?? [], given, asking)
  const reading: Reading = {
    outcome: 'fits',
    reasons: [],
    points: 0,
    tags: [],
    suggested: [],
    quote: { minutes: service.minutes, lines: [], price: 0, deposit: 0 },
    enquiryInstead: false,
  }
  const items: QuoteLine[] = []
  for (const extra of service.extras ?? []) {
    if (!choices.extras.includes(extra.id)) continue
    reading.quote.minutes += extra.minutes
    items.push({ name: extra.name, quantity: 1, amount: extra.price })
  }
  for (const rule of questionnaire?.rules ?? []) {
    if (!holds(rule.when, answers, asking)) continue
    apply(rule, answers, reading, items)
  }
  reading.points += pointsOf(questionnaire?.questions ?? [], answers)
  const reached = (questionnaire?.bands ?? []).filter((band) => reading.points >= band.from)
  const said = bandOf(reached, reading.points)
  reading.outcome = reached.reduce((outcome, band) => worse(outcome, band.outcome), reading.outcome)
  const worst = reached.reduce<Outcome>((outcome, band) => worse(outcome, band.outcome), 'fits')
  if (worst !== 'fits') {
    const name = `${reading.points} points${said?.name ? `: ${said.name}` : ''}`
    reading.reasons.push({ name, outcome: worst, questions: [] })
  }
  if (choices.travel?.surcharge) {
    items.push({ name: choices.travel.name, quantity: 1, amount: choices.travel.surcharge })
  }
  finishQuote(service, reading, items, choices)
  weigh(questionnaire, reading)
  return reading
}

function apply(rule: Rule, answers: Answers, reading: Reading, items: QuoteLine[]): void {
  const effect = rule.effect
  const say = (outcome: Outcome, note?: string): void => {
    reading.outcome = worse(reading.outcome, outcome)
    reading.reasons.push({
      rule: rule.id,
      name: rule.name,
      outcome,
      ...(note ? { note } : {}),
      questions: looksAt(rule, answers),
    })
  }
  const times = ({ times, of }: { times?: string; of?: string }): number =>
    times === undefined ? 1 : quantityIn(answers[times], of)
  switch (effect.do) {
    case 'close':
      reading.kind ??= { message: effect.message, services: effect.services, enquiry: effect.enquiry }
      say('closed')
      return
    case 'look':
      say('look', effect.note)
      return
    case 'points':
      reading.points += effect.points
      return
    case 'minutes':
      reading.quote.minutes += effect.minutes * times(effect)
      return
    case 'item': {
      const quantity = times(effect)
      if (quantity) items.push({ name: effect.name, quantity, amount: roundMoney(effect.price * quantity) })
      return
    }
    case 'tag':
      reading.tags.push(effect.tag)
      return
    case 'deposit':
      reading.quote.deposit = Math.max(reading.quote.deposit, effect.amount)
      return
    case 'suggest':
      reading.suggested.push(effect.service)
      return
    case 'enquiry':
      reading.enquiryInstead = true
      return
  }
}

/** What a service costs for a length, before anything is added. Rates are an hour's; whole units rounded half away. */
function ownPrice({ price }: Service, minutes: number, whole: boolean): Minor {
  if (price.kind === 'free') return 0
  if (price.kind === 'hourly')
    return roundMoney(((whole ? (price.whole ?? price.rate) : price.rate) * minutes) / 60)
  return whole ? (price.whole ?? price.amount) : price.amount
}

const leastPrice = ({ price }: Service): Minor => (price.kind === 'free' ? 0 : (price.least ?? 0))

/** The length and price of a service when so many minutes and items have been added up. */
export function priceOf(service: Service, added: number, items: Minor): { minutes: number; price: Minor } {
  const minutes = upTo(Math.max(added, service.leastMinutes ?? 0), service.lengthStep)
  return { minutes, price: Math.max(ownPrice(service, minutes, false) + items, leastPrice(service)) }
}

function finishQuote(service: Service, reading: Reading, items: QuoteLine[], { whole, code }: Choices): void {
  const { quote } = reading
  quote.minutes = priceOf(service, quote.minutes, 0).minutes
  if (service.price.kind !== 'free') {
    quote.lines.push({ name: service.name, quantity: 1, amount: ownPrice(service, quote.minutes, whole) })
  }
  quote.lines.push(...items)
  quote.price = quote.lines.reduce((sum, line) => sum + line.amount, 0)
  const least = leastPrice(service)
  if (quote.price < least) {
    quote.lines.push({ name: 'Least price', quantity: 1, amount: least - quote.price })
    quote.price = least
  }
  if (code) {
    const line = codeLine(code, quote.price)
    quote.lines.push(line)
    quote.price += line.amount
  }
}

function weigh(questionnaire: Questionnaire | undefined, reading: Reading): void {
  const { lookAbove, enquiryAbove } = questionnaire ?? {}
  if (lookAbove !== undefined && reading.quote.price > lookAbove) {
    reading.outcome = worse(reading.outcome, 'look')
    reading.reasons.push({ name: 'Worth more than you let through alone', outcome: 'look', questions: [] })
  }
  if (enquiryAbove !== undefined && reading.quote.price > enquiryAbove) reading.enquiryInstead = true
}
