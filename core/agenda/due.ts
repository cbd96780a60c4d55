import { type Booking, leastDates, leftOf, tillSource } from '../booking/index.ts'
import { accountOf } from '../ledger/index.ts'
import {
  DIGEST,
  messageName,
  NEWS,
  nextDigest,
  plannedLetters,
  quoteSteps,
  steeredOf,
  type Which,
} from '../messages/index.ts'
import { serviceOf, waitlistOf } from '../practice/index.ts'
import { type Course, courseAt, nextPay, remindedAt, stillToDo } from '../preparing/index.ts'
import { DAY, HOUR, instant, MINUTE } from '../time/index.ts'
import { type Freed, overFrom, type PlaceInLine, tellsByText } from '../waiting/index.ts'
import { type Doing, type Due, due, judgedKey, type Message, type Planner } from './doing.ts'
import { type Sealing, sealingOfBooking, sealingOfEnquiry, sealingOfLine } from './sealing.ts'
import { type Subject, sessionSubject } from './subject.ts'

/** How often each calendar is read. */
const CALENDARS_EVERY = 5 * MINUTE
const FORGETTING_EVERY = HOUR

/** Everything that will happen by itself to a subject. It follows from the house alone. */
export function dueOf(house: Planner, subject: Subject): Due[] {
  switch (subject.kind) {
    case 'booking':
      return dueOfBooking(house, subject)
    case 'enquiry': {
      const all = house.enquiryNews(subject.id)
      const letters = all.flatMap(({ news, at, by }, i) =>
        news === 'booked'
          ? []
          : message(house, subject, {
              step: news === 'quoted' ? 'quote' : 'enquiry-answered',
              anchor: i + 2,
              at,
              ...(by ? { channel: by } : {}),
            }),
      )
      const chasing = quoteSteps(house.practice, all).flatMap(({ draft: _, ...step }) =>
        message(house, subject, step),
      )
      return [...letters, ...chasing, ...toSeal(house, subject)]
    }
    case 'waiting': {
      const line = house.line(subject.id)
      return line ? [...dueOfLine(house, subject, line), ...toSeal(house, subject)] : []
    }
    case 'freed': {
      const freed = house.freed(subject.id)
      return freed && !freed.ended
        ? [due(subject, { do: 'lapse' }, freed.to), ...toDecide(house, subject, freed)]
        : []
    }
    case 'course': {
      const course = house.course(subject.id)
      return course ? dueOfCourse(house, subject, course) : []
    }
    case 'visit': {
      const keep = house.keep(subject.id)
      return keep ? [due(subject, { do: 'unkeep' }, keep.until + 1)] : []
    }
    case 'session': {
      const found = (house.practice ? leastDates(house.practice) : []).find(
        ({ service, date }) => sessionSubject(service.id, date.id).id === subject.id,
      )
      const judge = found && due(subject, { do: 'judge' }, found.by + 1)
      return judge && !house.done(judgedKey(judge, found.start), subject) ? [judge] : []
    }
    case 'calendar': {
      const known = house.practice?.calendars?.find((calendar) => calendar.id === subject.id)
      const state = house
        .calendars()
        .find((calendar) => calendar.id === subject.id && calendar.url === known?.url)
      return known?.url === undefined
        ? []
        : [due(subject, { do: 'read-calendar' }, state ? state.tried + CALENDARS_EVERY : 0)]
    }
    case 'house':
      return [
        due(subject, { do: 'forget' }, house.forgotten() + FORGETTING_EVERY),
        ...dueDigest(house, subject),
      ]
    default:
      return []
  }
}

function dueOfBooking(house: Planner, subject: Subject): Due[] {
  const booking = house.booking(subject.id)
  if (!booking) return []
  const { status, until, latest, unsettled, tells } = booking
  const dues: Due[] = []
  if (status === 'requested') dues.push(due(subject, { do: 'lapse' }, Math.max(until, latest) + 1))
  if (unsettled) {
    const settle = due(subject, { do: 'settle', of: unsettled.seq }, unsettled.until + 1)
    if (!house.done(settle.key, subject)) dues.push(settle)
  }
  // One message tells how things stand: a newer one takes the place of what has not gone.
  const told = tells && stateLetter(booking)
  if (told) dues.push(...message(house, subject, told, booking))
  dues.push(...dueAtTill(booking, subject))
  for (const letter of plannedLetters(booking, house.practice))
    dues.push(...message(house, subject, letter, booking))
  dues.push(...toSeal(house, subject, sealingOfBooking(house.practice, booking)))
  return dues
}

