import { deadlinesIn, movable } from '../booking/index.ts'
import { accountOf } from '../ledger/index.ts'
import { type FieldName, piecesOf, placeOf, zoneOf } from '../practice/index.ts'
import { dateAt, type Instant, longDate, timeAt, type Zone } from '../time/index.ts'
import { nextPayment, prepareBy } from './hooks.ts'
import {
  beforeLines,
  by,
  clocksIn,
  costLines,
  startOf,
  tellsPlace,
  timeOf,
  type Words,
  whereLine,
} from './lines.ts'
import { DOOR_TOKEN, LINK_TOKEN } from './tokens.ts'

/** What somebody is called by: their name up to its first space. */
export const firstName = (name: string): string => name.split(/\s+/)[0] ?? ''

/** A way in through the client's own page that leads to one thing on it. */
const through = (to: string): string => `${LINK_TOKEN}?to=${to}`

const placeZone = ({ practice, booking }: Words): Zone => zoneOf(practice, placeOf(practice, booking.place))

/** A moment in words, or nothing where there is none. */
const moment = (w: Words, at: Instant | undefined): string => (at === undefined ? '' : by(w, at))

/** What each field is filled with when a message goes. */
const WRITERS: { [F in FieldName]: (w: Words, now: Instant) => string } = {
  name: ({ reader }) => reader.name,
  firstName: ({ reader }) => firstName(reader.name),
  service: ({ service }) => service,
  when: (w) => timeOf(w),
  start: (w) => startOf(w),
  date: (w) => longDate(dateAt(clocksIn(w).first, w.booking.start), w.language),
  time: (w) => timeAt(clocksIn(w).first, w.booking.start),
  minutes: ({ booking }) => String(booking.minutes),
  place: (w, now) => whereLine(w, tellsPlace(w, now)),
  price: (w) => (w.booking.price === 0 ? w.say('free-of-charge') : w.money(w.booking.price)),
  cost: costLines,
  freeUntil: (w) => {
    const { deadlines } = deadlinesIn(w.booking, placeZone(w))
    return moment(w, deadlines.findLast(({ kind, share }) => kind === 'cancel' && share === 0)?.until)
  },
  moveUntil: (w) => moment(w, movable(w.booking, placeZone(w))?.until),
  open: (w) => w.money(Math.max(0, accountOf(w.booking).open)),
  payBy: (w) => moment(w, nextPayment(w.booking, placeZone(w))),
  before: beforeLines,
  prepareBy: (w) => moment(w, prepareBy(w.practice, w.booking)),
  link: () => LINK_TOKEN,
  coming: () => through('come'),
  move: () => through('move'),
  cancel: () => through('cancel'),
  door: () => DOOR_TOKEN,
  practitioner: ({ practice }) => practice.profile.name,
  phone: ({ practice }) => practice.profile.phone ?? '',
}

/** A text with its fields filled in by how things stand; what is no field stays as it was typed. */
export function filled(text: string, w: Words, now: Instant): string {
  let said = ''
  for (const piece of piecesOf(text)) {
    if (typeof piece === 'string') said += piece
    else if (Object.hasOwn(WRITERS, piece.field)) said += WRITERS[piece.field as FieldName](w, now)
    else said += `{${piece.field}}`
  }
  return said
}
