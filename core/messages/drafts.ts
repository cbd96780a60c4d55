import type { Booking } from '../booking/index.ts'
import type { Practice } from '../practice/index.ts'
import type { Instant } from '../time/index.ts'
import { steeredOf } from './letter.ts'
import { type StepPlan, stepsOf, whichOf } from './steps.ts'

/** The drafts that lie before the practitioner at a moment: due, of use still, neither sent nor put away. */
export const draftsAt = (booking: Booking, practice: Practice, now: Instant): StepPlan[] =>
  stepsOf(booking, practice).filter((plan) => {
    const { step, at, useful, skipped, joins } = plan
    const said = steeredOf(booking, whichOf(plan))
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
