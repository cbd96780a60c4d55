import Joi from 'joi'
import { holdsHtml } from '../questions/answers.ts'
import { email, epochMs, fingerprint, id, line, maybeLine, text, zoneName } from './plain.ts'
import { answers } from './record.ts'

const visit = Joi.string()
  .pattern(/^[A-Za-z0-9_-]{16,64}$/)
  .required()
/** One line without control characters: it goes into mail headers and lists. */
const name = line(120)
  .pattern(/^[^\p{Cc}]*$/u)
  .custom((value: string, helpers) => (holdsHtml(value) ? helpers.error('string.pattern.base') : value))
  .messages({ 'string.pattern.base': '{{#label}} must be one line of plain text' })
const phone = Joi.string()
  .trim()
  .allow('')
  .max(40)
  .pattern(/^[0-9+()\-.\s/]*$/)
  .messages({ 'string.pattern.base': '{{#label}} is not a phone number; write it as +351 239 555 0100' })

const contact = Joi.object({
  name: name.required(),
  email: email.required(),
  phone,
  zone: zoneName.required(),
})
const start = epochMs.required()
const place = id.required()
const service = id.required()

/** What is wanted besides answers: extras, how far to travel, and the key of a service's own link. */
const extras = Joi.array().items(id).max(20).unique()
const travel = id
const key = Joi.string().pattern(/^[A-Za-z0-9_-]{16,64}$/)
/** A price code as it was typed. */
const code = maybeLine(60)
const wanted = { visit, service, answers: answers.required(), extras, travel, with: key, code, quote: key }

/** What the door may ask of the relay. */
/** Length and price so far: answers may be missing. */
export const quoteQuery = Joi.object(wanted)
export const viewQuery = Joi.object({ with: key })
export const readBody = Joi.object(wanted)
export const openingsBody = Joi.object({
  ...wanted,
  place,
  from: Joi.string().pattern(/^\d{4}-\d\d-\d\d$/),
  days: Joi.number().integer().min(1).max(62).default(21),
})
export const keepBody = Joi.object({ ...wanted, place, start })
export const visitBody = Joi.object({ visit })
export const sendBody = Joi.object({
  ...wanted,
  clock: epochMs.required(),
  place,
  start,
  address: text(500).trim(),
  person: contact.required(),
  agreed: Joi.array()
    .items(
      Joi.object({
        terms: id.required(),
        number: Joi.number().integer().required(),
        fingerprint: fingerprint.required(),
      }),
    )
    .max(20)
    .required(),
})
export const enquireBody = Joi.object({
  visit,
  service: id,
  name: name.required(),
  email: email.required(),
  message: text(10_000).trim().min(1).disallow('').required(),
  answers,
})
export const acceptBody = Joi.object({ start, place })
export const noteBody = Joi.object({ text: maybeLine(2_000).default('') })

/** What the desk may ask of the relay. */
export const pairBody = Joi.object({
  code: Joi.string().max(40).required(),
  replace: Joi.boolean().default(false),
})
const booking = Joi.string()
  .pattern(/^[A-Za-z0-9_-]{8,64}$/)
  .required()
const command = (name: string, more: Joi.SchemaMap = {}): Joi.ObjectSchema =>
  Joi.object({ do: Joi.string().valid(name).required(), ...more })
const words = text(5_000).default('')
export const commandBody = Joi.object({
  booking,
  command: Joi.alternatives()
    .try(
      command('welcome'),
      command('decline', { text: words }),
      command('offer', {
        text: words,
        starts: Joi.array().items(Joi.object({ start, place })).min(1).max(3).required(),
      }),
      command('move', {
        start,
        place,
        minutes: Joi.number().integer().min(1).max(14_400).required(),
        text: words,
        clash: Joi.boolean().default(false),
        service: id,
      }),
      command('take-back', { of: Joi.number().integer().min(1).required() }),
      command('overrule', {
        outcome: Joi.string().valid('fits', 'look', 'closed').required(),
        text: text(2_000).trim().min(1).disallow('').required(),
      }),
      command('cancel', { by: Joi.string().valid('practitioner').required(), text: words }),
    )
    .required(),
})
/** Somebody booked in by hand. The desk makes the id, so that it can show the booking before the relay has it. */
export const enterBody = Joi.object({
  id: booking,
  service,
  place,
  start,
  minutes: Joi.number().integer().min(1).max(14_400).required(),
  person: contact.required(),
  clash: Joi.boolean().default(false),
  /** Asked on the phone, if they were. */
  answers,
  extras,
  travel,
  code,
  address: text(500).trim(),
})
/** What the desk says to somebody who has written, or spoken, instead of booking. */
export const answerBody = Joi.object({
  enquiry: booking,
  text: text(5_000).trim().min(1).disallow('').required(),
})
export const quoteBody = Joi.object({
  enquiry: booking,
  service,
  person: contact.required(),
  answers,
  extras,
  travel,
  code,
  until: epochMs.required(),
  text: words,
})
/** Whose file it is, beside its bytes. */
export const fileQuery = Joi.object({
  visit,
  service,
  question: id.required(),
  name: Joi.string()
    .trim()
    .min(1)
    .max(200)
    .pattern(/^[^\p{Cc}]*$/u)
    .required(),
  with: key,
})
/** A door to try. */
export const trialBody = Joi.object({ as: Joi.string().valid('new', 'known').required(), at: epochMs })
export const recordQuery = Joi.object({ after: Joi.number().integer().min(0).default(0) })
export const clockBody = Joi.object({
  forward: Joi.number()
    .integer()
    .min(0)
    .max(90 * 86_400_000)
    .required(),
})
