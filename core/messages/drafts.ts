import type { Booking } from '../booking/index.ts'
import type { Practice } from '../practice/index.ts'
import type { Instant } from '../time/index.ts'
import { messageName } from './letter.ts'
import { type StepPlan, stepsOf } from './steps.ts'

/** The drafts that lie before the practitioner at a moment: due, of use still, neither sent nor put away. */
export const draftsAt = (booking: Booking, practice: Practice, now: Instant): StepPlan[] =>
  stepsOf(booking, practice).filter(({ step, name, anchor, at, useful, skipped, joins }) => {
    const said = booking.steered?.[messageName(name, step.channel, anchor)]
    return (
      step.draft === true &&
      !skipped &&
      joins === undefined &&
      at <= now &&
      now <= useful &&
      !said?.held &&
      said?.now === undefined
    )
  })
