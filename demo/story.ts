import {
  type Asked,
  type Booking,
  type BookingEvent,
  bookingEntries,
  holdUntil,
  replay,
  UNDO,
} from '@acolhida/core/booking'
import type { Enquiry } from '@acolhida/core/contract'
import type { Backup, BookingRecord } from '@acolhida/core/formats'
import { makeDiary, newClient, openStarts } from '@acolhida/core/openings'
import { normalMail, type Person } from '@acolhida/core/people'
import {
  type Practice,
  placeOf,
  questionnaireOf,
  serviceOf,
  termsInForce,
  zoneOf,
} from '@acolhida/core/practice'
import { type Answers, newcomer, readAnswers } from '@acolhida/core/questions'
import { agree, chainHead, shownText } from '@acolhida/core/terms'
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
import { demoPractice } from './practice.ts'

interface Part {
  id: string
  name: string
  email: string
  zone: string
  service: string
  place?: string
  /** Days from today on which the session lies, and which opening of that day is taken. */
  day: number
  nth: number
  /** Hours before now at which they asked. */
  asked: number
  answers: Answers
  attempts?: Answers[]
  proved?: boolean
  booked?: boolean
}

const teaching: Answers = {
  brings: 'I read the news on the radio and lose my low notes by evening.',
  uses: ['calls', 'stage'],
  hoarse: 'not',
  strain: 4,
  price: 'fine',
}
const talk = (brings: string): Answers => ({ brings, 'for-whom': 'mine' })
const reader = (to: string): Answers => ({ 'to-whom': to, ease: 5 })

