import type { DoorPackage } from '../contract/types.ts'
import { type Diary, makeDiary, newClient, openStarts } from '../openings/index.ts'
import { type Practice, placeOf, type Service, serviceOf, waitlistOf, zoneOf } from '../practice/index.ts'
import { askerFor, personBehind } from '../request/index.ts'
import { dateAt, type Instant, instant, MINUTE } from '../time/index.ts'
import {
  type FillBy,
  type Freed,
  type FreedEvent,
  type FreedSpan,
  type HeldFor,
  holdOutNext,
  type LineEvent,
  lineAt,
  type PlaceInLine,
  preferenceOf,
  standsUntil,
  stillToAsk,
  waitingAmong,
  waitingOf,
  whoCould,
} from '../waiting/index.ts'
import type { Change } from './changes.ts'
import { diaryAfter, seenTogether, spansFreed } from './freed-spans.ts'
import { published } from './house.ts'
import { over } from './over.ts'
import { marksAgainst } from './standing.ts'
import type { Work } from './work.ts'

/** How many ways are looked at on the way of an act, so that none waits long for another. */
const MOST_WAYS = 50_000

/** How far ahead it is looked what another practice has made free, in days. */
const AHEAD = 92

/** Lets something happen to a place in line. */
export function happenInLine(work: Work, id: string, event: LineEvent): PlaceInLine {
  const seq = (over(work.house, work.changes).line(id)?.seq ?? 0) + 1
  work.changes.push({ type: 'waiting', id, seq, event })
  return over(work.house, work.changes).line(id)!
}

/** Lets something happen to a freed time. */
export function happenToFreed(work: Work, id: string, event: FreedEvent): void {
  const seq = (over(work.house, work.changes).freed(id)?.seq ?? 0) + 1
  work.changes.push({ type: 'freed', id, seq, event })
}

/** Who has waited longest comes first, whichever order they are kept in. */
const byWait = (a: PlaceInLine, b: PlaceInLine): number =>
  a.joined.at - b.joined.at || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)

/** Everybody in line as they are after what this act has done so far. */
export function linesNow({ house, changes }: Pick<Work, 'house' | 'changes'>): PlaceInLine[] {
  const ids = new Set<string>()
  for (const { id } of house.inLine()) ids.add(id)
  let touched = false
  for (const change of changes) {
    if (change.type === 'waiting') ids.add(change.id)
    touched ||= change.type === 'waiting' || change.type === 'forget'
  }
  if (!touched) return [...house.inLine()].sort(byWait)
  const next = over(house, changes)
  return [...ids].flatMap((id) => next.line(id) ?? []).sort(byWait)
}

/**
 * What an act has made free is held out to whoever waits for it, and what was turned down goes on to the next: in the
 * same transaction, so that no other request slips in between.
 */
export function fillWhatIsFree(given: Work): void {
  const { house, changes } = given
  if (!house.pack || changes.length === 0) return
  // What came free while nobody was there is held out from now on: nobody could have answered before.
  const work: Work = { ...given, now: given.really ?? given.now }
  const ids = new Set(freedTouched(work))
  if (ids.size === 0 && !changes.some(mayFree)) return
  if (!linesNow(work).some((line) => lineAt(line, work.now).is === 'waiting') && ids.size === 0) return
  for (const span of seenTogether(spansFreed(work))) {
    const id = begin(work, span)
    if (id) ids.add(id)
  }
  for (const id of ids) passOn(work, id)
}

/** Which changes can make a time free. */
const mayFree = ({ type }: Change): boolean =>
  type === 'event' || type === 'done' || type === 'calendar' || type === 'calendar-gone'

/** Events after which a freed time may be for somebody else, or for them. */
const REOPENS: ReadonlySet<LineEvent['type']> = new Set([
  ...(['proved', 'joined', 'changed', 'resumed', 'still', 'returned', 'looked'] as const),
  ...(['paused', 'turned', 'let-go', 'passed', 'taken', 'ended'] as const),
])

/** The freed times to be looked at once more after what this act has done. */
function freedTouched({ house, changes }: Work): string[] {
  const own = changes.flatMap((change) =>
    change.type === 'freed' && change.event.type !== 'ended' && change.event.type !== 'freed'
      ? [change.id]
      : [],
  )
  if (!changes.some((change) => change.type === 'waiting' && REOPENS.has(change.event.type))) return own
  const open: string[] = []
  for (const { id, ended } of house.freedTimes()) if (!ended) open.push(id)
  return [...own, ...open]
}

/** Who could have a freed time now: of those who wait, were not asked for it yet, and are not to be left out. */
function couldHave(work: Work, freed: FreedSpan & Partial<Pick<Freed, 'id' | 'skipped'>>) {
  const { house, now } = work
  const { practice, people, salt } = published(house)
  const next = over(house, work.changes)
  const lines = stillToAsk(linesNow(work), freed, now).filter((line) => !mayNot(work, line))
  const line = waitingAmong(practice, lines, (booking) => {
    const own = next.booking(booking)
    return own?.status === 'booked' ? own.start : undefined
  })
  const by: Omit<FillBy, 'prefer'> = {
    now,
    meets: true,
    bare: true,
    most: MOST_WAYS,
    askerOf: (email) => {
      const person = personBehind({ people, salt }, email)
      // Whoever waits for a service was let in to it.
      const asker = person ? askerFor(person) : newClient
      return { ...asker, invited: practice.services.map((service) => service.id) }
    },
  }
  const diary = diaryAfter(work, freed.from, freed.to, freed.id)
  return { ...whoCould(practice, diary, line, freed, { ...by, prefer: 'longest-wait' }), by, diary }
}

