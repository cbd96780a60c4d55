import { freedSubject, waitingSubject } from '../agenda/index.ts'
import { blockingMove, UNDO } from '../booking/index.ts'
import type { DeskFreed, DeskFreedDoes, DeskLine, DeskLineDoes } from '../contract/line-types.ts'
import { why } from '../openings/index.ts'
import { serviceOf } from '../practice/index.ts'
import { askFor, byPractitioner, Refused } from '../request/index.ts'
import { type Instant, instant, MINUTE, shift } from '../time/index.ts'
import { isInLine, lineAt, type PlaceInLine, standsUntil, waitingOf } from '../waiting/index.ts'
import { readByThem, reckonByHand } from './by-hand.ts'
import { enter } from './desk.ts'
import { happenInLine, happenToFreed, linesNow } from './filling.ts'
import { diaryAfter } from './freed-spans.ts'
import { published } from './house.ts'
import { checkWindows, sameAs } from './line.ts'
import { over } from './over.ts'
import { passOthers, reckonLine } from './take.ts'
import type { Work } from './work.ts'

/** Does one thing with a place in line, as the practitioner. @throws Refused */
export function deskLine(work: Work, { line: id, command }: DeskLine): { seq: number } {
  const { house, now: at } = work
  work.subject = waitingSubject(id)
  const line = house.line(id)
  if (command.do === 'join') return { seq: join(work, id, command, line) }
  if (!line) throw new Refused(404, 'unknown-line')
  const by = 'practitioner'
  const state = lineAt(line, at)
  if (command.do === 'back') {
    if (!line.before || at > (line.ended?.settles ?? 0)) throw new Refused(409, 'nothing-to-take-back')
    return { seq: happenInLine(work, id, { type: 'returned', at }).seq }
  }
  if (!isInLine(state) && state.is !== 'unproved') throw new Refused(409, 'line-over')
  switch (command.do) {
    case 'change': {
      const { do: _, ...wishes } = command
      checkWindows(wishes.windows, line.joined.minutes, line.joined.person.zone, at)
      return { seq: happenInLine(work, id, { type: 'changed', at, ...wishes }).seq }
    }
    case 'pause':
      return { seq: happenInLine(work, id, { type: 'paused', at, by }).seq }
    case 'resume':
      return { seq: happenInLine(work, id, { type: 'resumed', at, by }).seq }
    case 'look':
      return { seq: happenInLine(work, id, { type: 'looked', at }).seq }
    case 'out': {
      const settles = shift(at, UNDO)
      const ended = { type: 'ended', at, by, why: 'out', text: command.text, settles } as const
      return { seq: happenInLine(work, id, ended).seq }
    }
  }
}

/** Puts somebody in line by hand: for a service, or for an earlier time than the one they have. */
function join(
  work: Work,
  id: string,
  command: Extract<DeskLineDoes, { do: 'join' }>,
  known: PlaceInLine | undefined,
): number {
  const { house, now } = work
  if (known) throw new Refused(409, 'id-taken', { where: 'line' })
  const { do: _, service, place, person, windows, notice, by, instead, silent, ...wish } = command
  const own = instead === undefined ? undefined : house.booking(instead)
  if (instead !== undefined && own?.status !== 'booked') throw new Refused(409, 'not-booked')
  const body = { ...wish, service, place, person }
  const { answers, travel, reading } = own
    ? { answers: {}, travel: undefined, reading: { quote: own } }
    : { ...reckonByHand(work, body), reading: readByThem(work, body).reading }
  const { minutes, price } = reading.quote
  checkWindows(windows, minutes, person.zone, now)
  const line = happenInLine(work, id, {
    type: 'joined',
    at: now,
    ...{ service, place, minutes, price, person, answers, attempts: [], windows, agreements: [] },
    ...(notice ? { notice } : {}),
    ...(by && person.phone ? { by } : {}),
    ...(wish.address ? { address: wish.address } : {}),
    ...(wish.extras?.length ? { extras: wish.extras } : {}),
    ...(travel ? { travel: travel.id } : {}),
    ...(instead === undefined ? {} : { instead }),
    ...(silent ? { silent } : {}),
    byHand: true,
  })
  if (sameAs(work, line)) throw new Refused(409, 'in-line-already')
  return line.seq
}

