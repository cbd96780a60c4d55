import Joi from 'joi'
import { LARGEST_FILE } from '../questions/file-kinds.ts'
import { count, id, line, maybeLine, minor, text } from './plain.ts'
import { all, byKind, kind, object, required, unique } from './shapes.ts'
import { oneOf, tagged } from './tagged.ts'

const conditionLink = Joi.link('#condition')
const comparison = object({
  question: required(id),
  is: required(Joi.string().valid('=', '≠', '<', '≤', '>', '≥', 'includes')),
  value: required(Joi.alternatives().try(Joi.string().allow('').max(500), Joi.number(), Joi.boolean())),
})
export const condition = oneOf(
  (value) => ('question' in value ? comparison : undefined),
  [
    object({ all: required(Joi.array().items(conditionLink)) }),
    object({ any: required(Joi.array().items(conditionLink)) }),
    object({ not: required(conditionLink) }),
    object({ question: required(id), is: kind('answered') }),
    comparison,
    object({ person: required(Joi.string().valid('new', 'known', 'invited')) }),
    object({ tag: required(line(60)) }),
    object({ attempts: required(count) }),
  ],
).id('condition')

const choices = required(
  unique(object({ ...all({ id, text: line(300) }), points: Joi.number().min(-1_000).max(1_000) }), 100).min(
    1,
  ),
)
const question = (name: string, more: Joi.SchemaMap = {}): Joi.ObjectSchema =>
  object({
    ...all({ id, text: line(1_000), required: Joi.boolean() }),
    help: maybeLine(5_000),
    when: condition,
    private: Joi.boolean(),
    requiredAtDesk: Joi.boolean(),
    shownAgain: Joi.boolean(),
    eachTime: Joi.boolean(),
    kind: kind(name),
    ...more,
  })

const bound = Joi.number()
export const questions = unique(
  byKind({
    short: question('short'),
    long: question('long', {
      leastWords: count,
      mostWords: count,
      leastSentences: count,
      mostSentences: count,
    }),
    one: question('one', { choices }),
    several: question('several', { choices, least: count, most: count }),
    yesno: question('yesno'),
    number: question('number', { least: bound, most: bound, unit: maybeLine(30), whole: Joi.boolean() }),
    scale: question('scale', {
      least: required(bound.integer()),
      most: required(bound.integer()),
      leastName: required(maybeLine(60)),
      mostName: required(maybeLine(60)),
    }),
    date: question('date'),
    url: question('url'),
    time: question('time'),
    email: question('email'),
    phone: question('phone'),
    address: question('address', { travel: Joi.boolean() }),
    items: question('items', {
      items: required(unique(object(all({ id, text: line(300), most: count.max(1_000) })), 100).min(1)),
      least: count,
      most: count,
      unit: maybeLine(30),
    }),
    file: question('file', {
      accepts: required(
        Joi.array()
          .items(Joi.string().valid('picture', 'pdf', 'sound', 'text'))
          .unique()
          .min(1),
      ),
      mostBytes: required(Joi.number().integer().min(1_024).max(LARGEST_FILE)),
    }),
    passage: question('passage'),
    section: question('section'),
  }),
)

const does = (name: string, more: Joi.SchemaMap = {}): Joi.ObjectSchema => object({ do: kind(name), ...more })
const effectShape = tagged('do', {
  close: does(
    'close',
    all({ message: text(2_000), services: Joi.array().items(id), enquiry: Joi.boolean() }),
  ),
  look: does('look', all({ note: maybeLine(500) })),
  points: does('points', all({ points: Joi.number().integer() })),
  minutes: does('minutes', { minutes: required(Joi.number().integer()), times: id, of: id }),
  item: does('item', { ...all({ name: line(), price: minor }), times: id, of: id }),
  tag: does('tag', all({ tag: line(60) })),
  deposit: does('deposit', all({ amount: minor })),
  suggest: does('suggest', all({ service: id })),
  enquiry: does('enquiry'),
})

const outcome = Joi.string().valid('fits', 'look', 'closed')
const sheet = {
  ...all({
    questions,
    rules: unique(object(all({ id, name: line(), when: condition, effect: effectShape }))),
    bands: Joi.array().items(object({ ...all({ from: Joi.number(), outcome }), name: maybeLine(80) })),
  }),
  lookAbove: minor,
  enquiryAbove: minor,
}
export const questionnaire = object({
  ...all({ id, name: line(), version: count }),
  ...sheet,
  draft: object(sheet),
  past: Joi.array()
    .items(object(all({ version: count, questions })))
    .max(200),
})
