import { waitingSubject } from '../agenda/index.ts'
import { proofUntil } from '../booking/index.ts'
import type { JoinBody, LineDoes } from '../contract/line-types.ts'
import { makeDiary, newClient, openStarts } from '../openings/index.ts'
import { normalMail } from '../people/index.ts'
import { type Practice, placeOf, serviceOf, waitlistOf, zoneOf } from '../practice/index.ts'
import { Refused } from '../request/index.ts'
import {
  addDays,
  DAY,
  type DayNumber,
  dateAt,
  dayNumber,
  duration,
  type Instant,
  minutesOf,
  shift,
  weekday,
  zone,
} from '../time/index.ts'
import {
  couldCome,
  isInLine,
  lineAt,
  type PlaceInLine,
  type WaitingWindow,
  waitingOf,
} from '../waiting/index.ts'
import { agreeNow, checkAgreed, termsOf } from './agreeing.ts'
import { happenInLine, linesNow } from './filling.ts'
import { type House, published } from './house.ts'
import { checkClock, checkReach, UNPROVED_FOR_EACH } from './send.ts'
import { wordFor } from './standing.ts'
import { understandOpen } from './understand.ts'
import { checkMailed } from './unproved.ts'
import { provesAddress } from './visitor.ts'
import type { Work } from './work.ts'

/** How many may wait in all: what nobody could go through is no line. */
const MOST_IN_LINE = 2_000

/** Until when the mailed link can be pressed. */
const proveUntil = (practice: Practice, now: Instant): Instant =>
  proofUntil(practice.answering, now, shift(now, 365 * DAY), zone(practice.profile.zone))

/** Makes sure that windows could hold a session of so many minutes from now on. @throws Refused */
export function checkWindows(
  windows: readonly WaitingWindow[],
  minutes: number,
  zoneId: string,
  now: Instant,
): void {
  const today = dateAt(zone(zoneId), now)
  windows.forEach(({ from, to, weekdays, after, before }, i) => {
    const where = `windows.${i}`
    if (from !== undefined && to !== undefined && to < from)
      throw new Refused(422, 'window.turned', { where })
    if (to !== undefined && to < today) throw new Refused(422, 'window.past', { where })
    const room = (before ? minutesOf(before) : 1_440) - (after ? minutesOf(after) : 0)
    if ((after !== undefined || before !== undefined) && room < minutes)
      throw new Refused(422, 'window.short', { where, data: { minutes } })
    if (from === undefined || to === undefined || !weekdays) return
    const first = Math.max(dayNumber(from), dayNumber(today))
    const some = Array.from({ length: Math.min(7, dayNumber(to) - first + 1) }, (_, n) =>
      weekday((first + n) as DayNumber),
    )
    if (!weekdays.some((day) => some.includes(day))) throw new Refused(422, 'window.none', { where })
  })
}

/** Somebody else of the same address who waits for the same service. */
export const sameAs = (work: Work, line: PlaceInLine): PlaceInLine | undefined =>
  linesNow(work).find(
    (other) =>
      other.id !== line.id &&
      other.joined.service === line.joined.service &&
      other.joined.instead === line.joined.instead &&
      normalMail(other.joined.person.email) === normalMail(line.joined.person.email) &&
      isInLine(lineAt(other, work.now)),
  )

/** Who is in line already keeps the place they have, with what they have said now: one place, and the older. */
function settle(work: Work, line: PlaceInLine): void {
  const before = sameAs(work, line)
  if (!before) return
  happenInLine(work, before.id, { type: 'changed', at: work.now, ...line.wishes })
  const ended = {
    type: 'ended',
    at: work.now,
    by: 'rules',
    why: 'double',
    text: '',
    into: before.id,
  } as const
  happenInLine(work, line.id, ended)
}

/** Gets in line. It counts once it is shown that the address is theirs. @throws Refused */
export function joinLine(work: Work, body: JoinBody): { link: string } {
  const { house, now } = work
  checkClock(body.clock, now)
  const understood = understandOpen(house, { ...body, sending: true }, now)
  const { practice, service, answers, quote, reading } = understood
  if (quote || !waitlistOf(service).door) throw new Refused(409, 'no-line')
  checkReach(practice, body)
  const { place, person } = body
  const { minutes, price } = reading.quote
  checkWindows(body.windows, minutes, person.zone, now)
  const wanted = termsOf(house, service, undefined)
  checkAgreed(practice, wanted, body.agreed)
  const proved = provesAddress(house, body.with, person.email)
  if (!proved) checkMailed(house, person.email, now)
  checkRoom(work, practice, proved)
  const id = work.ids()
  work.subject = waitingSubject(id)
  const { windows, notice, by, address, extras, code, travel } = body
  const line = happenInLine(work, id, {
    type: 'joined',
    at: now,
    ...{ service: service.id, place, minutes, price, person, answers, attempts: understood.earlier, windows },
    agreements: agreeNow(work, service, wanted, person.name),
    ...(notice ? { notice } : {}),
    ...(by && person.phone ? { by } : {}),
    ...(address && placeOf(practice, place)?.kind === 'client' ? { address } : {}),
    ...(extras?.length ? { extras } : {}),
    ...(travel ? { travel } : {}),
    ...(code ? { code } : {}),
    ...(proved ? {} : { until: proveUntil(practice, now) }),
    ...(wordFor(house, { service, reading, person: undefined, email: undefined }, now).word === undefined
      ? {}
      : { look: true }),
  })
  if (proved) settle(work, line)
  const link = work.ids()
  work.changes.push({ type: 'link', link: { id: link, subject: work.subject, proves: false } })
  return { link }
}

