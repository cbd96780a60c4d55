import type { Base } from '../base.ts'
import { type Address, address } from './address.ts'
import { date } from './date.ts'
import { email } from './email.ts'
import { type File, file } from './file.ts'
import { type Items, items } from './items.ts'
import type { AnyKind, Kind } from './kind.ts'
import { type Long, long } from './long.ts'
import { type Numeric, number } from './number.ts'
import { type One, one } from './one.ts'
import { phone } from './phone.ts'
import { passage, section } from './read-only.ts'
import { type Scale, scale } from './scale.ts'
import { type Several, several } from './several.ts'
import { short } from './short.ts'
import { time } from './time.ts'
import { url } from './url.ts'
import { yesno } from './yesno.ts'

export type { AnyKind, Kind } from './kind.ts'

/** What questions of each kind have of their own, in the order in which the kinds are offered. */
interface Own {
  short: object
  long: Long
  one: One
  several: Several
  yesno: object
  number: Numeric
  scale: Scale
  items: Items
  date: object
  time: object
  email: object
  phone: object
  url: object
  address: Address
  file: File
  passage: object
  section: object
}

/** Every kind of question, with everything about it. */
export const KINDS: { [K in keyof Own]: Kind<Own[K]> } = {
  short,
  long,
  one,
  several,
  yesno,
  number,
  scale,
  items,
  date,
  time,
  email,
  phone,
  url,
  address,
  file,
  passage,
  section,
}

export type Question = { [K in keyof Own]: Base & { kind: K } & Own[K] }[keyof Own]

/** The kind of a question, for what is asked of any. */
export const kindOf = (question: Pick<Question, 'kind'>): AnyKind<Question> =>
  KINDS[question.kind] as AnyKind<Question>
