import { LONGEST_PHONE, PHONE_SHAPE } from '../people/mail.ts'
import { personName } from '../people/name-shape.ts'
import { typedEmail } from '../shape/plain.ts'
import { exactly, maybe, object, pattern, text, yes } from '../shape/shape.ts'
import type { Others } from './record.ts'

export const phoneShape = pattern(
  PHONE_SHAPE,
  LONGEST_PHONE,
  '{{#label}} is not a phone number; write it as +351 239 555 0100',
)

const who = { name: personName, email: maybe(typedEmail), phone: maybe(phoneShape) }

/** Who else a session concerns, as it is let in. */
export const othersShape = exactly<Others>()(
  object({
    comes: maybe(object({ ...who, reminded: maybe(yes), agrees: maybe(yes) })),
    pays: maybe(object(who)),
  }),
)

const kept = { name: text(200), email: maybe(text(254)), phone: maybe(text(40)) }

/** The same as a record holds it. */
export const othersKept = exactly<Others>()(
  object({
    comes: maybe(object({ ...kept, reminded: maybe(yes), agrees: maybe(yes) })),
    pays: maybe(object(kept)),
  }),
)