function checkRoom(work: Work, practice: Practice, proved: boolean): void {
  const { now } = work
  let unproved = 0
  let many = 0
  for (const line of linesNow(work)) {
    const state = lineAt(line, now)
    if (state.is === 'unproved') unproved++
    if (isInLine(state)) many++
  }
  if (!proved && unproved >= practice.limits.openRequests * UNPROVED_FOR_EACH)
    throw new Refused(429, 'too-many-unproved')
  if (many >= MOST_IN_LINE) throw new Refused(409, 'full-line')
}

/**
 * The place in line that a private link leads to; where somebody was in line already, the place they kept.
 * @throws Refused when it leads nowhere
 */
export function lineBehind(house: House, hash: string): { line: PlaceInLine; proves: boolean } {
  const link = house.link(hash)
  const line = link?.subject.kind === 'waiting' && !link.word ? house.line(link.subject.id) : undefined
  if (!link || !line) throw new Refused(404, 'unknown-link')
  const into = line.ended?.into
  const kept = into === undefined ? undefined : house.line(into)
  return { line: kept ?? line, proves: link.proves }
}

/** Does one thing with a place in line through its private link. @throws Refused */
export function inLine(
  work: Work,
  { hash, command }: { hash: string; command: LineDoes },
): Record<string, never> {
  const { house, now } = work
  const { line, proves } = lineBehind(house, hash)
  work.subject = waitingSubject(line.id)
  const state = lineAt(line, now)
  if (command.do === 'prove') {
    // Only the link in the mail shows that the mail arrived; the one the page got at joining does not.
    if (!proves || state.is !== 'unproved') return {}
    settle(work, happenInLine(work, line.id, { type: 'proved', at: now }))
    return {}
  }
  if (command.do === 'leave' && state.is === 'unproved') {
    happenInLine(work, line.id, { type: 'ended', at: now, by: 'client', why: 'left', text: '' })
    return {}
  }
  if (!isInLine(state)) throw new Refused(409, 'line-over')
  carryOutInLine(work, line, command)
  return {}
}

function carryOutInLine(work: Work, line: PlaceInLine, command: Exclude<LineDoes, { do: 'prove' }>): void {
  const { now: at } = work
  const { id, offer } = line
  switch (command.do) {
    case 'change': {
      const { do: _, ...wishes } = command
      checkWindows(wishes.windows, line.joined.minutes, line.joined.person.zone, at)
      happenInLine(work, id, { type: 'changed', at, ...wishes })
      return
    }
    case 'pause':
      if (line.status !== 'paused') happenInLine(work, id, { type: 'paused', at, by: 'client' })
      return
    case 'resume':
    case 'still':
      happenInLine(
        work,
        id,
        line.status === 'paused' ? { type: 'resumed', at, by: 'client' } : { type: 'still', at },
      )
      return
    case 'leave':
      happenInLine(work, id, { type: 'ended', at, by: 'client', why: 'left', text: '' })
      return
    case 'turn':
      if (offer?.freed !== command.freed) throw new Refused(409, 'freed-gone')
      happenInLine(work, id, { type: 'turned', at, freed: offer.freed })
      return
  }
}

/** The first open starts in somebody's windows, as they could book them now without waiting. */
export function openInWindows(house: House, line: PlaceInLine, now: Instant): Instant[] {
  const { practice } = published(house)
  const { joined } = line
  const service = serviceOf(practice, joined.service)
  if (!service || joined.instead !== undefined) return []
  const { place, minutes } = joined
  const today = dateAt(zoneOf(practice, placeOf(practice, place)), now)
  const clock = waitingOf(practice, line)
  const ask = { service, place, minutes, asker: { ...newClient, invited: [service.id] }, now }
  const end = addDays(today, OPEN_AHEAD)
  const to = zone(practice.profile.zone).toInstant(dayNumber(end), 0)
  return openStarts(practice, house.diary(now, to), ask, today, OPEN_AHEAD)
    .filter((start) => couldCome(clock, start, zone(clock.zone)))
    .slice(0, 3)
}

/** Whether nothing could ever be open in somebody's windows by the hours there are, whoever had booked what. */
export function isOutsideHours(house: House, line: PlaceInLine, now: Instant): boolean {
  const { practice } = published(house)
  const { joined, wishes } = line
  const service = serviceOf(practice, joined.service)
  if (!service || wishes.windows.length === 0) return false
  const { place, minutes } = joined
  const today = dateAt(zoneOf(practice, placeOf(practice, place)), now)
  const clock = waitingOf(practice, line)
  const far = { ...service, notice: duration('PT0S'), reach: { kind: 'days' as const, days: OPEN_AHEAD } }
  const ask = { service: far, place, minutes, asker: { ...newClient, invited: [service.id] }, now }
  return !openStarts(practice, makeDiary(practice, []), ask, today, OPEN_AHEAD).some((start) =>
    couldCome(clock, start, zone(clock.zone)),
  )
}

/** How far ahead open times are looked for, in days. */
const OPEN_AHEAD = 62
