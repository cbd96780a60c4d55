import { invoiceParts } from '../booking/noted-events.ts'
import { WAYS } from '../booking/record.ts'
import { preparationDueShape } from '../practice/preparing-shape.ts'
import type { CourseEvent, Station } from '../preparing/index.ts'
import type { Answers } from '../questions/index.ts'
import { count, currency, epochMs, id, madeName, minor, someMinutes, tokenShape } from '../shape/plain.ts'
import { exactly, list, maybe, object, one, tagged, text, unique, whole, yes } from '../shape/shape.ts'
import { agreementShape } from '../terms/shape.ts'
import { answers, attached, contact } from './record.ts'

const at = { at: epochMs }

const station = exactly<Station>()(
  object({
    id,
    preparation: id,
    is: one('read', 'sign', 'answer', 'bring', 'tick'),
    name: text(200),
    due: preparationDueShape,
    minutes: maybe(whole(1, 600)),
    questionnaire: maybe(object({ id, version: count })),
  }),
)
const session = object({
  id,
  service: id,
  name: text(200),
  minutes: someMinutes,
  worth: minor,
  least: maybe(whole(1, 10_000)),
  most: maybe(whole(1, 10_000)),
})
const pay = object({ id, amount: minor, due: epochMs })
const sessions = list(session, 500)
const pays = list(pay, 500)
const path = object({
  id,
  name: text(200),
  price: minor,
  currency,
  tax: maybe(object({ name: text(80), rate: whole(0, 10_000) })),
  sessions,
  pays,
  order: list(id, 1_000),
})
const own = { ...at, station: id }
const far = { answered: whole(0, 1_000), of: whole(0, 1_000) }
const by = one('client', 'practitioner')

/** One event of the record of what somebody was given. */
export const courseEvent = exactly<CourseEvent, Answers>()(
  tagged('type', {
    given: {
      ...at,
      person: contact,
      stations: unique(station, 200),
      path: maybe(path),
      booking: maybe(madeName),
      text: maybe(text(5_000)),
      silent: maybe(yes),
      settles: maybe(epochMs),
      broughtIn: maybe(text(200)),
    },
    opened: at,
    filled: { ...own, ...far },
    done: { ...own, by },
    undone: { ...own, by },
    answered: { ...own, ...far, answers },
    signed: { ...own, agreement: agreementShape },
    brought: { ...own, files: list(attached, 20) },
    booked: { ...at, session: id, booking: madeName },
    paid: {
      ...at,
      amount: whole(-1_000_000_000, 1_000_000_000),
      way: one(...WAYS),
      text: maybe(text(2_000)),
      source: maybe(text(200)),
    },
    'till-asked': { ...at, payment: tokenShape, amount: minor, until: epochMs },
    'till-said': {
      ...at,
      payment: tokenShape,
      message: text(100),
      is: one('failed', 'over'),
      text: text(500),
    },
    invoiced: { ...at, n: whole(1, 1_000_000_000), ...invoiceParts, parts: maybe(list(id, 1_000)) },
    paused: { ...at, text: text(2_000) },
    resumed: at,
    extended: { ...at, sessions, pays },
    chased: { ...at, text: text(5_000), settles: epochMs },
    ended: { ...at, settles: maybe(epochMs), back: maybe(minor) },
    'taken-back': { ...at, of: count },
  }),
)
