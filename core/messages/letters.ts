import type { Booking } from '../booking/index.ts'
import type { Practice } from '../practice/index.ts'
import type { Instant } from '../time/index.ts'
import type { BookingStep, Letter, LetterKind, Planned, Step } from './letter.ts'
import { letterText, wordsFor } from './lines.ts'
import { CLIENT_LETTERS } from './to-client.ts'
import { OWN_LETTERS } from './to-practitioner.ts'

/** Everything about each message: when it goes, and what it says by how things stand then. */
const LETTERS: { [S in BookingStep]: LetterKind } = { ...CLIENT_LETTERS, ...OWN_LETTERS }

const isOfBooking = (step: Step): step is BookingStep => Object.hasOwn(LETTERS, step)

/** To whom a step is written. */
export const receiverOf = (step: Step): Letter['to'] =>
  Object.hasOwn(OWN_LETTERS, step) ? 'practitioner' : 'client'

/** The messages about a booking that go at a moment of their own, in no order. */
export const plannedLetters = (
  booking: Booking,
  practice: Practice | undefined,
): (Planned & { step: BookingStep })[] =>
  (Object.keys(LETTERS) as BookingStep[]).flatMap((step) => {
    const planned = LETTERS[step].plan?.(booking, practice)
    return planned ? [{ step, ...planned }] : []
  })

/**
 * A message about a booking as it stands when it goes: written from its state at that moment, and the practice in
 * force. Nothing where it is of no use any more.
 * @param lacking the titles of what is still to be agreed to
 * @throws Error for a step that is about no booking
 */
export function letterFor(
  practice: Practice,
  booking: Booking,
  step: Step,
  now: Instant,
  lacking: readonly string[] = [],
): Letter | undefined {
  if (!isOfBooking(step)) throw new Error(`${step} is about no booking.`)
  const { write, plan } = LETTERS[step]
  const to = receiverOf(step)
  const planned = plan?.(booking, practice)
  if (planned && now > planned.useful) return undefined
  const w = wordsFor(practice, booking, lacking)
  const { subject, body, invite } = write(w, now)
  const text =
    to === 'client'
      ? letterText(practice, booking.asked.person.name, body)
      : body.filter(Boolean).join('\n\n')
  return { to, subject, text, ...(invite ? { invite } : {}) }
}
