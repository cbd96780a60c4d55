import { bookingSubject, courseSubject } from '../agenda/index.ts'
import {
  openAtTill,
  seenAt,
  stateAt,
  TILL_TIME,
  type TillPayment,
  type TillTells,
  tillSource,
} from '../booking/index.ts'
import type { PayPathBody } from '../contract/course-types.ts'
import type { Course } from '../preparing/index.ts'
import { Refused } from '../request/index.ts'
import { type Instant, shift } from '../time/index.ts'
import { happenToCourse, pathIn } from './course.ts'
import { courseBehind } from './course-link.ts'
import { type House, published } from './house.ts'
import { bookingBehind, decidedOn } from './link.ts'
import { cardAsked, payableForPath, payableNow } from './payable.ts'
import { happen, type Work } from './work.ts'

/** What the till is to be asked for: nothing about who pays. */
export interface ForTill {
  /** Its name there and here: asked again by the same name, it is the same, and nothing is taken twice. */
  payment: string
  /** What it is for: a booking or a path. */
  booking: string
  /** A payment; a card to be looked at only, or kept. */
  what: 'pay' | 'check' | 'keep'
  /** In minor units; nothing where a card is asked for. */
  amount: number
  /** ISO 4217. */
  currency: string
  /** What the page calls it: whom it is paid to, and nothing of what for. */
  title: string
  /** Until when the page stands. */
  until: Instant
}

/** What a client wants to do at the till; `amount`: as they were shown it, nothing for a card. */
export interface ToTill {
  hash: string
  other?: string
  what: 'pay' | 'card'
  amount: number
}

/** Begins a payment through a private link, or goes on with the one that is under way. */
export function askTill(work: Work, { hash, other, what, amount }: ToTill): ForTill {
  const { house, now } = work
  const { booking } = bookingBehind(house, hash, other)
  const { practice } = published(house)
  const seen = seenAt(booking, now)
  const wanted = what === 'pay' ? payableNow(practice, seen, now) : 0
  const asks = what === 'card' ? cardAsked(practice, seen, stateAt(seen, now)) : undefined
  if (what === 'pay' ? wanted === 0 : !asks) throw new Refused(409, 'nothing-to-pay')
  if (amount !== wanted) throw new Refused(409, 'changed.opened')
  const open = openAtTill(booking)
  const forTill = (of: Pick<TillPayment, 'payment' | 'until'>): ForTill => ({
    ...{ payment: of.payment, until: of.until, booking: booking.id, amount: wanted },
    what: asks ?? 'pay',
    currency: booking.asked.currency,
    title: practice.profile.name,
  })
  // The same again leads to the same page; the till takes no second payment by one name.
  if (open && open.what === what && open.amount === wanted) return forTill(open)
  const payment = work.ids()
  work.subject = bookingSubject(booking.id)
  const events = decidedOn(
    work,
    booking,
    { do: 'till-ask', payment, what, amount: wanted },
    { current: true, theirs: true },
  )
  const after = happen(work, booking.id, events)
  return forTill(after.till!.find((one) => one.payment === payment)!)
}

/** Begins a payment for a path through a private link, or goes on with the one that is under way. */
export function askTillForPath(
  work: Work,
  { hash, course: id, amount }: PayPathBody & { hash: string },
): ForTill {
  const { house, now } = work
  const { practice } = published(house)
  const course = courseBehind(house, hash, id)
  const wanted = payableForPath(practice, course, now)
  if (wanted === 0) throw new Refused(409, 'nothing-to-pay')
  const { currency } = pathIn(course)
  if (amount !== wanted) throw new Refused(409, 'changed.opened')
  work.subject = courseSubject(id)
  const open = openAtTill(course)
  if (open && open.amount !== wanted) throw new Refused(409, 'paying-already')
  const { payment, until } = open ?? { payment: work.ids(), until: shift(now, TILL_TIME) }
  if (!open) happenToCourse(work, id, { type: 'till-asked', at: now, payment, amount: wanted, until })
  return { payment, until, booking: id, what: 'pay', amount: wanted, currency, title: practice.profile.name }
}

/** Takes in what the till tells of a payment for a path, once. */
function saysOfPath(
  work: Work,
  course: Course,
  { payment, message, says, text }: TillTells,
  asked: TillPayment,
): void {
  // What has come, has come, however late it is told; everything else only where nothing was told yet.
  if (asked.is === 'paid' || (asked.is !== 'open' && says !== 'paid')) return
  const { now: at } = work
  const { amount } = asked
  if (says === 'failed' || says === 'over')
    happenToCourse(work, course.id, { type: 'till-said', at, payment, message, is: says, text })
  else happenToCourse(work, course.id, { type: 'paid', at, amount, way: 'card', source: tillSource(payment) })
}

/** Something the till tells, with what it takes it to be about. */
export interface TillSays extends TillTells {
  booking: string
  amount: number
  currency: string
}

/** Takes in what the till tells, once. @throws Refused where it is not about what was asked for */
export function tillSays(work: Work, said: TillSays): { booking: string } {
  const { house } = work
  const { booking: id, amount, currency, ...tells } = said
  const booking = house.booking(id)
  const course = booking ? undefined : house.course(id)
  const asked = (booking ?? course)?.till?.find(({ payment }) => payment === tells.payment)
  if (!asked) throw new Refused(404, 'unknown-payment')
  const { says } = tells
  const fits = asked.what === 'card' ? says !== 'paid' : says !== 'kept'
  if (!fits || asked.amount !== amount || currencyAtTill(house, id) !== currency)
    throw new Refused(409, 'till.differs')
  if (course) saysOfPath(work, course, tells, asked)
  if (!booking) return { booking: id }
  const events = decidedOn(work, booking, { do: 'till-say', ...tells }, { current: true, theirs: true })
  if (events.length > 0) happen(work, id, events)
  return { booking: id }
}

/** Notes that the till has given something back. */
export function tillGave(
  work: Work,
  { booking: id, ...gave }: { booking: string; payment: string; n: number; amount: number },
): Record<string, never> {
  const booking = work.house.booking(id)
  if (!booking) throw new Refused(404, 'unknown-booking')
  const events = decidedOn(work, booking, { do: 'till-gave', ...gave }, { current: true, theirs: true })
  if (events.length > 0) happen(work, id, events)
  return {}
}

/** The payments of a booking or a path that the till has not told the end of. */
export const openPayments = (house: House, id: string): TillPayment[] =>
  ((house.booking(id) ?? house.course(id))?.till ?? []).filter(({ is }) => is === 'open')

/** In which currency a booking or a path is paid. */
export const currencyAtTill = (house: House, id: string): string | undefined =>
  house.booking(id)?.asked.currency ?? house.course(id)?.given.path?.currency
