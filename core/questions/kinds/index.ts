import type { Base } from '../base.ts'
import { type Address, addressKind } from './address.ts'
import { dateKind } from './date.ts'
import { emailKind } from './email.ts'
import { type File, fileKindOfQuestion } from './file.ts'
import { type Items, itemsKind } from './items.ts'
import type { AnyKind, Kind } from './kind.ts'
import { type Long, longKind } from './long.ts'
import { type Numeric, numberKind } from './number.ts'
import { type One, oneKind } from './one.ts'
import { phoneKind } from './phone.ts'
import { passageKind, sectionKind } from './read-only.ts'
import { type Scale, scaleKind } from './scale.ts'
import { type Several, severalKind } from './several.ts'
import { shortKind } from './short.ts'
import { timeKind } from './time.ts'
import { urlKind } from './url.ts'
import { yesnoKind } from './yesno.ts'

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
  short: shortKind,
  long: longKind,
  one: oneKind,
  several: severalKind,
  yesno: yesnoKind,
  number: numberKind,
  scale: scaleKind,
  items: itemsKind,
  date: dateKind,
  time: timeKind,
  email: emailKind,
  phone: phoneKind,
  url: urlKind,
  address: addressKind,
  file: fileKindOfQuestion,
  passage: passageKind,
  section: sectionKind,
}

export type Question = { [K in keyof Own]: Base & { kind: K } & Own[K] }[keyof Own]

/** The kind of a question, for what is asked of any. */
export const kindOf = (question: Pick<Question, 'kind'>): AnyKind<Question> =>
  KINDS[question.kind] as AnyKind<Question>
