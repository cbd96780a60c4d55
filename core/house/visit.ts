import { type Attempt, freeUntil, holdUntil, proofUntil } from '../booking/index.ts'
import type {
  Closed,
  DoorOpenings,
  DoorReading,
  Kept,
  PartReading,
  Wanted,
  WantedOpenings,
  WantedPart,
  WantedStart,
} from '../contract/types.ts'
import { type Ask, makeDiary, openStarts, wellChosen, why } from '../openings/index.ts'
import {
  type HouseRules,
  type Practice,
  placeOf,
  questionnaireOf,
  rulesFor,
  serviceOf,
  waitlistOf,
  zoneOf,
} from '../practice/index.ts'
import { type Decided, decidedRules, type Outcome, openAnswers, type Reading } from '../questions/index.ts'
import { askFor, costsLess, printOfShown, Refused, refusalOf, shownOf } from '../request/index.ts'
import {
  addDays,
  dateAt,
  dayNumber,
  type Instant,
  type LocalDate,
  MINUTE,
  shift,
  type Zone,
} from '../time/index.ts'
import { refusalWords } from '../words/index.ts'
import type { Keep } from './changes.ts'
import { type House, published } from './house.ts'
import { wordFor } from './standing.ts'
import { type Understood, understand, understandOpen } from './understand.ts'
import { askerOf, isOffered, mayBeSeen, opened, visitorMail, visitorOf } from './visitor.ts'
import type { Work } from './work.ts'

/** How long a picked start is kept, in ms; renewed once. */
export const KEEP = 10 * MINUTE

/** How far ahead it is looked whether there is more, in days, and in which steps. */
const HORIZON = 92
const LOOK_ON = [7, 28, HORIZON]

/** Those of some services that whoever asks may see. */
const visible = (
  { house, now }: Work,
  wanted: Wanted,
  ids: readonly string[],
): { id: string; name: string }[] =>
  ids.flatMap((id) => {
    const other = serviceOf(published(house).practice, id)
    const seen =
      other && isOffered(house, other, now, wanted.with) && mayBeSeen(house, other, wanted.with, now)
    return seen ? [{ id, name: other.name }] : []
  })

/** A kind no, as the rule that says it has it; a message instead of a booking where it is none. */
function closedBy(
  work: Work,
  wanted: Wanted,
  { effect, question }: Omit<Decided, 'rule'>,
): Closed | undefined {
  const where = question === undefined ? {} : { question }
  if (effect.do === 'enquiry')
    return { message: refusalWords('enquiry-instead'), services: [], enquiry: true, instead: true, ...where }
  if (effect.do !== 'close') return undefined
  const { message, services, enquiry } = effect
  return {
    message: message || refusalWords('closed'),
    services: visible(work, wanted, services),
    enquiry,
    ...where,
  }
}

/** Remembers answers with which somebody could not go on, or could. Private answers are kept with the request alone. */
function remember(
  work: Work,
  wanted: Wanted,
  { practice, service, answers }: Understood,
  outcome: Outcome,
): void {
  const questions = questionnaireOf(practice, service)?.questions ?? []
  const attempt = { at: work.now, service: service.id, answers: openAnswers(questions, answers), outcome }
  const { visit } = wanted
  const room = giveWay(work.house.attempts(visit), attempt)
  if (room) work.changes.push({ type: 'attempt', visit, attempt, ...(room.length > 0 ? { gone: room } : {}) })
}

/** How many attempts of a visit are remembered, and how many characters of answers they have together. */
const MOST_ATTEMPTS = 40
const MOST_OF_ATTEMPTS = 65_536

/** Which earlier attempts of a visit give way to another, the oldest first; nothing where it is too large by itself. */
function giveWay(before: readonly Attempt[], next: Attempt): Attempt[] | undefined {
  const sizeOf = ({ answers }: Attempt): number => JSON.stringify(answers).length
  let room = MOST_OF_ATTEMPTS - sizeOf(next)
  if (room < 0) return undefined
  let places = MOST_ATTEMPTS - 1
  const kept = new Set<Attempt>()
  for (const attempt of [...before].reverse()) {
    room -= sizeOf(attempt)
    places--
    if (room < 0 || places < 0) break
    kept.add(attempt)
  }
  return before.filter((attempt) => !kept.has(attempt))
}