/** What of a subject is sealed next; nothing where there is nothing to seal, or not before something else has happened. */
export function sealingOf(house: Planner, { kind, id }: Subject): Sealing | undefined {
  switch (kind) {
    case 'booking': {
      const booking = house.booking(id)
      return booking && sealingOfBooking(house.practice, booking)
    }
    case 'waiting': {
      const line = house.line(id)
      return line && sealingOfLine(line)
    }
    case 'enquiry':
      return sealingOfEnquiry(house.enquiry(id), house.enquiryNews(id))
    default:
      return undefined
  }
}

const toSeal = (house: Planner, subject: Subject, sealing = sealingOf(house, subject)): Due[] =>
  house.seals && sealing ? [due(subject, { do: 'seal' }, sealing.from)] : []

/** Of a place in line: its address was not proved in time, what is held out to it goes on, every window is past. */
function dueOfLine(house: Planner, subject: Subject, line: PlaceInLine): Due[] {
  const { status, joined, offer, tells } = line
  const letters = tells
    ? message(house, subject, {
        ...{ step: tells.step, anchor: tells.seq, at: tells.due },
        useful: offer?.seq === tells.seq ? offer.until : tells.due + NEWS,
        ...(tellsByText(line) ? { channel: 'text' as const } : {}),
      })
    : []
  if (status === 'ended' || status === 'taken') return letters
  const over = overFrom(line)
  const ends = [
    ...(status === 'unproved' && joined.until !== undefined ? [joined.until + 1] : []),
    ...(offer ? [offer.until + 1] : []),
    ...(over === undefined ? [] : [Math.max(over, (offer?.until ?? 0) + 1)]),
  ]
  return ends.length > 0 ? [due(subject, { do: 'lapse' }, Math.min(...ends)), ...letters] : letters
}

/** How long before its date a part of a path's price is told, in ms. */
const PAY_AHEAD = 3 * DAY

/** Of what was given to somebody: that it was, that they are asked again, and that something is due soon. */
function dueOfCourse(house: Planner, subject: Subject, course: Course): Due[] {
  const { given, tells } = course
  const told = tells
    ? message(house, subject, {
        ...{ step: tells.step, anchor: tells.seq, at: tells.due, useful: tells.due + NEWS },
      })
    : []
  // Each invoice is told once, also where several are made together.
  for (const [i, { at }] of (course.invoices ?? []).entries())
    told.push(...message(house, subject, { step: 'path-invoice', anchor: i + 1, at, useful: at + NEWS }))
  for (const { is, payment, at } of course.till ?? [])
    if (is === 'open') told.push(due(subject, { do: 'ask-till', payment }, at + IN_DOUBT))
  const pay = nextPay(course)
  // A part of the price is told three days before its date; what is due at once, the first message tells.
  if (pay && pay.due > given.at)
    told.push(
      ...message(house, subject, {
        ...{
          step: 'path-pay',
          anchor: pay.due,
          at: Math.max(pay.due - PAY_AHEAD, given.at),
          useful: pay.due + NEWS,
        },
      }),
    )
  const { practice } = house
  const booking = given.booking === undefined ? undefined : house.booking(given.booking)
  if (!practice || stillToDo(courseAt(practice, course, booking, course.latest)).length === 0) return told
  const reminded = remindedAt(practice, course, booking)
  if (!reminded) return told
  const { at, anchor } = reminded
  return [...told, ...message(house, subject, { step: 'prepare-soon', anchor, at, useful: anchor })]
}

