import { type Asked, type Booking, partToSeal, type Sealable, type SealedPart } from '../booking/index.ts'
import type { Enquiry, EnquiryNews } from '../contract/types.ts'
import { questionsOfBooking } from '../messages/index.ts'
import type { Practice } from '../practice/index.ts'
import { DAY, type Instant, instant, MINUTE, shift } from '../time/index.ts'
import type { PlaceInLine } from '../waiting/index.ts'

/** For how long after the decision, and after the session, the relay has what was answered, in ms. */
const ANSWERS_STAY = DAY

/** What is sealed for the desk, and from when on. */
export interface Sealing<T extends Sealable = Sealable> {
  from: Instant
  of: T
  part: SealedPart
}

const nothing = (): boolean => false

const sealing = <T extends Sealable>(
  from: Instant,
  of: T,
  stays: (question: string) => boolean = nothing,
): Sealing<T> | undefined => {
  const part = partToSeal(of, stays)
  return part && { from, of, part }
}

/**
 * What of a request is sealed next. After the decision, all that is not needed: what is shown to the client again, and what
 * they need not answer another time, stay until a day after the session.
 */
export function sealingOfBooking(
  practice: Practice | undefined,
  booking: Booking,
): Sealing<Asked> | undefined {
  const { status, asked, start, minutes, latest, decided = latest } = booking
  if (status === 'requested') return undefined
  const all = (from: number): Sealing<Asked> | undefined => sealing(shift(instant(from), ANSWERS_STAY), asked)
  if (status !== 'booked' && status !== 'attended' && status !== 'missed') return all(latest)
  const needed = new Set(
    practice
      ? questionsOfBooking(practice, booking).flatMap(({ id, shownAgain, eachTime }) =>
          shownAgain || !eachTime ? [id] : [],
        )
      : [],
  )
  const over = start + minutes * MINUTE
  return over <= decided
    ? all(decided)
    : (sealing(shift(decided, ANSWERS_STAY), asked, (id) => needed.has(id)) ?? all(over))
}

/** What of a place in line is sealed, once nobody waits in it. */
export const sealingOfLine = ({
  status,
  joined,
  latest,
}: PlaceInLine): Sealing<PlaceInLine['joined']> | undefined =>
  status === 'ended' || status === 'taken' ? sealing(shift(latest, ANSWERS_STAY), joined) : undefined

/** What of an enquiry is sealed, once no quote of it can be accepted. */
export function sealingOfEnquiry(
  enquiry: Enquiry | undefined,
  news: readonly EnquiryNews[],
): Sealing<Enquiry> | undefined {
  if (!enquiry) return undefined
  const latest = Math.max(enquiry.at, ...news.map(({ at, quote }) => Math.max(at, quote?.until ?? 0)))
  return sealing(shift(instant(latest), ANSWERS_STAY), enquiry)
}