/** What is decided by the questions of a visit up to one: a no is told at once, not after more has been told. */
export function part(work: Work, wanted: WantedPart): PartReading {
  const { house, now } = work
  const understood = understand(house, wanted, now)
  const { problems, questions, questionnaire, answers, asking } = understood
  if (!questionnaire) return { tells: [] }
  const last = questionnaire.questions.findIndex(({ id }) => id === wanted.upTo)
  const upTo = new Set(questionnaire.questions.slice(0, last + 1).map(({ id }) => id))
  const missing = problems.filter(({ question }) => upTo.has(question))
  if (missing.length > 0) throw new Refused(422, 'answers', { where: 'answers', problems: missing })
  const order = new Set(questions.map(({ id }) => id))
  const decided = decidedRules(questionnaire, wanted.upTo, answers, asking)
  const closed = decided
    .map((one) => closedBy(work, wanted, one))
    .filter((one) => one !== undefined)
    // A no before a message instead; the rules are in the order of the practitioner.
    .sort((a, b) => Number(a.instead ?? false) - Number(b.instead ?? false))[0]
  if (closed) remember(work, wanted, understood, closed.instead ? 'look' : 'closed')
  const tells = decided.flatMap(({ effect, question }) =>
    effect.do === 'tell' && (question === undefined || order.has(question)) ? [effect.text] : [],
  )
  return { tells, ...(closed ? { closed } : {}) }
}

/** Reads the answers of a visit and remembers the attempt. */
export function read(work: Work, wanted: Wanted): DoorReading {
  const { house, now } = work
  const understood = understand(house, wanted, now)
  const { practice, service, questionnaire, answers, reading, quote: own } = understood
  const { outcome, quote, enquiryInstead, suggested } = reading
  const { minutes, lines, price, deposit } = quote
  const told = { minutes, lines, price, deposit, shown: printOfShown(shownOf(practice, service.id, quote)) }
  if (own) {
    const { zone: _, ...person } = own.person
    const said = { until: own.until, text: own.text, person }
    return { open: true, ...told, enquiryInstead: false, quote: said }
  }
  const refused = refusalOf(understood)
  const closing = refused?.problem.code === 'closed' || refused?.problem.code === 'enquiry-instead'
  if (refused && !closing) throw refused
  remember(work, wanted, understood, outcome)
  const last = questionnaire?.questions.at(-1)?.id ?? ''
  const decided = questionnaire ? decidedRules(questionnaire, last, answers, understood.asking) : []
  const tells = decided.flatMap(({ effect }) => (effect.do === 'tell' ? [effect.text] : []))
  // Whoever can't go on needs no time kept.
  if (closing && house.keep(wanted.visit)) work.changes.push({ type: 'unkeep', visit: wanted.visit })
  return {
    open: !closing,
    ...(closing ? { closed: closedOf(work, wanted, understood, decided) } : {}),
    ...(tells.length > 0 ? { tells } : {}),
    ...told,
    ...(suggested.length > 0 ? { suggested: visible(work, wanted, suggested) } : {}),
    enquiryInstead,
  }
}

/** What somebody reads whom the answers as a whole have closed: as a rule says it, or points and values. */
function closedOf(
  work: Work,
  wanted: Wanted,
  { reading: { outcome, kind } }: Understood,
  decided: readonly Decided[],
): Closed {
  const rule = decided
    .filter(({ effect }) => effect.do === (outcome === 'closed' ? 'close' : 'enquiry'))
    .map((one) => closedBy(work, wanted, one))[0]
  if (rule) return rule
  if (outcome !== 'closed')
    return { message: refusalWords('enquiry-instead'), services: [], enquiry: true, instead: true }
  return {
    message: kind?.message || refusalWords('closed'),
    services: visible(work, wanted, kind?.services ?? []),
    enquiry: kind?.enquiry ?? true,
  }
}

