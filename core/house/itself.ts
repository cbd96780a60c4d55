import { type Doing, type Due, judgedKey, sessionSubject } from '../agenda/index.ts'
import { callOff, counts, decide, isEnded, leastDates, stateAt } from '../booking/index.ts'
import { serviceOf, waitlistOf } from '../practice/index.ts'
import type { Instant } from '../time/index.ts'
import { overFrom } from '../waiting/index.ts'
import { refusalWords } from '../words/index.ts'
import { circumstances } from './circumstances.ts'
import { happenInLine, happenToFreed } from './filling.ts'
import { forget } from './forget.ts'
import { happen, type Work } from './work.ts'

/** Something whose moment has come. */
export interface Comes {
  due: Due
  /** For how long finished bookings are kept, in ms. */
  memory: number
  /** The time it is; what was due while nobody was there is carried out as of its own moment. */
  really: Instant
}

/** What happens by itself when its moment has come. */
export function itself(work: Work, { due, memory, really }: Comes): Record<string, never> {
  const { house, now } = work
  const { doing, key } = due
  // It may have gone since it was looked up.
  if (house.due(key)?.at !== due.at || due.at > now) return {}
  if (!DOES[doing.do]) throw new Error(`${key} is done outside.`)
  DOES[doing.do]?.(work, { due, memory, really })
  return {}
}

/** What each thing does that happens in the house; nothing where the relay does it outside. */
const DOES: { [K in Doing['do']]: ((work: Work, comes: Comes) => void) | undefined } = {
  lapse: (work, { due: { subject } }) => {
    const { house, now } = work
    if (subject.kind === 'waiting') return letGo(work, subject.id)
    if (subject.kind === 'freed')
      return happenToFreed(work, subject.id, { type: 'ended', at: now, how: 'over' })
    const booking = house.booking(subject.id)
    const decision = booking && decide(booking, { do: 'lapse' }, circumstances(house, booking, now))
    if (booking && decision && 'events' in decision) happen(work, booking.id, decision.events)
  },
  settle: ({ changes }, { due: { key, subject, at } }) => {
    changes.push({ type: 'done', key, subject, at })
  },
  unkeep: ({ changes }, { due: { subject } }) => {
    changes.push({ type: 'unkeep', visit: subject.id })
  },
  judge: (work, { due, really }) => judge(work, due, really),
  forget: (work, { memory }) => forget(work, memory),
  message: undefined,
  'ask-till': undefined,
  'give-back': undefined,
  'read-calendar': undefined,
  seal: undefined,
}

/** What is held out to somebody goes on to the next; who was never proved, or whose windows are past, waits no more. */
function letGo(work: Work, id: string): void {
  const { house, now } = work
  const line = house.line(id)
  const service = line && house.practice && serviceOf(house.practice, line.joined.service)
  if (!line) return
  const { offer, letGo: before } = line
  if (offer && now > offer.until) {
    const still = before + 1 >= waitlistOf(service).letGo
    happenInLine(work, id, { type: 'let-go', at: now, freed: offer.freed, ...(still ? { still } : {}) })
  }
  const { until } = line.joined
  const unproved = line.status === 'unproved' && until !== undefined && now > until
  const over = overFrom(line)
  if (!unproved && (over === undefined || now < over)) return
  const why = unproved ? ('unproved' as const) : ('over' as const)
  happenInLine(work, id, { type: 'ended', at: now, by: 'rules', why, text: '' })
}

/** Calls a group date off that has missed its least number of people. Each is judged once. */
function judge(work: Work, due: Due, really: Instant): void {
  const { house, changes, now } = work
  const practice = house.pack?.practice
  const found = (practice ? leastDates(practice) : []).find(
    ({ service, date }) => sessionSubject(service.id, date.id).id === due.subject.id,
  )
  if (!found) return
  const { service, date, start, people } = found
  const here = [...house.openBookings()].filter(
    (booking) =>
      booking.service === service.id &&
      booking.start === start &&
      booking.place === date.place &&
      !isEnded(stateAt(booking, now)),
  )
  const reached = here.filter((booking) => counts(booking, now)).length >= people
  // What has begun meanwhile, while nobody was there to judge, takes its course.
  if (!reached && really < start) {
    const text = refusalWords('too-few-come', { service: service.name, people })
    for (const booking of here) {
      const events = callOff(booking, text, now)
      if (events.length > 0) happen(work, booking.id, events)
    }
  }
  changes.push({ type: 'done', key: judgedKey(due, start), subject: due.subject, at: now })
}