/** Does one thing with a freed time, as the practitioner. @throws Refused */
export function deskFreed(work: Work, { freed: id, command }: DeskFreed): { seq: number } {
  const { house, now: at } = work
  work.subject = freedSubject(id)
  const freed = house.freed(id)
  const byName = command.do === 'offer' || command.do === 'book'
  if (!freed && !byName) throw new Refused(404, 'unknown-freed')
  if (freed?.ended && !byName && command.do !== 'go') throw new Refused(409, 'freed-gone')
  switch (command.do) {
    case 'go':
      happenToFreed(work, id, { type: 'go', at, ask: command.ask })
      break
    case 'skip': {
      const { line, back } = command
      if (!house.line(line)) throw new Refused(404, 'unknown-line')
      happenToFreed(work, id, { type: 'skipped', at, line, ...(back ? { back } : {}) })
      if (house.line(line)?.offer?.freed === id && !back)
        happenInLine(work, line, { type: 'passed', at, freed: id, why: 'stopped' })
      break
    }
    case 'stop':
      happenToFreed(work, id, { type: 'ended', at, how: 'stopped' })
      for (const { id: line, offer } of linesNow(work))
        if (offer?.freed === id) happenInLine(work, line, { type: 'passed', at, freed: id, why: 'stopped' })
      break
    default:
      byHand(work, id, command)
  }
  return { seq: over(house, work.changes).freed(id)?.seq ?? 0 }
}

/** Offers a time to somebody the practitioner names, or books them in. */
function byHand(work: Work, id: string, command: Extract<DeskFreedDoes, { do: 'offer' | 'book' }>): void {
  const { house, now: at } = work
  const { practice } = published(house)
  const { start } = command
  const line = house.line(command.line)
  if (!line) throw new Refused(404, 'unknown-line')
  if (!isInLine(lineAt(line, at))) throw new Refused(409, 'line-over')
  const { joined, offer } = line
  const service = serviceOf(practice, joined.service)
  if (!service) throw new Refused(404, 'unknown-service')
  const { minutes } = joined
  const end = instant(start + minutes * MINUTE)
  if (!house.freed(id) || house.freed(id)?.ended) {
    if (house.freed(id)) happenToFreed(work, id, { type: 'go', at, ask: 'none' })
    else
      happenToFreed(work, id, {
        ...{ type: 'freed', at, from: start, to: end, cause: 'by-hand', service: service.id, depth: 0 },
      })
  }
  // What is held out to them just now is theirs no more.
  if (offer && offer.freed !== id)
    happenInLine(work, line.id, { type: 'passed', at, freed: offer.freed, why: 'stopped' })
  if (command.do === 'book') {
    book(work, id, line, command)
    return
  }
  const ask = { ...askFor(reckonLine(work, line), joined.place, byPractitioner, at), minutes }
  const closures = why(practice, diaryAfter(work, start, start, id), ask, start)
  if (blockingMove(closures, false).length > 0) throw new Refused(409, 'not-open.by-hand', { where: 'start' })
  const rules = standsUntil(practice, service, waitingOf(practice, line), start, at)
  // Whom the practitioner chooses so late has until it begins.
  const until: Instant = rules > at ? rules : start
  const { price } = joined
  const held = { type: 'held-out', at, freed: id, start, minutes, price, until, hand: true } as const
  happenInLine(work, line.id, held)
}

/** Books somebody in who waits, at a start the practitioner names. */
function book(
  work: Work,
  id: string,
  line: PlaceInLine,
  { start, booking, silent }: Extract<DeskFreedDoes, { do: 'book' }>,
): void {
  const { joined } = line
  const { service, place, minutes, person, answers, extras, travel, code, address } = joined
  if (joined.instead !== undefined) throw new Refused(409, 'line-over')
  const asked = Object.keys(answers).length > 0
  const body = {
    ...{ id: booking, service, place, start, minutes, person, clash: false },
    ...(asked ? { answers } : {}),
    ...(extras ? { extras } : {}),
    ...(travel ? { travel } : {}),
    ...(code ? { code } : {}),
    ...(address ? { address } : {}),
    ...(silent ? { silent } : {}),
  }
  enter(work, body, { freed: id, line: line.id })
  happenInLine(work, line.id, { type: 'taken', at: work.now, freed: id, booking })
  passOthers(work, id, line.id)
}
