import { serviceOf, termsInForce } from '../practice/find.ts'
import type { Practice } from '../practice/types.ts'
import type { Agreement, TermsVersion } from '../terms/types.ts'
import type { Instant } from '../time/index.ts'
import { agreesThemselves } from './others.ts'
import type { Booking } from './record.ts'
import { isHeld, stateAt } from './state.ts'

/** The highest version of each text that somebody has agreed to, by the id of the text. */
export type AgreedTo = Readonly<Record<string, number>>

/** Everything agreed to with one booking. */
export const agreementsIn = ({ asked, agreed = [] }: Booking): Agreement[] => [...asked.agreements, ...agreed]

/** What who asked has agreed to with a booking: all of it, but what those who come have agreed to themselves since. */
export const agreedByAsker = (booking: Booking): Agreement[] =>
  agreesThemselves(booking) ? booking.asked.agreements : agreementsIn(booking)

/** What somebody has agreed to, by agreements of theirs. */
export function agreedTo(agreements: Iterable<Agreement>): Record<string, number> {
  const found: Record<string, number> = {}
  for (const { terms, version } of agreements) found[terms] = Math.max(found[terms] ?? 0, version)
  return found
}

/** One text with its version in force. */
export interface InForce {
  id: string
  version: TermsVersion
}

/** What whoever books must agree to: all that is in force, but what only newcomers must of those who have before. */
export const mustAgree = (wanted: readonly InForce[], known: AgreedTo): InForce[] =>
  wanted.filter(({ id, version }) => !(version.again === 'newcomers' && known[id] !== undefined))

/**
 * What is still to be agreed to before a session takes place: by somebody booked in by hand, by those of whom a new
 * version asks it, and what they were asked to sign.
 * @param known what its client has agreed to with other bookings
 */
export function lackingIn(practice: Practice, booking: Booking, known: AgreedTo, now: Instant): InForce[] {
  const state = stateAt(booking, now)
  const open = isHeld(state) || (state.is === 'booked' && !state.over)
  const service = serviceOf(practice, booking.service)
  if (!open || !service) return []
  // What who asked has agreed to does not bind those who agree themselves.
  const themselves = agreesThemselves(booking)
  const own = agreedTo(themselves ? (booking.agreed ?? []) : agreementsIn(booking))
  const signing = (booking.toSign?.terms ?? []).flatMap((id): InForce[] => {
    const version = practice.terms.find((terms) => terms.id === id)?.versions.at(-1)
    return version ? [{ id, version }] : []
  })
  const byHand = themselves || booking.asked.proof === 'hand'
  const lacks = ({ id, version }: InForce): boolean => {
    const has = own[id]
    if (has !== undefined) return has < version.number && version.again === 'before'
    const before = themselves ? undefined : known[id]
    if (before !== undefined && before >= version.number) return false
    // Whoever came through the door agreed to what was in force then.
    if (!byHand) return version.again === 'before'
    return !(version.again === 'newcomers' && before !== undefined)
  }
  return [
    ...termsInForce(practice, service).filter(lacks),
    ...signing.filter(({ id }) => own[id] === undefined),
  ]
}
