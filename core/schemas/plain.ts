import Joi from 'joi'
import { decimals } from '../money/currency.ts'
import { isRepeat } from '../openings/away.ts'
import { MAIL_SHAPE } from '../people/mail.ts'
import { date, duration, isZone, splitDateTime, time } from '../time/index.ts'

/** A string that one of the core's own readers accepts; the reader's message says how to write it. */
const readBy = (read: (text: string) => unknown, pattern: RegExp): Joi.StringSchema =>
  Joi.string()
    .pattern(pattern)
    .custom((value: string, helpers) => {
      try {
        read(value)
        return value
      } catch (error) {
        return helpers.message({ custom: `{{#label}}: ${(error as Error).message.replaceAll('"', '')}` })
      }
    })
    .messages({ 'string.pattern.base': '{{#label}}: {{#value}} is not written as expected here' })

export const id = Joi.string()
  .pattern(/^[A-Za-z0-9][A-Za-z0-9._-]{0,63}$/)
  .messages({ 'string.pattern.base': '{{#label}} must be letters, digits, dots and dashes, 64 at most' })
export const localDate = readBy(date, /^\d{4}-\d\d-\d\d$/)
export const wallTime = readBy(time, /^\d\d:\d\d$/)
export const localDateTime = readBy((text) => splitDateTime(text as never), /^\d{4}-\d\d-\d\dT\d\d:\d\d$/)
export const isoDuration = readBy(duration, /^P[0-9YMWDTHS]+$/)
export const zoneName = readBy((text) => {
  if (!isZone(text)) throw new RangeError(`${text} is not a time zone; write it as Europe/Lisbon`)
}, /^[A-Za-z0-9_+\-/]+$/)
export const currency = readBy(decimals, /^[A-Z]{3}$/)
export const minutes = Joi.number().integer().min(0).max(14_400)
export const minor = Joi.number().integer().min(0).max(1_000_000_000)
export const count = Joi.number().integer().min(1).max(10_000)
export const epochMs = Joi.number().integer().min(0).max(8_640_000_000_000)
export const line = (most = 200): Joi.StringSchema => Joi.string().trim().min(1).max(most)
export const maybeLine = (most = 200): Joi.StringSchema => Joi.string().allow('').max(most)
export const text = (most = 20_000): Joi.StringSchema => Joi.string().allow('').max(most)
/** Something@somewhere; whether it is real shows when the link sent to it is followed. */
export const email = Joi.string()
  .trim()
  .max(254)
  .pattern(MAIL_SHAPE)
  .messages({ 'string.pattern.base': '{{#label}} is not a mail address; write it as name@example.org' })
export const slug = Joi.string()
  .pattern(/^[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?$/)
  .messages({ 'string.pattern.base': '{{#label}} must be small letters, digits and dashes' })
export const fingerprint = Joi.string().hex().length(64)
/** http, https or webcal; where it leads is looked at when it is read. */
export const webAddress = Joi.string()
  .trim()
  .max(2_000)
  .pattern(/^(https?|webcal):\/\/[^\s/]+(\/\S*)?$/i)
  .messages({ 'string.pattern.base': '{{#label}} is not a web address; it begins with https://' })
/** A small picture: 200 KB at most, in a kind that can hold no script. */
export const picture = Joi.string()
  .max(280_000)
  .pattern(/^data:image\/(png|jpeg|webp);base64,[A-Za-z0-9+/]+=*$/)
  .messages({
    'string.pattern.base': '{{#label}} must be a PNG, JPEG or WebP picture',
    'string.max': '{{#label}} is too large; 200 KB is the most',
  })
/** A rule of repetition, RFC 5545 §3.3.10. */
export const repeatRule = Joi.string()
  .max(300)
  .custom((value: string, helpers) => (isRepeat(value) ? value : helpers.error('string.pattern.base')))
  .pattern(/^FREQ=(DAILY|WEEKLY|MONTHLY|YEARLY)(;[A-Z]+=[A-Z0-9,+:-]+)*$/)
  .messages({
    'string.pattern.base': '{{#label}} is not a rule of repetition; write it as FREQ=WEEKLY;BYDAY=FR',
  })
