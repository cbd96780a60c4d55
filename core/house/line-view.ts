import { holdUntil } from '../booking/index.ts'
import type { FreedView, LineView } from '../contract/line-types.ts'
import { decimals } from '../money/currency.ts'
import { clientClocks, placeOf, serviceOf, zoneOf } from '../practice/index.ts'
import { printOfShown, shownOf } from '../request/index.ts'
import { DAY, type Instant, shift } from '../time/index.ts'
import { isInLine, lineAt, type PlaceInLine } from '../waiting/index.ts'
import { doorTerms } from './agreeing.ts'
import { type House, published } from './house.ts'
import { isOutsideHours, openInWindows } from './line.ts'
import { linkView } from './link-view.ts'
import { wordFor } from './standing.ts'
import { earlierShown, lackingInLine, reckonLine, whyNotTake } from './take.ts'

/** For how long it is told how often a time fell free, in ms. */
const LATELY = 28 * DAY

/** Where things stand with a place in line, for the one who holds its link. */
export function lineView(house: House, line: PlaceInLine, now: Instant): LineView {
  const { practice } = published(house)
  const { joined, wishes, last } = line
  const state = lineAt(line, now)
  const { first, also } = clientClocks(practice, joined.place, joined.person.zone)
  let others = 0
  for (const other of house.inLine())
    if (other.id !== line.id && other.joined.service === joined.service && isInLine(lineAt(other, now)))
      others++
  let freedLately = 0
  for (const { service, at } of house.freedTimes())
    if (service === joined.service && at >= shift(now, -LATELY)) freedLately++
  const offer = state.is === 'offered' ? freedView(house, line, now) : undefined
  const own = joined.instead === undefined ? undefined : house.booking(joined.instead)
  const { currency } = practice.profile
  return {
    slug: practice.profile.slug,
    practitioner: practice.profile.name,
    service: serviceOf(practice, joined.service)?.name ?? '',
    serviceId: joined.service,
    place: placeOf(practice, joined.place)?.name ?? '',
    placeId: joined.place,
    minutes: joined.minutes,
    price: joined.price,
    currency: { code: currency, decimals: decimals(currency) },
    clocks: { first: first.name, ...(also ? { also: also.name } : {}) },
    name: joined.person.name,
    email: joined.person.email,
    phone: joined.person.phone !== undefined,
    state: state.is,
    ...(state.is === 'ended' ? { why: state.why } : {}),
    ...(state.is === 'unproved' ? { until: state.until } : {}),
    since: joined.at,
    wishes,
    others,
    freedLately,
    ...(offer ? { offer } : {}),
    ...(last ? { last } : {}),
    ...(isInLine(state) && isOutsideHours(house, line, now) ? { outside: true } : {}),
    open: isInLine(state) && !offer ? openInWindows(house, line, now) : [],
    ...(own?.status === 'booked' ? { instead: own.start } : {}),
    now,
  }
}

/** A freed time as it can be taken now: what, where, for how much, by which rules. */
function freedView(house: House, line: PlaceInLine, now: Instant): FreedView | undefined {
  const { practice } = published(house)
  const { offer, joined } = line
  if (!offer) return undefined
  const at = { freed: offer.freed, start: offer.start, until: offer.until }
  if (joined.instead !== undefined) {
    const earlier = earlierShown(house, line, now)
    if (!earlier) return undefined
    const { deadlines, shareAfter, mine, minutes, price, deposit } = linkView(
      house,
      { booking: earlier.booking, theirs: false },
      now,
    )
    const { lines } = earlier.booking.asked.reading.quote
    return {
      ...{ ...at, minutes, lines, price, deposit, shown: earlier.print, deadlines, shareAfter, toAgree: [] },
      ...(mine ? { mine } : {}),
      ...cannotBe(earlier.cannot),
    }
  }
  const reckoned = reckonLine({ house, now }, line)
  const { service, reading, asking } = reckoned
  const { minutes, lines, price, deposit } = reading.quote
  const { start } = offer
  const shown = shownOf(practice, service.id, reading.quote, {
    start,
    place: joined.place,
    as: asking.standing,
  })
  const { deadlines, shareAfter, mine, first } = shown.at!
  const { email } = joined.person
  const { word, marks } = wordFor(house, { service, reading, person: undefined, email }, now)
  const asks = word !== undefined && !(line.looked && marks.length === 0)
  const there = zoneOf(practice, placeOf(practice, joined.place))
  return {
    ...{ ...at, minutes, lines, price, deposit, shown: printOfShown(shown), deadlines, shareAfter },
    ...(mine ? { mine } : {}),
    ...(first ? { first } : {}),
    ...(asks ? { wordUntil: holdUntil(practice.answering, now, start, there) } : {}),
    toAgree: lackingInLine({ house }, line, service).map((terms) => doorTerms(practice, service, terms)),
    ...cannotBe(whyNotTake({ house, now }, line, reckoned)),
  }
}

const cannotBe = (
  refused: { problem: { code: string; message: string } } | undefined,
): Pick<FreedView, 'cannot'> =>
  refused ? { cannot: { code: refused.problem.code, message: refused.problem.message } } : {}
