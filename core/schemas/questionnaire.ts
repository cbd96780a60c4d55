import { EFFECTS } from '../questions/effects.ts'
import { KINDS } from '../questions/kinds/index.ts'
import type { Condition, Effect, Question, Questionnaire, Sheet } from '../questions/types.ts'
import { count, id, minor } from '../shape/plain.ts'
import {
  anyNumber,
  anyOf,
  byHand,
  exactly,
  line,
  link,
  list,
  maybe,
  named,
  object,
  one,
  oneOf,
  type Schema,
  tagged,
  text,
  unique,
  yes,
} from '../shape/shape.ts'

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

/** Each kind says its own shape; that it is that of its type, its tests hold. */
const question: Schema<Question> = byHand(({ of }) =>
  of(
    tagged(
      'kind',
      Object.fromEntries(Object.entries(KINDS).map(([kind, { shape }]) => [kind, { ...base, ...shape }])),
    ),
  ),
)
export const questions = unique(question)

const effect: Schema<Effect> = byHand(({ of }) =>
  of(tagged('do', Object.fromEntries(Object.entries(EFFECTS).map(([name, { shape }]) => [name, shape])))),
)

export const outcome = one('fits', 'look', 'closed')
const sheet = {
  questions,
  rules: unique(object({ id, name: line(), when: condition, effect })),
  bands: list(object({ from: anyNumber, outcome, name: maybe(text(80)) }), 100),
  lookAbove: maybe(minor),
  enquiryAbove: maybe(minor),
}
export const questionnaire = exactly<Questionnaire, Condition | Question | Effect>()(
  object({
    id,
    name: line(),
    version: count,
    ...sheet,
    draft: maybe(exactly<Sheet, Condition | Question | Effect>()(object(sheet))),
    past: maybe(list(object({ version: count, questions }), 200)),
  }),
)