/** The open starts for a visit from a date on. */
export function openingsFor(house: House, wanted: WantedOpenings, now: Instant): DoorOpenings {
  const understood = understandOpen(house, wanted, now)
  const { practice, service, reading } = understood
  const there = zoneOf(practice, placeOf(practice, wanted.place))
  const from = wanted.from ?? dateAt(there, now)
  const ask = askFor(understood, wanted.place, askerOf(house, service, wanted.with, now), now)
  const at = (date: LocalDate): Instant => there.toInstant(dayNumber(date), 0)
  const next = addDays(from, wanted.days)
  const end = at(next)
  const { showAtMost } = service
  const diaryTo = (to: Instant) => house.diary(at(from), to, { visit: wanted.visit })
  // A few well-chosen ones are chosen once for all that lies ahead, so that paging shows no others.
  const today = dateAt(there, now)
  const chosen = showAtMost
    ? wellChosen(
        practice,
        house.diary(now, at(addDays(today, HORIZON)), { visit: wanted.visit }),
        ask,
        today,
        HORIZON,
        showAtMost,
      )
    : undefined
  const diary = diaryTo(end)
  const starts =
    chosen?.filter((other) => other >= at(from) && other < end) ??
    openStarts(practice, diary, ask, from, wanted.days)
  const more = chosen
    ? chosen.some((at) => at >= end)
    : LOOK_ON.some(
        (days) => openStarts(practice, diaryTo(at(addDays(next, days))), ask, next, days).length > 0,
      )
  const seats: Record<string, number> = {}
  if (service.seats > 1) {
    for (const start of starts) {
      const group = diary.entries.find((e) => e.service === service.id && e.start === start && e.seats)
      seats[start] = service.seats - (group?.taken ?? 0)
    }
  }
  const lower = starts.filter(costsLess(understood, diary, ask))
  const { whole } = understood
  return {
    starts,
    lower,
    ...(lower.length > 0 ? { lowerPrice: whole.quote.price } : {}),
    near: reading.quote.price > 0 ? starts.filter(isNear(rulesFor(practice, service), there, now)) : [],
    seats,
    ...(waitlistOf(service).door ? { full: fullDays(practice, ask, from, wanted.days, starts) } : {}),
    minutes: reading.quote.minutes,
    ...(more ? { next } : {}),
    now,
  }
}

/** The dates of a span on which a start would be open if nobody had taken it, and none is. */
function fullDays(
  practice: Practice,
  ask: Ask,
  from: LocalDate,
  days: number,
  starts: readonly Instant[],
): LocalDate[] {
  const there = zoneOf(practice, placeOf(practice, ask.place))
  const open = new Set(starts.map((start) => dateAt(there, start)))
  const could = openStarts(practice, makeDiary(practice, []), ask, from, days)
  return [...new Set(could.map((start) => dateAt(there, start)))].filter((date) => !open.has(date))
}

/** Whether a start is too near to be cancelled free of charge, by rules under which others can be. */
function isNear(rules: HouseRules, there: Zone, now: Instant): (start: Instant) => boolean {
  const free = rules.cancel.some(({ share }) => share === 0)
  return (start) => free && (freeUntil(rules, start, there) ?? now) < now
}

/** Makes sure that a start is open and gives what it comes to there, or tells which are. */
export function checkOpen(house: House, understood: Understood, wanted: WantedStart, now: Instant): Reading {
  const { practice, service, reading, whole } = understood
  const { start, place } = wanted
  const diary = house.diary(start, start, { visit: wanted.visit })
  const ask = askFor(understood, place, askerOf(house, service, wanted.with, now), now)
  const closures = why(practice, diary, ask, start)
  if (closures.length === 0) return costsLess(understood, diary, ask)(start) ? whole : reading
  if (closures.some((closure) => closure.rule === 'person')) {
    throw new Refused(409, 'not-online')
  }
  throw new Refused(409, 'not-open', {
    where: 'start',
    openings: openingsFor(house, { ...wanted, days: 21 }, now),
  })
}

