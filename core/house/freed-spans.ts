import { bookingSubject, calendarSubject, nameOf, visitSubject, waitingSubject } from '../agenda/index.ts'
import type { Booking } from '../booking/index.ts'
import type { Diary, Entry } from '../openings/index.ts'
import { serviceOf } from '../practice/index.ts'
import { type Instant, instant, MINUTE } from '../time/index.ts'
import type { Cause, FreedSpan } from '../waiting/index.ts'
import { published } from './house.ts'
import { over } from './over.ts'
import { bookingTakes, keepTakes, lineTakes } from './takes.ts'
import type { Work } from './work.ts'

/** What is shorter finds nobody, in ms. */
const SHORTEST = 5 * MINUTE

/** What has come free, of whom and why. */
const causeOf = ({ status }: Booking): Cause =>
  status === 'cancelled' || status === 'declined' || status === 'lapsed' || status === 'withdrawn'
    ? status
    : 'moved'

const span = ({ start, end, clearBefore, clearAfter }: Entry): [number, number] => [
  start - clearBefore * MINUTE,
  end + clearAfter * MINUTE,
]

/** What is left of a span without others. */
function without(whole: [number, number], taken: readonly [number, number][]): [number, number][] {
  let left = [whole]
  for (const [from, to] of taken.filter((one) => one[0] < whole[1] && one[1] > whole[0]))
    left = left.flatMap(([a, b]): [number, number][] =>
      to <= a || from >= b
        ? [[a, b]]
        : [
            ...(a < from ? [[a, from] as [number, number]] : []),
            ...(to < b ? [[to, b] as [number, number]] : []),
          ],
    )
  return left
}

/** What an owner of entries takes after the changes, and why it takes less. */
interface After {
  entries: readonly Entry[]
  cause?: Cause
  depth?: 0 | 1
  /** Of what is held out to somebody: of which freed time. */
  freed?: string | undefined
}

/** Whose entries this act changes, and what they take then. What is kept for a visit never finds anybody. */
function ownersAfter({ house, changes }: Work): Map<string, After> {
  const { practice } = published(house)
  const next = over(house, changes)
  const owners = new Map<string, After>()
  const ofBooking = (id: string): void => {
    const name = nameOf(bookingSubject(id))
    const booking = next.booking(id)
    if (owners.has(name) || !booking) return
    const done = (key: string): boolean => next.done(key, bookingSubject(id))
    const [earlier] = changes.flatMap((change) =>
      change.type === 'event' && change.booking === id && change.event.type === 'moved'
        ? (change.event.freed ?? [])
        : [],
    )
    // What was given up for an earlier time is held out on; what that one gives up is not.
    const deep = earlier !== undefined && next.freed(earlier)?.depth === 1
    owners.set(name, {
      entries: bookingTakes(practice, booking, done),
      // Whoever has not shown who they are has taken nothing from anybody.
      ...(house.booking(id)?.unproved || deep
        ? {}
        : { cause: causeOf(booking), depth: earlier === undefined ? 0 : 1 }),
    })
  }
  for (const change of changes) {
    switch (change.type) {
      case 'event':
        ofBooking(change.booking)
        break
      case 'done':
        if (change.subject.kind === 'booking') ofBooking(change.subject.id)
        break
      case 'keep':
        owners.set(nameOf(visitSubject(change.keep.visit)), { entries: keepTakes(practice, change.keep) })
        break
      case 'unkeep':
        owners.set(nameOf(visitSubject(change.visit)), { entries: [] })
        break
      case 'waiting': {
        const line = next.line(change.id)
        owners.set(nameOf(waitingSubject(change.id)), {
          ...{ entries: line ? lineTakes(practice, line) : [], freed: line?.offer?.freed },
        })
        break
      }
      case 'calendar':
        owners.set(nameOf(calendarSubject(change.state.id)), {
          ...{ entries: change.state.entries, cause: 'calendar' },
        })
        break
      case 'calendar-gone':
        owners.set(nameOf(calendarSubject(change.id)), { entries: [], cause: 'calendar' })
        break
      default:
    }
  }
  return owners
}

/** What this act makes free from now on. */
export function spansFreed(work: Work): FreedSpan[] {
  const { house, now } = work
  const owners = ownersAfter(work)
  const after = [...owners.values()].flatMap(({ entries }) => entries.map(span))
  const { practice } = published(house)
  return [...owners].flatMap(([name, { entries, cause, depth = 0 }]): FreedSpan[] => {
    if (cause === undefined) return []
    return house.taken(name).flatMap((entry): FreedSpan[] => {
      if (entries.includes(entry) || entry.end <= now) return []
      const service = entry.service === undefined ? undefined : serviceOf(practice, entry.service)
      // Of a group a seat is free, whoever else is in it.
      const group = (service?.seats ?? 1) > 1
      const kept = group
        ? entries.filter((other) => other.start === entry.start && other.end === entry.end).map(span)
        : after
      return without(span(entry), kept)
        .map(([from, to]): [number, number] => [Math.max(from, now), to])
        .filter(([from, to]) => to - from >= SHORTEST)
        .map(([from, to]) => ({
          ...{ from: instant(from), to: instant(to), cause, depth },
          ...(service ? { service: service.id } : {}),
        }))
    })
  })
}

/** Several at once are seen together: those that touch are one. */
export function seenTogether(spans: readonly FreedSpan[]): FreedSpan[] {
  const all: FreedSpan[] = []
  for (const one of [...spans].sort((a, b) => a.from - b.from)) {
    const last = all.at(-1)
    if (!last || one.from > last.to) {
      all.push(one)
      continue
    }
    const { service, ...rest } = last
    all[all.length - 1] = {
      ...rest,
      to: instant(Math.max(last.to, one.to)),
      depth: Math.max(last.depth, one.depth) as 0 | 1,
      ...(service !== undefined && service === one.service ? { service } : {}),
    }
  }
  return all
}

/** The diary around a span as it will be after this act, without what is held out of one freed time. */
export function diaryAfter(work: Work, from: Instant, to: Instant, freed?: string): Diary {
  const owners = ownersAfter(work)
  const also = [...owners.values()].flatMap((after) =>
    freed !== undefined && after.freed === freed ? [] : after.entries,
  )
  const but = { owners: [...owners.keys()], ...(freed === undefined ? {} : { freed }) }
  return work.house.diary(from, to, but, also)
}
