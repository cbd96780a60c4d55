import Joi from 'joi'
import { LARGEST_FILE } from '../questions/file-kinds.ts'
import { currency, epochMs, fingerprint, id, text } from './plain.ts'
import { houseRules } from './practice.ts'
import { tagged } from './tagged.ts'

const all = (keys: Record<string, Joi.Schema>): Record<string, Joi.Schema> =>
  Object.fromEntries(Object.entries(keys).map(([key, schema]) => [key, schema.required()]))
const whole = Joi.number().integer()

/** A file given as an answer; what is in it has been taken before, under its name. */
const attached = Joi.object(
  all({
    file: Joi.string().pattern(/^[A-Za-z0-9_-]{16,64}$/),
    name: Joi.string().max(200),
    type: Joi.string().valid('picture', 'pdf', 'sound', 'text'),
    size: whole.min(1).max(LARGEST_FILE),
  }),
)

/** An answer sealed for the desk: five parts, of which the encrypted key is empty (ECDH-ES, RFC 7518 §4.6). */
const sealed = Joi.object({
  sealed: Joi.string()
    .max(60_000)
    .pattern(/^[\w-]+\.\.[\w-]+\.[\w-]+\.[\w-]+$/)
    .required(),
})

/** Answers as they come in from the door: checked against their questions only after this. */
export const answers = Joi.object()
  .pattern(
    id,
    Joi.alternatives().try(
      Joi.string().allow('').max(20_000),
      Joi.number(),
      Joi.boolean(),
      Joi.array().items(Joi.string().max(200)).max(100),
      attached,
      sealed,
      Joi.object().pattern(id, Joi.number().integer().min(0).max(1_000)).max(100),
    ),
  )
  .max(500)

const outcome = Joi.string().valid('fits', 'look', 'closed')
export const attempt = Joi.object(all({ at: epochMs, service: id, answers, outcome }))

export const quoteLine = Joi.object(all({ name: text(200), quantity: Joi.number(), amount: whole }))

const reading = Joi.object({
  ...all({
    outcome,
    points: whole,
    tags: Joi.array().items(text(60)),
    suggested: Joi.array().items(id),
    enquiryInstead: Joi.boolean(),
    reasons: Joi.array().items(
      Joi.object({
        ...all({ name: text(300), outcome, questions: Joi.array().items(id) }),
        rule: id,
        note: text(500),
      }),
    ),
    quote: Joi.object(
      all({
        minutes: whole,
        price: whole,
        deposit: whole,
        lines: Joi.array().items(quoteLine),
      }),
    ),
  }),
  kind: Joi.object(all({ message: text(2_000), services: Joi.array().items(id), enquiry: Joi.boolean() })),
})

const agreement = Joi.object(
  all({
    terms: id,
    version: whole,
    fingerprint,
    shown: fingerprint,
    at: epochMs,
    name: text(200),
    service: id,
    previous: fingerprint.allow(''),
  }),
)

const start = { start: epochMs, place: id }
const event = (
  type: string,
  more: Record<string, Joi.Schema> = {},
  maybe: Record<string, Joi.Schema> = {},
): [string, Joi.ObjectSchema] => [
  type,
  Joi.object({ type: Joi.string().valid(type).required(), ...all({ at: epochMs, ...more }), ...maybe }),
]

const events = [
  event(
    'asked',
    {
      ...start,
      service: id,
      minutes: whole,
      person: Joi.object({ ...all({ name: text(200), email: text(254), zone: text(80) }), phone: text(40) }),
      standing: Joi.string().valid('new', 'known'),
      answers,
      reading,
      attempts: Joi.array().items(attempt),
      agreements: Joi.array().items(agreement),
      houseRules,
      currency,
      until: epochMs,
    },
    {
      questionnaire: Joi.object(all({ id, version: whole })),
      byHand: Joi.boolean(),
      extras: Joi.array().items(id).max(20),
      travel: id,
      address: text(500),
      code: id,
    },
  ),
  event('proved'),
  event('welcomed', { by: Joi.string().valid('practitioner', 'rules'), settles: epochMs }),
  event('declined', { text: text(5_000), settles: epochMs }),
  event('offered', {
    starts: Joi.array()
      .items(Joi.object(all(start)))
      .min(1),
    until: epochMs,
    text: text(5_000),
    settles: epochMs,
  }),
  event('accepted', start),
  event('refused', { text: text(5_000) }),
  event('moved', { ...start, minutes: whole, text: text(5_000), settles: epochMs }, { service: id }),
  event('lapsed'),
  event('withdrawn'),
  event('cancelled', {
    by: Joi.string().valid('client', 'practitioner'),
    share: Joi.number(),
    text: text(5_000),
  }),
  event('overruled', { outcome, text: text(2_000) }),
  event('taken-back', { of: whole }),
]

/** One event of a booking's record. */
export const bookingEvent = tagged('type', Object.fromEntries(events))
