import { type Answers, isSealed, type Reason } from '../questions/index.ts'
import type { Attempt, Booking } from './record.ts'

/** What of a request, a place in line or an enquiry is sealed for the desk when the relay needs it no more. */
export interface SealedPart {
  answers?: Answers
  attempts?: Attempt[]
  reasons?: Reason[]
}

/** What has such parts; `sealed`: those that were sealed, each a JSON Web Encryption (RFC 7516) only the desk opens. */
export interface Sealable {
  answers: Answers
  attempts: Attempt[]
  reading?: { reasons: Reason[] }
  sealed?: string[]
}

/**
 * What is to be sealed of something; nothing when there is nothing left. Answers that came sealed stay as they came.
 * @param stays whether the answer to a question is still needed
 */
export function partToSeal(
  { answers, attempts, reading }: Sealable,
  stays: (question: string) => boolean,
): SealedPart | undefined {
  const own = Object.entries(answers).filter(([id, answer]) => !isSealed(answer) && !stays(id))
  const part: SealedPart = {
    ...(own.length > 0 ? { answers: Object.fromEntries(own) } : {}),
    ...(attempts.length > 0 ? { attempts } : {}),
    ...(reading && reading.reasons.length > 0 ? { reasons: reading.reasons } : {}),
  }
  return Object.keys(part).length > 0 ? part : undefined
}

/** Something with a part of it sealed. */
export function withSealed<T extends Sealable>(of: T, part: SealedPart, sealed: string): T {
  const { answers = {}, attempts, reasons } = part
  return {
    ...of,
    answers: Object.fromEntries(Object.entries(of.answers).filter(([id]) => !Object.hasOwn(answers, id))),
    ...(attempts ? { attempts: [] } : {}),
    ...(reasons && of.reading ? { reading: { ...of.reading, reasons: [] } } : {}),
    sealed: [...(of.sealed ?? []), sealed],
  }
}

/** Something with parts that were sealed put back; what could not be opened stays beside it. */
export function withOpened<T extends Sealable>(of: T, parts: readonly (SealedPart | string)[]): T {
  const left = parts.filter((part): part is string => typeof part === 'string')
  const { sealed: _, ...rest } = of
  let whole = rest as T
  for (const part of parts) {
    if (typeof part === 'string') continue
    const { answers, attempts, reasons } = part
    whole = {
      ...whole,
      answers: { ...whole.answers, ...answers },
      ...(attempts ? { attempts } : {}),
      ...(reasons && whole.reading ? { reading: { ...whole.reading, reasons } } : {}),
    }
  }
  return left.length > 0 ? { ...whole, sealed: left } : whole
}

/** A booking whose request has a part sealed; what it was before a decision that can be taken back, too. */
export function sealedBooking(booking: Booking, asked: Booking['asked']): Booking {
  const { unsettled } = booking
  return {
    ...booking,
    asked,
    ...(unsettled ? { unsettled: { ...unsettled, before: sealedBooking(unsettled.before, asked) } } : {}),
  }
}
