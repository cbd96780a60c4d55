import { type Minor, roundMoney, sum } from '../money/index.ts'
import { codeLine } from '../practice/codes.ts'
import type { PriceCode, Service, TravelZone } from '../practice/types.ts'
import { type AnswerProblem, answerProblem, asked, problemWith } from './answers.ts'
import { type AnswerValues, type Compiled, compiled, valuesOf } from './compiled.ts'
import type { Asking } from './conditions.ts'
import { effectKind } from './effects.ts'
import { type Amount, atLeast, upward } from './limit.ts'
import { type Outcome, type QuoteLine, type Reading, type Reason, worseOf } from './outcome.ts'
import { bandOf, pointsFor } from './scoring.ts'
import type { Answers, Band, Question, Questionnaire } from './types.ts'
import { quantityIn } from './values.ts'

/** What counts in a quote besides the answers. */
export interface Choices {
  /** What was added, by id; what the service does not have is left out. */
  extras: readonly string[]
  travel?: TravelZone | undefined
  /** The start keeps the day whole, which some services reward. */
  whole: boolean
  code?: PriceCode | undefined
  /** A tax that comes on top of the price, in basis points. */
  tax?: { name: string; rate: number } | undefined
}

/** Nothing added, nothing special. */
export const plainly: Choices = { extras: [], whole: false }

/** The answers that are missing or not valid, in the order of the questions. Empty when all is well. */
export function problemsIn(questions: readonly Question[], given: Answers, asking: Asking): AnswerProblem[] {
  const now = asked(questions, given, asking)
  return now.questions.flatMap((question) => {
    const wrong = problemWith(question, now.answers[question.id])
    return wrong ? [answerProblem(question.id, wrong)] : []
  })
}

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
  const sheet = compiled(questionnaire ?? NOTHING)
  const values = valuesOf(sheet, given, asking)
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
  for (const ready of sheet.rules) if (ready.test(values, asking)) apply(ready, sheet, values, reading, items)
  for (const place of sheet.scored)
    reading.points = sum(reading.points, pointsFor(sheet.questions[place]!, values[place]))
  decideByBands(questionnaire?.bands ?? [], reading)
  if (choices.travel?.surcharge) {
    items.push({ name: choices.travel.name, quantity: 1, amount: choices.travel.surcharge })
  }
  finishQuote(service, reading, items, choices)
  weigh(questionnaire, reading)
  return reading
}

/** Every band reached counts; the highest gives its name. */
function decideByBands(bands: readonly Band[], reading: Reading): void {
  let worst: Outcome = 'fits'
  for (const band of bands) if (reading.points >= band.from) worst = worseOf(worst, band.outcome)
  if (worst === 'fits') return
  reading.outcome = worseOf(reading.outcome, worst)
  const name = bandOf(bands, reading.points)?.name
  reading.reasons.push({
    name: `${reading.points} points${name ? `: ${name}` : ''}`,
    outcome: worst,
    questions: [],
  })
}

type ReadyRule = Compiled['rules'][number]

/** Lets a rule act whose condition holds. */
function apply(
  ready: ReadyRule,
  sheet: Compiled,
  values: AnswerValues,
  reading: Reading,
  items: QuoteLine[],
): void {
  const { effect } = ready.rule
  const times =
    'times' in effect && effect.times !== undefined ? quantityIn(values[ready.times], effect.of) : 1
  effectKind(effect).apply(effect, {
    reading,
    items,
    times,
    say: (outcome, note) => say(ready, sheet, values, reading, outcome, note),
  })
}

function say(
  { rule, looks }: ReadyRule,
  { ids }: Compiled,
  values: AnswerValues,
  reading: Reading,
  outcome: Outcome,
  note?: string,
): void {
  reading.outcome = worseOf(reading.outcome, outcome)
  const questions: string[] = []
  for (const place of looks) if (values[place] !== undefined) questions.push(ids[place]!)
  const reason: Reason = { rule: rule.id, name: rule.name, outcome, questions }
  if (note) reason.note = note
  reading.reasons.push(reason)
}

const NOTHING = { questions: [], rules: [] }

/** What a service costs for a length, before anything is added. Rates are an hour's; whole units rounded half away. */
function ownPrice({ price }: Service, minutes: number, whole: boolean): Minor {
  if (price.kind === 'free') return 0
  if (price.kind === 'hourly')
    return roundMoney(((whole ? (price.whole ?? price.rate) : price.rate) * minutes) / 60)
  return whole ? (price.whole ?? price.amount) : price.amount
}

const leastPrice = ({ price }: Service): Minor => (price.kind === 'free' ? 0 : (price.least ?? 0))

/** What a service is never shorter than, whatever the answers take off: one step of its length. */
export const floorOf = (service: Service): number => Math.max(service.leastMinutes ?? 0, service.lengthStep)

/**
 * The length and price of a service when so many minutes and items have been added up. Where there is no end to them,
 * there is none to the length and the price.
 */
export function priceOf(service: Service, added: Amount, items: Minor): { minutes: number; price: Minor } {
  const minutes = upward(atLeast(added, floorOf(service)), service.lengthStep)
  return { minutes, price: Math.max(ownPrice(service, minutes, false) + items, leastPrice(service), 0) }
}

function finishQuote(
  service: Service,
  reading: Reading,
  items: QuoteLine[],
  { whole, code, tax }: Choices,
): void {
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
  if (tax && quote.price > 0) {
    const amount = roundMoney((quote.price * tax.rate) / 10_000)
    quote.lines.push({ name: tax.name, quantity: 1, amount })
    quote.price += amount
  }
  // Nobody pays more beforehand than in the end.
  quote.deposit = Math.min(quote.deposit, quote.price)
}

function weigh(questionnaire: Questionnaire | undefined, reading: Reading): void {
  const { lookAbove, enquiryAbove } = questionnaire ?? {}
  if (lookAbove !== undefined && reading.quote.price > lookAbove) {
    reading.outcome = worseOf(reading.outcome, 'look')
    reading.reasons.push({
      name: 'The price is higher than you book without looking',
      outcome: 'look',
      questions: [],
    })
  }
  if (enquiryAbove !== undefined && reading.quote.price > enquiryAbove) reading.enquiryInstead = true
}
