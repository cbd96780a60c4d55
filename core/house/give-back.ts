import { bookingSubject, keyOf } from '../agenda/index.ts'
import { apply, type Booking, begin, type StoredEvent, upcast } from '../booking/index.ts'
import type { GiveBackBody } from '../contract/desk-types.ts'
import { DAY, type Instant, shift } from '../time/index.ts'
import { type Change, rowOf } from './changes.ts'
import type { Work } from './work.ts'

/** How long over a booking may be that a relay is given back, in ms: what it would forget anyway, it does not need. */
const NEEDED = 30 * DAY

/**
 * Takes back from the desk what this relay lacks, after an older copy of its file was put in place: the ends of records
 * that it has the beginnings of, and records it never had. Where a record went on here in another way since, both stay as
 * they are, and it is named. What clients were told then, they know: none of it is sent again.
 */
export function giveBack(work: Work, body: GiveBackBody): { took: number; differ: string[] } {
  const { house, changes } = work
  const differ: string[] = []
  let took = 0
  for (const { id, events } of body.bookings) {
    const own = house.booking(id)
    const known = own && replayTo(id, events, own.seq)
    if (own && (!known || known.latest !== own.latest || known.status !== own.status)) {
      differ.push(id)
      continue
    }
    if (events.length === (own?.seq ?? 0)) continue
    if (!takeBooking(work, id, events, own)) continue
    took++
  }
  for (const { id, events } of body.lines) {
    const from = house.line(id)?.seq ?? 0
    if (events.length > from) took++
    for (const [i, event] of events.entries())
      if (i >= from) changes.push({ type: 'waiting', id, seq: i + 1, event })
  }
  for (const { id, events } of body.freed) {
    const from = house.freed(id)?.seq ?? 0
    if (events.length > from) took++
    for (const [i, event] of events.entries())
      if (i >= from) changes.push({ type: 'freed', id, seq: i + 1, event })
  }
  for (const { id, events } of body.courses) {
    const from = house.course(id)?.seq ?? 0
    if (events.length > from) took++
    for (const [i, event] of events.entries())
      if (i >= from) changes.push({ type: 'course', id, seq: i + 1, event })
  }
  for (const enquiry of body.enquiries) {
    if (house.enquiry(enquiry.id)) continue
    took++
    changes.push({ type: 'enquiry', id: enquiry.id, seq: 1, at: enquiry.at, body: enquiry })
  }
  if (body.chain !== undefined) changes.push({ type: 'chain', head: body.chain })
  if (body.numbered !== undefined) work.numbered = body.numbered
  // Nothing is held out again for what came free then.
  work.still = true
  return { took, differ }
}

/** A booking as the first so many events tell it; nothing where there are not so many. */
function replayTo(id: string, events: readonly StoredEvent[], seq: number): Booking | undefined {
  if (events.length < seq) return undefined
  const [first, ...rest] = events.slice(0, seq).map(upcast)
  return first?.type === 'asked' ? rest.reduce(apply, begin(id, first)) : undefined
}

/** Appends what is missing of one. @returns whether it is of any use here */
function takeBooking(
  { now, changes }: Work,
  id: string,
  events: readonly StoredEvent[],
  own: Booking | undefined,
): boolean {
  const whole = replayTo(id, events, events.length)
  if (!whole) return false
  if (!own && rowOf(whole).over < shift(now, -NEEDED)) return false
  let before = own
  for (const [i, stored] of events.entries()) {
    if (i < (own?.seq ?? 0)) continue
    const event = upcast(stored)
    const after = event.type === 'asked' ? begin(id, event) : before && apply(before, event)
    if (!after) return false
    const was = before ? { was: before.status } : {}
    changes.push({ type: 'event', booking: id, seq: i + 1, event, row: rowOf(after), ...was })
    before = after
  }
  changes.push(...settledBy(whole, now))
  return true
}

/** That the last decision on a booking has settled, where it has by then: nobody will do it any more. */
export function settledBy({ id, unsettled }: Booking, now: Instant): Change[] {
  if (!unsettled || unsettled.until >= now) return []
  const subject = bookingSubject(id)
  const key = keyOf(subject, { do: 'settle', of: unsettled.seq })
  return [{ type: 'done', key, subject, at: shift(unsettled.until, 1) }]
}
