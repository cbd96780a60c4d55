import { type Booking, comesAndAsks } from '../booking/index.ts'
import { type Practice, serviceOf } from '../practice/index.ts'
import {
  type DayNumber,
  dateAt,
  dayNumber,
  FIRST_LANGUAGE,
  type Instant,
  instant,
  longDate,
  MINUTE,
  minutesOf,
  shift,
  span,
  zone,
} from '../time/index.ts'
import { lettersIn } from './catalogue.ts'
import type { Letter } from './letter.ts'

/** For how long the digest of a morning is of use, in ms: half a day. */
export const DIGEST = 720 * MINUTE

/** The morning's digest: the next after a moment, that moment left out; nothing where none is wanted. */
export function nextDigest(
  practice: Practice | undefined,
  from: Instant,
): { anchor: number; at: Instant; useful: Instant } | undefined {
  const time = practice?.messaging?.own?.digest
  if (!practice || time === undefined) return undefined
  const home = zone(practice.profile.zone)
  const today = dayNumber(dateAt(home, from))
  for (const day of [today, today + 1, today + 2]) {
    const at = home.toInstant(day as DayNumber, minutesOf(time))
    if (at > from) return { anchor: day, at, useful: shift(at, DIGEST) }
  }
  return undefined
}

/** What a day holds, as far as the relay knows. */
export interface Day {
  sessions: readonly Booking[]
  /** How many requests wait for a word, how many messages could not be sent, how many drafts wait. */
  requests: number
  failing: number
  drafts: number
}

/** What is written to the practitioner in the morning. */
export function digestLetter(practice: Practice, day: Day, now: Instant): Letter {
  const say = lettersIn(practice, FIRST_LANGUAGE)
  const home = zone(practice.profile.zone)
  const { sessions, requests, failing, drafts } = day
  const lines = sessions.map((booking) =>
    say('digest.line', {
      time: span(booking.start, instant(booking.start + booking.minutes * MINUTE), home),
      service: serviceOf(practice, booking.service)?.name ?? say('your-session'),
      name: comesAndAsks(booking),
    }),
  )
  return {
    to: 'practitioner',
    subject: say('digest.subject', { date: longDate(dateAt(home, now)), sessions: sessions.length }),
    text: [
      lines.length > 0 ? lines.join('\n') : say('digest.none'),
      requests > 0 ? say('digest.waiting', { requests }) : '',
      failing > 0 ? say('digest.failing', { messages: failing }) : '',
      drafts > 0 ? say('digest.drafts', { drafts }) : '',
    ]
      .filter(Boolean)
      .join('\n\n'),
  }
}
