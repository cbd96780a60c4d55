import { type Booking, type ConcernedAs, othersOf, type Reached, reachedAs } from '../booking/index.ts'
import type { Practice, SequenceStep } from '../practice/index.ts'
import { isStepName, type Step, stepName, type Which } from './letter.ts'

/** What tells of the session itself, and goes to whoever is reminded of it. */
const OF_SESSION: ReadonlySet<Step> = new Set(['place', 'running-late'])
/** What tells of money, and goes to who pays; of a path to who was given it. */
const OF_MONEY: ReadonlySet<Step> = new Set(['to-pay', 'invoice', 'given-back', 'path-pay', 'path-invoice'])
export const isOfMoney = (step: Step): boolean => OF_MONEY.has(step)

/** The step of a sequence that a message is made from, by its name. */
const stepNamed = ({ sequences = [] }: Practice, name: Step): SequenceStep | undefined =>
  sequences.flatMap(({ steps }) => steps).find(({ id }) => stepName(id) === name)

/** For whom of those whom a session concerns a message to its client is meant. */
export function partFor(practice: Practice, booking: Booking, step: Step): ConcernedAs {
  const { comes } = othersOf(booking)
  const of = isStepName(step) ? stepNamed(practice, step)?.anchor : undefined
  if (OF_MONEY.has(step) || of === 'payment') return 'pays'
  if (comes?.reminded && (OF_SESSION.has(step) || of === 'start')) return 'comes'
  return comes?.agrees && (step === 'agree' || of === 'preparation') ? 'comes' : 'asks'
}

/** Who reads a message to the client of a booking, and where it goes. */
export const readerOf = (practice: Practice, booking: Booking, { step, channel = 'email' }: Which): Reached =>
  reachedAs(booking.asked.person, othersOf(booking), partFor(practice, booking, step), channel)
