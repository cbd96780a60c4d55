import { closureWords } from '@acolhida/core/openings'
import { normalMail } from '@acolhida/core/people'
import {
  MOST_PLANNED,
  type PlanEach,
  type PlanWish,
  planEnd,
  planSessions,
  RHYTHMS,
  type Rhythm,
  wishFor,
} from '@acolhida/core/planning'
import { placeOf, zoneOf } from '@acolhida/core/practice'
import { balanceOf, givenPath, type PathSession, plannedAs, replayCourse } from '@acolhida/core/preparing'
import { byPractitioner } from '@acolhida/core/request'
import { type ReadFile, readPracticeFile } from '@acolhida/core/schemas'
import {
  addDays,
  date,
  dateTimeAt,
  dayNumber,
  formatInstant,
  type Instant,
  parseInstant,
  shift,
  time,
  zone,
} from '@acolhida/core/time'
import { diaryFor, given, WEEK } from './given.ts'
import { countOption, need, option, readGiven, Unusable, type Values } from './options.ts'

const rhythm = (text: string): Rhythm => {
  const found = RHYTHMS.find((one) => one === text)
  if (!found) throw new RangeError(`"${text}" is none of ${RHYTHMS.join(', ')}`)
  return found
}

/** The paths that somebody was given, each with how it stands. */
function pathsOf(file: ReadFile, values: Values, now: Instant) {
  const id = need(values, 'person')
  const person = file.people.find((one) => one.id === id)
  if (!person) throw new Unusable(`--person: there is nobody "${id}" in the file`)
  const bookings = new Map(file.bookings.map((booking) => [booking.id, booking]))
  return file.courses
    .map(({ id: course, events }) => replayCourse(course, events))
    .filter(({ given: { path, person: whose } }) => path && person.emails.includes(normalMail(whose.email)))
    .map((course) => ({ course, balance: balanceOf(course, (one) => bookings.get(one), now) }))
}

/** How the paths of somebody stand: sessions used, planned and left, and the money. */
export function balanceCommand(path: string, values: Values) {
  const now = option(values, 'now', parseInstant)
  const file = readPracticeFile(readGiven(path), path)
  return {
    person: need(values, 'person'),
    paths: pathsOf(file, values, now).map(({ course, balance: { sessions, ...sums } }) => ({
      path: course.given.path!.id,
      name: course.given.path!.name,
      currency: course.given.path!.currency,
      ...(course.ended === undefined ? {} : { ended: formatInstant(course.ended) }),
      ...(course.paused ? { rests: true } : {}),
      ...sums,
      sessions: sessions.map(({ session, is, booking }) => ({
        ...{ id: session.id, service: session.service, minutes: session.minutes, worth: session.worth, is },
        ...(booking ? { booking: booking.id, start: formatInstant(booking.start) } : {}),
      })),
    })),
  }
}

/** The sessions of a path that are to be planned: what is left of it with somebody, or all where they were not given it. */
function sessionsToPlan(file: ReadFile, values: Values, now: Instant): PathSession[] {
  const id = need(values, 'path')
  const own =
    values.person === undefined
      ? undefined
      : pathsOf(file, values, now).find(({ course }) => course.given.path?.id === id)
  if (own) return own.balance.sessions.flatMap(({ session, is }) => (is === 'left' ? [session] : []))
  const { practice } = file
  const path = practice.paths?.find((one) => one.id === id)
  if (!path) throw new Unusable(`--path: there is no path "${id}" in the file`)
  return givenPath(practice, path, now, zone(practice.profile.zone)).path.sessions
}

/** What each of them is, for planning. */
function eachOf({ practice }: ReadFile, sessions: readonly PathSession[]): PlanEach[] {
  if (sessions.length === 0) throw new Unusable('--path: nothing of it is left to plan')
  const each = plannedAs(practice, sessions)
  if (!each) throw new Unusable('--path: one of its services is gone from the practice')
  return each
}

/** Sessions planned after a rhythm, as the practitioner may plan them; with why one is not where it was meant. */
export function seriesCommand(path: string, values: Values) {
  const now = option(values, 'now', parseInstant)
  const first = option(values, 'from', date)
  const file = values.path === undefined ? undefined : readPracticeFile(readGiven(path), path)
  const each = file && eachOf(file, sessionsToPlan(file, values, now))
  const at = option({ time: each ? '10:00' : undefined, ...values }, 'time', time)
  const count = each?.length ?? option(values, 'count', countOption(MOST_PLANNED))
  const head = each?.[0]
  const g = given(
    path,
    head ? { ...values, service: head.service.id, minutes: String(head.minutes) } : values,
    now,
  )
  const { practice } = g.file
  const there = zoneOf(practice, placeOf(practice, g.place))
  const begin = there.toInstant(dayNumber(addDays(first, -31)), 0)
  const wish: PlanWish = {
    ...{ service: g.service, place: g.place, minutes: g.minutes, asker: byPractitioner, now },
    ...{ rhythm: option({ rhythm: each ? 'week' : undefined, ...values }, 'rhythm', rhythm) },
    ...{ first, time: at, count },
    ...(each ? { each } : {}),
    ...(values.least === undefined ? {} : { least: option(values, 'least', countOption(366)) }),
    ...(values.greatest === undefined ? {} : { greatest: option(values, 'greatest', countOption(366)) }),
  }
  const end = shift(there.toInstant(dayNumber(planEnd(wish)), 0), WEEK)
  const plan = planSessions(practice, diaryFor(g, values, now, begin, end), wish)
  return {
    ...(values.path === undefined ? { service: g.service.id } : { path: values.path }),
    zone: there.name,
    cost: plan.cost,
    sessions: plan.sessions.map(({ meant, ideal, start, days, minutes, because }, k) => ({
      ...(each ? { service: each[k]!.service.id, length: each[k]!.minutes } : {}),
      meant,
      local: start === undefined ? null : dateTimeAt(there, start),
      ...(days === 0 ? {} : { days }),
      ...(minutes === 0 ? {} : { minutes }),
      ...(because.length > 0
        ? {
            because: because.map((closure) =>
              closureWords(closure, {
                ...{ practice, start: ideal, minutes: wishFor(wish, k).minutes, zone: there },
                nameOf: ({ id }) => id,
              }),
            ),
          }
        : {}),
    })),
  }
}