/** So much is held without a proof that nothing more is kept from others before it is proved. */
export interface Unheld {
  unheld?: boolean
}

/** Keeps a start for a visit while the client fills in; a new pick replaces the one before. */
export function keep(work: Work, { unheld, ...wanted }: WantedStart & Unheld): Kept {
  const { house, now } = work
  const understood = understandOpen(house, wanted, now)
  const { service, travel } = understood
  const reading = checkOpen(house, understood, wanted, now)
  const { visit, place, start } = wanted
  // The same start again is no new pick: it is kept no longer than it was.
  const before = sameKept(house, wanted, now)
  const until = before?.until ?? shift(now, KEEP)
  const { minutes } = reading.quote
  if (unheld) {
    const view = keptView(house, understood, wanted, reading, { until, renewable: false }, now)
    if (house.keep(visit)) work.changes.push({ type: 'unkeep', visit })
    return { ...view, unheld }
  }
  work.changes.push({
    type: 'keep',
    keep: {
      visit,
      service: service.id,
      place,
      start,
      minutes,
      ...(travel ? { travel: travel.id } : {}),
      until,
      renewed: before?.renewed ?? false,
    },
  })
  return keptView(house, understood, wanted, reading, { until, renewable: !before?.renewed }, now)
}

/** The start that is wanted, where this visit has it already. */
export function sameKept(
  house: House,
  { visit, service, place, start }: Pick<WantedStart, 'visit' | 'service' | 'place' | 'start'>,
  now: Instant,
): Keep | undefined {
  const kept = house.keep(visit)
  const same = kept?.service === service && kept.place === place && kept.start === start
  return same && kept.until >= now ? kept : undefined
}

function keptView(
  house: House,
  { practice, service, asking, quote: own }: Understood,
  wanted: WantedStart,
  reading: Reading,
  { until, renewable }: Pick<Kept, 'until' | 'renewable'>,
  now: Instant,
): Kept {
  const { place, start } = wanted
  const there = zoneOf(practice, placeOf(practice, place))
  const shown = shownOf(practice, service.id, reading.quote, { start, place, as: asking.standing })
  const { deadlines, shareAfter, mine, first } = shown.at!
  const email = visitorMail(house, wanted.with)
  const person = visitorOf(house, wanted.with)
  const asksFirst = !own && wordFor(house, { service, reading, person, email }, now).word !== undefined
  const { minutes, lines, price, deposit } = reading.quote
  const proved = own !== undefined || house.trial !== undefined || opened(house, wanted.with)?.booking
  return {
    start,
    place,
    minutes,
    lines,
    price,
    deposit,
    shown: printOfShown(shown),
    until,
    renewable,
    deadlines,
    shareAfter,
    ...(mine ? { mine } : {}),
    ...(first ? { first } : {}),
    ...(proved
      ? {}
      : { proveWithin: Math.floor((proofUntil(practice.answering, now, start, there) - now) / MINUTE) }),
    ...(asksFirst ? { wordUntil: holdUntil(practice.answering, now, start, there) } : {}),
    now,
  }
}

/** Keeps the picked start for another ten minutes, once. */
export function renew(
  { house, now, changes }: Work,
  { visit }: { visit: string },
): Pick<Kept, 'until' | 'renewable'> {
  published(house)
  const kept = house.keep(visit)
  if (!kept || kept.until < now) throw new Refused(409, 'not-kept')
  if (kept.renewed) throw new Refused(409, 'renewed-already')
  const until = shift(now, KEEP)
  changes.push({ type: 'keep', keep: { ...kept, until, renewed: true } })
  return { until, renewable: false }
}

/** Lets the picked start go. */
export function unkeep({ house, changes }: Work, { visit }: { visit: string }): Record<string, never> {
  if (house.keep(visit)) changes.push({ type: 'unkeep', visit })
  return {}
}