/** Whom the practitioner has blocked, and who may book nothing online for a time, is held out nothing. */
function mayNot({ house, now }: Work, { joined: { person } }: PlaceInLine): boolean {
  const marks = marksAgainst(house, person.email, now)
  return marks.includes('blocked') || marks.includes('not-online')
}

/**
 * A freed time that somebody could have begins its record; what nobody waits for is only free. It is filled as the
 * service says of which it was, or as that of the first in line does where that one says nothing.
 */
function begin(work: Work, freed: FreedSpan): string | undefined {
  const { able } = couldHave(work, freed)
  const [first] = able
  if (!first) return undefined
  const { practice } = published(work.house)
  const own = freed.service === undefined ? undefined : serviceOf(practice, freed.service)
  const service = own?.waitlist ? own.id : (able.find((one) => one.service.waitlist) ?? first).service.id
  const id = work.ids()
  happenToFreed(work, id, { type: 'freed', at: work.now, ...freed, service })
  return id
}

/** Those to whom a freed time is held out just now. */
const standingOf = (work: Work, practice: Practice, id: string): HeldFor[] =>
  linesNow(work).flatMap(({ id: line, offer, joined }) => {
    const service = serviceOf(practice, joined.service)
    return offer?.freed === id && service
      ? [{ waiting: { id: line, minutes: offer.minutes }, service, start: offer.start }]
      : []
  })

/** How many seats of a group are free at a start. */
const seatsIn =
  (diary: Diary) =>
  (service: Service, start: Instant): number => {
    const here = diary.entries.find(
      (entry) => entry.service === service.id && entry.start === start && entry.seats !== undefined,
    )
    return Math.max(0, service.seats - (here?.taken ?? 0))
  }

/** Holds a freed time out to those who are next, or ends it where nobody is. */
export function passOn(work: Work, id: string): void {
  const { house, now } = work
  const { practice } = published(house)
  const freed = over(house, work.changes).freed(id)
  if (!freed || freed.ended) return
  const { able, by, diary } = couldHave(work, freed)
  const standing = standingOf(work, practice, id)
  const list = waitlistOf(freed.service === undefined ? undefined : serviceOf(practice, freed.service))
  const ask = freed.go ?? list.ask
  const next = holdOutNext(practice, able, standing, {
    ...by,
    ...preferenceOf(list),
    ask,
    seats: seatsIn(diary),
  })
  let held = standing.length
  for (const { waiting, service, start } of next) {
    const line = over(house, work.changes).line(waiting.id)!
    const until = standsUntil(practice, service, waitingOf(practice, line), start, now)
    if (until <= now) continue
    const { minutes, price } = line.joined
    happenInLine(work, waiting.id, {
      ...{ type: 'held-out', at: now, freed: id, start, minutes, price, until },
      ...(ask === 1 ? {} : { shared: true }),
    })
    held++
  }
  if (held > 0 || (ask === 'none' && able.length > 0)) return
  const taken = linesNow(work).some((line) => line.status === 'taken' && line.had.at(-1) === id)
  happenToFreed(work, id, { type: 'ended', at: now, how: taken ? 'taken' : 'nobody' })
}

/** What somebody in line could have had before, where another practice made it free. */
const startsBy = (
  practice: Practice,
  diary: Diary,
  { joined: { service: id, place, minutes } }: PlaceInLine,
  now: Instant,
): Instant[] => {
  const service = serviceOf(practice, id)
  if (!service?.on || !service.places.includes(place)) return []
  const asker = { ...newClient, invited: [id] }
  const today = dateAt(zoneOf(practice, placeOf(practice, place)), now)
  return openStarts(practice, diary, { service, place, minutes, asker, now }, today, AHEAD)
}

/** A diary with as many seats in each group session as a practice gives it. */
const seatsAsIn = (practice: Practice, diary: Diary): Diary =>
  makeDiary(
    practice,
    diary.entries.map((entry) => {
      const seats = entry.service === undefined ? undefined : serviceOf(practice, entry.service)?.seats
      return entry.seats === undefined || seats === undefined ? entry : { ...entry, seats }
    }),
  )

/**
 * What a newly published practice has made free (hours, time away taken back, seats, other rules) is held out to those
 * who wait: every start that opens to one of them and did not before.
 */
export function fillPublished(work: Work, { was }: { was: DoorPackage | undefined }): Record<string, never> {
  const { house, now } = work
  const { practice } = published(house)
  const waits = linesNow(work).filter((line) => lineAt(line, now).is === 'waiting')
  if (!was || waits.length === 0) return {}
  const end = instant(now + AHEAD * 1_440 * MINUTE)
  const before = seatsAsIn(was.practice, house.diary(now, end, { owners: ['sessions'] }, was.sessions))
  const diary = house.diary(now, end)
  const looked = new Set<string>()
  const spans: FreedSpan[] = []
  for (const line of waits) {
    const { service, place, minutes } = line.joined
    const key = `${service} ${place} ${minutes}`
    if (looked.has(key)) continue
    looked.add(key)
    const old = new Set(startsBy(was.practice, before, line, now))
    const seats = (serviceOf(practice, service)?.seats ?? 1) > 1
    for (const start of startsBy(practice, diary, line, now)) {
      if (old.has(start)) continue
      const to = instant(start + minutes * MINUTE)
      spans.push({ from: start, to, cause: seats ? 'seats' : 'hours', service, depth: 0 })
    }
  }
  for (const one of seenTogether(spans)) {
    const id = begin(work, one)
    if (id) passOn(work, id)
  }
  return {}
}