const PARTS: Part[] = [
  {
    id: 'past-amara',
    name: 'Amara Dindi',
    email: 'amara.dindi@example.org',
    zone: 'Europe/Lisbon',
    service: 'voice-assessment',
    day: -6,
    nth: 1,
    asked: 300,
    answers: teaching,
    proved: true,
    booked: true,
  },
  {
    id: 'past-rhys',
    name: 'Rhys Penhallow',
    email: 'rhys.penhallow@example.org',
    zone: 'Europe/London',
    service: 'first-conversation',
    day: -5,
    nth: 3,
    asked: 280,
    answers: talk('I am to give a speech at a wedding in spring.'),
    proved: true,
    booked: true,
  },
  {
    id: 'past-odile',
    name: 'Odile Ferrand',
    email: 'odile.ferrand@example.org',
    zone: 'Europe/Paris',
    service: 'voice-assessment',
    day: -1,
    nth: 2,
    asked: 200,
    answers: teaching,
    proved: true,
    booked: true,
  },
  {
    id: 'today-rhys',
    name: 'Rhys Penhallow',
    email: 'rhys.penhallow@example.org',
    zone: 'Europe/London',
    service: 'coaching',
    place: 'video',
    day: 0,
    nth: 1,
    asked: 90,
    answers: {},
    proved: true,
    booked: true,
  },
  {
    id: 'today-amara',
    name: 'Amara Dindi',
    email: 'amara.dindi@example.org',
    zone: 'Europe/Lisbon',
    service: 'coaching',
    place: 'studio',
    day: 0,
    nth: 8,
    asked: 80,
    answers: {},
    proved: true,
    booked: true,
  },
  {
    id: 'next-odile',
    name: 'Odile Ferrand',
    email: 'odile.ferrand@example.org',
    zone: 'Europe/Paris',
    service: 'coaching',
    place: 'video',
    day: 1,
    nth: 2,
    asked: 70,
    answers: {},
    proved: true,
    booked: true,
  },
  {
    id: 'next-benat',
    name: 'Beñat Lasarte',
    email: 'benat.lasarte@example.org',
    zone: 'Europe/Madrid',
    service: 'voice-assessment',
    day: 2,
    nth: 5,
    asked: 60,
    answers: { ...teaching, uses: ['singing'], summary: true },
    proved: true,
    booked: true,
  },
  {
    id: 'reading-seat-1',
    name: 'Nuno Vilar',
    email: 'nuno.vilar@example.org',
    zone: 'Europe/Lisbon',
    service: 'reading-aloud',
    day: 0,
    nth: 0,
    asked: 50,
    answers: reader('children'),
    proved: true,
    booked: true,
  },
  {
    id: 'reading-seat-2',
    name: 'Sanne Kuipers',
    email: 'sanne.kuipers@example.org',
    zone: 'Europe/Amsterdam',
    service: 'reading-aloud',
    day: 0,
    nth: 0,
    asked: 45,
    answers: reader('grown'),
    proved: true,
    booked: true,
  },
  {
    id: 'reading-seat-3',
    name: 'Mirela Pop',
    email: 'mirela.pop@example.org',
    zone: 'Europe/Bucharest',
    service: 'reading-aloud',
    day: 0,
    nth: 0,
    asked: 40,
    answers: reader('nobody'),
    proved: true,
    booked: true,
  },
  {
    id: 'reading-seat-4',
    name: 'Inês Tavira',
    email: 'ines.tavira@example.org',
    zone: 'Europe/Lisbon',
    service: 'reading-aloud',
    day: 0,
    nth: 0,
    asked: 30,
    answers: reader('children'),
    proved: true,
    booked: true,
  },
  {
    id: 'asks-tome',
    name: 'Tomé Arrais',
    email: 'tome.arrais@example.org',
    zone: 'America/Sao_Paulo',
    service: 'voice-assessment',
    day: 3,
    nth: 6,
    asked: 18.3,
    proved: true,
    answers: {
      brings: 'My voice gives out by the afternoon. I teach five classes a day and dread the last one.',
      uses: ['teaching'],
      hoarse: 'long',
      doctor: false,
      strain: 9,
      price: 'parts',
      came: 'A singer I teach with',
    },
    attempts: [
      {
        brings: 'My voice gives out by the afternoon. I teach five classes a day and dread the last one.',
        uses: ['teaching'],
        hoarse: 'long',
        doctor: false,
        strain: 9,
        price: 'too-much',
        came: 'A singer I teach with',
      },
    ],
  },
  {
    id: 'asks-wanda',
    name: 'Wanda Okoro',
    email: 'wanda.okoro@example.org',
    zone: 'Africa/Lagos',
    service: 'first-conversation',
    day: 2,
    nth: 2,
    asked: 3,
    proved: true,
    answers: {
      ...talk('I speak at a congress in January and want to be heard in the last row.'),
      'for-whom': 'team',
    },
  },
  {
    id: 'asks-lucjan',
    name: 'Lucjan Bielak',
    email: 'lucjan.bielak@example.org',
    zone: 'Europe/Warsaw',
    service: 'voice-assessment',
    day: 6,
    nth: 9,
    asked: 0.7,
    answers: {
      ...teaching,
      brings: 'I have begun to teach online and talk against the fan all day.',
      uses: ['teaching', 'calls'],
    },
  },
]

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
    const questionnaire = questionnaireOf(practice, service)
    const reading = readAnswers(service, questionnaire, part.answers, newcomer)
    const ask = {
      service,
      place,
      minutes: reading.quote.minutes,
      asker: { ...newClient, who: 'practitioner' as const },
      now: instant(at - 30 * DAY),
    }
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
      const shown = shownText(terms.version.text, {
        practitioner: practice.profile.name,
        service: service.name,
      })
      const agreement = agree(terms, { name: part.name, service: service.id, at, shown }, head)
      head = chainHead(agreement)
      return agreement
    })
    const until = holdUntil(practice.answering, at, start, zoneOf(practice, placeOf(practice, place)))
    const asked: Asked = {
      type: 'asked',
      v: 2,
      at,
      service: service.id,
      place,
      start,
      minutes: reading.quote.minutes,
      person: { name: part.name, email: part.email, zone: part.zone },
      asking: { ...newcomer, standing: part.service === 'coaching' ? 'known' : 'new' },
      proof: 'earlier',
      shown: '',
      answers: part.answers,
      ...(questionnaire ? { questionnaire: { id: questionnaire.id, version: questionnaire.version } } : {}),
      reading,
      attempts: (part.attempts ?? []).map((answers, i) => ({
        at: shift(at, -(i + 1) * 3 * MINUTE),
        service: service.id,
        answers,
        outcome: readAnswers(service, questionnaire, answers, newcomer).outcome,
      })),
      agreements,
      houseRules: practice.houseRules,
      currency: practice.profile.currency,
      until,
    }
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
