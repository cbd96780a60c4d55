import {
  type Booking,
  type BookingEvent,
  bookingEntries,
  holdUntil,
  replay,
  UNDO,
} from '@acolhida/core/booking'
import type { Enquiry } from '@acolhida/core/contract'
import type { Backup, BookingRecord } from '@acolhida/core/formats'
import { makeDiary, openStarts } from '@acolhida/core/openings'
import { normalMail, type Person } from '@acolhida/core/people'
import { type Practice, placeOf, serviceOf, termsInForce, termsValues, zoneOf } from '@acolhida/core/practice'
import { newcomer } from '@acolhida/core/questions'
import { askedOf, askFor, byPractitioner, printOfShown, reckon, shownOf } from '@acolhida/core/request'
import { agree, chainHead } from '@acolhida/core/terms'
import {
  addDays,
  DAY,
  dateAt,
  duration,
  HOUR,
  type Instant,
  instant,
  MINUTE,
  shift,
  zone,
} from '@acolhida/core/time'
import { PARTS } from './parts.ts'
import { demoPractice } from './practice.ts'

/** A Monday-to-Friday date `days` working days from today (0: today, or the last working day before). */
function workdayFrom(practice: Practice, now: Instant, days: number): ReturnType<typeof dateAt> {
  const home = zone(practice.profile.zone)
  let day = dateAt(home, now)
  const works = (date: typeof day): boolean =>
    practice.hours.weekly[(new Date(date).getUTCDay() + 6) % 7]!.length > 0
  while (!works(day)) day = addDays(day, days <= 0 ? -1 : 1)
  for (let left = Math.abs(days); left > 0; ) {
    day = addDays(day, Math.sign(days))
    if (works(day)) left--
  }
  return day
}

/**
 * What has happened in the demo practice up to `now`: sessions held and booked, a group half full, three people
 * waiting for a word, one message. Made afresh each time, so that it always lies around the present.
 */
export function demoBackup(now: Instant): Backup {
  const practice = demoPractice(now)
  const bookings: BookingRecord[] = []
  const told: Booking[] = []
  let head = ''
  for (const part of PARTS) {
    const service = serviceOf(practice, part.service)!
    const place = part.place ?? service.places[0]!
    const at = instant(Math.round((now - part.asked * HOUR) / MINUTE) * MINUTE - 19_000)
    const from =
      service.seats > 1 ? dateAt(zone(practice.profile.zone), now) : workdayFrom(practice, now, part.day)
    const diary = makeDiary(practice, bookingEntries(practice, told, at))
    const asking = {
      ...newcomer,
      standing: part.service === 'coaching' ? ('known' as const) : ('new' as const),
    }
    const who = { by: 'client' as const, asking }
    const around = { now: at, used: () => 0 }
    const wish = { service: service.id, answers: part.answers }
    const reckoned = reckon(practice, wish, who, around)
    const { reading } = reckoned
    const ask = askFor(reckoned, place, byPractitioner, instant(at - 30 * DAY))
    const open = openStarts(
      { ...practice, away: [] },
      diary,
      { ...ask, service: { ...service, notice: duration('PT0S'), reach: { kind: 'days', days: 120 } } },
      from,
      service.seats > 1 ? 14 : 1,
    )
    const start = open[Math.min(part.nth, open.length - 1)]
    if (start === undefined) continue
    const agreements = termsInForce(practice, service).map((terms) => {
      const values = termsValues(practice, service)
      const agreement = agree(terms, { name: part.name, service: service.id, at, values }, head)
      head = chainHead(agreement)
      return agreement
    })
    const until = holdUntil(practice.answering, at, start, zoneOf(practice, placeOf(practice, place)))
    const asked = askedOf(reckoned, {
      at,
      place,
      start,
      proof: 'earlier',
      person: { name: part.name, email: part.email, zone: part.zone },
      reading,
      attempts: (part.attempts ?? []).map((answers, i) => ({
        at: shift(at, -(i + 1) * 3 * MINUTE),
        service: service.id,
        answers,
        outcome: reckon(practice, { ...wish, answers }, who, around).reading.outcome,
      })),
      agreements,
      until,
      shown: printOfShown(
        shownOf(practice, service.id, reading.quote, { start, place, as: who.asking.standing }),
      ),
    })
    const events: BookingEvent[] = [asked]
    if (part.proved) events.push({ type: 'proved', at: shift(at, 4 * MINUTE) })
    if (part.booked) {
      const word = shift(at, 40 * MINUTE)
      events.push({ type: 'welcomed', at: word, by: 'practitioner', settles: shift(word, UNDO) })
    }
    bookings.push({ id: part.id, events })
    told.push(replay(part.id, events))
  }
  const enquiry: Enquiry & { state: 'open' } = {
    id: 'message-yusra',
    at: instant(now - 5 * HOUR),
    name: 'Yusra Haddad',
    email: 'yusra.haddad@example.org',
    message:
      'My daughter is eight and whispers at school. You wrote that young voices belong elsewhere; do you know somebody near Coimbra?',
    service: 'first-conversation',
    answers: { brings: 'My daughter is eight and whispers at school.', 'for-whom': 'child', age: 8 },
    attempts: [],
    state: 'open',
  }
  return {
    format: 'acolhida-backup',
    version: 1,
    practice,
    people: peopleOf(told),
    bookings,
    enquiries: [enquiry],
    mails: [],
    sessions: [],
    salt: 'demo-practice-of-iria',
    revision: 1,
    cursor: 0,
  }
}

function peopleOf(bookings: readonly Booking[]): Person[] {
  const people = new Map<string, Person>()
  for (const { id, asked } of bookings) {
    const email = normalMail(asked.person.email)
    if (people.has(email)) continue
    people.set(email, {
      id: `person-${id}`,
      name: asked.person.name,
      emails: [email],
      invited: id.startsWith('past') ? ['coaching'] : [],
      blocked: false,
      note: '',
    })
  }
  return [...people.values()]
}
