import { currencies, decimals } from '../money/currency.ts'
import { MAIL_SHAPE, TYPED_MAIL } from '../people/mail.ts'
import type { Duration, Instant, LocalDate, LocalDateTime, WallTime } from '../time/index.ts'
import { DURATION_SHAPE, date, dateTime, duration, isZone, time } from '../time/index.ts'
import { isRepeat } from '../time/recurrence.ts'
import { byHand, pattern, type Schema, whole } from './shape.ts'

export { count, id } from './shape.ts'

/**
 * A text that one of the core's own readers accepts; the reader's message says how to write it.
 * @param shape as much of that as a pattern can say, for schemas that others read
 */
const readBy = <T extends string>(read: (text: string) => T, shape: RegExp, most = 60): Schema<T> =>
  byHand(({ joi }) =>
    joi
      .string()
      .max(most)
      .custom((value: string, helpers) => {
        try {
          return read(value)
        } catch (error) {
          return helpers.message({ custom: `{{#label}}: ${(error as Error).message.replaceAll('"', '')}` })
        }
      })
      .pattern(shape)
      .messages({ 'string.pattern.base': '{{#label}}: {{#value}} is not written as expected here' }),
  )

const DATE =
  '\\d{4}-(?:(?:0[13578]|1[02])-(?:0[1-9]|[12]\\d|3[01])|(?:0[469]|11)-(?:0[1-9]|[12]\\d|30)|02-(?:0[1-9]|[12]\\d))'
const TIME = '(?:(?:[01]\\d|2[0-3]):[0-5]\\d|24:00)'

export const localDateShape: Schema<LocalDate> = readBy(date, new RegExp(`^${DATE}$`))
export const wallTimeShape: Schema<WallTime> = readBy(time, new RegExp(`^${TIME}$`))
export const localDateTime: Schema<LocalDateTime> = readBy(dateTime, new RegExp(`^${DATE}T${TIME}$`))
export const isoDuration: Schema<Duration> = readBy(duration, DURATION_SHAPE)
/** A language by its BCP 47 tag. */
export const languageTag = pattern(/^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/, 35)
export const zoneName = readBy(
  (text) => {
    if (!isZone(text)) throw new RangeError(`${text} is not a time zone; write it as Europe/Lisbon`)
    return text
  },
  /^[A-Za-z0-9_+\-/]+$/,
  80,
)
export const currency = readBy(
  (text) => {
    decimals(text)
    return text
  },
  new RegExp(`^(?:${currencies().join('|')})$`),
)
export const minutes = whole(0, 14_400)
export const someMinutes = whole(1, 14_400)
export const clearMinutes = whole(0, 1_440)
export const minor = whole(0, 1_000_000_000)
export const seats = whole(1, 500)
export const epochMs: Schema<Instant> = byHand(({ joi }) =>
  joi.number().strict().integer().min(0).max(8_640_000_000_000),
)
const mailIn = (shape: RegExp): Schema<string> =>
  byHand(({ joi }) =>
    joi
      .string()
      .trim()
      .max(254)
      .pattern(shape)
      .messages({ 'string.pattern.base': '{{#label}} is not a mail address; write it as name@example.org' }),
  )
/** Something@somewhere; whether it is real shows when the link sent to it is followed. */
export const emailShape = mailIn(MAIL_SHAPE)
/** The same as it is taken in now; what was kept before may be otherwise. */
export const typedEmail = mailIn(TYPED_MAIL)
export const slug = pattern(
  /^[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?$/,
  63,
  '{{#label}} must be small letters, digits and dashes',
)
export const fingerprintShape: Schema<string> = byHand(({ joi }) => joi.string().hex().length(64))
/** What programs name: bookings, courses, places in line, whatever has a record. It can begin with anything. */
export const madeName = pattern(/^[^\p{Cc}]{1,80}$/u, 80)
/** The name of a booking: of a token, or as a demo or a file names it. It can begin with a dash. */
export const bookingName = pattern(/^[A-Za-z0-9_-]{8,64}$/, 64)
export const tokenShape = pattern(/^[A-Za-z0-9_-]{16,64}$/, 64)
/** http, https or webcal; where it leads is looked at when it is read. */
export const webAddress: Schema<string> = byHand(({ joi }) =>
  joi
    .string()
    .trim()
    .max(2_000)
    .pattern(/^(https?|webcal):\/\/[^\s/]+(\/\S*)?$/i)
    .messages({ 'string.pattern.base': '{{#label}} is not a web address; it begins with https://' }),
)
/** A page to be opened in a browser. */
export const pageAddress: Schema<string> = byHand(({ joi }) =>
  joi
    .string()
    .trim()
    .max(2_000)
    .pattern(/^https?:\/\/[^\s/]+(\/\S*)?$/i)
    .messages({ 'string.pattern.base': '{{#label}} is not the address of a page; it begins with https://' }),
)
/** A small picture: 200 KB at most, in a kind that can hold no script. */
export const picture: Schema<string> = byHand(({ joi }) =>
  joi
    .string()
    .max(280_000)
    .pattern(/^data:image\/(png|jpeg|webp);base64,[A-Za-z0-9+/]+=*$/)
    .messages({
      'string.pattern.base': '{{#label}} must be a PNG, JPEG or WebP picture',
      'string.max': '{{#label}} is too large; 200 KB is the most',
    }),
)
/** A rule of repetition, RFC 5545 §3.3.10. */
export const repeatRule: Schema<string> = byHand(({ joi }) =>
  joi
    .string()
    .max(300)
    .pattern(/^FREQ=(DAILY|WEEKLY|MONTHLY|YEARLY)(;[A-Z]+=[A-Z0-9,+:-]+)*$/)
    .custom((value: string, helpers) => (isRepeat(value) ? value : helpers.error('string.pattern.base')))
    .messages({
      'string.pattern.base': '{{#label}} is not a rule of repetition; write it as FREQ=WEEKLY;BYDAY=FR',
    }),
)
