import { LARGEST_FILE } from '../questions/file-kinds.ts'
import type { Condition, Questionnaire, Sheet } from '../questions/types.ts'
import {
  anyNumber,
  anyOf,
  distinct,
  exactly,
  line,
  link,
  list,
  maybe,
  named,
  number,
  object,
  one,
  oneOf,
  tagged,
  text,
  unique,
  whole,
  yes,
} from '../shape/shape.ts'
import { count, id, minor } from './plain.ts'

const nested = link<Condition>('condition')
const most = 100
const comparison = object({
  question: id,
  is: one('=', '≠', '<', '≤', '>', '≥', 'includes'),
  value: anyOf(text(500), anyNumber, yes),
})
export const condition = named(
  'condition',
  exactly<Condition, Condition[]>()(
    oneOf(
      [{ all: true }, object({ all: list(nested, most) })],
      [{ any: true }, object({ any: list(nested, most) })],
      [{ not: true }, object({ not: nested })],
      [{ question: true, is: 'answered' }, object({ question: id, is: one('answered') })],
      [{ question: true }, comparison],
      [{ person: true }, object({ person: one('new', 'known', 'invited') })],
      [{ tag: true }, object({ tag: line(60) })],
      [{ attempts: true }, object({ attempts: count })],
    ),
  ),
)

const choice = object({ id, text: line(300), points: maybe(number(-1_000, 1_000)) })
const choices = unique(choice, 100, 1)
export const fileKind = one('picture', 'pdf', 'sound', 'text')
const base = {
  id,
  text: line(1_000),
  required: yes,
  help: maybe(text(5_000)),
  when: maybe(condition),
  private: maybe(yes),
  requiredAtDesk: maybe(yes),
  shownAgain: maybe(yes),
  eachTime: maybe(yes),
}
const some = maybe(count)

const question = tagged('kind', {
  short: base,
  long: { ...base, leastWords: some, mostWords: some, leastSentences: some, mostSentences: some },
  one: { ...base, choices },
  several: { ...base, choices, least: some, most: some },
  yesno: base,
  number: {
    ...base,
    least: maybe(anyNumber),
    most: maybe(anyNumber),
    unit: maybe(text(30)),
    whole: maybe(yes),
  },
  scale: {
    ...base,
    least: whole(-1_000_000, 1_000_000),
    most: whole(-1_000_000, 1_000_000),
    leastName: text(60),
    mostName: text(60),
  },
  date: base,
  url: base,
  time: base,
  email: base,
  phone: base,
  address: { ...base, travel: maybe(yes) },
  items: {
    ...base,
    items: unique(object({ id, text: line(300), most: whole(1, 1_000) }), 100, 1),
    least: some,
    most: some,
    unit: maybe(text(30)),
  },
  file: { ...base, accepts: distinct(fileKind, 4, 1), mostBytes: whole(1_024, LARGEST_FILE) },
  passage: base,
  section: base,
})
export const questions = unique(question)

const effect = tagged('do', {
  close: { message: text(2_000), services: list(id, 500), enquiry: yes },
  look: { note: text(500) },
  points: { points: whole(-1_000_000, 1_000_000) },
  minutes: { minutes: whole(-14_400, 14_400), times: maybe(id), of: maybe(id) },
  item: { name: line(), price: minor, times: maybe(id), of: maybe(id) },
  tag: { tag: line(60) },
  deposit: { amount: minor },
  suggest: { service: id },
  enquiry: {},
})

export const outcome = one('fits', 'look', 'closed')
const sheet = {
  questions,
  rules: unique(object({ id, name: line(), when: condition, effect })),
  bands: list(object({ from: anyNumber, outcome, name: maybe(text(80)) }), 100),
  lookAbove: maybe(minor),
  enquiryAbove: maybe(minor),
}
export const questionnaire = exactly<Questionnaire, Condition>()(
  object({
    id,
    name: line(),
    version: count,
    ...sheet,
    draft: maybe(exactly<Sheet, Condition>()(object(sheet))),
    past: maybe(list(object({ version: count, questions }), 200)),
  }),
)
