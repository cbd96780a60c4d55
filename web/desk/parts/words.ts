import { type Booking, deadlinesIn, paidOf, planOf, type StateName, stateAt } from '@acolhida/core/booking'
import { type Currency, money } from '@acolhida/core/money'
import { decimals } from '@acolhida/core/money/currency'
import { type Practice, placeOf, serviceOf, type Week, zoneOf } from '@acolhida/core/practice'
import type { Answers, Reading } from '@acolhida/core/questions'
import {
  type Instant,
  MINUTE,
  minutesOf,
  moment,
  shift,
  timeAt,
  type Zone,
  zone,
  zonePlace,
} from '@acolhida/core/time'
import type { LeadMark } from '../../drawings/lead-line.tsx'

export const STATE: Record<StateName, string> = {
  unproved: 'Has not opened the mailed link yet',
  waiting: 'Awaits your word',
  offered: 'Other times offered',
  unpaid: 'A payment must come first',
  booked: 'Booked',
  attended: 'Attended',
  missed: 'Missed',
  declined: 'Turned down',
  lapsed: 'Lapsed',
  withdrawn: 'Withdrawn',
  cancelled: 'Cancelled',
}

/** How a booking stands at a moment, in words; one made by hand and undone was nobody’s to withdraw. */
export function standingWords(booking: Booking, now: Instant): string {
  const { is } = stateAt(booking, now)
  return is === 'withdrawn' && booking.asked.proof === 'hand' ? 'Booked in, and undone' : STATE[is]
}

export const OUTCOME = { fits: 'Fits', look: 'Look first', closed: 'Not a match' } as const

export const currencyOf = (code: string): Currency => ({ code, decimals: decimals(code) })

export const serviceName = (practice: Practice, id: string): string => serviceOf(practice, id)?.name ?? id

/** What terms are called: in one version, or as they are called now. */
export function termsTitle({ terms }: Practice, id: string, number?: number): string {
  const versions = terms.find((one) => one.id === id)?.versions ?? []
  return (versions.find((one) => one.number === number) ?? versions.at(-1))?.title ?? id
}

/** A number with what it counts: "1 session", "2 sessions". */
export const counted = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`

/** "18 hours a week", to a tenth. */
export function hoursAWeek(weekly: Week): string {
  const minutes = weekly.flat().reduce((sum, { from, to }) => sum + minutesOf(to) - minutesOf(from), 0)
  return `${Math.round(minutes / 6) / 10} hours a week`
}

export const homeZone = (practice: Practice): Zone => zone(practice.profile.zone)

export const endOf = (booking: Booking): Instant => shift(booking.start, booking.minutes * MINUTE)

/** "75 min at the studio in Coimbra · €95.00 · there, in Sao Paulo, 12:00" */
export function bookingLine(practice: Practice, booking: Booking): string {
  const { minutes, price, deposit } = booking
  const { currency, person } = booking.asked
  const place = placeOf(practice, booking.place)?.name ?? ''
  const parts = [`${minutes} min ${place}`]
  if (price > 0) parts.push(money(price, currencyOf(currency)))
  if (deposit > 0) parts.push(`${money(deposit, currencyOf(currency))} asked beforehand`)
  if (person.zone !== practice.profile.zone) {
    parts.push(`there, in ${zonePlace(person.zone)}, ${timeAt(zone(person.zone), booking.start)}`)
  }
  return parts.join(' · ')
}

/** Why a request came to the practitioner, in a line. */
export const reasonLine = (
  { asked: { attempts } }: Booking,
  reading: Pick<Reading, 'reasons'>,
  /** Those that may stand in a list. */
  answers: Answers,
): string => {
  const notes = reading.reasons.map((reason) => (reason.note || reason.name).replace(/\.$/, ''))
  if (attempts.length > 0) notes.push('answered differently before')
  if (notes.length === 0) {
    const first = Object.values(answers).find((value) => typeof value === 'string' && value.length > 20)
    return typeof first === 'string' ? first : 'Nothing speaks against it.'
  }
  return notes.join(' · ')
}

/** Whose turn it is when a hold runs out. */
const DUE: Partial<Record<StateName, string>> = {
  unproved: 'Their link due',
  waiting: 'Your word due',
  offered: 'Their choice due',
  unpaid: 'Their payment due',
}

/** The moments of a booking for its lead line. */
export function marksOf(practice: Practice, booking: Booking): LeadMark[] {
  const { asked } = booking
  const place = placeOf(practice, booking.place)
  const { deadlines } = deadlinesIn(booking, zoneOf(practice, place))
  const marks: LeadMark[] = [{ at: asked.at, name: 'Asked', kind: 'past' }]
  const state = stateAt(booking, asked.at)
  const awaited = DUE[state.is]
  if (awaited) marks.push({ at: booking.until, name: awaited, kind: 'due' })
  for (const deadline of deadlines) {
    if (deadline.kind !== 'cancel' || deadline.until <= asked.at) continue
    marks.push({
      at: deadline.until,
      name: deadline.share ? `${deadline.share} % until` : 'Free to cancel until',
      kind: 'deadline',
    })
  }
  if (booking.status === 'requested' || booking.status === 'booked') {
    let paid = paidOf(booking)
    for (const { amount, due } of planOf(booking, zoneOf(practice, place))) {
      // What has come is waited for no more.
      paid -= amount
      if (paid < 0 && due > asked.at && due !== booking.start)
        marks.push({ at: due, name: `${money(amount, currencyOf(asked.currency))} to be paid`, kind: 'due' })
    }
  }
  marks.push({ at: booking.start, name: 'Session', kind: 'session' })
  return marks
}

export const when = (practice: Practice, at: Instant): string => moment(at, homeZone(practice))