/** The practitioner is told of a freed time for which nobody is asked before they say so. */
const toDecide = (house: Planner, subject: Subject, { at, go, to, service }: Freed): Due[] => {
  const found = house.practice && service ? serviceOf(house.practice, service) : undefined
  return go === undefined && waitlistOf(found).ask === 'none'
    ? message(house, subject, { step: 'freed-to-decide', anchor: 1, at, useful: to })
    : []
}

/** The digest of the next morning: when one has gone, or was not to be had in time, the one after it. */
function dueDigest(house: Planner, subject: Subject): Due[] {
  // What was to go while nobody was there still goes, while it is of use.
  let from = instant(house.forgotten() - DIGEST)
  for (let i = 0; i < 3; i++) {
    const next = nextDigest(house.practice, from)
    if (!next) return []
    const found = message(house, subject, { step: 'digest', ...next })
    if (found.length > 0) return found
    from = next.at
  }
  return []
}

/** How long the till's own message is waited for before it is asked, in ms. */
const IN_DOUBT = 10 * MINUTE

/** What is still to be heard from the till, and what is to be given back by it of a time that has come to nothing. */
function dueAtTill(booking: Booking, subject: Subject): Due[] {
  const { till = [], unsettled, status, latest } = booking
  if (till.length === 0) return []
  const dues = till.flatMap(({ payment, what, is, at, until }) =>
    is === 'open'
      ? [due(subject, { do: 'ask-till', payment }, what === 'charge' ? until + 1 : at + IN_DOUBT)]
      : [],
  )
  const ended =
    status === 'declined' || status === 'lapsed' || status === 'withdrawn' || status === 'cancelled'
  let left = ended ? -accountOf(booking).open : 0
  for (const { payment } of till) {
    const amount = Math.min(left, leftOf(booking, payment))
    if (amount <= 0) continue
    left -= amount
    const n = (booking.payments ?? []).filter(({ source }) =>
      source?.startsWith(`${tillSource(payment)} back `),
    ).length
    dues.push(due(subject, { do: 'give-back', payment, n, amount }, unsettled ? unsettled.until + 1 : latest))
  }
  return dues
}

/** What tells how a booking stands, unless it is held back. */
function stateLetter(booking: Booking): Wanted | undefined {
  if (!booking.tells) return undefined
  const { step, seq: anchor, due: at } = booking.tells
  return steeredOf(booking, { step, anchor })?.held ? undefined : { step, anchor, at, useful: at + NEWS }
}

/** A message that is wanted, from when on, and the last moment at which it is of use. */
type Wanted = Which & { at: number; useful?: number }

/** What can be sent once more, because the practitioner says so. */
const CAN_GO_AGAIN: ReadonlySet<Message['state']> = new Set(['failed', 'unknown', 'skipped'])

/** A message that is still to go. */
function message(
  house: Planner,
  subject: Subject,
  { at, useful, ...which }: Wanted,
  booking?: Booking,
): Due[] {
  const { step, anchor, channel } = which
  const doing: Doing = { do: 'message', step, anchor, ...(channel ? { channel } : {}) }
  const planned = due(subject, doing, at)
  const so = house.message(planned.key, subject)
  const sent = booking && steeredOf(booking, which)?.now
  const again = sent !== undefined && so && CAN_GO_AGAIN.has(so.state) && sent > so.due
  if (so && so.state !== 'again' && !again) return []
  const next = { ...planned, at: so && !again ? so.due : instant(sent ?? planned.at) }
  // What could not go in time is looked at once more, so that it is said that it did not.
  if (useful !== undefined && next.at > useful && sent === undefined)
    return so ? [{ ...next, at: instant(useful + 1) }] : []
  return [next]
}

/** The last moment at which a message is of use; nothing where it always is, or is no longer wanted. */
export function usefulUntil(house: Planner, subject: Subject, which: Which): number | undefined {
  const booking = subject.kind === 'booking' ? house.booking(subject.id) : undefined
  if (!booking) return undefined
  const name = messageName(which)
  const told = stateLetter(booking)
  if (told && messageName(told) === name) return told.useful
  return plannedLetters(booking, house.practice).find((letter) => messageName(letter) === name)?.useful
}
