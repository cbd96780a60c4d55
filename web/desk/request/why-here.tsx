import type { Booking } from '@acolhida/core/booking'
import { deskReading, questionsAsked } from '@acolhida/core/booking/judged'
import type { Practice } from '@acolhida/core/practice'
import { openAnswers } from '@acolhida/core/questions'
import { reasonLine } from '../parts/words.ts'
import { Judged } from './judged.tsx'

/** Why a request has come to the practitioner, in a line. */
export const WhyHere = ({ practice, booking }: { practice: Practice; booking: Booking }) => (
  <p className="flex items-baseline gap-3">
    <Judged practice={practice} booking={booking} />
    <span className="line-clamp-2 text-[14px] hover:line-clamp-none">
      {reasonLine(
        booking,
        deskReading(practice, booking),
        openAnswers(questionsAsked(practice, booking), booking.asked.answers),
      )}
    </span>
  </p>
)
