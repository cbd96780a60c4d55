import { EVENTS } from '../booking/events.ts'
import { cancelled, length as minutes } from '../booking/happening.ts'
import type { Asked, Attempt, BookingEvent, EarlierEvent, StoredEvent } from '../booking/index.ts'
import { othersKept } from '../booking/others-shape.ts'
import { paymentLine } from '../practice/payment-shape.ts'
import { houseRules } from '../practice/rules-shape.ts'
import { LARGEST_FILE } from '../questions/file-kinds.ts'
import type {
  Answers,
  AnswerValue,
  Asking,
  Attached,
  Quantities,
  QuoteLine,
  Reading,
  Sealed,
} from '../questions/index.ts'
import { fileKind } from '../questions/kinds/file.ts'
import {
  count,
  currency,
  epochMs,
  id,
  isoDuration,
  languageTag,
  madeName,
  tokenShape,
} from '../shape/plain.ts'
import {
  anyNumber,
  byHand,
  exactly,
  list,
  maybe,
  object,
  one,
  oneOf,
  pattern,
  record,
  type Schema,
  tagged,
  text,
  whole,
  yes,
} from '../shape/shape.ts'
import { agreementShape } from '../terms/shape.ts'
import { outcome } from './questionnaire.ts'

const amount = whole(-1_000_000_000_000, 1_000_000_000_000)

/** A file given as an answer; what is in it has been taken before, under its name. */
export const attached = exactly<Attached>()(
  object({ file: tokenShape, name: text(200), type: fileKind, size: whole(1, LARGEST_FILE) }),
)

/** Five parts, of which the encrypted key is empty (ECDH-ES, RFC 7518 §4.6). */
const JWE = /^[\w-]+\.\.[\w-]+\.[\w-]+\.[\w-]+$/

/** An answer sealed for the desk. */
const sealed = exactly<Sealed>()(object({ sealed: pattern(JWE, 60_000) }))

/** Parts that the relay has sealed for the desk. */
export const sealedParts = maybe(list(pattern(JWE, 1_000_000), 10))

const quantities: Schema<Quantities> = record(id, whole(0, 1_000), 100)

/** One answer: what kind it is shows in its own shape, so that only that is looked at. */
const answer: Schema<AnswerValue> = byHand(({ joi, branch, of }) =>
  joi
    .alternatives()
    .conditional(joi.string().allow(''), branch(joi.string().allow('').max(20_000)))
    .conditional(joi.array(), branch(joi.array().items(joi.string().max(200)).max(100)))
    .conditional(
      joi.object(),
      branch(
        of(oneOf([{ file: true, type: true }, attached], [{ sealed: true }, sealed], [{}, quantities])),
        joi.alternatives().try(joi.number().strict(), joi.boolean().strict()),
      ),
    ),
)

/** Answers as they come in from the door: checked against their questions only after this. */
export const answers: Schema<Answers> = record(id, answer, 500)

export const attempt = exactly<Attempt, Answers>()(object({ at: epochMs, service: id, answers, outcome }))

export const quoteLine = exactly<QuoteLine>()(object({ name: text(200), quantity: anyNumber, amount }))

const reading = exactly<Reading>()(
  object({
    outcome,
    points: anyNumber,
    tags: list(text(60), 1_000),
    suggested: list(id, 500),
    enquiryInstead: yes,
    reasons: list(
      object({
        name: text(300),
        outcome,
        questions: list(id, 500),
        rule: maybe(id),
        note: maybe(text(500)),
      }),
      1_000,
    ),
    quote: object({
      minutes: whole(-1_000_000, 1_000_000),
      price: amount,
      deposit: amount,
      lines: list(quoteLine, 2_000),
    }),
    kind: maybe(object({ message: text(2_000), services: list(id, 500), enquiry: yes })),
  }),
)

const asking = exactly<Asking>()(
  object({
    standing: one('new', 'known'),
    invited: yes,
    tags: list(text(60), 1_000),
    attempts: whole(0, 1_000_000),
  }),
)

const start = { start: epochMs, place: id }
const happened = { at: epochMs }

export const contact = object({
  language: maybe(languageTag),
  name: text(200),
  email: text(254),
  phone: maybe(text(40)),
  zone: text(80),
  others: maybe(othersKept),
})
const asked = {
  ...happened,
  ...start,
  service: id,
  minutes,
  person: contact,
  answers,
  questionnaire: maybe(object({ id, version: count })),
  reading,
  attempts: list(attempt, 10_000),
  agreements: list(agreementShape, 100),
  houseRules,
  currency,
  until: epochMs,
  extras: maybe(list(id, 20)),
  travel: maybe(id),
  address: maybe(text(500)),
  code: maybe(id),
  payment: maybe(list(paymentLine, 20)),
  first: maybe(isoDuration),
  line: maybe(madeName),
  path: maybe(object({ course: madeName, session: id, name: text(200) })),
  broughtIn: maybe(text(200)),
  unheld: maybe(yes),
  sealed: sealedParts,
  tax: maybe(object({ name: text(80), rate: whole(0, 10_000), onTop: maybe(yes) })),
}
/** What came after asking, as each event says its own shape. */
const later = Object.fromEntries(
  Object.entries(EVENTS).map(([type, { shape }]) => [type, { ...happened, ...shape }]),
)

const askedNow = {
  ...asked,
  v: one(2),
  asking,
  proof: one('open', 'link', 'quote', 'hand', 'earlier'),
  shown: byHand<string>(({ joi }) => joi.string().hex().length(64).allow('')),
}
/** What was asked, held to its type. */
export const askedEvent = exactly<Asked, Answers>()(object({ type: one('asked'), ...askedNow }))

const event: Schema<BookingEvent> = byHand(({ of }) => of(tagged('type', { asked: askedNow, ...later })))

/** Events as they were written before version 2. */
const earlier = exactly<EarlierEvent, Answers>()(
  tagged('type', {
    asked: { ...asked, standing: one('new', 'known'), byHand: maybe(yes) },
    cancelled: { ...happened, ...cancelled },
  }),
)

/** One event of a booking's record, of any version: the first had no number on what was asked, and no end of undoing. */
export const bookingEvent: Schema<StoredEvent> = oneOf(
  [{ type: 'asked', v: true }, event],
  [{ type: 'asked' }, earlier],
  [{ type: 'cancelled', settles: true }, event],
  [{ type: 'cancelled' }, earlier],
  [{}, event],
)
